/** Orders of customers, as this device knows them. */
import type { Row } from '../core/books/tables';
import { handOver, type HandOverOutcome } from '../core/order/hand-over';
import { handedOf } from '../core/order/agreed';
import { orderNow, ordersNow, type OrderNow } from '../core/order/order-state';
import { namesOf } from '../core/customer/joined';
import { personOf } from './customer-records';
import type { DeviceDatabase } from './database';
import { newId } from './new-id';

/** All of them, the latest first. @param today The local day, ISO 8601. */
export async function allOrders(
  { books }: DeviceDatabase,
  today: string,
): Promise<readonly OrderNow[]> {
  const [orders, sums, balances] = await Promise.all([
    books.orders.toArray(),
    books.orderSums.toArray(),
    books.heldSums.where('account').startsWith('deposit:').toArray(),
  ]);
  return ordersNow(orders, sums, balancesIn(balances), today);
}

export interface NamedOrders {
  readonly orders: readonly OrderNow[];
  /** What customers are called, by their ids. */
  readonly names: ReadonlyMap<string, string>;
}
export const NO_ORDERS: NamedOrders = { orders: [], names: new Map() };

/** All of them, and whom they are for. */
export async function namedOrders(db: DeviceDatabase, today: string): Promise<NamedOrders> {
  const [orders, customers] = await Promise.all([
    allOrders(db, today),
    db.books.customers.toArray(),
  ]);
  return { orders, names: namesOf(customers) };
}

/** Those of one customer. @param records All of theirs. */
export async function ordersOf(
  { books }: DeviceDatabase,
  records: readonly string[],
  today: string,
): Promise<readonly OrderNow[]> {
  const orders = await books.orders
    .where('customer')
    .anyOf([...records])
    .toArray();
  const ids = orders.map(({ id }) => id);
  const [sums, balances] = await Promise.all([
    books.orderSums.where('order').anyOf(ids).toArray(),
    books.heldSums.bulkGet(ids.map((id) => `deposit:${id}`)),
  ]);
  const known = balances.filter((row) => row !== undefined);
  return ordersNow(orders, sums, balancesIn(known), today);
}

export async function oneOrder(
  { books }: DeviceDatabase,
  id: string,
  today: string,
): Promise<OrderNow | undefined> {
  const [order, sums, balance] = await Promise.all([
    books.orders.get(id),
    books.orderSums.where('order').equals(id).toArray(),
    books.heldSums.get(`deposit:${id}`),
  ]);
  return order === undefined || order.setStamp === ''
    ? undefined
    : orderNow(order, handedOf(sums), balance?.amount ?? 0, today);
}

const balancesIn = (rows: readonly Row<'heldSums'>[]): ReadonlyMap<string, number> =>
  new Map(rows.map(({ account, amount }) => [account, amount]));

/** What is still to be handed over of an order, as a slip; what its goods are is as it is set up now. */
export async function slipOfOrder(
  db: DeviceDatabase,
  id: string,
  today: string,
): Promise<HandOverOutcome> {
  const { books } = db;
  const now = await oneOrder(db, id, today);
  if (now === undefined) return { ok: false, refusal: { code: 'order/ended' } };
  const { order, handed } = now;
  const wanted = order.lines.flatMap(({ item }) => item ?? []);
  const [items, { customer }] = await Promise.all([
    books.items.bulkGet(wanted),
    personOf(db, order.customer),
  ]);
  const known = items.flatMap((item) => (item === undefined ? [] : [[item.id, item] as const]));
  return handOver({
    ...{ newId, order, handed, items: new Map(known), today },
    customer: {
      id: order.customer,
      name: customer?.name ?? '',
      discount: customer?.discount ?? '0',
    },
  });
}
