/** Orders of customers, as this device knows them. */
import type { Row } from '../core/books/tables';
import { handOver, type HandOverOutcome } from '../core/order/hand-over';
import { handedOf } from '../core/order/agreed';
import { orderNow, ordersNow, type OrderNow } from '../core/order/order-state';
import {
  keepOrder,
  nextOrderNumber,
  type KeepOrder,
  type OrderRefusal,
} from '../core/order/set-order';
import { slipEnded } from '../core/set-aside/slip-ended';
import type { DeviceDatabase } from './database';
import { newId } from './new-id';
import type { SlipDesk, SlipOver } from './slip-acts';

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

/** Those of one customer. */
export async function ordersOf(
  { books }: DeviceDatabase,
  customer: string,
  today: string,
): Promise<readonly OrderNow[]> {
  const orders = await books.orders.where('customer').equals(customer).toArray();
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

export type OrderKept =
  | { readonly ok: true; readonly id: string; readonly number: string }
  | { readonly ok: false; readonly refusal: OrderRefusal | SlipOver };

/** The open slip becomes an order, and is gone; nothing is if it cannot. */
export async function keepAsOrder(
  { daybook, slip, event }: SlipDesk,
  deviceNumber: number,
  said: Omit<KeepOrder, 'newId' | 'slip' | 'number' | 'event'>,
  lentBy: string | undefined,
): Promise<OrderKept> {
  let number = '';
  const outcome = await slip.act<OrderKept>(async ({ slip: open, revision }) => {
    const written = await daybook.decide(
      () => daybook.db.books.orders.toArray(),
      (orders) => {
        number = nextOrderNumber(said.sort, deviceNumber, orders);
        const made = keepOrder({ ...said, newId, slip: open, number, event });
        if (!made.ok || open.kept === undefined) return made;
        return { ...made, drafts: [...made.drafts, slipEnded(newId, event, open, 'emptied')] };
      },
      {
        ...(revision === 0 ? {} : { settles: open.id, revision }),
        ...(lentBy === undefined ? {} : { lentBy }),
      },
    );
    if (!written.ok) return { result: written };
    return { result: { ok: true, id: written.id, number }, left: null };
  });
  if (outcome.acted) return outcome.result;
  return {
    ok: false,
    refusal: { code: outcome.why === 'ended' ? 'slip/ended' : 'slip/gone' },
  };
}

/** What is still to be handed over of an order, as a slip; what its goods are is as it is set up now. */
export async function slipOfOrder(
  { books }: DeviceDatabase,
  { order, handed }: Pick<OrderNow, 'order' | 'handed'>,
  today: string,
): Promise<HandOverOutcome> {
  const wanted = order.lines.flatMap(({ item }) => item ?? []);
  const [items, customer] = await Promise.all([
    books.items.bulkGet(wanted),
    books.customers.get(order.customer),
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
