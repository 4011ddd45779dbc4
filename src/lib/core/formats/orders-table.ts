/** Orders from elsewhere in a file, CSV or JSON: read, and judged order by order. Minor units and thousandths. */
import { z } from 'zod';
import type { Row } from '../books/tables';
import { byContact } from '../customer/same-contact';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft } from '../daybook/kinds';
import { customerWho } from '../daybook/kinds/customer-set';
import { outsideId } from '../daybook/outside-id';
import { isDate } from '../event/event-days';
import { itemName } from '../goods/item-name';
import { readAmount } from '../money/amount-text';
import { agreedLines, termsDraft } from '../order/set-order';
import { totalOf } from '../order/agreed';
import type { SlipTax } from '../pricing/slip';
import { emptySlip, putItem, setPrice, type OpenLine } from '../slip/open-slip';
import type { Pricing } from '../slip/pricing';
import { typedQuantity } from '../stock/set-list';
import { unguarded } from './csv-cell';
import { Named, type CsvLine, type Planned } from './goods-table';

/** What a file is read against. */
export interface OrdersContext {
  readonly newId: () => string;
  /** Random text, at least 16 characters. */
  readonly newSalt: () => string;
  readonly business: string;
  readonly pricing: Pricing;
  readonly taxes: readonly SlipTax[];
  readonly items: readonly Row<'items'>[];
  readonly customers: readonly Row<'customers'>[];
  readonly orders: readonly Row<'orders'>[];
  readonly paid: readonly Row<'ordersPaid'>[];
  /** Language and region: telephone numbers are of its country. */
  readonly locale: string;
  /** Where they were made, in a word or two. */
  readonly source: string;
  /** The way that they were paid by there; null where none was chosen. */
  readonly way: string | null;
  /** Where they are collected; null for any event. */
  readonly collectAt: string | null;
  /** Where the goods are kept until then. */
  readonly place: string;
}

/** The columns: one line for each kind of goods, the number of the order on all of them. */
export const ORDER_COLUMNS = [
  ...(['order', 'name', 'email', 'phone', 'code', 'item'] as const),
  ...(['quantity', 'price', 'paid', 'until', 'note'] as const),
] as const;

const jsonText = z.union([z.string(), z.number()]).transform(String).optional();
const jsonOrders = z.array(
  z.object({
    ...{ order: jsonText, name: jsonText, email: jsonText, phone: jsonText },
    ...{ paid: jsonText, until: jsonText, note: jsonText },
    lines: z.array(
      z.object({ code: jsonText, item: jsonText, quantity: jsonText, price: jsonText }),
    ),
  }),
);

/** A JSON file as lines of a table; or what is wrong with it. */
export function ordersFromJson(text: string): readonly CsvLine[] | string {
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch (error) {
    return `This is no JSON: ${error instanceof Error ? error.message : 'it cannot be read'}.`;
  }
  const read = jsonOrders.safeParse(found);
  if (!read.success) {
    const [issue] = read.error.issues;
    const where = issue?.path.map(String).join('.') ?? '';
    return `A list of orders, each with its “order”, “name” and “lines”, was looked for; at ${where === '' ? 'the top' : where}: ${issue?.message ?? 'not as expected'}.`;
  }
  return read.data.flatMap(({ lines, ...order }) =>
    lines.map((line) => ({ ...texts(order), ...texts(line) })),
  );
}

const texts = (of: Readonly<Record<string, string | undefined>>): CsvLine =>
  Object.fromEntries(Object.entries(of).map(([key, value]) => [key, value ?? '']));

const cell = (line: CsvLine, column: (typeof ORDER_COLUMNS)[number]): string =>
  unguarded(line[column] ?? '').trim();

/** One entry of the list for each order, at its first line. */
export function readOrders(lines: readonly CsvLine[], context: OrdersContext): readonly Planned[] {
  const byNumber = new Map<string, { readonly line: number; readonly lines: CsvLine[] }>();
  const wrong: Planned[] = [];
  lines.forEach((line, at) => {
    const number = cell(line, 'order');
    if (number === '') {
      wrong.push(planned(at + 2, cell(line, 'name'), 'wrong', 'order: nothing stands there'));
      return;
    }
    const known = byNumber.get(number);
    if (known === undefined) byNumber.set(number, { line: at + 2, lines: [line] });
    else known.lines.push(line);
  });
  const known: Known = {
    named: new Named(context.items),
    customers: byContact(context.customers, context.locale),
    fresh: new Map(),
  };
  return [
    ...wrong,
    ...[...byNumber].map(([number, found]) => {
      const outcome = orderOf(number, found.lines, context, known);
      return typeof outcome === 'string'
        ? planned(found.line, number, 'wrong', outcome)
        : planned(found.line, number, outcome.verdict, outcome.why, outcome.drafts);
    }),
  ].sort((a, b) => a.line - b.line);
}

const planned = (
  line: number,
  name: string,
  verdict: Planned['verdict'],
  why = '',
  drafts: readonly Draft[] = [],
): Planned => ({ line, name, verdict, why, drafts });

/** Made ready once for the whole file. */
interface Known {
  readonly named: Named;
  readonly customers: ReturnType<typeof byContact<Row<'customers'>>>;
  /** Who is new: somebody who orders twice in one file is one customer. */
  readonly fresh: Map<string, string>;
}

