/** Bank statements, from whatever file they came: what they say, and what is wrong with them. Minor units. */
import { digestOf } from '../daybook/digest';
import { currencyOf } from '../money/currency';
import { typedText } from '../money/amount-text';
import { counted, sum } from '../money/units';

/** A line before it has a name: as the file has it. */
export interface RawLine {
  /** ISO date on which the bank booked it. */
  readonly day: string;
  /** What came; below nothing for what went. */
  readonly amount: number;
  /** What the bank calls it, the same for ever; empty where it gives no name. */
  readonly own: string;
  /** What whoever paid wrote as a reference. */
  readonly reference: string;
  readonly text: string;
  /** Who is at the other end. */
  readonly other: string;
}
export interface StatementLine extends Omit<RawLine, 'own'> {
  readonly id: string;
}

export interface Statement {
  /** IBAN or number of the account, with no blanks; empty where the file says none. */
  readonly account: string;
  /** ISO 4217; empty where the file says none. */
  readonly currency: string;
  /** What the bank calls the statement. */
  readonly number: string;
  /** Balances before and after it; null where the file says none. */
  readonly opening: number | null;
  readonly closing: number | null;
  readonly lines: readonly StatementLine[];
}

/** What was read of a file, or what is wrong with it and what would be right. */
export type ReadStatements =
  | { readonly ok: true; readonly statements: readonly Statement[] }
  | { readonly ok: false; readonly says: string };

export const unreadable = (says: string): ReadStatements => ({ ok: false, says });

/** As it is compared: capitals, no blanks or dashes. */
export const accountNumber = (text: string): string =>
  text.replace(/[^A-Za-z0-9]/g, '').toUpperCase();

/** Words that banks put where there is no reference. */
const NO_REFERENCE = /^(?:NOTPROVIDED|NOT PROVIDED|NONREF|NOREF|NONE|0*)$/i;
export const givenReference = (text: string): string =>
  NO_REFERENCE.test(text.trim()) ? '' : text.trim();

const tidy = (text: string, most: number): string =>
  text
    .replace(/[\s\p{Cc}]+/gu, ' ')
    .trim()
    .slice(0, most);

/**
 * Lines with their names. The same line of the same account has the same name in every file that has it: what the
 * bank calls it, or else what stands in it; lines of a day that say the same are counted, in the file's order.
 */
export function namedLines(lines: readonly RawLine[]): StatementLine[] {
  const seen = new Map<string, number>();
  return lines.map(({ own, ...raw }) => {
    const line = {
      ...raw,
      reference: tidy(givenReference(raw.reference), 140),
      text: tidy(raw.text, 300),
      other: tidy(raw.other, 140),
    };
    const { day, amount, reference, text, other } = line;
    const said = givenReference(own);
    const name = digestOf(
      said === '' ? [day, amount, reference, text, other] : [day, amount, said],
    ).slice(0, 32);
    const nth = (seen.get(name) ?? 0) + 1;
    seen.set(name, nth);
    return { id: nth === 1 ? name : `${name}-${String(nth)}`, ...line };
  });
}

/**
 * An amount as statements write it: `1234.50`, `1234,5`, `+1.234,50` with the mark given. Zeros below the currency's
 * decimals say nothing.
 * @param mark The decimal mark. @returns Minor units; null for no amount.
 */
export function amountIn(typed: string, currency: string, mark: '.' | ',' = '.'): number | null {
  const { decimals } = currencyOf(currency);
  const text = typed.replace(/[\s\u00a0\u202f'’]|\p{Sc}/gu, '').replace('−', '-');
  const match = /^([+-]?)([\d.,]*?)([+-]?)$/.exec(text);
  if (match === null || (match[1] !== '' && match[3] !== '')) return null;
  const [, before = '', figures = '', after = ''] = match;
  const [whole = '', fraction = '', ...more] = figures.split(mark);
  const group = mark === '.' ? ',' : '.';
  const isGrouped = whole.includes(group);
  if (more.length > 0 || fraction.includes(group)) return null;
  if (isGrouped && !/^\d{1,3}([.,]\d{3})+$/.test(whole)) return null;
  const digits = whole.replaceAll(group, '');
  if (!/^\d*$/.test(digits) || !/^\d*$/.test(fraction) || digits + fraction === '') return null;
  const cut = fraction.slice(0, decimals).padEnd(decimals, '0');
  if (/[1-9]/.test(fraction.slice(decimals))) return null;
  const amount = Number(`${digits === '' ? '0' : digits}${cut}`);
  if (!Number.isSafeInteger(amount) || amount > 1_000_000_000_000) return null;
  return before + after === '-' ? 0 - amount : amount;
}

/** What speaks against taking a statement in, in words; none if nothing does. */
export function statementFaults(
  { currency, opening, closing, lines, number }: Statement,
  business: string,
): string[] {
  const faults: string[] = [];
  if (currency !== '' && currency !== business)
    faults.push(
      `Statement ${number} is in ${currency}, and the books are kept in ${business}: choose the file of an account in ${business}.`,
    );
  else if (opening !== null && closing !== null) {
    const came = sum(lines.map(({ amount }) => amount));
    if (opening + came !== closing)
      faults.push(
        `Statement ${number} begins with ${typedText(opening, business)} and has ${counted(lines.length, 'line')} of ${typedText(came, business)} in all, ` +
          `but it ends with ${typedText(closing, business)} instead of ${typedText(opening + came, business)}: a line is missing or double. Fetch it again from the bank.`,
      );
  }
  return faults;
}
