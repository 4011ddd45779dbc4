/** Cash price and card price of the same thing (docs/rules.md, "Two prices"). */
import { fraction, over, roundToMinor, times } from '../money/fraction';
import { minor, rateOf, type Minor } from '../money/units';
import type { Side } from './slip';

const MILLION = 1_000_000;

/** The vendor's choice: which side is typed in, and how far the card price is above the cash one. */
export interface TwoPrices {
  readonly typedSide: Side;
  /** Percent, decimal text. */
  readonly uplift: string;
}

/**
 * The price on the wanted side, always worked out from the typed one so that nothing drifts.
 *
 * Units: minor units. Rounding: `R(cash × (1 + u))` or `R(card / (1 + u))`.
 * @param own The item's own price for the side that was not typed, if it has one.
 */
export function priceOn(side: Side, typed: number, prices: TwoPrices, own?: number): Minor {
  if (side === prices.typedSide) return minor(typed);
  if (own !== undefined) return minor(own);
  const factor = fraction(MILLION + rateOf(prices.uplift), MILLION);
  const price = fraction(typed);
  return roundToMinor(side === 'card' ? times(price, factor) : over(price, factor));
}
