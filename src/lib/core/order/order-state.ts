/** How an order stands: its goods and its money, apart from each other. Minor units and thousandths. */
import type { Row } from '../books/tables';
import { restOf, restValueOf, totalOf, type HandedOver } from './agreed';

type Order = Row<'orders'>;

/** Of a quote whether it holds; of goods how far they are. */
export type GoodsState =
  | 'quoted'
  | 'out of date'
  | 'waiting'
  | 'ready'
  | 'in part'
  | 'handed over'
  | 'off';
export type MoneyState = 'to pay' | 'in part' | 'paid';

export interface OrderNow {
  readonly order: Order;
  readonly handed: HandedOver;
  readonly goods: GoodsState;
  readonly money: MoneyState;
  /** What all of it comes to, what is left on its deposit, and what is still to pay for what was not handed over. */
  readonly total: number;
  readonly deposit: number;
  readonly due: number;
  /** More was handed over of a line than was ordered: two devices out of touch, each the last of it. */
  readonly isTwice: boolean;
}

/**
 * @param balance Of its deposit's account: credits, what was paid in and not spent, are below nothing.
 * @param today The local day, ISO 8601.
 */
export function orderNow(
  order: Order,
  handed: HandedOver,
  balance: number,
  today: string,
): OrderNow {
  const { lines } = order;
  const rest = restValueOf(lines, handed);
  const deposit = Math.max(0, 0 - balance);
  const goods = goodsOf(order, handed, today);
  const due = goods === 'off' ? 0 : Math.max(0, rest - deposit);
  const isBegun = deposit > 0 || lines.some(({ id }) => (handed.get(id) ?? 0) > 0);
  return {
    ...{ order, handed, goods, total: totalOf(lines), deposit, due },
    money: due === 0 ? 'paid' : isBegun ? 'in part' : 'to pay',
    isTwice: lines.some(({ id, quantity }) => (handed.get(id) ?? 0) > quantity),
  };
}

function goodsOf(order: Order, handed: HandedOver, today: string): GoodsState {
  const { lines, sort, stage, until } = order;
  const isAll = lines.every((line) => restOf(line, handed) === 0);
  if (isAll) return 'handed over';
  if (stage === 'off') return 'off';
  if (lines.some(({ id }) => (handed.get(id) ?? 0) > 0)) return 'in part';
  if (sort === 'quote') return until !== '' && until < today ? 'out of date' : 'quoted';
  return stage === 'waiting' ? 'waiting' : 'ready';
}

/** Whether something of it is still to be handed over. */
export const isOpen = ({ goods }: Pick<OrderNow, 'goods'>): boolean =>
  goods !== 'handed over' && goods !== 'off' && goods !== 'out of date';

/**
 * All that there are, the latest first.
 * @param balances What stands on accounts, by their names.
 * @param today The local day, ISO 8601; empty where quotes do not matter, of which none is out of date then.
 */
export function ordersNow(
  orders: readonly Order[],
  sums: readonly Row<'orderSums'>[],
  balances: ReadonlyMap<string, number>,
  today: string,
): readonly OrderNow[] {
  const handed = new Map<string, Map<string, number>>();
  for (const { order, line, handed: quantity } of sums) {
    const of = handed.get(order) ?? new Map<string, number>();
    handed.set(order, of.set(line, quantity));
  }
  return orders
    .filter(({ setStamp }) => setStamp !== '')
    .map((order) =>
      orderNow(
        order,
        handed.get(order.id) ?? new Map(),
        balances.get(`deposit:${order.id}`) ?? 0,
        today,
      ),
    )
    .sort((a, b) => (a.order.id < b.order.id ? 1 : -1));
}

/** What an event must have with it for the orders that are collected there. Thousandths by item. */
export function wantedAt(event: string, orders: readonly OrderNow[]): ReadonlyMap<string, number> {
  const wanted = new Map<string, number>();
  for (const now of orders) {
    if (now.order.collectAt !== event || now.order.sort === 'quote' || !isOpen(now)) continue;
    for (const line of now.order.lines)
      if (line.item !== null && line.isStocked)
        wanted.set(line.item, (wanted.get(line.item) ?? 0) + restOf(line, now.handed));
  }
  return wanted;
}

/** What has changed of a line's goods since it was agreed. */
export type LineChange =
  | { readonly is: 'gone' }
  | { readonly is: 'price'; readonly now: number }
  | null;

/** @param item As the goods are now; undefined where there are none of that name any more. */
export function changeOf(
  line: Pick<Order['lines'][number], 'item' | 'price' | 'listPrice'>,
  item: Pick<Row<'items'>, 'isActive' | 'price' | 'isOpenPrice'> | undefined,
): LineChange {
  if (line.item === null) return null;
  if (item?.isActive !== true) return { is: 'gone' };
  const then = line.listPrice ?? line.price;
  return item.isOpenPrice || item.price === then ? null : { is: 'price', now: item.price };
}
