/** What an entry is judged by: the books as they stand before it, and set-up as it was. */
import { Books } from '../books/books';
import type { Change } from '../books/change';
import type { Row, TableName } from '../books/tables';
import { PeopleHistory } from '../people/people-history';
import { Joined } from '../customer/joined';
import type { BodyOf, KnownEntry } from '../daybook/kinds';
import { sum } from '../money/units';
import { History, isJudged } from './history';

/** The device that wrote it, as the server knows it. */
export interface WritingDevice {
  readonly id: string;
  readonly number: number;
  /** Numbers of its last sale and its last final read; 0 before the first. */
  lastSale: number;
  lastRead: number;
}

/** Tables that nothing is judged by, of which every sale fills some: the evidence does without them. */
const NOT_ASKED_FOR = [
  ...['eventTotals', 'eventPaidIn', 'eventItems', 'eventHours', 'eventTaxes', 'eventTips'],
  ...['eventWays', 'stock', 'moves'],
] as const satisfies readonly TableName[];
const isAskedFor = ({ table }: Change): boolean =>
  !(NOT_ASKED_FOR as readonly string[]).includes(table);

type JudgedTable = Exclude<TableName, (typeof NOT_ASKED_FOR)[number]>;

/** The books, as far as anything is judged by them. */
export interface JudgedBooks {
  readonly apply: Books['apply'];
  put<T extends TableName>(table: T, rows: readonly Row<T>[]): void;
  row<T extends JudgedTable>(table: T, key: string): Row<T> | undefined;
  rows<T extends JudgedTable>(table: T): Row<T>[];
  where<T extends JudgedTable, F extends keyof Row<T> & string>(
    table: T,
    field: F,
    is: Row<T>[F],
  ): Row<T>[];
}

export class Evidence {
  readonly people = new PeopleHistory();
  readonly history = new History();
  /** Rows that the entries speak of, and no others: what is missing here is not in the books. */
  readonly books: JudgedBooks = new Books();
  /** Who wrote the entries that others settle, by id; null for nobody. */
  readonly writers = new Map<string, string | null>();
  /** What the acquirer said to the server of money that goes back to cards, by refund. */
  readonly refunds = new Map<string, string>();
  /** Numbers that the server gave to invoices spoken of, and those that they say are theirs. */
  invoiceNumbers: readonly {
    readonly invoice: string;
    readonly series: string;
    readonly n: number;
    readonly number: string;
  }[] = [];
  /** Entries of numbers that bear the server's own seal, by their ids. */
  readonly sealed = new Set<string>();
  /** How far the chain of each device is known, of those that have written anything. */
  heads: ReadonlyMap<string, { readonly seq: number; readonly hash: string }> = new Map();
  /** Whether the server itself wrote them: no right is asked for then. */
  isServer = false;
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

  #joined: Joined | null = null;
  /** Which records of customers are of one person, of those that entries speak of. */
  get joined(): Joined {
    return (this.#joined ??= new Joined(this.books.rows('customers')));
  }

  /** What was agreed with a customer around a moment, on any of their records. */
  agreedWith(customer: string, stamp: string): readonly Omit<BodyOf<'customer.set'>, 'id'>[] {
    const records = this.joined.records(customer);
    return records.flatMap((id) => this.history.inForce('customer.set', id, stamp));
  }

  /** What stands on an account of that name and on those that are one with it. Minor units. */
  standsOn(account: string): number {
    const rows = this.joined.accounts(account).map((each) => this.books.row('heldSums', each));
    return sum(rows.map((row) => row?.amount ?? 0));
  }

  /** What has been judged is what the entries after it are judged by. @param changes What it changes. */
  take(entry: KnownEntry, changes: readonly Change[]): void {
    this.books.apply(changes.filter(isAskedFor));
    if (entry.kind.startsWith('customer.')) this.#joined = null;
    if (isJudged(entry.kind)) this.history.take(entry as Parameters<History['take']>[0]);
    if (entry.kind === 'sale.rung') this.device.lastSale = entry.body.number;
    if (entry.kind === 'drawer.counted') this.device.lastRead = entry.body.number;
    this.writers.set(entry.id, entry.by);
  }
}
