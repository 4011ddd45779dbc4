/**
 * Every sum there is, declared once: which postings it adds, and by which fields. Both stores make their tables
 * from this, and nothing else adds to them.
 */
import { HELD_HEADS } from '../held/held-account';
import { NO_EVENT } from '../books/names';
import type { Kind } from '../daybook/kinds';
import { headOf, moneyHeads, type AccountHead } from './accounts';
import type { JournalEntry } from './journal-entry';
import type { Figure, Posting, PostingField } from './posting';

/**
 * What a sum is by: a field of the posting, or of the entry; or the account itself, where all slips are one, since
 * there is one for every sale.
 */
type By = PostingField | 'event' | 'day' | 'hour' | 'account';

interface Adds {
  readonly figure: Figure;
  readonly accounts: readonly AccountHead[];
  /** Credits count as more. */
  readonly isCredit?: true;
  readonly of?: readonly Kind[];
  /** Only debits, or only credits. */
  readonly side?: 'debit' | 'credit';
  /** Only at these places, or at none of these. */
  readonly places?: readonly string[];
  readonly notPlaces?: readonly string[];
  /** Only postings without this field. */
  readonly lacks?: PostingField;
  /** Not what points and rewards lower taxes by: sales alone. */
  readonly isOfNoWay?: true;
  /** Not of these entries. */
  readonly notOf?: readonly Kind[];
}

export interface SumSpec {
  /** Fields of the key, and where each comes from; a posting that lacks one is not added. */
  readonly by: Readonly<Record<string, By>>;
  readonly fields: Readonly<Record<string, Adds>>;
}

const OF_SALES = [
  'sale.rung',
  'sale.voided',
  'void.undone',
  'return.made',
  'sale.corrected',
  'refund.made',
] as const satisfies readonly Kind[];
const OF_BACK = [
  'payment.reversed',
  'sale.voided',
  'void.undone',
  'return.made',
  'sale.corrected',
  'refund.made',
] as const satisfies readonly Kind[];
const EARNED = ['sales', 'service', 'uplift', 'tax'] as const;
const OUT_OF_COUNT = ['uncounted', 'gone:uncounted'];

const earned: Adds = { figure: 'amount', accounts: EARNED, isCredit: true };
/** What points and rewards pay is no takings, nor the tax of a voucher before it is spent. */
const taken: Adds = {
  ...earned,
  accounts: [...EARNED, 'promotions', 'prepaid-tax'],
  notOf: ['voucher.lapsed'],
};
const taxed: Adds = { figure: 'amount', accounts: ['tax'], isCredit: true };
/** Sales themselves: parts of payments have postings of a slip as well, with a way. */
const sold: Adds = { figure: 'documents', accounts: ['slip'], lacks: 'way' };

