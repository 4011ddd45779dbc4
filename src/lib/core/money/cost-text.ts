/** Costs as people type them: amounts with up to three more decimals than the currency has. */
import { currencyOf } from './currency';
import { withPoint } from './typed';

/**
 * Reads a cost with a decimal point or comma, with or without the currency's sign.
 * @returns Thousandths of a minor unit; null when it is not such an amount.
 * @example readCost('1.8125', 'GBP') // => 181_250
 */
export function readCost(typed: string, currency: string): number | null {
  const text = withPoint(typed.trim().replace(/^\p{Sc}\s*/u, ''));
  const places = currencyOf(currency).decimals + 3;
  const match = /^(\d{1,9})(?:\.(\d+))?$/.exec(text);
  const [, whole = '', rest = ''] = match ?? [];
  if (match === null || rest.length > places) return null;
  return Number(whole + rest.padEnd(places, '0'));
}

/** The cost as it would be typed; empty when it is not known. */
export function costText(cost: number | null, currency: string): string {
  if (cost === null) return '';
  const { decimals } = currencyOf(currency);
  const digits = String(cost).padStart(decimals + 4, '0');
  const [whole, rest] = [digits.slice(0, -decimals - 3), digits.slice(-decimals - 3)];
  const fine = rest.replace(/0{1,3}$/, '');
  return fine === '' ? whole : `${whole}.${fine}`;
}
