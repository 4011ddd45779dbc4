import { fraction, roundToMinor } from '../money/fraction';
import type { Minor } from '../money/units';

/**
 * What a quantity comes to at a price: `R(price × quantity)`, before discounts and tax on top.
 *
 * Units: `price` in minor units per unit of measure, `quantity` in thousandths.
 */
export const lineAmount = (price: number, quantity: number): Minor =>
  roundToMinor(fraction(BigInt(price) * BigInt(quantity), 1000));
