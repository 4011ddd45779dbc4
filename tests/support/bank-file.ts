/** A statement as the demo's bank would write it, of whatever the books have not heard of yet. */
import { asCamt053, asCsv, BankAccount } from '../../standins/bank/accounts.mjs';
import { larkmoss } from '../../demo/larkmoss';

export interface FileLine {
  readonly day: string;
  /** Minor units; below nothing for what went. */
  readonly amount: number;
  readonly other: string;
  readonly text: string;
  readonly reference?: string;
}

/** As the file of an upload. @param number Of the account; the demo's unless said otherwise. */
export function bankFile(
  lines: readonly FileLine[],
  as: 'xml' | 'csv' = 'xml',
  number = larkmoss.bank.number,
): { readonly name: string; readonly mimeType: string; readonly buffer: Buffer } {
  const account = new BankAccount(number, 'GBP', 500_000);
  for (const line of lines) account.book({ reference: '', ...line });
  const days = lines.map(({ day }) => day).sort();
  const statement = account.statement(days[0]!, days.at(-1)!);
  const text = as === 'xml' ? asCamt053(account, statement, 2) : asCsv(account, statement, 2);
  const mimeType = as === 'xml' ? 'application/xml' : 'text/csv';
  return { name: `statement.${as}`, mimeType, buffer: Buffer.from(text) };
}

/** A row of what is still to come: the number of a bag and what is in it, minor units. */
export function bagIn(row: string): { readonly number: string; readonly amount: number } {
  const text = row.replaceAll(',', '');
  const [, number = ''] = /Bag (\S+)/.exec(text) ?? [];
  const [, pounds = '', pence = ''] = /(\d+)\.(\d\d)\s*$/.exec(text.trim()) ?? [];
  return { number, amount: Number(pounds + pence) };
}
