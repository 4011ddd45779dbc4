/** Goods that go from one place to another. Entries do not say what they cost, so no money moves with them. */
import type { EntryOf } from '../daybook/kinds';
import { goods, type Posting } from './posting';

export const stockMoved = ({ body }: EntryOf<'stock.moved'>): Posting[] =>
  body.goods.flatMap(({ item, quantity }, line) =>
    goods(body.from, body.to, quantity, { item, line }),
  );
