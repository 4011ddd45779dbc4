/** The vendor's chart of accounts: under which number and name each account of the journal is posted. */
import { namesOf } from '../customer/joined';
import { EXCHANGE, EXCHANGE_NAME } from '../payment/methods';
import type { Books } from '../books/books';
import { NOBODY } from '../books/names';
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, type BodyOf } from '../daybook/kinds';
import { ACCOUNTS, headOf, type MoneyHead } from '../journal/accounts';

/** Kinds of accounts of a ledger; the first part of every name in plain-text accounting. */
export type AccountKind = 'Assets' | 'Liabilities' | 'Equity' | 'Revenues' | 'Expenses';

export interface ChartLine {
  readonly kind: AccountKind;
  /** The vendor's number of it, or none. */
  readonly number: string;
  /** Without its kind; parts are kept apart by a colon. */
  readonly name: string;
}
export type Chart = Readonly<Record<MoneyHead, ChartLine>>;

const line = (kind: AccountKind, number: string, name: string): ChartLine => ({
  kind,
  number,
  name,
});

/** What holds until the vendor says otherwise. */
export const DEFAULT_CHART: Chart = {
  drawer: line('Assets', '1000', 'Cash:Drawers'),
  safe: line('Assets', '1010', 'Cash:Safe'),
  bag: line('Assets', '1020', 'Cash:On its way to the bank'),
  bank: line('Assets', '1050', 'Bank'),
  owed: line('Assets', '1100', 'To come'),
  slip: line('Assets', '1190', 'Open slips'),
  goods: line('Assets', '1200', 'Goods'),
  customer: line('Assets', '1150', 'Customers'),
  'prepaid-tax': line('Assets', '1160', 'Tax of vouchers'),
  elsewhere: line('Assets', '1180', 'Taken at other events'),
  credit: line('Liabilities', '2300', 'Credit of customers'),
  voucher: line('Liabilities', '2310', 'Vouchers'),
  deposit: line('Liabilities', '2320', 'Deposits'),
  supplier: line('Liabilities', '2000', 'Suppliers'),
  tips: line('Liabilities', '2100', 'Tips'),
  tax: line('Liabilities', '2200', 'Tax'),
  sales: line('Revenues', '4000', 'Sales'),
  service: line('Revenues', '4010', 'Service'),
  uplift: line('Revenues', '4020', 'Card uplift'),
  surcharge: line('Revenues', '4030', 'Surcharges'),
  promotions: line('Expenses', '5050', 'Points and rewards'),
  breakage: line('Revenues', '4040', 'Vouchers that ran out'),
  cost: line('Expenses', '5000', 'Goods sold'),
  'makers-share': line('Expenses', '5020', 'Makers’ share'),
  commission: line('Expenses', '5030', 'Commission'),
  'card-fees': line('Expenses', '5040', 'Card fees'),
  lost: line('Expenses', '5010', 'Goods lost'),
  rounding: line('Expenses', '5900', 'Cash rounding'),
  pitch: line('Expenses', '5100', 'Pitch'),
  spent: line('Expenses', '5200', 'Spent'),
  'drawer-difference': line('Expenses', '5910', 'Drawer differences'),
  owner: line('Equity', '3000', 'Owner'),
  unexplained: line('Equity', '9990', 'Unexplained'),
};

/** The vendor's own, where there is any said; the kinds of accounts are not theirs to change. */
export function chartWith(
  own: readonly { readonly head: MoneyHead; readonly number: string; readonly name: string }[],
): Chart {
  const said = own.map(({ head, number, name }) => [
    head,
    { kind: DEFAULT_CHART[head].kind, number, name },
  ]);
  return { ...DEFAULT_CHART, ...(Object.fromEntries(said) as Partial<Chart>) };
}

export type ChartRefusal =
  | { readonly code: 'chart/no-name'; readonly head: MoneyHead }
  | { readonly code: 'chart/name-twice'; readonly name: string };

/** Only what is not as it begins is said; two accounts of one kind do not share a name. */
export function setChart(
  newId: () => string,
  typed: BodyOf<'ledger.chart'>['accounts'],
):
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: ChartRefusal } {
  const said = typed.map(({ head, number, name }) => ({
    ...{ head, number: number.trim().slice(0, 20), name: name.trim().slice(0, 60) },
  }));
  const names = new Set<string>();
  for (const { head, name } of said) {
    if (name === '') return { ok: false, refusal: { code: 'chart/no-name', head } };
    const full = `${DEFAULT_CHART[head].kind}:${name}`;
    if (names.has(full)) return { ok: false, refusal: { code: 'chart/name-twice', name } };
    names.add(full);
  }
  const accounts = said.filter(
    ({ head, number, name }) =>
      number !== DEFAULT_CHART[head].number || name !== DEFAULT_CHART[head].name,
  );
  return { ok: true, drafts: [draft('ledger.chart', newId(), null, { accounts })] };
}

