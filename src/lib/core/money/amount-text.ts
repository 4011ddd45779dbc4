/** Amounts as people read and type them. */
import { currencyOf } from './currency';
import { minor, type Minor } from './units';

const formats = new Map<string, Intl.NumberFormat>();

/**
 * An amount with its currency sign, in the given locale.
 * @example moneyText(450, 'GBP', 'en-GB') // => '£4.50'
 */
export function moneyText(amount: number, currency: string, locale: string): string {
  return format(
    currency,
    locale,
    { style: 'currency', currency, currencyDisplay: 'narrowSymbol' },
    amount,
  );
}

/**
 * An amount without sign, for columns where the currency is plain.
 * @example figureText(123450, 'GBP', 'en-GB') // => '1,234.50'
 */
export function figureText(amount: number, currency: string, locale: string): string {
  return format(currency, locale, {}, amount);
}

/** The name of a note or coin: whole units plain, small coins in minor units. */
export function denominationText(amount: number, currency: string, locale: string): string {
  const { decimals } = currencyOf(currency);
  const unit = 10 ** decimals;
  if (decimals > 0 && amount < unit) {
    const small = { GBP: 'p', USD: '¢', CAD: '¢', AUD: 'c', NZD: 'c', EUR: 'c' }[currency];
    if (small !== undefined) return `${String(amount)}${small}`;
    return moneyText(amount, currency, locale);
  }
  const digits = amount % unit === 0 ? 0 : decimals;
  return format(
    currency,
    locale,
    {
      style: 'currency',
      currency,
      currencyDisplay: 'narrowSymbol',
      minimumFractionDigits: digits,
      maximumFractionDigits: digits,
    },
    amount,
  );
}

/** Why a typed amount was not understood. */
export type AmountRefusal =
  | { readonly code: 'amount/empty' }
  | { readonly code: 'amount/not-a-number'; readonly typed: string }
  | { readonly code: 'amount/too-many-decimals'; readonly typed: string; readonly decimals: number }
  | { readonly code: 'amount/negative'; readonly typed: string }
  | { readonly code: 'amount/too-large'; readonly typed: string };

export type AmountRead =
  | { readonly ok: true; readonly amount: Minor }
  | { readonly ok: false; readonly refusal: AmountRefusal };

/** The most one typed amount may be, in minor units; keeps slips of the finger out of the books. */
export const LARGEST_AMOUNT = 99_999_999;

/**
 * Reads what a person typed as an amount. A comma or a point both count as the decimal mark;
 * currency signs and blanks are passed over. Negative amounts are refused.
 *
 * Units: the result is in minor units of `currency`.
 * @example readAmount('£4,5', 'GBP') // => { ok: true, amount: 450 }
 */
export function readAmount(typed: string, currency: string): AmountRead {
  const { decimals } = currencyOf(currency);
  const refuse = (refusal: AmountRefusal): AmountRead => ({ ok: false, refusal });
  const text = typed.replace(/[\s\u00a0\u202f'’]|\p{Sc}/gu, '');
  if (text === '') return refuse({ code: 'amount/empty' });
  if (/^[-−]\d/.test(text)) return refuse({ code: 'amount/negative', typed });
  const match = /^(\d+)(?:[.,](\d*))?$/.exec(text) ?? /^()[.,](\d+)$/.exec(text);
  if (match === null) return refuse({ code: 'amount/not-a-number', typed });
  const [, whole = '', fraction = ''] = match;
  if (fraction.length > decimals) {
    return refuse({ code: 'amount/too-many-decimals', typed, decimals });
  }
  const amount = Number(whole + fraction.padEnd(decimals, '0'));
  if (amount > LARGEST_AMOUNT) return refuse({ code: 'amount/too-large', typed });
  return { ok: true, amount: minor(amount) };
}

/** The amount as it would be typed, with a point; what a field starts with. */
export function typedText(amount: number, currency: string): string {
  const { decimals } = currencyOf(currency);
  const digits = String(Math.abs(amount)).padStart(decimals + 1, '0');
  const text = decimals === 0 ? digits : `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
  return amount < 0 ? `-${text}` : text;
}

function format(
  currency: string,
  locale: string,
  options: Intl.NumberFormatOptions,
  amount: number,
): string {
  const { decimals } = currencyOf(currency);
  const key = `${locale} ${currency} ${options.style ?? ''} ${String(options.maximumFractionDigits)}`;
  let made = formats.get(key);
  if (made === undefined) {
    const places = { minimumFractionDigits: decimals, maximumFractionDigits: decimals };
    made = new Intl.NumberFormat(locale, { ...places, ...options });
    formats.set(key, made);
  }
  return made.format(amount / 10 ** decimals).replace('-', '−');
}
