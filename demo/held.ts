/** What customers owe and have: a voucher is sold and partly spent, somebody buys on account, pays some of it, has credit. */
import type { Draft } from '../src/lib/core/daybook/chain';
import type { BodyOf } from '../src/lib/core/daybook/kinds';
import { localTime } from '../src/lib/core/event/local-time';
import { accountFor, type HeldFacts } from '../src/lib/core/held/spend';
import { newVoucherNumber, voucherText } from '../src/lib/core/held/voucher-number';
import { makeReturn } from '../src/lib/core/sale/make-return';
import { takePart } from '../src/lib/core/sale/take-part';
import { emptySlip, putItem, putPaidIn, type OpenSlip } from '../src/lib/core/slip/open-slip';
import { saleDocument } from '../src/lib/server/books/find-sales';
import { BookReader } from '../src/lib/server/books/read-books';
import { newId } from './demo-device';
import { WEB_SHOP } from './orders';
import { pointWays } from './points';
import type { DemoItem } from './goods';
import { recordIdOf } from './ids';
import type { PuttingRight, PutRight } from './putting-right';

type Day = Omit<PuttingRight, 'sales'> & {
  /** Which of the past editions it is, the first 0. */
  readonly edition: number;
};
type Method = 'account' | 'credit' | 'voucher' | 'cash';

/** @returns What it took out of the drawer, below nothing for what came in, and goods that came back or went. */
export async function heldMatters(day: Day): Promise<PutRight> {
  const { demo, edition } = day;
  const customer = demo.customers.find(({ creditLimit = 0 }) => creditLimit > 0);
  const goods = demo.items.filter(
    ({ body, load }) => body.isStocked && body.unit === '' && load > 9,
  );
  const [first, second] = goods;
  if (customer === undefined || first === undefined || second === undefined)
    return { gave: 0, goods: [] };
  const who = {
    ...{ id: recordIdOf(demo.id, 'customer', customer.who.name), name: customer.who.name },
    discount: customer.discount ?? '0',
  };
  const number = newVoucherNumber(
    demo.id,
    Uint8Array.from({ length: 10 }, (_, at) => edition * 53 + at * at * 29 + at * 11),
  );
  const came = [
    await sell(day, voucherSlip(number, 2500), 'cash'),
    await sell(day, goodsSlip(first, 1000), 'voucher', number),
    await sell(day, { ...goodsSlip(second, 3000), customer: who }, 'account'),
  ];
  if (edition % 2 === 1) {
    const paid = putPaidIn(
      { ...emptySlip(newId()), customer: who },
      { account: `customer:${who.id}`, name: 'Paid on account', detail: '', amount: 1000 },
      newId(),
    );
    if (!paid.ok) throw new Error(paid.refusal.code);
    came.push(await sell(day, paid.slip, 'cash'));
  } else await asCredit(day, who.id, came[2]!.sale);
  await day.desk.send();
  const sold = (item: DemoItem, quantity: number) => ({ item: item.body.id, quantity });
  return {
    gave: -came.reduce((all, { cash }) => all + cash, 0),
    goods: [sold(first, -1000), sold(second, edition % 2 === 1 ? -3000 : -2000)],
  };
}

const voucherSlip = (number: string, amount: number): OpenSlip => {
  const line = { account: `voucher:${number}` as const, name: 'Voucher', amount };
  const put = putPaidIn(emptySlip(newId()), { ...line, detail: voucherText(number) }, newId());
  if (!put.ok) throw new Error(put.refusal.code);
  return put.slip;
};

const goodsSlip = ({ body }: DemoItem, quantity: number): OpenSlip => {
  const put = putItem(emptySlip(newId()), body, quantity, newId());
  if (!put.ok) throw new Error(put.refusal.code);
  return put.slip;
};

/** @returns The cash that came in, in minor units, and the sale. */
async function sell(
  day: Day,
  slip: OpenSlip,
  method: Method,
  reference = '',
): Promise<{ readonly cash: number; readonly sale: string }> {
  const { desk, demo, owner, event, drawer, at } = day;
  const way = demo.ways.find((each) => each.method === method);
  if (way === undefined) throw new Error(`the demo has no way to pay by ${method}`);
  const taken = takePart({
    ...{ newId, slip, pricing: demo.business, taxes: demo.taxes, event, now: at, drawer },
    ...{ way: { ...way, setStamp: 'set' }, amount: null, reference, business: demo.id },
    held: await factsOf(day, method, slip.customer?.id ?? null, reference),
    ...{ deviceNumber: desk.number, number: day.next('sale') },
  });
  if (!taken.ok || taken.slip !== null) throw new Error(`${method} did not pay for all of it`);
  desk.write(taken.drafts, at, owner);
  const sale = idOf(taken.drafts, 'sale.rung');
  return { cash: method === 'cash' ? taken.total : 0, sale };
}

const idOf = (drafts: readonly Draft[], kind: string): string =>
  drafts.find((each) => each.kind === kind)?.id ?? '';

/** As the server has it by now. */
async function factsOf(
  { desk, demo }: Day,
  method: Method,
  customer: string | null,
  reference: string,
): Promise<HeldFacts | null> {
  const account = accountFor(method, { customer, reference });
  if (account === null) return null;
  await desk.send();
  const books = new BookReader(desk.database);
  const [sum] = await books.rows(demo.id, 'heldSums', { account });
  const sold = await books.rows(demo.id, 'vouchers', { number: reference });
  const limits = demo.customers.map(({ creditLimit = 0 }) => creditLimit);
  return {
    ...{ balance: sum?.amount ?? 0, sold, state: undefined },
    creditLimit: Math.max(...limits),
  };
}

/** One of what was bought on account comes back, and what it came to is kept as credit. */
async function asCredit(day: Day, customer: string, sale: string): Promise<void> {
  const { desk, demo, owner, event, at } = day;
  await desk.send();
  const found = await saleDocument(desk.database, new BookReader(desk.database), demo.id, sale);
  const way = demo.ways.find((each) => each.method === 'credit');
  if (found === null || way === undefined) throw new Error('nothing to take back');
  const { lines, payments } = found;
  const outcome = makeReturn({
    ...{ newId, sale: found.sale, lines, payments, before: [], voids: [], undone: [], refunds: [] },
    chosen: [{ line: 0, typed: '1', to: 'stock' }],
    ...{ reason: 'One too many', way: way.id, drawer: null, card: null },
    account: `credit:${customer}`,
    ...{ cashStep: demo.business.cashStep, currency: demo.business.currency },
    ...{ deviceNumber: desk.number, number: day.next('back') },
    ...{ event: event.id, place: event.id, ...localTime(at, event.timeZone) },
  });
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  desk.write(outcome.drafts, at, owner);
}

export type HeldWay = Pick<BodyOf<'way.set'>, 'name' | 'method'> & Partial<BodyOf<'way.set'>>;

/** As the demo sets them up: with no network not more than a few goods' worth is taken of what may be spent elsewhere. */
export const heldWays = (
  names: { readonly [M in Exclude<Method, 'cash'> | 'deposit']: string },
  offlineMost: number,
): readonly HeldWay[] => [
  { name: names.account, method: 'account', needsCustomer: true },
  { name: names.credit, method: 'credit', needsCustomer: true, offlineMost },
  { name: names.voucher, method: 'voucher', offlineMost },
  { name: names.deposit, method: 'deposit' },
  ...pointWays,
  // Only orders that were made there are paid so.
  { name: WEB_SHOP, method: 'own', isActive: false },
];
