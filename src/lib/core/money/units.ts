/**
 * The whole-number units that everything to do with money is kept in (docs/rules.md).
 * Each has one door through which a plain number becomes that unit; no binary floating point
 * ever holds an amount, a rate or a quantity.
 */
declare const unit: unique symbol;

/** An amount in whole minor units of a currency: pence, cents, yen. May be negative. */
export type Minor = number & { readonly [unit]: 'minor' };
/** A rate in whole millionths: 17.5 % is 175 000. */
export type Millionths = number & { readonly [unit]: 'millionths' };
/** A quantity in whole thousandths of its unit of measure: 0.385 kg is 385. */
export type Thousandths = number & { readonly [unit]: 'thousandths' };

/** A number or text that cannot be an amount, a rate or a quantity. */
export class NotAWholeUnitError extends RangeError {
  constructor(
    readonly what: 'amount' | 'rate' | 'quantity',
    readonly given: unknown,
    right: string,
  ) {
    super(`${typeof given === 'string' ? JSON.stringify(given) : String(given)} is not ${right}`);
    this.name = 'NotAWholeUnitError';
  }
}

/** @throws {NotAWholeUnitError} If `n` is not a safe whole number. */
export function minor(n: number): Minor {
  if (!Number.isSafeInteger(n)) {
    throw new NotAWholeUnitError('amount', n, 'a whole number of minor units');
  }
  return (n === 0 ? 0 : n) as Minor;
}

/** Sums amounts exactly. @throws {NotAWholeUnitError} If the sum is beyond a safe integer. */
export function sum(amounts: Iterable<number>): Minor {
  let total = 0;
  for (const amount of amounts) total += amount;
  return minor(total);
}

/** @throws {NotAWholeUnitError} If `n` is not a safe whole number of thousandths. */
export function thousandths(n: number): Thousandths {
  if (!Number.isSafeInteger(n)) {
    throw new NotAWholeUnitError('quantity', n, 'a whole number of thousandths');
  }
  return (n === 0 ? 0 : n) as Thousandths;
}

/**
 * Reads a rate in percent, at most four decimals and not negative.
 * @throws {NotAWholeUnitError}
 * @example rateOf('17.5') // => 175000
 */
export function rateOf(percent: string): Millionths {
  const n = scaled(percent, 4);
  if (n === null || n < 0) {
    throw new NotAWholeUnitError('rate', percent, 'a percentage such as 20 or 9.975');
  }
  return n as Millionths;
}

/**
 * Reads a quantity, at most three decimals; negative for goods that come back.
 * @throws {NotAWholeUnitError}
 * @example quantityOf('0.385') // => 385
 */
export function quantityOf(text: string): Thousandths {
  const n = scaled(text, 3);
  if (n === null) {
    throw new NotAWholeUnitError('quantity', text, 'a quantity such as 3 or 0.385');
  }
  return thousandths(n);
}

/**
 * Writes a quantity without needless decimals, with a decimal point.
 * @example quantityText(thousandths(385)) // => '0.385'
 */
export function quantityText(quantity: number): string {
  const sign = quantity < 0 ? '-' : '';
  const whole = Math.floor(Math.abs(quantity) / 1000);
  const rest = String(Math.abs(quantity) % 1000)
    .padStart(3, '0')
    .replace(/0+$/, '');
  return sign + String(whole) + (rest === '' ? '' : `.${rest}`);
}

/**
 * A quantity with its unit, for people: with a minus of its own.
 * @param quantity Thousandths.
 * @param unit Empty for pieces.
 * @throws {NotAWholeUnitError}
 * @example quantityWords(385, 'kg') // => '0.385 kg'
 */
export function quantityWords(quantity: number, unit: string): string {
  const text = quantityText(thousandths(quantity)).replace('-', '−');
  return unit === '' ? text : `${text} ${unit}`;
}

/**
 * How many of something there are, in words.
 * @param others Of more than one, or none.
 * @example counted(1, 'item') // => '1 item'
 */
export const counted = (many: number, one: string, others = `${one}s`): string =>
  `${String(many)} ${many === 1 ? one : others}`;

/**
 * Goods of any kind together.
 * @param quantity Thousandths.
 * @example thingsWords(2000) // => '2 things'
 */
export const thingsWords = (quantity: number): string =>
  quantityWords(quantity, quantity === 1000 ? 'thing' : 'things');

/** Decimal text to a whole number of 10^-decimals, or null when the text is anything else. */
function scaled(text: string, decimals: number): number | null {
  const match = /^(-?)(\d{1,12})(?:\.(\d+))?$/.exec(text);
  if (match === null) return null;
  const [, sign, whole = '', fraction = ''] = match;
  if (fraction.length > decimals) return null;
  const n = Number(whole + fraction.padEnd(decimals, '0'));
  if (!Number.isSafeInteger(n)) return null;
  return sign === '-' && n !== 0 ? -n : n;
}
