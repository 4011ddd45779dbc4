import { fraction, roundToMinor } from '../money/fraction';
import type { Minor } from '../money/units';

/**
 * What the goods of a line cost: `R(cost × quantity)`.
 *
 * Units: `cost` in thousandths of a minor unit per unit of measure, `quantity` in thousandths.
 * @returns Minor units, or null when the cost is not known.
 */
export function costOf(line: {
  readonly cost: number | null;
  readonly quantity: number;
}): Minor | null {
  if (line.cost === null) return null;
  return roundToMinor(fraction(BigInt(line.cost) * BigInt(line.quantity), 1_000_000));
}
