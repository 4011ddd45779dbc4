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
 * What somebody who owes `due` would hand over in notes alone, smallest first, without the exact amount: sums in
 * which no note is one too many, the fewest notes first. If there are fewer than four, sums a little above them
 * with no smallest note join them.
 *
 * Units: minor units.
 * @example likelyCash(5880, 'GBP') // => [6000, 7000, 8000, 10000]
 */
export function likelyCash(due: number, currency: string): number[] {
  if (due <= 0) return [];
  const notes = [...currencyOf(currency).notes].sort((a, b) => a - b);
  const [smallest, largest] = [notes[0], notes.at(-1)];
  if (smallest === undefined || largest === undefined) return [];
  const sums: number[] = [];
  const first = Math.ceil(due / smallest) * smallest;
  for (let sum = first; sum < due + largest; sum += smallest) if (sum !== due) sums.push(sum);
  const likely = fewestFirst(
    sums.filter((sum) =>
      canMake(
        sum,
        notes.filter((note) => note > sum - due),
      ),
    ),
    notes,
  ).slice(0, MOST_SUGGESTIONS);
  const round = notes.slice(1);
  const near = sums.filter(
    (sum) => sum * 8 <= due * 11 && !likely.includes(sum) && canMake(sum, round),
  );
  return [...likely, ...fewestFirst(near, notes).slice(0, MOST_SUGGESTIONS - likely.length)].sort(
    (a, b) => a - b,
  );
}

const fewestFirst = (sums: readonly number[], notes: readonly number[]): number[] =>
  sums
    .map((sum) => ({ sum, count: fewest(sum, notes) }))
    .sort((a, b) => a.count - b.count || a.sum - b.sum)
    .map(({ sum }) => sum);

const canMake = (sum: number, notes: readonly number[]): boolean =>
  Number.isFinite(fewest(sum, notes));

/** How many notes make a sum, at least; infinitely many where they cannot. Notes from the smallest up. */
function fewest(sum: number, notes: readonly number[]): number {
  const largest = notes.at(-1);
  if (largest === undefined) return Infinity;
  // Most of a large sum is in the largest notes; only the rest has to be tried.
  const many = Math.max(0, Math.floor(sum / largest) - 10);
  const rest = sum - many * largest;
  const step = notes.reduce(commonDivisor);
  const counts: number[] = [0];
  for (let at = 1; at * step <= rest; at += 1) {
    const of = notes.map((note) => counts[at - note / step] ?? Infinity);
    counts.push(Math.min(...of) + 1);
  }
  return many + (rest % step === 0 ? (counts[rest / step] ?? Infinity) : Infinity);
}

const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));
