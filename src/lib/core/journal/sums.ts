/**
 * Every sum there is, declared once: which postings it adds, and by which fields. Both stores make their tables
 * from this, and nothing else adds to them.
 */
import { NO_EVENT } from '../books/names';
import type { Kind } from '../daybook/kinds';
import { headOf, idIn, type AccountHead } from './accounts';
import type { JournalEntry } from './journal-entry';
import type { Figure, Posting, PostingField } from './posting';

/** What a sum is by: a field of the posting, its account's id, or a field of the entry. */
type By = PostingField | 'id' | 'event' | 'day' | 'hour';

interface Adds {
  readonly figure: Figure;
  readonly accounts: readonly AccountHead[];
  /** Credits count as more. */
  readonly isCredit?: true;
  readonly of?: readonly Kind[];
  /** Only debits, or only credits. */
  readonly side?: 'debit' | 'credit';
  /** Only accounts with this id. */
  readonly ids?: readonly string[];
  readonly notIds?: readonly string[];
  /** Only postings without this field. */
  readonly lacks?: PostingField;
}

export interface SumSpec {
  /** Fields of the key, and where each comes from; a posting that lacks one is not added. */
  readonly by: Readonly<Record<string, By>>;
  readonly fields: Readonly<Record<string, Adds>>;
}

const OF_SALES = ['sale.rung', 'sale.voided', 'void.undone'] as const satisfies readonly Kind[];
const OF_BACK = [
  'payment.reversed',
  'sale.voided',
  'void.undone',
] as const satisfies readonly Kind[];
const EARNED = ['sales', 'service', 'uplift', 'tax'] as const;
const OUT_OF_COUNT = ['uncounted', 'gone:uncounted'];

const earned: Adds = { figure: 'amount', accounts: EARNED, isCredit: true };
const taxed: Adds = { figure: 'amount', accounts: ['tax'], isCredit: true };
/** Sales themselves: parts of payments have postings of a slip as well, with a way. */
const sold: Adds = { figure: 'documents', accounts: ['slip'], lacks: 'way' };

export const sumSpecs = {
  eventTotals: {
    by: { event: 'event' },
    fields: {
      sales: sold,
      takings: earned,
      tax: taxed,
      units: { figure: 'things', accounts: ['place', 'slip'], of: OF_SALES },
      cost: { figure: 'amount', accounts: ['cost'] },
    },
  },
  eventItems: {
    by: { event: 'event', item: 'item' },
    fields: {
      quantity: {
        figure: 'quantity',
        accounts: ['place'],
        of: OF_SALES,
        ids: ['gone:sold', 'gone:uncounted'],
      },
      takings: earned,
      tax: taxed,
    },
  },
  eventHours: {
    by: { event: 'event', day: 'day', hour: 'hour' },
    fields: { sales: sold, takings: { ...earned, of: OF_SALES } },
  },
  eventTaxes: {
    by: { event: 'event', tax: 'tax', rate: 'rate' },
    fields: { base: { figure: 'base', accounts: ['tax'], isCredit: true }, amount: taxed },
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
      /** Given back, of parts and of voided sales. */
      back: { figure: 'amount', accounts: ['drawer'], of: OF_BACK, isCredit: true },
    },
  },
  stock: {
    by: { place: 'id', item: 'item' },
    fields: { quantity: { figure: 'quantity', accounts: ['place'], notIds: OUT_OF_COUNT } },
  },
} as const satisfies Readonly<Record<string, SumSpec>>;
export type SumName = keyof typeof sumSpecs;
export const sumNames = Object.keys(sumSpecs) as readonly SumName[];

/** Adds one figure of a posting to one field of a sum. */
interface Adder {
  readonly sum: SumName;
  readonly field: string;
  readonly figure: Figure;
  readonly by: readonly (readonly [string, By])[];
  readonly sign: 1 | -1;
  readonly of: ReadonlySet<Kind> | null;
  readonly side: Adds['side'] | null;
  readonly ids: ReadonlySet<string> | null;
  readonly notIds: ReadonlySet<string> | null;
  readonly lacks: PostingField | null;
}

const addersByHead: ReadonlyMap<string, readonly Adder[]> = (() => {
  const found = new Map<string, Adder[]>();
  for (const [sum, { by, fields }] of Object.entries<SumSpec>(sumSpecs))
    for (const [field, adds] of Object.entries(fields))
      for (const head of adds.accounts) {
        const adder: Adder = {
          sum: sum as SumName,
          field,
          figure: adds.figure,
          by: Object.entries(by),
          sign: adds.isCredit === true ? -1 : 1,
          of: adds.of === undefined ? null : new Set(adds.of),
          side: adds.side ?? null,
          ids: adds.ids === undefined ? null : new Set(adds.ids),
          notIds: adds.notIds === undefined ? null : new Set(adds.notIds),
          lacks: adds.lacks ?? null,
        };
        found.set(head, [...(found.get(head) ?? []), adder]);
      }
  return found;
})();

/** What one row of a sum is added to by. */
export interface SumChange {
  readonly sum: SumName;
  readonly key: Readonly<Record<string, string | number>>;
  readonly fields: Record<string, number>;
}

/** What an entry adds to every sum, each row once. */
export function sumsOf(entry: JournalEntry): SumChange[] {
  const found = new Map<string, SumChange>();
  for (const posting of entry.postings) {
    for (const adder of addersByHead.get(headOf(posting.account)) ?? []) {
      const by = figureOf(adder, posting, entry.kind);
      if (by === 0) continue;
      const key = keyOf(adder, posting, entry);
      if (key === null) continue;
      const name = `${adder.sum} ${Object.values(key).join(' ')}`;
      const row = found.get(name);
      if (row === undefined)
        found.set(name, { sum: adder.sum, key, fields: { [adder.field]: by } });
      else row.fields[adder.field] = (row.fields[adder.field] ?? 0) + by;
    }
  }
  return [...found.values()];
}

function figureOf(adder: Adder, posting: Posting, kind: Kind): number {
  const figure = posting[adder.figure];
  if (figure === undefined || figure === 0) return 0;
  const { of, side, ids, notIds, lacks } = adder;
  if (of !== null && !of.has(kind)) return 0;
  if (side !== null && figure > 0 !== (side === 'debit')) return 0;
  if (lacks !== null && posting[lacks] !== undefined) return 0;
  if (ids !== null && !ids.has(idIn(posting.account))) return 0;
  if (notIds?.has(idIn(posting.account)) === true) return 0;
  return adder.sign * figure;
}

function keyOf(
  { by }: Adder,
  posting: Posting,
  { event, day, hour }: JournalEntry,
): Record<string, string | number> | null {
  const key: Record<string, string | number> = {};
  for (const [field, from] of by) {
    const value =
      from === 'id'
        ? idIn(posting.account)
        : from === 'event'
          ? (event ?? NO_EVENT)
          : from === 'day'
            ? day
            : from === 'hour'
              ? hour
              : posting[from];
    if (value === undefined || value === null) return null;
    key[field] = value;
  }
  return key;
}
