/** Bank statements as CAMT.053 (ISO 20022, bank to customer statement), versions 2 to 13. */
import { XMLParser } from 'fast-xml-parser';
import { SyntaxValidator } from 'fast-xml-validator';
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

/** Anything the parser may have made: text, or elements by name, one or several. */
type Node = unknown;

const all = (node: Node): readonly Node[] =>
  node === undefined || node === '' ? [] : Array.isArray(node) ? (node as Node[]) : [node];
/** Follows names down; the first of several. */
function at(node: Node, ...path: readonly string[]): Node {
  let here: Node = node;
  for (const name of path) {
    here = Array.isArray(here) ? here[0] : here;
    if (typeof here !== 'object' || here === null) return undefined;
    here = (here as Record<string, Node>)[name];
  }
  return Array.isArray(here) ? here[0] : here;
}
const every = (node: Node, name: string): readonly Node[] =>
  typeof node === 'object' && node !== null ? all((node as Record<string, Node>)[name]) : [];
function textAt(node: Node, ...path: readonly string[]): string {
  const found = at(node, ...path);
  if (typeof found === 'string') return found.trim();
  const inside = at(found, '#text');
  return typeof inside === 'string' ? inside.trim() : '';
}
/** The first of several that says anything. */
const firstText = (...texts: readonly string[]): string => texts.find((each) => each !== '') ?? '';

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
});

/**
 * All statements of the file, with the lines that are booked; a line that stands for several transfers is several
 * where their amounts come to its own. A fault is said in words, with the place.
 */
export function readCamt053(xml: string): ReadStatements {
  if (xml.includes('<!DOCTYPE') || xml.includes('<!ENTITY'))
    return unreadable('This file declares entities of its own, which no bank statement does.');
  let document: Node;
  try {
    SyntaxValidator.validate(xml);
    document = parser.parse(xml);
  } catch (error) {
    const { line, message } = error as { readonly line?: number; readonly message?: string };
    const where = line === undefined ? 'The file' : `Line ${String(line)} of the file`;
    return unreadable(
      `${where} is no XML (${message ?? 'not well-formed'}). It may be cut off; fetch it again from the bank.`,
    );
  }
  const found = every(at(document, 'Document', 'BkToCstmrStmt'), 'Stmt');
  if (found.length === 0)
    return unreadable(
      'There is no bank statement in this XML file; a CAMT.053 file has a BkToCstmrStmt with a Stmt in it.',
    );
  const statements: Statement[] = [];
  for (const each of found) {
    const read = statementFrom(each);
    if (typeof read === 'string') return unreadable(read);
    statements.push(read);
  }
  return { ok: true, statements };
}

function statementFrom(node: Node): Statement | string {
  const number = textAt(node, 'Id').slice(0, 60);
  const account = accountNumber(
    firstText(textAt(node, 'Acct', 'Id', 'IBAN'), textAt(node, 'Acct', 'Id', 'Othr', 'Id')),
  );
  const balances = every(node, 'Bal');
  const currency = firstText(
    textAt(node, 'Acct', 'Ccy'),
    ...balances.map((each) => textAt(each, 'Amt', '@Ccy')),
    ...every(node, 'Ntry').map((each) => textAt(each, 'Amt', '@Ccy')),
  );
  // Amounts of a currency that the till does not know cannot be read: it is refused by its name.
  if (!isKnownCurrency(currency))
    return { account, currency, number, opening: null, closing: null, lines: [] };
  const amountOf = (of: Node, where: string): number | string => {
    const said = textAt(of, 'Amt');
    const amount = amountIn(said, currency);
    if (amount === null || amount < 0)
      return `Statement ${number}, ${where}: “${said}” is no amount in ${currency}.`;
    const isDebit = textAt(of, 'CdtDbtInd') === 'DBIT';
    return isDebit ? 0 - amount : amount;
  };
  const balanceOf = (...codes: readonly string[]): number | string | null => {
    const balance = balances.find((each) => codes.includes(textAt(each, 'Tp', 'CdOrPrtry', 'Cd')));
    return balance === undefined ? null : amountOf(balance, 'balance');
  };
  const [opening, closing] = [balanceOf('OPBD', 'PRCD'), balanceOf('CLBD')];
  if (typeof opening === 'string') return opening;
  if (typeof closing === 'string') return closing;
  const raw: RawLine[] = [];
  const entries = every(node, 'Ntry');
  for (const [n, entry] of entries.entries()) {
    const state = firstText(textAt(entry, 'Sts', 'Cd'), textAt(entry, 'Sts'));
    // What is only announced is no line yet.
    if (state !== '' && state !== 'BOOK') continue;
    const where = `entry ${String(n + 1)}`;
    const amount = amountOf(entry, where);
    if (typeof amount === 'string') return amount;
    const day = firstText(
      ...['BookgDt', 'ValDt'].flatMap((date) => [
        textAt(entry, date, 'Dt'),
        textAt(entry, date, 'DtTm'),
      ]),
    ).slice(0, 10);
    if (!/^\d{4}-\d{2}-\d{2}$/.test(day))
      return `Statement ${number}, ${where}: “${day}” is no day such as 2026-11-27.`;
    raw.push(...linesOf(entry, { day, amount, currency }));
  }
  return { account, currency, number, opening, closing, lines: namedLines(raw) };
}

function linesOf(
  entry: Node,
  {
    day,
    amount,
    currency,
  }: { readonly day: string; readonly amount: number; readonly currency: string },
): readonly RawLine[] {
  const own = firstText(textAt(entry, 'AcctSvcrRef'), textAt(entry, 'NtryRef'));
  const more = textAt(entry, 'AddtlNtryInf');
  const details = every(entry, 'NtryDtls').flatMap((each) => every(each, 'TxDtls'));
  const lineOf = (of: Node, part: number, name: string): RawLine => {
    const party = amount < 0 ? 'Cdtr' : 'Dbtr';
    return {
      day,
      amount: part,
      own: firstText(textAt(of, 'Refs', 'AcctSvcrRef'), name),
      reference: firstText(
        textAt(of, 'RmtInf', 'Strd', 'CdtrRefInf', 'Ref'),
        textAt(of, 'Refs', 'EndToEndId'),
      ),
      text: [
        ...every(at(of, 'RmtInf'), 'Ustrd').map((each) => textAt(each)),
        textAt(of, 'AddtlTxInf'),
        more,
      ]
        .filter((each) => each !== '')
        .join(' '),
      other: firstText(
        textAt(of, 'RltdPties', party, 'Nm'),
        textAt(of, 'RltdPties', party, 'Pty', 'Nm'),
      ),
    };
  };
  const parts = details.map((each) => {
    const said = firstText(textAt(each, 'Amt'), textAt(each, 'AmtDtls', 'TxAmt', 'Amt'));
    const read = amountIn(said, currency);
    return read === null ? null : amount < 0 ? 0 - read : read;
  });
  const isSeveral =
    details.length > 1 &&
    parts.reduce<number>((total, part) => total + (part ?? Number.NaN), 0) === amount;
  return isSeveral
    ? details.map((each, n) => lineOf(each, parts[n]!, `${own}/${String(n + 1)}`))
    : [lineOf(details[0], amount, own)];
}
