/** Bank statements as OFX (Open Financial Exchange 1 and 2), by the library that reads both. */
import { parseSync } from 'ofx-js';
import { z } from 'zod';
import {
  accountNumber,
  amountIn,
  namedLines,
  unreadable,
  type RawLine,
  type ReadStatements,
  type Statement,
} from '../bank/statement';
import { isKnownCurrency } from '../money/currency';

const one = <T extends z.ZodType>(of: T) =>
  z.preprocess(
    (value) => (value === undefined || value === '' ? [] : value),
    z.union([z.array(of), of.transform((each) => [each])]),
  );
const text = z.string().default('');
const lineSchema = z.object({
  DTPOSTED: text,
  TRNAMT: text,
  FITID: text,
  CHECKNUM: text,
  REFNUM: text,
  NAME: text,
  MEMO: text,
});
const statementSchema = z.object({
  CURDEF: text,
  BANKACCTFROM: z.object({ ACCTID: text }).default({ ACCTID: '' }),
  BANKTRANLIST: z
    .union([z.literal(''), z.object({ DTSTART: text, DTEND: text, STMTTRN: one(lineSchema) })])
    .optional(),
});
const fileSchema = z.object({
  BANKMSGSRSV1: z.object({ STMTTRNRS: one(z.object({ STMTRS: statementSchema })) }),
});

/** All statements of the file. It says no balance before its lines, so there is nothing to compare them with. */
export function readOfx(file: string): ReadStatements {
  if (!file.includes('<OFX>'))
    return unreadable('There is no statement in this file; an OFX file has an <OFX> in it.');
  if (!file.trimEnd().endsWith('</OFX>'))
    return unreadable(
      'The file ends before its </OFX>: it is cut off. Fetch it again from the bank.',
    );
  let parsed: ReturnType<typeof parseSync>;
  try {
    parsed = parseSync(file);
  } catch (error) {
    return unreadable(
      `This is no OFX file that can be read (${error instanceof Error ? error.message : ''}). Fetch it again from the bank.`,
    );
  }
  const read = fileSchema.safeParse(parsed.OFX);
  if (!read.success)
    return unreadable('There is no statement of a bank account in this file (BANKMSGSRSV1).');
  const statements: Statement[] = [];
  for (const { STMTRS: said } of read.data.BANKMSGSRSV1.STMTTRNRS) {
    const statement = statementFrom(said);
    if (typeof statement === 'string') return unreadable(statement);
    statements.push(statement);
  }
  return { ok: true, statements };
}

function statementFrom({
  CURDEF: currency,
  BANKACCTFROM: { ACCTID },
  BANKTRANLIST: list,
}: z.output<typeof statementSchema>): Statement | string {
  const account = accountNumber(ACCTID);
  const number =
    list === undefined || list === ''
      ? ''
      : `${list.DTSTART.slice(0, 8)}-${list.DTEND.slice(0, 8)}`;
  const plain = { account, currency, number, opening: null, closing: null };
  if (!isKnownCurrency(currency) || list === undefined || list === '')
    return { ...plain, lines: [] };
  const lines: RawLine[] = [];
  for (const [n, line] of list.STMTTRN.entries()) {
    const where = `Transaction ${String(n + 1)}`;
    const amount = amountIn(line.TRNAMT, currency, '.') ?? amountIn(line.TRNAMT, currency, ',');
    if (amount === null) return `${where}: “${line.TRNAMT}” is no amount in ${currency}.`;
    const day = /^(\d{4})(\d{2})(\d{2})/.exec(line.DTPOSTED);
    if (day === null) return `${where}: “${line.DTPOSTED}” is no day such as 20261127.`;
    lines.push({
      day: `${day[1] ?? ''}-${day[2] ?? ''}-${day[3] ?? ''}`,
      amount,
      own: line.FITID,
      reference: line.REFNUM === '' ? line.CHECKNUM : line.REFNUM,
      text: line.MEMO,
      other: line.NAME,
    });
  }
  return { ...plain, lines: namedLines(lines) };
}
