/** Bank statements as MT940 (SWIFT customer statement message), by the library that reads them. */
import { Parser } from 'mt940js';
import {
  accountNumber,
  namedLines,
  unreadable,
  type RawLine,
  type ReadStatements,
  type Statement,
} from '../bank/statement';
import { currencyOf, isKnownCurrency } from '../money/currency';

const dayOf = (date: Date): string => date.toISOString().slice(0, 10);

/** All statements of the file; its balances are compared with its lines, and a fault is said in words. */
export function readMt940(text: string): ReadStatements {
  let found: ReturnType<Parser['parse']>;
  try {
    found = new Parser().parse(text);
  } catch (error) {
    return unreadable(whyNot(error instanceof Error ? error.message : String(error)));
  }
  if (found.length === 0)
    return unreadable('There is no statement in this file; an MT940 statement begins with “:20:”.');
  return {
    ok: true,
    statements: found.map((statement): Statement => {
      const { currency, accountIdentification, number } = statement;
      const account = accountNumber(accountIdentification.split('/').at(-1) ?? '');
      const named = [number.statement, number.sequence ?? '']
        .filter((part) => part !== '')
        .join('/');
      if (!isKnownCurrency(currency))
        return { account, currency, number: named, opening: null, closing: null, lines: [] };
      const { decimals } = currencyOf(currency);
      const minor = (amount: number): number => {
        const read = Math.round(amount * 10 ** decimals);
        return read === 0 ? 0 : read;
      };
      return {
        account,
        currency,
        number: named,
        opening: minor(statement.openingBalance),
        closing: minor(statement.closingBalance),
        lines: namedLines(
          statement.transactions.map((line): RawLine => {
            const { text: said, other, reference } = detailsOf(line);
            return {
              day: dayOf(line.entryDate ?? line.date),
              amount: minor(line.amount),
              own: line.bankReference ?? '',
              reference: reference === '' ? line.reference : reference,
              text: said,
              other,
            };
          }),
        ),
      };
    }),
  };
}

/** What its parser says, in words that help. */
function whyNot(message: string): string {
  const missing = /Mandatory tag (\w+) is missing in group (\d+)/.exec(message);
  if (missing !== null)
    return `Statement ${missing[2] ?? ''} of the file has no “:${missing[1] ?? ''}:”: it may be cut off. Fetch it again from the bank.`;
  const sums = /Sum of lines \((.*)\) != turnover \((.*)\) in group (\d+)/.exec(message);
  if (sums !== null)
    return `Statement ${sums[3] ?? ''} of the file: its lines come to ${sums[1] ?? ''}, its balances say ${sums[2] ?? ''}. A line is missing or double; fetch it again from the bank.`;
  return `This is no MT940 file that can be read: ${message}.`;
}

/** Of field 86, by the subfields that many banks use: 20 to 29 the purpose, 32 and 33 the name. */
function detailsOf({
  details = '',
  structuredDetails: parts,
}: ReturnType<Parser['parse']>[number]['transactions'][number]): {
  readonly text: string;
  readonly other: string;
  readonly reference: string;
} {
  if (parts === undefined) return { text: details, other: '', reference: '' };
  const text = Object.entries(parts)
    .filter(([name]) => /^(2\d|REMI)$/.test(name))
    .map(([, said]) => said)
    .join('');
  const other = [parts['32'], parts['33'], parts['NAME']].filter((said) => said !== undefined);
  return {
    text: text === '' ? details : text,
    other: other.join(''),
    reference: parts['EREF'] ?? '',
  };
}
