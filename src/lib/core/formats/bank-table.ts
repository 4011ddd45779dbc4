/** Bank statements as CSV: every bank has columns of its own, so they are chosen once for an account. */
import { typedText } from '../money/amount-text';
import { amountIn, namedLines, type RawLine, type StatementLine } from '../bank/statement';

/** What of a file's columns means what; columns by their headings. */
export interface BankColumns {
  readonly day: string;
  readonly order: DayOrder;
  readonly mark: '.' | ',';
  /** One column with signs, or one for what came and one for what went. */
  readonly amount: string;
  readonly came: string;
  readonly went: string;
  readonly reference: string;
  readonly text: string;
  readonly other: string;
  /** The account's balance after each line; none where that is empty or was never asked. */
  readonly balance?: string | undefined;
}
export const DAY_ORDERS = ['ymd', 'dmy', 'mdy'] as const;
export type DayOrder = (typeof DAY_ORDERS)[number];

export interface BankTable {
  readonly headings: readonly string[];
  /** Each with the line of the file it stands in, from 1. */
  readonly rows: readonly { readonly at: number; readonly cells: readonly string[] }[];
}

/** The lines below the headings. Banks put words above them: headings are the first line as wide as the widest. */
export function bankTable(rows: readonly (readonly string[])[]): BankTable {
  const widest = Math.max(0, ...rows.map(({ length }) => length));
  const at = rows.findIndex(({ length }) => length === widest);
  if (widest < 2 || at === -1) return { headings: [], rows: [] };
  const headings = (rows[at] ?? []).map((heading, n) =>
    heading.trim() === '' ? `column ${String(n + 1)}` : heading.trim(),
  );
  return {
    headings: headings.map((heading, n) =>
      headings.indexOf(heading) === n ? heading : `${heading} (${String(n + 1)})`,
    ),
    rows: rows
      .map((cells, n) => ({ at: n + 1, cells }))
      .slice(at + 1)
      .filter(({ cells }) => cells.some((cell) => cell.trim() !== '')),
  };
}

const GUESSES: Readonly<
  Record<'day' | 'amount' | 'came' | 'went' | 'reference' | 'text' | 'other' | 'balance', RegExp>
> = {
  day: /book|date|datum|dato|fecha|day/i,
  amount: /amount|betrag|value|montant|importe|bedrag/i,
  came: /credit|paid in|money in|\bin\b|haben|received/i,
  went: /debit|paid out|money out|\bout\b|soll|spent/i,
  reference: /reference|referenz|\bref\b|end.?to.?end/i,
  text: /description|details|narrative|memo|text|verwendungszweck|purpose|particulars/i,
  balance: /balance|saldo|solde/i,
  other: /name|payee|payer|counterparty|party|empf|auftraggeber/i,
};

/** What its columns seem to be, by their headings and what stands in them; to be looked at, and changed. */
export function guessColumns({ headings, rows }: BankTable): BankColumns {
  const taken = new Set<string>();
  const find = (of: keyof typeof GUESSES): string => {
    const found = headings.find((heading) => !taken.has(heading) && GUESSES[of].test(heading));
    if (found !== undefined) taken.add(found);
    return found ?? '';
  };
  const balance = find('balance');
  const day = find('day');
  const [came, went] = [find('came'), find('went')];
  const isTwo = came !== '' && went !== '';
  if (!isTwo) taken.delete(came);
  const amount = isTwo ? '' : find('amount');
  const columns = {
    day,
    amount,
    came: isTwo ? came : '',
    went: isTwo ? went : '',
    reference: find('reference'),
    text: find('text'),
    other: find('other'),
    balance,
  };
  const cells = (of: string): readonly string[] => {
    const n = headings.indexOf(of);
    return n === -1 ? [] : rows.flatMap((row) => row.cells[n] ?? []);
  };
  return {
    ...columns,
    order: ordersOf(cells(day))[0] ?? 'dmy',
    mark: [...cells(amount), ...cells(columns.came), ...cells(columns.went)].some((cell) =>
      /,\d{1,2}$/.test(cell.trim()),
    )
      ? ','
      : '.',
  };
}

