/** All vouchers with what is left on each, and what is owed on them together. Minor units. */
import type { Row } from '../books/tables';
import { sum } from '../money/units';
import { keptOf, type KeptTax } from './one-purpose';
import { lastDayOf } from './spend';

export const VOUCHER_STANDS = [
  'open',
  'used up',
  'out of date',
  'blocked',
  'spent twice',
  'sold twice',
] as const;
/** How a voucher stands; the last two are to be looked into. */
export type VoucherStands = (typeof VOUCHER_STANDS)[number];

export interface VoucherRow {
  readonly number: string;
  /** When it was first sold or made, ISO 8601, and on which sale; empty where it was made in another's place. */
  readonly at: string;
  readonly sale: string;
  readonly saleNumber: string;
  readonly value: number;
  /** Below nothing where more was spent than there was. */
  readonly left: number;
  /** Empty for any day. */
  readonly until: string;
  /** What is left of the tax that it was sold with, where it is for goods of one tax. */
  readonly kept: KeptTax | null;
  readonly stands: VoucherStands;
  /** Why it was blocked or extended; empty where nothing was said. */
  readonly reason: string;
}

type Sold = Pick<
  Row<'vouchers'>,
  'id' | 'number' | 'at' | 'sale' | 'saleNumber' | 'value' | 'until' | 'kept'
>;

/** @param today The local day, ISO 8601. @returns The latest first. */
export function voucherList(
  sold: readonly Sold[],
  states: readonly Row<'voucherStates'>[],
  sums: readonly Pick<Row<'heldSums'>, 'account' | 'amount'>[],
  today: string,
): readonly VoucherRow[] {
  const byNumber = new Map<string, Sold[]>();
  for (const each of sold) {
    const all = byNumber.get(each.number);
    if (all === undefined) byNumber.set(each.number, [each]);
    else all.push(each);
  }
  const stateOf = new Map(states.map((state) => [state.id, state]));
  const left = new Map(sums.map(({ account, amount }) => [account, amount]));
  return [...byNumber]
    .map(([number, all]) =>
      rowOf(number, all, stateOf.get(number), left.get(`voucher:${number}`) ?? 0, today),
    )
    .sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : a.number < b.number ? -1 : 1));
}

function rowOf(
  number: string,
  sold: readonly Sold[],
  state: Row<'voucherStates'> | undefined,
  balance: number,
  today: string,
): VoucherRow {
  const [first] = sold.toSorted((a, b) => (a.at < b.at ? -1 : 1));
  const until = lastDayOf({ sold, state });
  const [left, value] = [balance === 0 ? 0 : -balance, sum(sold.map((each) => each.value))];
  return {
    number,
    ...{ at: first?.at ?? '', sale: first?.sale ?? '', saleNumber: first?.saleNumber ?? '' },
    ...{ value, left, until },
    kept: keptOf(sold, Math.max(0, left)),
    stands:
      left < 0
        ? 'spent twice'
        : sold.length > 1
          ? 'sold twice'
          : state?.isBlocked === true
            ? 'blocked'
            : left === 0
              ? 'used up'
              : until !== '' && until < today
                ? 'out of date'
                : 'open',
    reason: state?.reason ?? '',
  };
}

/** What is owed on all of them together: what can still be spent, or could be again. */
export const owedOn = (rows: readonly VoucherRow[]): number =>
  sum(rows.map(({ left }) => Math.max(0, left)));
