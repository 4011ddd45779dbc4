/**
 * What becomes of an entry that arrives, or is read again: one place decides it, for every store.
 *
 * - *applied*: its changes are in the books;
 * - *doubted*: they are too, since it has happened, and it is a loose end;
 * - *barred*: it was not allowed, changes nothing, and goes to nobody;
 * - *unread*: this version cannot read it; it is tried again by each that comes;
 * - *unfit*: it can be read, but what it does cannot be worked out, or a store refuses its figures.
 *
 * Whatever it is, the entry itself is kept, and nothing that it holds makes this fail.
 */
import type { Change } from '../books/change';
import { changesOf } from '../books/changes';
import type { Entry } from '../daybook/entry';
import type { KnownEntry } from '../daybook/kinds';
import { readEntry, type BodyFault, type EntryRead } from '../daybook/read-entry';
import type { Evidence } from './evidence';
import { effectOf, judgeEntry } from './judge-entry';
import type { Verdict } from './verdict';

export type Becoming =
  | { readonly state: 'applied'; readonly known: KnownEntry; readonly changes: readonly Change[] }
  | {
      readonly state: 'doubted';
      readonly known: KnownEntry;
      readonly verdict: Verdict;
      readonly changes: readonly Change[];
    }
  | { readonly state: 'barred'; readonly known: KnownEntry; readonly verdict: Verdict }
  | { readonly state: 'unread'; readonly fault: BodyFault }
  | { readonly state: 'unfit'; readonly known: KnownEntry; readonly why: string };

/** By what it is decided. A store that takes what others have decided gives no evidence. */
export interface Grounds {
  readonly evidence: Evidence | null;
  /** Whether the store has refused its figures before. */
  readonly isRefused?: boolean;
  /** What of it is worked out, if not everything. */
  readonly changes?: (entry: KnownEntry) => readonly Change[];
}

export const becomes = (entry: Entry, grounds: Grounds): Becoming =>
  becomesOf(readEntry(entry), grounds);

/** As `becomes`, of an entry that has been read already. */
export function becomesOf(
  read: EntryRead,
  { evidence, isRefused = false, changes: work = changesOf }: Grounds,
): Becoming {
  if (!read.ok) return { state: 'unread', fault: read.fault };
  const { entry: known } = read;
  if (isRefused) return { state: 'unfit', known, why: 'its figures are refused' };
  try {
    const verdict = evidence === null ? null : judgeEntry(known, evidence);
    if (verdict === null) return { state: 'applied', known, changes: work(known) };
    return effectOf(known, verdict) === 'barred'
      ? { state: 'barred', known, verdict }
      : { state: 'doubted', known, verdict, changes: work(known) };
  } catch (error) {
    return { state: 'unfit', known, why: error instanceof Error ? error.message : String(error) };
  }
}

/** What it does to the books; nothing for what is not in them. */
export const changesIn = (becoming: Becoming): readonly Change[] =>
  'changes' in becoming ? becoming.changes : [];
