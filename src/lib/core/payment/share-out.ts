/** Sharing out what is to be paid between several people (docs/rules.md, "Payment"). */
import { minor, type Minor } from '../money/units';

/** More people than this at one slip is a slip of the finger. */
export const MOST_SHARES = 1000;

/**
 * The same for everybody, as near as whole minor units allow: `⌊T/n⌋` each, and the `T mod n` that
 * are left one by one to the first.
 *
 * Units: minor units; the shares sum to the total exactly.
 * @throws {RangeError} If there is not a whole number of people from 1 to `MOST_SHARES`.
 * @example shareEqually(10000, 3) // => [3334, 3333, 3333]
 */
export function shareEqually(total: number, between: number): Minor[] {
  if (!Number.isSafeInteger(between) || between < 1 || between > MOST_SHARES) {
    throw new RangeError(
      `${String(between)} is not a number of people from 1 to ${String(MOST_SHARES)}`,
    );
  }
  const each = Math.floor(minor(total) / between);
  const over = total - each * between;
  return Array.from({ length: between }, (_, at) => minor(at < over ? each + 1 : each));
}
