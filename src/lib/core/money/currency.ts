/** What the till knows of currencies: ISO 4217 decimals, and the cash people hand over. */

/** An ISO 4217 code that this list does not know. */
export class UnknownCurrencyError extends RangeError {
  constructor(readonly code: string) {
    super(`"${code}" is not a currency this till knows; use an ISO 4217 code such as GBP`);
    this.name = 'UnknownCurrencyError';
  }
}

export interface Currency {
  readonly code: string;
  /** Decimals of the minor unit: GBP 2, JPY 0, KWD 3. */
  readonly decimals: number;
  /** Notes in minor units, largest first. */
  readonly notes: readonly number[];
  /** Coins in minor units, largest first. */
  readonly coins: readonly number[];
}

const list: readonly Currency[] = [
  c('GBP', 2, [5000, 2000, 1000, 500], [200, 100, 50, 20, 10, 5, 2, 1]),
  c('EUR', 2, [20000, 10000, 5000, 2000, 1000, 500], [200, 100, 50, 20, 10, 5, 2, 1]),
  c('USD', 2, [10000, 5000, 2000, 1000, 500, 100], [25, 10, 5, 1]),
  c('CAD', 2, [10000, 5000, 2000, 1000, 500], [200, 100, 25, 10, 5]),
  c('AUD', 2, [10000, 5000, 2000, 1000, 500], [200, 100, 50, 20, 10, 5]),
  c('NZD', 2, [10000, 5000, 2000, 1000, 500], [200, 100, 50, 20, 10]),
  c('CHF', 2, [20000, 10000, 5000, 2000, 1000], [500, 200, 100, 50, 20, 10, 5]),
  c('SEK', 2, [100000, 50000, 20000, 10000, 5000, 2000], [1000, 500, 200, 100]),
  c('NOK', 2, [100000, 50000, 20000, 10000, 5000], [2000, 1000, 500, 100]),
  c('DKK', 2, [100000, 50000, 20000, 10000, 5000], [2000, 1000, 500, 200, 100, 50]),
  c('PLN', 2, [20000, 10000, 5000, 2000, 1000], [500, 200, 100, 50, 20, 10, 5, 2, 1]),
  c('JPY', 0, [10000, 5000, 1000], [500, 100, 50, 10, 5, 1]),
  c('KWD', 3, [20000, 10000, 5000, 1000, 500, 250], [100, 50, 20, 10, 5]),
];
const byCode = new Map(list.map((currency) => [currency.code, currency]));

/** @throws {UnknownCurrencyError} */
export function currencyOf(code: string): Currency {
  const found = byCode.get(code);
  if (found === undefined) throw new UnknownCurrencyError(code);
  return found;
}

export const isKnownCurrency = (code: string): boolean => byCode.has(code);

/** Notes and coins together, largest first, in minor units. */
export const denominationsOf = (code: string): readonly number[] => {
  const { notes, coins } = currencyOf(code);
  return [...notes, ...coins];
};

function c(
  code: string,
  decimals: number,
  notes: readonly number[],
  coins: readonly number[],
): Currency {
  return { code, decimals, notes, coins };
}

/** Every code that is known, in alphabetical order. */
export const currencyCodes: readonly string[] = [...byCode.keys()].sort();
