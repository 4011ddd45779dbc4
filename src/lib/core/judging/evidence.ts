/** What an entry is judged by: the books as they stand before it, and set-up as it was. */
import { Books } from '../books/books';
import type { Change } from '../books/change';
import type { KnownEntry } from '../daybook/kinds';
import { PeopleHistory } from '../people/people-history';
import { History, isJudged } from './history';

/** The device that wrote it, as the server knows it. */
export interface WritingDevice {
  readonly id: string;
  readonly number: number;
  /** Numbers of its last sale and its last final read; 0 before the first. */
  lastSale: number;
  lastRead: number;
}

export class Evidence {
  readonly people = new PeopleHistory();
  readonly history = new History();
  /** Rows that the entries speak of, and no others: what is missing here is not in the books. */
  readonly books = new Books();
  /** Who wrote the entries that others settle, by id; null for nobody. */
  readonly writers = new Map<string, string | null>();
  /** What the acquirer said to the server of money that goes back to cards, by refund. */
  readonly refunds = new Map<string, string>();
  /** How far the chain of each device is known, of those that have written anything. */
  heads: ReadonlyMap<string, { readonly seq: number; readonly hash: string }> = new Map();
  /** Whether any item has a price of its own on the side that is not typed in. */
  hasOwnPrices = false;

  constructor(
    readonly business: string,
    readonly device: WritingDevice,
    /** Numbers of the business's devices, by id. */
    readonly numbers: ReadonlyMap<string, number>,
    /** When the entries arrived, milliseconds since 1970. */
    readonly arrival: number,
  ) {}

  /** What has been judged is what the entries after it are judged by. @param changes What it changes. */
  take(entry: KnownEntry, changes: readonly Change[]): void {
    this.books.apply(changes);
    if (isJudged(entry.kind)) this.history.take(entry as Parameters<History['take']>[0]);
    if (entry.kind === 'sale.rung') this.device.lastSale = entry.body.number;
    if (entry.kind === 'drawer.counted') this.device.lastRead = entry.body.number;
    this.writers.set(entry.id, entry.by);
  }
}
