/** Stock is movement between places and nothing else; how much is where is a sum of the journal. */
import type { EntryOf } from '../../daybook/kinds';
import { put, type Change } from '../change';
import { saidBy } from './said-by';

export const stockMoved = (entry: EntryOf<'stock.moved'>): Change[] => {
  const { from, to, reason, goods } = entry.body;
  return goods.map(({ item, quantity }, at) =>
    put('movements', {
      id: `${entry.id}:${String(at)}`,
      ...saidBy(entry),
      item,
      from,
      to,
      quantity,
      reason,
    }),
  );
};
