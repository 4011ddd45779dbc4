/** Stock is movement between places and nothing else. */
import type { EntryOf } from '../../daybook/kinds';
import { add, put, type Change } from '../change';
import { saidBy } from './said-by';

export const stockMoved = (entry: EntryOf<'stock.moved'>): Change[] => {
  const { from, to, reason, goods } = entry.body;
  return goods.flatMap(({ item, quantity }, at) => [
    put('movements', {
      id: `${entry.id}:${String(at)}`,
      ...saidBy(entry),
      item,
      from,
      to,
      quantity,
      reason,
    }),
    ...moved(item, from, to, quantity),
  ]);
};

/** What a movement does to the stock of both places; quantity in thousandths. */
export const moved = (item: string, from: string, to: string, quantity: number): Change[] => [
  add('stock', { place: from, item }, { quantity: -quantity }),
  add('stock', { place: to, item }, { quantity }),
];
