import type { Kind } from '../daybook/kinds';
import type { Posting } from './posting';

/** An entry as the journal has it. */
export interface JournalEntry {
  readonly entry: string;
  readonly kind: Kind;
  readonly event: string | null;
  /** The local day and hour of what it is about; of what has none, the day of its time in UTC, and no hour. */
  readonly day: string;
  readonly hour: number | null;
  readonly postings: readonly Posting[];
}
