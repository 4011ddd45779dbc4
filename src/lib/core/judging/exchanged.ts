/** Goods that came back and pay for others: what the sale says of it, and what the returns say. */
import type { Row } from '../books/tables';
import { sum } from '../money/units';
import { EXCHANGE } from '../payment/methods';
import type { Evidence } from './evidence';

/** What goods that came back paid of a slip, in parts that stand. Minor units. */
export function exchangedFor(slip: string, books: Evidence['books']): number {
  const parts = books.where('payments', 'slip', slip).filter(({ way }) => way === EXCHANGE);
  const standing = parts.filter(({ id }) => books.where('reversals', 'payment', id).length === 0);
  return sum(standing.map(({ clears }) => clears));
}

/** What returns say that they paid of it. Minor units. */
export const exchangedBy = (slip: string, returns: readonly Row<'returns'>[]): number =>
  sum(
    returns.flatMap(({ money }) =>
      money.flatMap(({ exchange, amount }) => (exchange === slip ? amount : [])),
    ),
  );
