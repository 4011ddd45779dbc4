/** A daybook as text, one entry as JSON on each line, checked and worked out. */
import { chainFault, EMPTY_CHAIN, headAfter, type ChainHead } from '../daybook/chain';
import { entrySchema } from '../daybook/entry';
import type { KnownEntry } from '../daybook/kinds';
import { firstIssue } from '../daybook/read-entry';
import { becomes, changesIn } from '../judging/becomes';
import { jsonOrNull } from '../formats/json-or-null';
import { Books } from './books';
import type { Change } from './change';

/** Something wrong with one line; the lines after it are read all the same. */
export interface ReplayFault {
  /** From 1. */
  readonly line: number;
  readonly code: string;
  readonly message: string;
}

export interface Replay {
  readonly books: Books;
  readonly entries: number;
  readonly faults: readonly ReplayFault[];
}

/** Entries of a daybook that can be applied, in their order, and what is wrong with the others. */
export interface ReadDaybook {
  readonly known: readonly KnownEntry[];
  /** What they do to the books. */
  readonly changes: readonly Change[];
  /** All that were read, also those that cannot be applied. */
  readonly entries: number;
  readonly faults: readonly ReplayFault[];
}

/**
 * Reads a daybook and verifies each device's chain. Entries of several devices may be mixed in any way as long
 * as each device's stand in their own order.
 */
export function readDaybook(ndjson: string): ReadDaybook {
  const known: KnownEntry[] = [];
  const changes: Change[] = [];
  const faults: ReplayFault[] = [];
  const heads = new Map<string, ChainHead>();
  let entries = 0;
  for (const [at, text] of ndjson.split('\n').entries()) {
    if (text.trim() === '') continue;
    const line = at + 1;
    const fault = (code: string, message: string): void =>
      void faults.push({ line, code, message });
    const parsed = entrySchema.safeParse(jsonOrNull(text));
    if (!parsed.success) {
      const { where, why } = firstIssue(parsed.error);
      fault('line/not-an-entry', `${where}: ${why}`);
      continue;
    }
    const entry = parsed.data;
    const broken = chainFault(entry, heads.get(entry.device) ?? EMPTY_CHAIN);
    if (broken !== null) fault(broken.code, `entry ${entry.seq} of device ${entry.device}`);
    heads.set(entry.device, headAfter(entry));
    const became = becomes(entry, { evidence: null });
    const which = `entry ${entry.seq} of device ${entry.device}`;
    if (became.state === 'unread') {
      const { fault: why } = became;
      fault(why.code, `${which}${'where' in why ? `, ${why.where}: ${why.why}` : ''}`);
    } else if (became.state === 'unfit') fault('body/unfit', `${which}: ${became.why}`);
    else {
      known.push(became.known);
      changes.push(...changesIn(became));
    }
    entries += 1;
  }
  return { known, changes, entries, faults };
}

/** Works out the books of a daybook. */
export function replay(ndjson: string): Replay {
  const { changes, entries, faults } = readDaybook(ndjson);
  const books = new Books();
  books.apply(changes);
  return { books, entries, faults };
}