export const isMoneyHead = (head: string): head is MoneyHead => Object.hasOwn(DEFAULT_CHART, head);

/** What accounts with an id are called after it: the books that know the names. */
export interface Names {
  readonly drawers: ReadonlyMap<string, string>;
  readonly ways: ReadonlyMap<string, Pick<Row<'ways'>, 'name' | 'ledger'>>;
  readonly people: ReadonlyMap<string, string>;
  readonly suppliers: ReadonlyMap<string, string>;
  readonly taxes: ReadonlyMap<string, string>;
  readonly customers: ReadonlyMap<string, string>;
}

/** The names that the books know. */
export function namesIn(books: Books): Names {
  const by = (rows: readonly { readonly id: string; readonly name: string }[]) =>
    new Map(rows.map(({ id, name }) => [id, name]));
  return {
    drawers: by(books.rows('drawers')),
    ways: new Map(books.rows('ways').map((way) => [way.id, way])),
    people: by(books.rows('staff')).set(NOBODY, 'Nobody'),
    suppliers: by(books.rows('suppliers')),
    taxes: by(books.rows('taxes')),
    customers: namesOf(books.rows('customers')),
  };
}

/** An account as the ledger has it: `Assets:Cash:Drawers:Drawer 1`. */
export interface LedgerAccount {
  readonly number: string;
  readonly name: string;
  readonly kind: AccountKind;
}

/**
 * Where an account of the journal is posted. A way to pay that names an account of its own is posted there.
 * @param customer Of a way that needs one: each has an account of their own.
 * @throws {RangeError} For accounts of goods, which no ledger has.
 */
export function ledgerAccountOf(
  account: string,
  chart: Chart,
  names: Names,
  customer: string | null = null,
): LedgerAccount {
  const head = headOf(account);
  if (!isMoneyHead(head)) throw new RangeError(`${account} holds no money`);
  const id = ACCOUNTS[head] === null ? null : account.slice(head.length + 1);
  const way = head === 'owed' && id !== null ? names.ways.get(id) : undefined;
  const { kind, number, name } = chart[head];
  const own = way?.ledger.trim() ?? '';
  const isNumber = /^\d+$/.test(own);
  if (own !== '' && !isNumber)
    return { number: '', kind, name: nameOf(kind, own, customerName(customer, names)) };
  const called = id === null ? '' : calledAfter(head, id, names);
  return {
    number: isNumber ? own : number,
    kind,
    name: nameOf(kind, name, called, customerName(customer, names)),
  };
}

const customerName = (customer: string | null, { customers }: Names): string =>
  customer === null ? '' : (customers.get(customer) ?? shortOf(customer));

/** What has no name is called by the end of its id. */
export const shortOf = (id: string): string => id.slice(-8);

/** By the head of an account: what its id is called; accounts without stand for all of their kind. */
const calledBy: Partial<Record<MoneyHead, (id: string, names: Names) => string | undefined>> = {
  spent: (id) => id,
  drawer: (id, { drawers }) => drawers.get(id),
  owed: (id, { ways }) => (id === EXCHANGE ? EXCHANGE_NAME : ways.get(id)?.name),
  supplier: (id, { suppliers }) => suppliers.get(id),
  customer: (id, { customers }) => customers.get(id),
  credit: (id, { customers }) => customers.get(id),
  tips: (id, { people }) => people.get(id),
  tax: (id, { taxes }) => {
    const [tax = '', rate = ''] = id.split('@');
    return `${taxes.get(tax) ?? shortOf(tax)} ${rate}%`;
  },
};

function calledAfter(head: MoneyHead, id: string, names: Names): string {
  const called = calledBy[head];
  return called === undefined ? '' : (called(id, names) ?? shortOf(id));
}

/** Parts of a name, as plain-text accounting reads them: no two blanks, no semicolon, no brackets around it. */
function nameOf(kind: AccountKind, ...parts: readonly string[]): string {
  const clean = (part: string): string =>
    part
      .replace(/[\p{Cc};()[\]]/gu, ' ')
      .replace(/\s+/g, ' ')
      .trim();
  const [name = '', ...called] = parts;
  const within = name.split(':');
  return [kind, ...within, ...called.map((each) => each.replaceAll(':', ' '))]
    .map(clean)
    .filter((part) => part !== '')
    .join(':');
}