/** What it will do, or what is wrong with it. */
function orderOf(
  number: string,
  lines: readonly CsvLine[],
  context: OrdersContext,
  known: Known,
): Pick<Planned, 'verdict' | 'why' | 'drafts'> | string {
  const { newId, business, pricing, taxes, source, orders, paid, way, collectAt, place } = context;
  if (number.length > 40) return 'order: a number has at most 40 characters';
  const name = `${source}/${number}`;
  const id = outsideId(business, 'order', name);
  const goods: OpenLine[] = [];
  for (const [at, line] of lines.entries()) {
    const read = lineOf(line, String(at), context, known.named);
    if (typeof read === 'string') return read;
    if (goods.some(({ item, price }) => item === read.item && price === read.price))
      return `${read.name} stands there twice`;
    goods.push(read);
  }
  const slip = { ...emptySlip(id), lines: goods };
  const agreed = agreedLines(slip, pricing, taxes, [], (at) =>
    outsideId(business, 'order-line', `${name}/${String(at)}`),
  );
  const typed = firstOf(lines, 'paid');
  const read = typed === '' || typed === '0' ? null : readAmount(typed, pricing.currency);
  if (read?.ok === false) return `paid: “${typed}” is no amount`;
  const amount = read?.amount ?? 0;
  if (amount > totalOf(agreed)) return 'paid: that is more than it comes to';
  if (amount > 0 && way === null) return 'paid: choose the way that it was paid by there';
  const until = firstOf(lines, 'until');
  if (until !== '' && !isDate(until)) return `until: “${until}” is no day; write 2026-12-24`;
  const before = paid.reduce((all, each) => all + (each.order === id ? each.amount : 0), 0);
  const more =
    amount > before && way !== null
      ? [
          draft('order.paid', newId(), null, {
            ...{ order: id, way, amount: amount - before },
            reference: `${number}${before === 0 ? '' : ` and ${String(amount)}`}`.slice(0, 80),
          }),
        ]
      : [];
  if (orders.some((each) => each.id === id && each.setStamp !== ''))
    return more.length === 0
      ? { verdict: 'same', why: '', drafts: [] }
      : { verdict: 'changed', why: 'more was paid for it', drafts: more };
  const customer = customerOf(lines, number, context, known);
  if (typeof customer === 'string') return customer;
  return {
    verdict: 'new',
    why: customer.drafts.length === 0 ? '' : 'somebody who was not known before',
    drafts: [
      ...customer.drafts,
      draft('order.set', newId(), null, {
        ...{ id, number, source, customer: customer.id, lines: agreed, standingName: '' },
      }),
      termsDraft(
        newId,
        null,
        { order: id, customer: customer.id },
        {
          ...{ sort: 'collect', deposit: 0, collectAt, place, until },
          ...{ note: firstOf(lines, 'note'), salt: context.newSalt() },
        },
      ),
      draft('order.stage', newId(), null, { order: id, stage: 'waiting', reason: '' }),
      ...more,
    ],
  };
}

const firstOf = (lines: readonly CsvLine[], column: 'paid' | 'until' | 'note'): string =>
  lines.map((line) => cell(line, column)).find((text) => text !== '') ?? '';

/** Goods at what was agreed elsewhere: another price than theirs is said to be so. */
function lineOf(
  line: CsvLine,
  key: string,
  { pricing, source }: OrdersContext,
  named: Named,
): OpenLine | string {
  const item = named.find(line);
  if (typeof item === 'string') return item;
  const many = cell(line, 'quantity');
  const quantity = typedQuantity(many === '' ? '1' : many, item);
  // Each on a slip of its own: those of one kind at two prices are two lines.
  const put = quantity.ok ? putItem(emptySlip(''), item, quantity.quantity, key) : quantity;
  if (!put.ok) return `quantity: “${many}” is no quantity of ${itemName(item)}`;
  const typed = cell(line, 'price');
  const price = typed === '' ? null : readAmount(typed, pricing.currency);
  if (price?.ok === false) return `price: “${typed}” is no price`;
  const priced = setPrice(put.slip, key, price?.amount ?? item.price, `as ordered at ${source}`);
  return (priced.ok ? priced : put).slip.lines[0]!;
}

/** Whoever has the mail, the telephone or the name; or somebody new. */
function customerOf(
  lines: readonly CsvLine[],
  number: string,
  { newId, newSalt, business, source }: OrdersContext,
  { customers, fresh }: Known,
): { readonly id: string; readonly drafts: readonly Draft[] } | string {
  const [first] = lines;
  if (first === undefined) return 'nothing was ordered';
  const contact = {
    name: cell(first, 'name'),
    email: cell(first, 'email'),
    phone: cell(first, 'phone'),
  };
  if (lines.some((line) => cell(line, 'name') !== contact.name && cell(line, 'name') !== ''))
    return 'name: its lines are of different people';
  if (contact.name === '') return 'name: nothing stands there';
  const found = customers(contact);
  if (found.length > 1)
    return `several customers are called ${contact.name}; give the mail or telephone of one`;
  const [there] = found;
  if (there !== undefined) return { id: there.id, drafts: [] };
  const key = contact.email.toLowerCase() || contact.phone || `${source}/${number}`;
  const before = fresh.get(key);
  if (before !== undefined) return { id: before, drafts: [] };
  const who = customerWho.safeParse({
    ...contact,
    company: '',
    address: '',
    taxNumber: '',
    note: '',
  });
  if (!who.success) {
    const field = String(who.error.issues[0]?.path[0] ?? 'name');
    return `${field}: “${field === 'email' ? contact.email : contact.name}” cannot be that`;
  }
  const id = outsideId(business, 'customer', key);
  fresh.set(key, id);
  const body = { id, discount: '0', terms: 0, creditLimit: 0, isActive: true };
  return { id, drafts: [privateDraft('customer.set', newId(), body, newSalt(), who.data)] };
}
