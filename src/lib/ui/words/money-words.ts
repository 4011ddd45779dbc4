/** Amounts of one business, as its people write them. */
import { denominationText, figureText, moneyText, typedText } from '../../core/money/amount-text';
import { currencyOf } from '../../core/money/currency';
import { counted, quantityWords, thingsWords } from '../../core/money/units';
import type { Row } from '../../core/books/tables';

export { counted, quantityWords, thingsWords };

export interface MoneyWords {
  readonly currency: string;
  /** BCP 47: dates beside amounts are written as it has them. */
  readonly locale: string;
  /** With the sign: £4.50 */
  text(amount: number): string;
  /** Without: 4.50 */
  figure(amount: number): string;
  /** As it is typed into a field: 1234.50 */
  plain(amount: number): string;
  /** A note or coin: £20, 50p */
  denomination(amount: number): string;
  /** As it is said at the counter: £7.20, but 20p. */
  spoken(amount: number): string;
  /** A difference in words: £2.40 short, £1.00 over, nothing out */
  off(difference: number): string;
  /** So that it fits on a pennant: 1.8k. */
  short(amount: number): string;
}

export function moneyWords({
  currency,
  locale,
}: Pick<Row<'businesses'>, 'currency' | 'locale'>): MoneyWords {
  const text = (amount: number): string => moneyText(amount, currency, locale);
  const compact = new Intl.NumberFormat(locale, { notation: 'compact', maximumFractionDigits: 1 });
  return {
    currency,
    locale,
    text,
    figure: (amount) => figureText(amount, currency, locale),
    plain: (amount) => typedText(amount, currency),
    denomination: (amount) => denominationText(amount, currency, locale),
    spoken: (amount) =>
      amount > 0 && amount < 10 ** currencyOf(currency).decimals
        ? denominationText(amount, currency, locale)
        : text(amount),
    off: (difference) =>
      difference === 0
        ? 'nothing out'
        : `${text(Math.abs(difference))} ${difference < 0 ? 'short' : 'over'}`,
    short: (amount) => compact.format(amount / 10 ** currencyOf(currency).decimals),
  };
}

/** What is left of an item, in words; null is what nobody counts. */
export function leftWords(left: number | null, unit: string): string {
  if (left === null) return '';
  if (left === 0) return 'none left';
  if (left < 0) return `${quantityWords(-left, unit)} below none`;
  return unit === '' ? `${quantityWords(left, unit)} left` : quantityWords(left, unit);
}
