import { fraction, roundToMinor } from '../money/fraction';
import { minor, type Minor } from '../money/units';

/**
 * An amount rounded to what coins can pay, halves away from zero.
 *
 * Units: `amount` and `step` are minor units; a step of 1 changes nothing.
 * @throws {RangeError} If the step is not a whole number above zero.
 */
export function roundToStep(amount: number, step: number): Minor {
  if (!Number.isSafeInteger(step) || step < 1) {
    throw new RangeError(`${step} is not a cash rounding step; use 1, 5, 10 …`);
  }
  return minor(roundToMinor(fraction(amount, step)) * step);
}
