/** The journal as an accountant's ledger: double entries that balance, each with the numbers of its documents. */
import type { Books } from '../books/books';
import type { Kind, KnownEntry } from '../daybook/kinds';
import { localTime } from '../event/local-time';
import { journalOf } from '../journal';
import { headOf } from '../journal/accounts';
import type { Posting } from '../journal/posting';
import type { TakenBack } from '../journal/take-back';
import { readNumber, returnNumber, saleNumber } from '../sale/sale-number';
import type { LedgerBy } from './ledger-by';
import {
  DEFAULT_CHART,
  isMoneyHead,
  ledgerAccountOf,
  namesIn,
  shortOf,
  type Chart,
  type LedgerAccount,
} from './chart';

export interface LedgerPosting {
  readonly account: LedgerAccount;
  /** Minor units: debit positive, credit negative; never nothing. */
  readonly amount: number;
  /** Numbers of the documents that it is the sum of, in their order. */
  readonly documents: readonly string[];
}

export interface LedgerTransaction {
  /** ISO date. */
  readonly day: string;
  readonly what: string;
  /** They add up to nothing. */
  readonly postings: readonly LedgerPosting[];
}

export interface Ledger {
  readonly business: string;
  readonly currency: string;
  readonly transactions: readonly LedgerTransaction[];
}

export interface LedgerOptions {
  readonly by?: LedgerBy;
  /** Only what belongs to it. */
  readonly event?: string;
  /** Only these, such as what came since it was handed over; names are those of all. */
  readonly isWanted?: (entry: KnownEntry) => boolean;
  readonly chart?: Chart;
}

interface Summed {
  readonly account: LedgerAccount;
  amount: number;
  readonly documents: Set<string>;
}
interface Group {
  readonly day: string;
  readonly what: string;
  readonly sums: Map<string, Summed>;
}

/**
 * Posts a daybook.
 *
 * Days are those of the event's clock; what pays a sale stands on the sale's day, so that one document is never
 * spread over two. Minor units; nothing is rounded.
 *
 * @param entries In any order that keeps each device's own.
 * @param books What they come to, for names.
 */
export function ledgerOf(
  entries: readonly KnownEntry[],
  books: Books,
  { by = 'day', event, isWanted = () => true, chart = DEFAULT_CHART }: LedgerOptions = {},
): Ledger {
  const [business] = books.rows('businesses');
  const names = namesIn(books);
  const about = new Documents(entries, books);
  const shifts = by === 'shift' ? shiftsOf(entries) : null;
  const groups = new Map<string, Group>();
  for (const entry of entries) {
    if ((event !== undefined && entry.event !== event) || !isWanted(entry)) continue;
    const { postings } = journalOf(entry);
    const day = about.dayOf(entry);
    const shift = shifts?.get(entry.id) ?? null;
    const at =
      entry.event === null
        ? ''
        : (saidFirst(books.row('events', entry.event)?.name) ?? shortOf(entry.event));
    const drawer = shift === null ? '' : (names.drawers.get(shift) ?? '');
    const parts = {
      day: by === 'event' && entry.event !== null ? '' : day,
      event: at,
      drawer: shift,
    };
    const key = JSON.stringify(parts);
    const what = [at === '' ? 'Between events' : at, drawer].filter((each) => each !== '');
    const group: Group = groups.get(key) ?? { day, what: what.join(', '), sums: new Map() };
    for (const { posting, customer } of withCustomers(entry, postings, about)) {
      const { account: journal, amount = 0 } = posting;
      if (amount === 0 || !isMoneyHead(headOf(journal))) continue;
      const account = ledgerAccountOf(journal, chart, names, customer);
      const sum: Summed = group.sums.get(account.name) ?? {
        ...{ account, amount: 0 },
        documents: new Set(),
      };
      sum.amount += amount;
      sum.documents.add(about.numberOf(entry));
      group.sums.set(account.name, sum);
    }
    // An event stands on its last day: by then all of it is there.
    groups.set(key, by === 'event' && day > group.day ? { ...group, day } : group);
  }
  return {
    business: business?.name ?? '',
    // A daybook that begins in the middle may not say.
    currency: saidFirst(business?.currency) ?? 'GBP',
    transactions: [...groups.values()]
      .map(({ day, what, sums }) => ({
        day,
        what,
        postings: [...sums.values()]
          .filter(({ amount }) => amount !== 0)
          .map(({ account, amount, documents }) => ({ account, amount, documents: [...documents] }))
          .sort((a, b) => (a.account.name < b.account.name ? -1 : 1)),
      }))
      .filter(({ postings }) => postings.length > 0)
      .sort((a, b) => (`${a.day} ${a.what}` < `${b.day} ${b.what}` ? -1 : 1)),
  };
}

