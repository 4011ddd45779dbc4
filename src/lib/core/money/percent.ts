/** Percentages as people type them. */
import { fraction, roundToMinor, times } from './fraction';
import { withPoint } from './typed';
import { rateOf, type Minor } from './units';

/** `R(amount × percent)`. Minor units. @throws {NotAWholeUnitError} */
export const percentOf = (amount: number, percent: string): Minor =>
  roundToMinor(times(fraction(amount), fraction(rateOf(percent), 1_000_000)));

/** For rates that may be above a hundred percent. */
export const ANY_RATE = Number.POSITIVE_INFINITY;

/**
 * A percentage as decimal text with a point, or null where it is none.
 *
 * @param typed Figures with a point or comma and perhaps a percent sign; nothing is none at all.
 * @param most Whole millionths; a hundred percent unless said otherwise.
 * @example readPercent(' 17,5 %') // => '17.5'
 */
export function readPercent(typed: string, most = 1_000_000): string | null {
  const text = withPoint(typed.trim().replace(/%$/, ''));
  if (text === '') return '0';
  try {
    return rateOf(text) <= most ? text : null;
  } catch {
    return null;
  }
}
