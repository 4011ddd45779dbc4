/** Notes and coins across the counter: what a person is likely to hand over, what goes back. */
import { currencyOf, denominationsOf } from '../money/currency';
import type { Pieces } from '../money/worth';

export interface Breakdown {
  readonly pieces: readonly Pieces[];
  /** Minor units that no coin of the currency can make. */
  readonly rest: number;
}

/**
 * The fewest notes and coins that make an amount, largest first.
 *
 * Units: minor units. `rest` is what the smallest coin cannot make up.
 * @example piecesOf(760, 'GBP').pieces // 1 × £5, 1 × £2, 1 × 50p, 1 × 10p
 */
export function piecesOf(amount: number, currency: string): Breakdown {
  let rest = amount;
  const pieces: Pieces[] = [];
  for (const value of denominationsOf(currency)) {
    const count = Math.floor(rest / value);
    if (count > 0) pieces.push({ value, count });
    rest -= count * value;
  }
  return { pieces, rest };
}

const MOST_SUGGESTIONS = 4;

/**
 * Sums of notes that somebody who owes `due` would hand over, smallest first, without the exact
 * amount. Each is the least that does it in some note or large coin, so no piece is one too many;
 * those of the fewest pieces are kept.
 *
 * Units: minor units.
 * @example likelyCash(1240, 'GBP') // => [1300, 1500, 2000, 5000]
 */
export function likelyCash(due: number, currency: string): number[] {
  if (due <= 0) return [];
  const { notes, coins, decimals } = currencyOf(currency);
  const large = coins.filter((coin) => coin >= 10 ** decimals);
  const sums = new Set([...notes, ...large].map((value) => Math.ceil(due / value) * value));
  sums.delete(due);
  return [...sums]
    .map((amount) => ({ amount, count: pieceCount(amount, currency) }))
    .sort((a, b) => a.count - b.count || a.amount - b.amount)
    .slice(0, MOST_SUGGESTIONS)
    .map(({ amount }) => amount)
    .sort((a, b) => a - b);
}

const pieceCount = (amount: number, currency: string): number =>
  piecesOf(amount, currency).pieces.reduce((all, { count }) => all + count, 0);