/** Postings of what is still to come by a way that needs a customer are split by customer. */
function withCustomers(
  entry: KnownEntry,
  postings: readonly Posting[],
  about: Documents,
): readonly { readonly posting: Posting; readonly customer: string | null }[] {
  const takes = takesOf(entry);
  if (takes !== null)
    return takes.flatMap(({ of, postings: taken }) =>
      taken.map((posting) => ({ posting, customer: about.customerOf(of, posting) })),
    );
  const of = entry.kind === 'payment.reversed' ? entry.body.takes.of : entry.id;
  return postings.map((posting) => ({ posting, customer: about.customerOf(of, posting) }));
}

/** What a void takes back, with whose each is; null for everything else. */
const takesOf = (entry: KnownEntry): readonly TakenBack[] | null =>
  entry.kind === 'sale.voided' || entry.kind === 'void.undone' ? entry.body.takes : null;

/** What each entry is called by people, and on which day it stands. */
class Documents {
  readonly #books: Books;
  readonly #devices: ReadonlyMap<string, number>;
  /** Numbers and days of sales, by their own id and by those of the parts that paid them. */
  readonly #sales = new Map<string, { readonly number: string; readonly day: string }>();
  readonly #customers = new Map<string, string>();

  constructor(entries: readonly KnownEntry[], books: Books) {
    this.#books = books;
    this.#devices = new Map(books.rows('devices').map(({ id, number }) => [id, number]));
    for (const entry of entries) {
      if (entry.kind === 'payment.taken' && entry.body.customer !== null)
        this.#customers.set(entry.id, entry.body.customer);
      if (entry.kind !== 'sale.rung') continue;
      const { deviceNumber, number, day, payments } = entry.body;
      const sale = { number: saleNumber(deviceNumber, number), day };
      for (const id of [entry.id, ...payments]) this.#sales.set(id, sale);
    }
  }

  dayOf(entry: KnownEntry): string {
    const sale = this.#sales.get(entry.id);
    if (sale !== undefined) return sale.day;
    const event = entry.event === null ? undefined : this.#books.row('events', entry.event);
    const [business] = this.#books.rows('businesses');
    const zone = saidFirst(event?.timeZone, business?.timeZone) ?? 'UTC';
    return localTime(Date.parse(entry.at), zone).day;
  }

  numberOf(entry: KnownEntry): string {
    const { kind } = entry;
    const sale = (id: string): string => this.#sales.get(id)?.number ?? shortOf(id);
    if (kind === 'sale.rung') return sale(entry.id);
    if (kind === 'payment.taken')
      return this.#sales.has(entry.id) ? sale(entry.id) : `part ${shortOf(entry.id)}`;
    if (kind === 'payment.reversed') return `back ${sale(entry.body.payment)}`;
    if (kind === 'sale.voided' || kind === 'void.undone') return `void ${sale(entry.body.sale)}`;
    if (kind === 'return.made') return returnNumber(entry.body.deviceNumber, entry.body.number);
    if (kind === 'drawer.opened') return `float ${entry.body.name}`;
    if (kind === 'drawer.counted')
      return readNumber(this.#devices.get(entry.device) ?? 0, entry.body.number);
    return `${this.#plainly.get(kind) ?? kind} ${shortOf(entry.id)}`;
  }
  /** Documents that have no number of their own. */
  readonly #plainly: ReadonlyMap<Kind, string> = new Map<Kind, string>([
    ['cash.moved', 'cash'],
    ['money.came', 'money'],
    ['money.undone', 'money back'],
    ['tips.shared', 'tips'],
    ['paid.out', 'paid'],
    ['drawer.late', 'late cash'],
    ['stock.moved', 'goods'],
    ['count.accepted', 'count'],
  ]);

  /** @param of The entry whose posting it is. */
  customerOf(of: string, { account }: Posting): string | null {
    if (headOf(account) !== 'owed') return null;
    const way = this.#books.row('ways', account.slice('owed:'.length));
    return way?.needsCustomer === true ? (this.#customers.get(of) ?? null) : null;
  }
}

/** The first that is said at all. */
const saidFirst = (...all: readonly (string | undefined)[]): string | undefined =>
  all.find((each) => each !== undefined && each !== '');

/**
 * Which drawer was in use when each entry was written: the one that its money went to, else the one that the device
 * used last at the event.
 */
function shiftsOf(entries: readonly KnownEntry[]): ReadonlyMap<string, string | null> {
  const shifts = new Map<string, string | null>();
  const inUse = new Map<string, string>();
  for (const entry of entries) {
    const at = `${entry.device} ${String(entry.event)}`;
    const drawer =
      journalOf(entry).postings.find((posting) => posting.drawer !== undefined)?.drawer ??
      inUse.get(at) ??
      null;
    if (drawer !== null) inUse.set(at, drawer);
    shifts.set(entry.id, drawer);
  }
  return shifts;
}
