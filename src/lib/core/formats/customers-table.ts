/** Customers as a table of text, for CSV files: out, and in again with what will happen said line by line before it does. */
import type { Row } from '../books/tables';
import { Joined } from '../customer/joined';
import { byContact } from '../customer/same-contact';
import { isKnownBy, setCustomer } from '../customer/set-customer';
import type { CustomerWho } from '../daybook/kinds/customer-set';
import { readAmount, typedText } from '../money/amount-text';
import { readPercent } from '../money/percent';
import { guarded, unguarded } from './csv-cell';
import type { CsvLine, Planned } from './goods-table';

type Customer = Row<'customers'>;

/** `credit_limit` is an amount; empty is nothing, and `any` is any amount. */
export const CUSTOMER_COLUMNS = [
  ...(['id', 'name', 'company', 'email', 'phone', 'address', 'tax_number', 'note'] as const),
  'card',
  ...(['discount', 'terms', 'credit_limit', 'active'] as const),
] as const;
type Column = (typeof CUSTOMER_COLUMNS)[number];

const WHO = {
  name: 'name',
  company: 'company',
  email: 'email',
  phone: 'phone',
  address: 'address',
  taxNumber: 'tax_number',
  note: 'note',
  code: 'card',
} as const satisfies Readonly<Record<keyof CustomerWho, Column>>;
const WHO_FIELDS = Object.keys(WHO) as readonly (keyof CustomerWho)[];

/** @param currency ISO 4217. */
export const customerLines = (
  customers: readonly Customer[],
  currency: string,
): readonly Readonly<Record<Column, string>>[] =>
  customers
    .filter(({ whoStamp, isErased }) => whoStamp !== '' && !isErased)
    .map((each) => ({
      id: each.id,
      ...(Object.fromEntries(
        WHO_FIELDS.map((field) => [WHO[field], guarded(each[field])]),
      ) as Record<(typeof WHO)[keyof typeof WHO], string>),
      discount: each.discount,
      terms: String(each.terms),
      credit_limit: each.creditLimit === null ? 'any' : limitText(each.creditLimit, currency),
      active: each.isActive ? 'yes' : 'no',
    }));

const limitText = (limit: number, currency: string): string =>
  limit === 0 ? '' : typedText(limit, currency);

export interface ReadCustomers {
  readonly newId: () => string;
  /** Random text, at least 16 characters. */
  readonly newSalt: () => string;
  readonly lines: readonly CsvLine[];
  readonly customers: readonly Customer[];
  readonly currency: string;
  /** Language and region: telephone numbers are of its country. */
  readonly locale: string;
}

/**
 * A line is of the customer with its `id`, else of whoever has its mail, its telephone, or, with neither, its whole name;
 * else of somebody new. What a file has no column for stays as it is.
 */
export function readCustomers(command: ReadCustomers): readonly Planned[] {
  const seen = new Map<string, number>();
  const cards = new Map<string, number>();
  const joined = new Joined(command.customers);
  const rows = new Map(command.customers.map((each) => [each.id, each]));
  const person = (each: Customer): Customer => rows.get(joined.of(each.id)) ?? each;
  const known: Known = {
    byId: new Map(command.customers.map((each) => [each.id, person(each)])),
    byContact: byContact(command.customers, command.locale),
    withCard: new Map(
      command.customers.flatMap((each) =>
        isKnownBy(each, each.code) ? [[each.code.toLowerCase(), person(each)] as const] : [],
      ),
    ),
  };
  return command.lines.map((line, at) => {
    const name = cell(line, 'name');
    const made = lineOf(line, command, known);
    const wrong = (why: string): Planned => ({
      ...{ line: at + 2, name, verdict: 'wrong', why, drafts: [] },
    });
    if (typeof made === 'string') return wrong(made);
    const before = seen.get(made.key);
    if (before !== undefined)
      return wrong(`line ${String(before)} is of the same customer: have them on one`);
    seen.set(made.key, at + 2);
    const card = cell(line, 'card').toLowerCase();
    const other = card === '' ? undefined : cards.get(card);
    if (other !== undefined)
      return wrong(`card: line ${String(other)} has the same; a card is one customer’s`);
    cards.set(card, at + 2);
    return { line: at + 2, name: made.name, ...made.planned };
  });
}

const cell = (line: CsvLine, column: Column): string => unguarded(line[column] ?? '').trim();
const has = (line: CsvLine, column: Column): boolean => line[column] !== undefined;

interface Made {
  /** Of whom it is: two lines of one file are not of one person. */
  readonly key: string;
  readonly name: string;
  readonly planned: Pick<Planned, 'verdict' | 'why' | 'drafts'>;
}

