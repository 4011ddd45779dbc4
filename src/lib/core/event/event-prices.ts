/** What goods cost at an event: single prices of its own, or a percentage over a category, rounded to a step. */
import type { EventPrice, PriceOver, Row } from '../books/tables';
import { fraction, roundToMinor, times } from '../money/fraction';
import { rateOf } from '../money/units';

type Item = Row<'items'>;
interface Prices {
  readonly single: readonly EventPrice[];
  readonly over: readonly PriceOver[];
}

export const hasPrices = ({ single, over }: Prices): boolean => single.length + over.length > 0;

/**
 * `R(price × (1 ± percent) / step) × step`: to the nearest step, halves away from nothing; not below nothing.
 * @param price Minor units.
 */
export function priceOver(price: number, { percent, isOff, step }: PriceOver): number {
  const whole = 100_000_000;
  const rate = rateOf(percent) * (isOff ? -1 : 1);
  const steps = times(fraction(price, step), fraction(whole / 100 + rate, whole / 100));
  return Math.max(0, roundToMinor(steps)) * step;
}

/** The item as it is sold at the event. A single price goes before a percentage, a category before everything. */
export function itemAt<
  I extends Pick<Item, 'id' | 'category' | 'price' | 'otherPrice' | 'isOpenPrice'>,
>(item: I, prices: Prices | undefined): I {
  if (prices === undefined || item.isOpenPrice || !hasPrices(prices)) return item;
  const single = prices.single.find((each) => each.item === item.id);
  // Of a single price the other side follows by the uplift.
  if (single !== undefined) return { ...item, price: single.price, otherPrice: null };
  const over =
    prices.over.find(({ category }) => category !== '' && category === item.category) ??
    prices.over.find(({ category }) => category === '');
  if (over === undefined) return item;
  const { price, otherPrice } = item;
  return {
    ...item,
    price: priceOver(price, over),
    otherPrice: otherPrice === null ? null : priceOver(otherPrice, over),
  };
}