export const sumSpecs = {
  eventTotals: {
    by: { event: 'event' },
    fields: {
      sales: sold,
      takings: taken,
      /** Of what was sold: that of a voucher is when it is spent, whenever it is due. */
      tax: { ...taxed, accounts: ['tax', 'prepaid-tax'], notOf: ['voucher.lapsed'] },
      units: { figure: 'things', accounts: ['place', 'slip'], of: OF_SALES },
      cost: { figure: 'amount', accounts: ['cost'] },
    },
  },
  /** Paid in on accounts that somebody holds: money that came, and nothing was sold. */
  eventPaidIn: {
    by: { event: 'event' },
    fields: {
      amount: {
        figure: 'amount',
        accounts: HELD_HEADS,
        of: OF_SALES,
        isCredit: true,
        lacks: 'way',
      },
    },
  },
  eventItems: {
    by: { event: 'event', item: 'item' },
    fields: {
      quantity: {
        figure: 'quantity',
        accounts: ['place'],
        of: OF_SALES,
        places: ['gone:sold', 'gone:uncounted'],
      },
      takings: earned,
      tax: taxed,
    },
  },
  eventHours: {
    by: { event: 'event', day: 'day', hour: 'hour' },
    fields: {
      sales: sold,
      takings: {
        ...earned,
        accounts: [...EARNED, 'prepaid-tax'],
        of: OF_SALES,
        isOfNoWay: true,
      },
    },
  },
  eventTaxes: {
    by: { event: 'event', tax: 'tax', rate: 'rate' },
    fields: { base: { figure: 'base', accounts: ['tax'], isCredit: true }, amount: taxed },
  },
  /** What stands on each account of an event: its trial balance. */
  eventAccounts: {
    by: { event: 'event', account: 'account' },
    fields: { amount: { figure: 'amount', accounts: moneyHeads } },
  },
  /** Tips by who took them. */
  eventTips: {
    by: { event: 'event', seller: 'seller' },
    fields: {
      parts: { figure: 'documents', accounts: ['tips'] },
      tips: { figure: 'amount', accounts: ['tips'], isCredit: true },
    },
  },
  eventWays: {
    by: { event: 'event', way: 'way' },
    fields: {
      parts: { figure: 'documents', accounts: ['slip'] },
      /** What was owed, with what cards paid above it; without surcharge and tips. */
      takings: { figure: 'amount', accounts: ['slip'], isCredit: true },
      surcharge: { figure: 'amount', accounts: ['surcharge'], isCredit: true },
      tips: { figure: 'amount', accounts: ['tips'], isCredit: true },
    },
  },
  drawerSums: {
    by: { drawer: 'drawer' },
    fields: {
      parts: { figure: 'documents', accounts: ['drawer'], of: ['payment.taken'] },
      handed: { figure: 'amount', accounts: ['drawer'], of: ['payment.taken'], side: 'debit' },
      change: {
        figure: 'amount',
        accounts: ['drawer'],
        of: ['payment.taken'],
        side: 'credit',
        isCredit: true,
      },
      rounding: { figure: 'amount', accounts: ['rounding'], of: ['payment.taken'], isCredit: true },
      /** Given back, of parts and of voided sales; what lies in another drawer than was booked, or in none. */
      back: { figure: 'amount', accounts: ['drawer'], of: OF_BACK, isCredit: true },
      /** Cash in between: paid in, more float; paid out, to the safe, into bags. */
      movedIn: { figure: 'amount', accounts: ['drawer'], of: ['cash.moved'], side: 'debit' },
      movedOut: {
        figure: 'amount',
        accounts: ['drawer'],
        of: ['cash.moved'],
        side: 'credit',
        isCredit: true,
      },
      /** Heard of after the final read, and settled as a difference. */
      late: { figure: 'amount', accounts: ['drawer'], of: ['drawer.late'], isCredit: true },
    },
  },
  /** What was done for a list of goods, by item. */
  listSums: {
    by: { list: 'list', item: 'item' },
    fields: {
      packed: { figure: 'quantity', accounts: ['packed'] },
      sent: { figure: 'quantity', accounts: ['sent'] },
      received: { figure: 'quantity', accounts: ['received'] },
    },
  },
  /** What stands on each account that somebody holds: credits are what is owed to them. */
  heldSums: {
    by: { account: 'account' },
    fields: { amount: { figure: 'amount', accounts: HELD_HEADS } },
  },
  /** What was handed over of an order, by its lines. */
  orderSums: {
    by: { order: 'list', line: 'item' },
    fields: { handed: { figure: 'quantity', accounts: ['handed'] } },
  },
  /** Points of each customer, and what they spent towards each reward; against them what was given in all. */
  pointSums: {
    by: { account: 'account', item: 'item' },
    fields: { quantity: { figure: 'quantity', accounts: ['points'] } },
  },
  stock: {
    by: { place: 'place', item: 'item' },
    fields: { quantity: { figure: 'quantity', accounts: ['place'], notPlaces: OUT_OF_COUNT } },
  },
} as const satisfies Readonly<Record<string, SumSpec>>;
export type SumName = keyof typeof sumSpecs;
export const sumNames = Object.keys(sumSpecs) as readonly SumName[];

/** Adds one figure of a posting to one field of a sum. */
interface Adder {
  /** Which of the sum's fields, in their order. */
  readonly at: number;
  readonly figure: Figure;
  readonly sign: 1 | -1;
  readonly side: Adds['side'] | null;
  readonly places: ReadonlySet<string> | null;
  readonly notPlaces: ReadonlySet<string> | null;
  readonly lacks: PostingField | null;
}
/** What postings of an account add to one sum. */
interface Adding {
  readonly sum: SumName;
  readonly by: readonly By[];
  /** Names of the key's fields, and of what is added, in the order in which they are declared. */
  readonly keys: readonly string[];
  readonly fields: readonly string[];
  readonly adders: Adder[];
}

type AddingsByHead = ReadonlyMap<string, readonly Adding[]>;

/** What postings of entries of a kind add, by the head of their account; made once for each kind. */
const addingsByKind = new Map<Kind, AddingsByHead>();
function addingsFor(kind: Kind): AddingsByHead {
  const made = addingsByKind.get(kind) ?? makeAddings(kind);
  addingsByKind.set(kind, made);
  return made;
}

