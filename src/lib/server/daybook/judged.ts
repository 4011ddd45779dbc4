/** Judging what arrived: what becomes of each entry, how the daybook has it, and what its device is told. */
import { setImmediate } from 'node:timers/promises';
import type { Change } from '../../core/books/change';
import type { Entry } from '../../core/daybook/entry';
import type { KnownEntry } from '../../core/daybook/kinds';
import { readEntry, type EntryRead } from '../../core/daybook/read-entry';
import type { Kept } from '../../core/daybook/sync-messages';
import { becomesOf, changesIn, type Becoming } from '../../core/judging/becomes';
import type { Evidence } from '../../core/judging/evidence';
import type { DeviceRef } from './device-ref';
import { deepen, gatherEvidence, type Gathering } from './gather-evidence';
import { faultMessage, verdictMessage } from '../words/entry-words';

export interface Appended {
  readonly entry: Entry;
  readonly state: Becoming['state'];
  /** The entry as it was read; null for one that could not be. */
  readonly known: KnownEntry | null;
  readonly changes: readonly Change[];
  readonly kept: Kept | null;
}

/**
 * How many are judged before the database gets them to store: it works while the next are judged, so that the first
 * are few. What was handed on goes out, and others are answered, after each few of them.
 */
const FIRST_PART = 20;
const PART = 60;
const BREATH = 2;

interface Judging {
  readonly entries: readonly Entry[];
  readonly ref: DeviceRef;
  /** Milliseconds since 1970. */
  readonly arrival: number;
  /** Entries whose figures a store has refused. */
  readonly unfit: ReadonlySet<string>;
  /** Whether it holds what its hashes say; what follows one that does not is not judged. */
  readonly isSound: (at: number) => boolean;
  /** Given what was judged, some at a time; it is not waited for. */
  readonly store: (part: readonly Appended[]) => void;
}

/** What becomes of each, in their order: each is judged by the books with those before it in them. */
export async function judged(
  gathering: Gathering,
  { entries, ref, arrival, unfit, isSound, store }: Judging,
): Promise<{ readonly appended: readonly Appended[]; readonly evidence: Evidence | null }> {
  if (entries.length === 0) return { appended: [], evidence: null };
  const reads = entries.map((entry) => readEntry(entry));
  const known = reads.flatMap((read) => (read.ok ? [read.entry] : []));
  const evidence = await gatherEvidence(gathering, ref.device, known, arrival, ref.isServer);
  const appended: Appended[] = [];
  let stored = 0;
  const handOn = (): void => {
    if (appended.length > stored) store(appended.slice(stored));
    stored = appended.length;
  };
  for (const [at, entry] of entries.entries()) {
    if (!isSound(at)) break;
    const isRefused = unfit.has(entry.id);
    appended.push(await judgedOne(gathering, entry, reads[at]!, evidence, isRefused));
    if (appended.length >= stored + (stored === 0 ? FIRST_PART : PART)) handOn();
    if (at % BREATH === BREATH - 1) await setImmediate();
  }
  handOn();
  return { appended, evidence };
}

/** Judges one entry; what is not barred is what the ones after it are judged by. */
export async function judgedOne(
  gathering: Gathering,
  entry: Entry,
  read: EntryRead,
  evidence: Evidence,
  isRefused = false,
): Promise<Appended> {
  let became = becomesOf(read, { evidence, isRefused });
  if ('verdict' in became && became.verdict.code !== 'right/missing') {
    // It may have been right by what was set up before.
    await deepen(gathering, became.known, evidence);
    became = becomesOf(read, { evidence });
  }
  const taken = takenBy(evidence, became);
  return { entry, changes: changesIn(taken), ...asStored(entry, taken) };
}

/** With it in the evidence; what cannot be taken into that blocks nothing either. */
function takenBy(evidence: Evidence, became: Becoming): Becoming {
  if (became.state !== 'applied' && became.state !== 'doubted') return became;
  const { known, changes } = became;
  try {
    evidence.take(known, changes);
    return became;
  } catch (error) {
    return { state: 'unfit', known, why: error instanceof Error ? error.message : String(error) };
  }
}

/** How the daybook has it, and what the device is told. */
function asStored(entry: Entry, became: Becoming): Omit<Appended, 'entry' | 'changes'> {
  const { id } = entry;
  switch (became.state) {
    case 'applied':
      return { state: 'applied', known: became.known, kept: null };
    case 'doubted':
    case 'barred': {
      const { state, known, verdict } = became;
      const message = verdictMessage(known, verdict, state);
      return { state, known, kept: { id, state, code: verdict.code, message } };
    }
    case 'unread': {
      const { code } = became.fault;
      const message = faultMessage(became.fault);
      return { state: 'unread', known: null, kept: { id, state: 'unread', code, message } };
    }
    case 'unfit':
      return { state: 'unfit', known: null, kept: unfit(id, became.why) };
  }
}

/** What is said of an entry that can be read, and whose effect cannot be worked out. */
export function unfit(id: string, why: string): Kept {
  const message = `It cannot be applied: ${why}; it is kept as it was received.`;
  return { id, state: 'unfit', code: 'body/unfit', message };
}