/** Those who are there, looked up once for the whole file. */
interface Known {
  readonly byId: ReadonlyMap<string, Customer>;
  readonly byContact: ReturnType<typeof byContact<Customer>>;
  readonly withCard: ReadonlyMap<string, Customer>;
}

function lineOf(line: CsvLine, command: ReadCustomers, there: Known): Made | string {
  const { newId, newSalt, currency } = command;
  const known = knownOf(line, there);
  if (typeof known === 'string') return known;
  const who = Object.fromEntries(
    WHO_FIELDS.map((field) => [
      field,
      has(line, WHO[field]) ? cell(line, WHO[field]) : (known?.[field] ?? ''),
    ]),
  ) as unknown as CustomerWho;
  const agreed = agreedOf(line, known, currency);
  if (typeof agreed === 'string') return agreed;
  // Of the others only whoever has the card is asked for.
  const other = there.withCard.get((who.code ?? '').toLowerCase());
  const customers = [known, other].flatMap((each) => each ?? []);
  const made = setCustomer({
    ...{ newId, newSalt, customers, id: known?.id ?? null, who, consent: null, ...agreed },
  });
  if (!made.ok) return faultOf(made.refusal);
  const key = known?.id ?? (who.email.toLowerCase() || who.phone || who.name.toLowerCase());
  const isSame = known !== null && isAlike(known, who, agreed);
  const verdict = known === null ? 'new' : isSame ? 'same' : 'changed';
  return { key, name: who.name, planned: { verdict, why: '', drafts: isSame ? [] : made.drafts } };
}

/** Null for somebody new. */
function knownOf(line: CsvLine, there: Known): Customer | null | string {
  const id = cell(line, 'id');
  if (id !== '') {
    const found = there.byId.get(id);
    if (found === undefined) return `id: nobody here has ${id}; leave it empty for somebody new`;
    return found.isErased ? 'id: they were forgotten, and stay so' : found;
  }
  const name = cell(line, 'name');
  const found = there.byContact({ name, email: cell(line, 'email'), phone: cell(line, 'phone') });
  return found.length > 1
    ? `several customers are called ${name}; give the id, mail or telephone of one`
    : (found[0] ?? null);
}

interface Agreed {
  readonly discount: string;
  readonly terms: string;
  readonly creditLimit: number | null;
  readonly isActive: boolean;
}

function agreedOf(line: CsvLine, known: Customer | null, currency: string): Agreed | string {
  const discount = has(line, 'discount') ? cell(line, 'discount') || '0' : (known?.discount ?? '0');
  const terms = has(line, 'terms') ? cell(line, 'terms') || '0' : String(known?.terms ?? 0);
  const active = cell(line, 'active').toLowerCase();
  if (!['', 'yes', 'no'].includes(active)) return `active: “${active}” is neither yes nor no`;
  const isActive = active === '' ? (known?.isActive ?? true) : active === 'yes';
  if (!has(line, 'credit_limit'))
    return { discount, terms, isActive, creditLimit: known === null ? 0 : known.creditLimit };
  const typed = cell(line, 'credit_limit').toLowerCase();
  if (typed === 'any') return { discount, terms, isActive, creditLimit: null };
  const read = typed === '' || typed === '0' ? null : readAmount(typed, currency);
  if (read?.ok === false) return `credit_limit: “${typed}” is no amount; write 50.00, or any`;
  return { discount, terms, isActive, creditLimit: read?.amount ?? 0 };
}

const isAlike = (known: Customer, who: CustomerWho, agreed: Agreed): boolean =>
  WHO_FIELDS.every((field) => known[field] === who[field]) &&
  known.discount === readPercent(agreed.discount) &&
  known.terms === Number(agreed.terms) &&
  known.creditLimit === agreed.creditLimit &&
  known.isActive === agreed.isActive;

type Refusal = Extract<ReturnType<typeof setCustomer>, { ok: false }>['refusal'];

function faultOf(refusal: Refusal): string {
  switch (refusal.code) {
    case 'customer/no-name':
      return 'name: nothing stands there';
    case 'customer/email-wrong':
      return `email: “${refusal.typed}” is no mail address`;
    case 'customer/discount-wrong':
      return `discount: “${refusal.typed}” is no percentage; write 10 or 7.5`;
    case 'customer/terms-wrong':
      return `terms: “${refusal.typed}” is no number of days up to 365`;
    case 'customer/too-long':
      return `${refusal.field}: that is longer than there is room for`;
    case 'customer/code-taken':
      return `card: ${refusal.typed} is the card of ${refusal.name} already`;
    case 'customer/erased':
      return 'id: they were forgotten, and stay so';
  }
}
