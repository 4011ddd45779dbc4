/** A discount as people type it: 10 %, or an amount. */
import { readAmount } from '../money/amount-text';
import { readPercent } from '../money/percent';
import { rateOf } from '../money/units';
import type { Discount } from '../pricing/slip';

export interface DiscountRefusal {
  readonly code: 'discount/wrong';
  readonly typed: string;
}

export type DiscountRead =
  | { readonly ok: true; readonly discount: Discount | undefined }
  | { readonly ok: false; readonly refusal: DiscountRefusal };

/**
 * Nothing typed, or nothing off, is no discount.
 * @example readDiscount('12.5 %', 'GBP') // => { ok: true, discount: { percent: '12.5' } }
 * @example readDiscount('2', 'GBP') // => { ok: true, discount: { amount: 200 } }
 */
export function readDiscount(typed: string, currency: string): DiscountRead {
  const text = typed.trim();
  const wrong: DiscountRead = { ok: false, refusal: { code: 'discount/wrong', typed } };
  if (text === '') return { ok: true, discount: undefined };
  if (text.endsWith('%')) {
    const percent = text === '%' ? null : readPercent(text);
    if (percent === null) return wrong;
    return { ok: true, discount: rateOf(percent) === 0 ? undefined : { percent } };
  }
  const read = readAmount(text, currency);
  if (!read.ok) return wrong;
  return { ok: true, discount: read.amount === 0 ? undefined : { amount: read.amount } };
}

/** The discount as it would be typed; what a field starts with. */
export const discountText = (
  discount: Discount | undefined,
  amountText: (amount: number) => string,
): string =>
  discount === undefined
    ? ''
    : 'percent' in discount
      ? `${discount.percent} %`
      : amountText(discount.amount);
