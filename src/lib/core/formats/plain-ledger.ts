/**
 * A ledger as the plain-text accounting tools read it (the journal format of hledger and its kin), and back; and as
 * CSV (RFC 4180).
 */
import { z } from 'zod';
import type { AccountKind } from '../ledger/chart';
import type { Ledger, LedgerPosting, LedgerTransaction } from '../ledger/ledger';
import { typedText } from '../money/amount-text';
import { currencyOf } from '../money/currency';
import { guarded } from './csv-cell';

const KIND_TYPES: Readonly<Record<AccountKind, string>> = {
  Assets: 'A',
  Liabilities: 'L',
  Equity: 'E',
  Revenues: 'R',
  Expenses: 'X',
};

/** Documents as short as they can be said: numbers that follow each other as `D4-1 … D4-17`. */
export function documentsText(documents: readonly string[]): string {
  const numbered = (text: string): readonly [string, number] | null => {
    const match = /^(.*-)(\d+)$/.exec(text);
    return match === null ? null : [match[1]!, Number(match[2])];
  };
  const said: string[] = [];
  let first = 0;
  while (first < documents.length) {
    let last = first;
    const from = numbered(documents[first]!);
    while (from !== null && last + 1 < documents.length) {
      const next = numbered(documents[last + 1]!);
      if (next === null || next[0] !== from[0] || next[1] !== from[1] + last + 1 - first) break;
      last += 1;
    }
    const runs = last - first;
    if (runs >= 2) said.push(`${documents[first]!} … ${documents[last]!}`);
    else said.push(...documents.slice(first, last + 1));
    first = last + 1;
  }
  return said.join(', ');
}

const inOneLine = (text: string): string => text.replace(/[\p{Cc};|]+/gu, ' ').trim();

/** What is wrong with a transaction; never happens, and is said rather than written down. */
const imbalanceOf = ({ postings }: LedgerTransaction): number =>
  postings.reduce((total, { amount }) => total + amount, 0);

/** @throws {RangeError} If a transaction does not add up to nothing. */
export function plainLedger({ business, currency, transactions }: Ledger): string {
  const accounts = new Map<string, LedgerPosting['account']>();
  for (const { postings } of transactions)
    for (const { account } of postings) accounts.set(account.name, account);
  const { decimals } = currencyOf(currency);
  const sample = `1000.${'0'.repeat(decimals)} ${currency}`;
  const lines = [
    `; ${inOneLine(business)}: double entries of the daybook; documents stand behind each posting`,
    '',
    `commodity ${sample}`,
    '',
    ...[...accounts.values()]
      .sort((a, b) => (a.name < b.name ? -1 : 1))
      .map(({ name, number, kind }) =>
        [
          `account ${name}`,
          `  ; type:${KIND_TYPES[kind]}`,
          number === '' ? '' : `, number:${inOneLine(number)}`,
        ].join(''),
      ),
  ];
  for (const transaction of transactions) {
    const left = imbalanceOf(transaction);
    if (left !== 0)
      throw new RangeError(`${transaction.what} of ${transaction.day} is off by ${String(left)}`);
    const { day, what, postings } = transaction;
    const width = Math.max(...postings.map(({ account }) => account.name.length));
    lines.push('', `${day} * ${inOneLine(what)}`);
    for (const { account, amount, documents } of postings)
      lines.push(
        `    ${account.name.padEnd(width)}  ${typedText(amount, currency).padStart(12)} ${currency}` +
          `  ; ${inOneLine(documentsText(documents))}`,
      );
  }
  return `${lines.join('\n')}\n`;
}

/** A line of the ledger as a spreadsheet has it. */
export const ledgerLineSchema = z
  .object({
    ...{ date: z.string(), what: z.string(), number: z.string(), account: z.string() },
    ...{ debit: z.string(), credit: z.string(), currency: z.string(), documents: z.string() },
  })
  .readonly();
export type LedgerLine = z.infer<typeof ledgerLineSchema>;

/** A line a posting, in the order of the text. */
export const ledgerLines = ({ currency, transactions }: Ledger): LedgerLine[] =>
  transactions.flatMap(({ day, what, postings }) =>
    postings.map(({ account, amount, documents }) => ({
      date: day,
      what: guarded(what),
      number: guarded(account.number),
      account: guarded(account.name),
      debit: amount > 0 ? typedText(amount, currency) : '',
      credit: amount < 0 ? typedText(-amount, currency) : '',
      currency,
      documents: guarded(documentsText(documents)),
    })),
  );

/** A posting as it stands in the text; amounts in minor units. */
export interface PlainPosting {
  readonly account: string;
  readonly amount: number;
  readonly documents: string;
}
export interface PlainTransaction {
  readonly day: string;
  readonly what: string;
  readonly postings: readonly PlainPosting[];
}

/** What cannot be read of a ledger's text, with its line. */
export class PlainLedgerError extends RangeError {
  constructor(
    readonly line: number,
    why: string,
  ) {
    super(`line ${String(line)}: ${why}`);
    this.name = 'PlainLedgerError';
  }
}

/**
 * Reads back what `plainLedger` writes.
 * @throws {PlainLedgerError} Where a line is none of it, or a transaction does not add up.
 */
export function readPlainLedger(text: string): PlainTransaction[] {
  const found: { day: string; what: string; postings: PlainPosting[]; line: number }[] = [];
  text.split('\n').forEach((line, at) => {
    const here = at + 1;
    if (line === '' || /^(;|commodity |account )/.test(line)) return;
    const head = /^(\d{4}-\d{2}-\d{2}) \* (.*)$/.exec(line);
    if (head !== null) {
      found.push({ day: head[1]!, what: head[2]!, postings: [], line: here });
      return;
    }
    const posting = /^ {4}(\S.*?) {2,}(-?)(\d+)(?:\.(\d+))? [A-Z]{3}(?: {2}; (.*))?$/.exec(line);
    const last = found.at(-1);
    if (posting === null || last === undefined)
      throw new PlainLedgerError(here, 'neither a transaction nor a posting');
    const [, account = '', sign = '', whole = '', rest = '', documents = ''] = posting;
    const amount = Number(`${sign}${whole}${rest}`);
    last.postings.push({ account, amount, documents });
  });
  return found.map(({ line, ...transaction }) => {
    const left = transaction.postings.reduce((total, { amount }) => total + amount, 0);
    if (left !== 0) throw new PlainLedgerError(line, `it does not add up, by ${String(left)}`);
    return transaction;
  });
}