/** The orders in which all of these are days. More than one, and somebody has to say which. */
export const ordersOf = (days: readonly string[]): readonly DayOrder[] =>
  DAY_ORDERS.filter((order) =>
    days.every((each) => each.trim() === '' || dayIn(each, order) !== null),
  );

const PARTS: Readonly<Record<DayOrder, readonly [number, number, number]>> = {
  ymd: [1, 2, 3],
  dmy: [3, 2, 1],
  mdy: [3, 1, 2],
};

/** @returns ISO date, or null for no day in that order. */
export function dayIn(typed: string, order: DayOrder): string | null {
  const match = /^(\d{1,4})[-./ ](\d{1,2})[-./ ](\d{1,4})(?:[ T].*)?$/.exec(typed.trim());
  const packed = /^(\d{4})(\d{2})(\d{2})$/.exec(typed.trim());
  const parts = match ?? (order === 'ymd' ? packed : null);
  if (parts === null) return null;
  const [year = '', month = '', day = ''] = PARTS[order].map((part) => parts[part] ?? '');
  if (year.length !== 4 && !(year.length === 2 && order !== 'ymd')) return null;
  if (month.length > 2 || day.length > 2) return null;
  const iso = `${year.padStart(4, '20')}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  const at = Date.parse(`${iso}T00:00:00Z`);
  // 31 June would become 1 July.
  return Number.isNaN(at) || new Date(at).toISOString().slice(0, 10) !== iso ? null : iso;
}

export interface BankTableRead {
  readonly lines: readonly StatementLine[];
  /** Balances before the first and after the last, as far as a column has them; minor units. */
  readonly opening: number | null;
  readonly closing: number | null;
  /** What cannot be taken, with its line in the file and what would be right. */
  readonly faults: readonly { readonly at: number; readonly says: string }[];
}

/** Lines of a file by these columns. Nothing of it is passed over: what is no line is a fault. */
export function readBankTable(
  { headings, rows }: BankTable,
  columns: BankColumns,
  currency: string,
): BankTableRead {
  const faults: { at: number; says: string }[] = [];
  const missing = [
    columns.day,
    ...(columns.amount === '' ? [columns.came, columns.went] : [columns.amount]),
  ].filter((heading) => !headings.includes(heading));
  const isGone = (columns.balance ?? '') !== '' && !headings.includes(columns.balance ?? '');
  if (isGone) missing.push(columns.balance ?? '');
  if (missing.length > 0) {
    const says = missing.every((heading) => heading === '')
      ? 'Choose the columns of the day and of the amount.'
      : `There is no column “${missing.find((each) => each !== '') ?? ''}” in this file; its columns are ${headings.join(', ')}. Choose again.`;
    return { ...NO_BALANCES, lines: [], faults: [{ at: 1, says }] };
  }
  const raw: RawLine[] = [];
  const balanced: BalancedLine[] = [];
  for (const { at, cells } of rows) {
    const line = lineFrom(cells, headings, columns, currency);
    if (typeof line === 'string') {
      faults.push({ at, says: line });
      continue;
    }
    raw.push(line);
    const balance = balanceIn(cells, headings, columns, currency);
    if (typeof balance === 'string') faults.push({ at, says: balance });
    else balanced.push({ at, amount: line.amount, balance });
  }
  const balances = faults.length === 0 ? balancesOf(balanced, currency) : NO_BALANCES;
  const { opening, closing } = balances;
  return {
    ...{ opening, closing, lines: namedLines(raw) },
    faults: 'faults' in balances ? balances.faults : faults,
  };
}

const NO_BALANCES = { opening: null, closing: null } as const;

interface BalancedLine {
  readonly at: number;
  readonly amount: number;
  /** After it; null where the file says none. */
  readonly balance: number | null;
}

function balanceIn(
  cells: readonly string[],
  headings: readonly string[],
  { balance = '', mark }: BankColumns,
  currency: string,
): number | null | string {
  const typed = balance === '' ? '' : (cells[headings.indexOf(balance)] ?? '').trim();
  if (typed === '') return null;
  return (
    amountIn(typed, currency, mark) ??
    `“${typed}” in the column “${balance}” is no amount in ${currency} with a decimal ${mark === '.' ? 'point' : 'comma'}.`
  );
}

/** From one balance to the next its lines must lead; banks write the oldest line first, or the latest. */
function balancesOf(
  lines: readonly BalancedLine[],
  currency: string,
): Pick<BankTableRead, 'opening' | 'closing' | 'faults'> {
  const [down, up] = [walkBalances(lines, currency), walkBalances(lines.toReversed(), currency)];
  return up.faults.length < down.faults.length ? up : down;
}

/** @param lines The oldest first. */
function walkBalances(
  lines: readonly BalancedLine[],
  currency: string,
): Pick<BankTableRead, 'opening' | 'closing' | 'faults'> {
  const faults: { at: number; says: string }[] = [];
  let [opening, before]: (number | null)[] = [null, null];
  let since = 0;
  for (const { at, amount, balance } of lines) {
    since += amount;
    if (balance === null) continue;
    if (before === null || before === undefined) opening = balance - since;
    else if (before + since !== balance)
      faults.push({
        at,
        says:
          `The balance here is ${typedText(balance, currency)}, and ${typedText(before, currency)} before it ` +
          `with ${typedText(since, currency)} makes ${typedText(before + since, currency)}: a line is missing, double or has another amount. Fetch the file again from the bank.`,
      });
    [before, since] = [balance, 0];
  }
  return { opening: opening ?? null, closing: before ?? null, faults };
}

function lineFrom(
  cells: readonly string[],
  headings: readonly string[],
  columns: BankColumns,
  currency: string,
): RawLine | string {
  if (cells.length !== headings.length)
    return `This line has ${String(cells.length)} cells and the headings are ${String(headings.length)}: its columns are shifted.`;
  const cell = (heading: string): string => (cells[headings.indexOf(heading)] ?? '').trim();
  const day = dayIn(cell(columns.day), columns.order);
  if (day === null)
    return `“${cell(columns.day)}” is no day in the order ${ORDER_WORDS[columns.order]}.`;
  const amount = amountOf(cell, columns, currency);
  if (typeof amount === 'string') return amount;
  return {
    day,
    amount,
    own: '',
    reference: columns.reference === '' ? '' : cell(columns.reference),
    text: columns.text === '' ? '' : cell(columns.text),
    other: columns.other === '' ? '' : cell(columns.other),
  };
}

const ORDER_WORDS: Readonly<Record<DayOrder, string>> = {
  ymd: 'year, month, day',
  dmy: 'day, month, year',
  mdy: 'month, day, year',
};

function amountOf(
  cell: (heading: string) => string,
  { amount, came, went, mark }: BankColumns,
  currency: string,
): number | string {
  const read = (heading: string): number | string => {
    const typed = cell(heading);
    if (typed === '') return 0;
    return (
      amountIn(typed, currency, mark) ??
      `“${typed}” in the column “${heading}” is no amount in ${currency} with a decimal ${mark === '.' ? 'point' : 'comma'}.`
    );
  };
  if (amount !== '') {
    if (cell(amount) === '') return `The column “${amount}” is empty.`;
    return read(amount);
  }
  const [paidIn, paidOut] = [read(came), read(went)];
  if (typeof paidIn === 'string') return paidIn;
  if (typeof paidOut === 'string') return paidOut;
  if (paidIn !== 0 && paidOut !== 0)
    return `Both “${came}” (${cell(came)}) and “${went}” (${cell(went)}) have an amount; a line has one of them.`;
  if (paidIn === 0 && paidOut === 0) return `Neither “${came}” nor “${went}” has an amount.`;
  if (paidIn < 0) return `“${cell(came)}” in the column “${came}” is below nothing.`;
  // Some banks write what went with a sign in its own column too.
  return paidIn !== 0 ? paidIn : 0 - Math.abs(paidOut);
}
