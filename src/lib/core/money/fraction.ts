/** Exact rational numbers, so that nothing is rounded before the rules say so. */
import { minor, type Minor } from './units';

/** n/d with d > 0; not reduced. */
export interface Fraction {
  readonly n: bigint;
  readonly d: bigint;
}

export const ZERO: Fraction = { n: 0n, d: 1n };

/** @throws {RangeError} If `d` is not above zero. */
export function fraction(n: bigint | number, d: bigint | number = 1n): Fraction {
  const below = BigInt(d);
  if (below <= 0n) throw new RangeError('a fraction needs a denominator above zero');
  return { n: BigInt(n), d: below };
}

export const add = (a: Fraction, b: Fraction): Fraction =>
  a.d === b.d ? { n: a.n + b.n, d: a.d } : { n: a.n * b.d + b.n * a.d, d: a.d * b.d };

export const times = (a: Fraction, b: Fraction): Fraction => ({ n: a.n * b.n, d: a.d * b.d });

/** a / b for b > 0. @throws {RangeError} Otherwise. */
export function over(a: Fraction, b: Fraction): Fraction {
  if (b.n <= 0n) throw new RangeError('can only divide by more than zero');
  return { n: a.n * b.d, d: a.d * b.n };
}

/** The largest whole number not above `x`. */
export function floor(x: Fraction): bigint {
  const q = x.n / x.d;
  return x.n % x.d < 0n ? q - 1n : q;
}

/**
 * R(x) of the money rules: the nearest whole minor unit, halves away from zero.
 * @throws {NotAWholeUnitError} If the result is beyond a safe integer.
 */
export function roundToMinor(x: Fraction): Minor {
  const size = x.n < 0n ? -x.n : x.n;
  const rounded = (2n * size + x.d) / (2n * x.d);
  return minor(Number(x.n < 0n ? -rounded : rounded));
}