function makeAddings(kind: Kind): AddingsByHead {
  const found = new Map<string, Adding[]>();
  for (const [sum, { by, fields }] of Object.entries<SumSpec>(sumSpecs))
    Object.values(fields).forEach((adds, at) => {
      if (adds.of?.includes(kind) === false || adds.notOf?.includes(kind) === true) return;
      for (const head of adds.accounts) {
        const all = found.get(head) ?? [];
        found.set(head, all);
        let adding = all.find((each) => each.sum === sum);
        if (adding === undefined) {
          adding = {
            sum: sum as SumName,
            by: Object.values(by),
            keys: Object.keys(by),
            fields: Object.keys(fields),
            adders: [],
          };
          all.push(adding);
        }
        adding.adders.push({
          at,
          figure: adds.figure,
          sign: adds.isCredit === true ? -1 : 1,
          side: adds.side ?? null,
          places: adds.places === undefined ? null : new Set(adds.places),
          notPlaces: adds.notPlaces === undefined ? null : new Set(adds.notPlaces),
          lacks: adds.lacks ?? (adds.isOfNoWay === true ? 'way' : null),
        });
      }
    });
  return found;
}

/** What one row of a sum is added to by. */
export interface SumChange {
  readonly sum: SumName;
  readonly key: Readonly<Record<string, string | number>>;
  readonly fields: Readonly<Record<string, number>>;
}

/** What an entry adds to every sum, each row once. */
export const sumsOf = (entry: JournalEntry): SumChange[] => foldSums([entry]);

/** What all of them add to every sum, each row once, in the order in which they were first added to. */
export function foldSums(journal: Iterable<JournalEntry>): SumChange[] {
  const rows = new Rows();
  for (const entry of journal) {
    const addings = addingsFor(entry.kind);
    for (const posting of entry.postings) {
      const all = addings.get(headOf(posting.account));
      if (all !== undefined) for (const adding of all) addTo(rows, adding, posting, entry);
    }
  }
  return rows.changes();
}

interface SumRow {
  readonly of: Adding;
  readonly key: readonly (string | number)[];
  /** In the order in which the fields are declared. */
  readonly totals: number[];
}
type Branch = Map<string | number, unknown>;

/** Rows by the fields of their keys, one level for each: no name has to be made up for every posting. */
class Rows {
  readonly #all: SumRow[] = [];
  readonly #roots = new Map<SumName, Branch>();

  /** @returns Null if the posting lacks a field of the key. */
  of(adding: Adding, posting: Posting, entry: JournalEntry): SumRow | null {
    const { sum, by, fields } = adding;
    let branch = this.#roots.get(sum);
    if (branch === undefined) this.#roots.set(sum, (branch = new Map<string | number, unknown>()));
    const last = by.length - 1;
    for (let at = 0; at < last; at += 1) {
      const value = valueOf(by[at]!, posting, entry);
      if (value === null) return null;
      let next = branch.get(value) as Branch | undefined;
      if (next === undefined) branch.set(value, (next = new Map<string | number, unknown>()));
      branch = next;
    }
    const value = valueOf(by[last]!, posting, entry);
    if (value === null) return null;
    let row = branch.get(value) as SumRow | undefined;
    if (row === undefined) {
      const key = by.map((from) => valueOf(from, posting, entry) ?? '');
      row = { of: adding, key, totals: fields.map(() => 0) };
      branch.set(value, row);
      this.#all.push(row);
    }
    return row;
  }

  changes(): SumChange[] {
    const changes: SumChange[] = [];
    for (const { of, key, totals } of this.#all) {
      const fields: Record<string, number> = {};
      let isAny = false;
      for (const [at, total] of totals.entries()) {
        if (total === 0) continue;
        fields[of.fields[at]!] = total;
        isAny = true;
      }
      // What an entry gives and takes again on one account adds nothing to it.
      if (!isAny) continue;
      const by: Record<string, string | number> = {};
      for (const [at, value] of key.entries()) by[of.keys[at]!] = value;
      changes.push({ sum: of.sum, key: by, fields });
    }
    return changes;
  }
}

function addTo(rows: Rows, adding: Adding, posting: Posting, entry: JournalEntry): void {
  let row: SumRow | null = null;
  for (const adder of adding.adders) {
    const figure = figureOf(adder, posting);
    if (figure === 0) continue;
    row ??= rows.of(adding, posting, entry);
    if (row === null) return;
    row.totals[adder.at] = row.totals[adder.at]! + figure;
  }
}

function figureOf(
  { figure: of, sign, side, places, notPlaces, lacks }: Adder,
  posting: Posting,
): number {
  const figure = posting[of];
  if (figure === undefined || figure === 0) return 0;
  if (side !== null && figure > 0 !== (side === 'debit')) return 0;
  if (lacks !== null && posting[lacks] !== undefined) return 0;
  if (places !== null && !places.has(posting.place ?? '')) return 0;
  if (notPlaces?.has(posting.place ?? '') === true) return 0;
  return sign * figure;
}

function valueOf(from: By, posting: Posting, entry: JournalEntry): string | number | null {
  if (from === 'event') return entry.event ?? NO_EVENT;
  if (from === 'day' || from === 'hour') return entry[from];
  if (from === 'account') return posting.account.startsWith('slip:') ? 'slip' : posting.account;
  return posting[from] ?? null;
}
