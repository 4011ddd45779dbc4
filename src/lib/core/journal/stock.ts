/** Goods that go from one place to another, what is done for lists of them, and the money that moves with them. */
import { SUPPLIERS } from '../books/names';
import type { EntryOf } from '../daybook/kinds';
import { sum } from '../money/units';
import type { Account } from './accounts';
import { goods, minus, money, type Posting } from './posting';

/** Where a difference that was counted goes to, or comes from. */
export const GONE_COUNTED = 'gone:counted';

export const stockMoved = ({ body }: EntryOf<'stock.moved'>): Posting[] => {
  const { from, to, list, supplier } = body;
  return [
    ...body.goods.flatMap(({ item, quantity }, line) => [
      ...goods(from, to, quantity, { item, line }),
      ...(list === undefined || list.does === 'receive'
        ? []
        : done('sent', list.id, item, quantity)),
      ...(list === undefined || list.does === 'send'
        ? []
        : done('received', list.id, item, quantity)),
    ]),
    ...moneyOf(from, to, supplier, sum(body.goods.map(({ amount = 0 }) => amount))),
  ];
};

export const listPacked = ({ body }: EntryOf<'list.packed'>): Posting[] =>
  body.goods.flatMap(({ item, quantity }) => done('packed', body.list, item, quantity));

export const countAccepted = ({ body }: EntryOf<'count.accepted'>): Posting[] => {
  const lost = sum(body.goods.map((each) => each.lost));
  return [
    ...body.goods.flatMap(({ item, counted, expected }, line) =>
      goods(GONE_COUNTED, body.place, counted - expected, { item, line }),
    ),
    ...money('lost', lost),
    ...money('goods', minus(lost)),
  ];
};

function done(
  what: 'packed' | 'sent' | 'received',
  list: string,
  item: string,
  quantity: number,
): Posting[] {
  return [
    { account: `${what}:${list}`, quantity, item, list },
    { account: `to-do:${list}`, quantity: minus(quantity), item, list },
  ];
}

/** Goods that are bought are owed for; those that are gone were lost; those that go back are owed for no more. */
function moneyOf(
  from: string,
  to: string,
  supplier: string | undefined,
  amount: number,
): Posting[] {
  const owner: Account = `supplier:${supplier ?? 'unknown'}`;
  const between = (debit: Account, credit: Account): Posting[] => [
    ...money(debit, amount),
    ...money(credit, minus(amount)),
  ];
  if (from === SUPPLIERS) return between('goods', owner);
  if (to === SUPPLIERS) return between(owner, 'goods');
  if (to.startsWith('gone:')) return between('lost', 'goods');
  return from.startsWith('gone:') ? between('goods', 'lost') : [];
}
