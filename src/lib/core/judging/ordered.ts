/** What a sale hands over of orders: of lines that there are, at what was agreed, and not more than is left. */
import type { Row } from '../books/tables';
import type { EntryOf } from '../daybook/kinds';
import { offNext, shareOf } from '../order/agreed';
import type { Evidence } from './evidence';
import type { Doubt } from './verdict';

/** What was agreed of a line before, in an order: it is sold for that, whatever the goods cost by now. */
export interface Agreed {
  readonly otherPrice: number | undefined;
}

type Line = EntryOf<'sale.rung'>['body']['lines'][number];

/** Lines that are sold as they were agreed. @returns What is wrong with one of them, where something is. */
export function agreedIn(
  { stamp, body }: EntryOf<'sale.rung'>,
  { books }: Evidence,
): ReadonlyMap<Line, Agreed> | Doubt {
  const found = new Map<Line, Agreed>();
  const handed = new Map<string, number>();
  for (const line of body.lines) {
    const { ordered, name, quantity } = line;
    if (ordered === undefined) continue;
    const order = books.row('orders', ordered.order);
    const of = order?.lines.find(({ id }) => id === ordered.line);
    if (order === undefined || of === undefined || of.item !== line.item)
      return { code: 'sale/order', found: name };
    if (ordered.number !== undefined && ordered.number !== order.number)
      return { code: 'sale/order', found: ordered.number, wanted: order.number };
    if (order.stage === 'off' && order.stageStamp < stamp)
      return { code: 'sale/order-off', found: order.number };
    const sums = books.row('orderSums', `${order.id} ${of.id}`);
    const before = (sums?.handed ?? 0) + (handed.get(of.id) ?? 0);
    if (before + quantity > of.quantity)
      return { code: 'sale/order-more', found: name, wanted: Math.max(0, of.quantity - before) };
    handed.set(of.id, (handed.get(of.id) ?? 0) + quantity);
    if (isAsAgreed(line, of, before)) found.set(line, { otherPrice: of.otherPrice });
    // At the goods' own price it is a sale like any other.
    else if (line.discount !== 0 || line.listPrice !== undefined)
      return { code: 'sale/order-price', found: name, wanted: of.price };
  }
  return found;
}

/** The same price for each, the same added, and no more off than its share: rounded either way, as others may have gone before. */
function isAsAgreed(
  { price, extras = [], quantity, discount, listPrice }: Line,
  of: Row<'orders'>['lines'][number],
  before: number,
): boolean {
  const next = offNext({ off: of.discount, of: of.quantity, before }, quantity);
  const most = Math.max(next, shareOf(of.discount, quantity, of.quantity) + 1);
  const added = of.extras ?? [];
  return (
    price === of.price &&
    (listPrice === undefined || listPrice === of.listPrice) &&
    discount <= most &&
    extras.length === added.length &&
    extras.every(({ name, price: more }, at) => {
      const agreed = added[at];
      return agreed?.name === name && agreed.price === more;
    })
  );
}
