/** Sharing a whole amount so that the parts always sum to it (docs/rules.md, "Sharing"). */
import { floor, fraction, ZERO, type Fraction } from './fraction';
import { minor, type Minor } from './units';

/** Weights that say nothing about how to share: none, negative, or all zero. */
export class UnusableWeightsError extends RangeError {
  constructor(readonly weights: readonly number[]) {
    super(
      `cannot share by the weights [${weights.join(', ')}]: one must be above zero, none below`,
    );
    this.name = 'UnusableWeightsError';
  }
}

/**
 * Shares `amount` over exact values that need not sum to it.
 *
 * Units: minor units. Rounding: start from the floors; what is missing goes one by one to the
 * largest fractions, what is too much is taken from the smallest, round and round; ties go to the
 * earlier one.
 *
 * @returns One part per value, in the same order, summing to `amount`; none for no values.
 * @throws {RangeError} If there is an amount but nothing to share it over.
 */
export function shareByValues(amount: number, values: readonly Fraction[]): Minor[] {
  if (values.length === 0) {
    if (amount !== 0) throw new RangeError('cannot share an amount over nothing');
    return [];
  }
  const floors = values.map(floor);
  const missing = Number(BigInt(amount) - floors.reduce((a, b) => a + b, 0n));
  const step = Math.sign(missing);
  const ordered = byFraction(values, floors, step);
  const parts = floors.map(Number);
  for (let i = 0; i < Math.abs(missing); i += 1) {
    const { at } = ordered[i % ordered.length]!;
    parts[at]! += step;
  }
  return parts.map(minor);
}

/**
 * Splits an amount over weights so that the parts always sum to it exactly.
 *
 * Units: `amount` and every part are minor units; weights are pure ratios, whole numbers.
 * Rounding: equal remainders go to the earlier part.
 *
 * @returns One part per weight, in the same order; a weight of 0 gets 0.
 * @throws {UnusableWeightsError} If the weights are empty, negative or all 0.
 * @example shareByWeights(100, [1, 1, 1]) // => [34, 33, 33]
 */
export function shareByWeights(amount: number, weights: readonly number[]): Minor[] {
  let total = 0n;
  for (const weight of weights) {
    if (weight < 0) throw new UnusableWeightsError(weights);
    total += BigInt(weight);
  }
  if (total === 0n) throw new UnusableWeightsError(weights);
  const values = weights.map((w) => fraction(BigInt(amount) * BigInt(w), total));
  return shareByValues(amount, values);
}

interface Rest {
  readonly at: number;
  readonly rest: Fraction;
}

const compare = (a: Rest, b: Rest): number => {
  const isAlike = a.rest.d === b.rest.d;
  const left = isAlike ? a.rest.n : a.rest.n * b.rest.d;
  const right = isAlike ? b.rest.n : b.rest.n * a.rest.d;
  return left < right ? -1 : left > right ? 1 : 0;
};

/** The values' positions in the order in which they are served; ties by position. */
function byFraction(values: readonly Fraction[], floors: readonly bigint[], step: number): Rest[] {
  return values
    .map((value, at): Rest => {
      const whole = floors[at] ?? 0n;
      return { at, rest: value.n === 0n ? ZERO : { n: value.n - whole * value.d, d: value.d } };
    })
    .sort((a, b) => (step < 0 ? compare(a, b) : compare(b, a)) || a.at - b.at);
}
