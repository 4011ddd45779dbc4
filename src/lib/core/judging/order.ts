/** Orders of customers: of goods as they are set up, said once, and paid for once. */
import type { EntryOf } from '../daybook/kinds';
import { sum } from '../money/units';
import { totalOf } from '../order/agreed';
import type { Evidence } from './evidence';
import { lineDoubt } from './sale-lines';
import type { Doubt } from './verdict';

/** With a customer that there is, of goods at their prices; what was agreed is not agreed otherwise later. */
export function judgeOrder(
  { event, stamp, body }: EntryOf<'order.set'>,
  evidence: Evidence,
): Doubt | null {
  const { customer, lines, number } = body;
  if (!evidence.history.knows('customer.set', customer))
    return { code: 'order/customer', found: customer };
  const known = evidence.books.row('orders', body.id);
  if (known !== undefined && known.setStamp !== '') {
    const isSame =
      known.customer === customer && JSON.stringify(known.lines) === JSON.stringify(lines);
    return isSame ? null : { code: 'order/again', found: number };
  }
  const standingName = body.standingName === '' ? undefined : body.standingName;
  for (const { otherPrice: _other, ...line } of lines) {
    const doubt = lineDoubt(line, { event, stamp, customer, standingName }, evidence);
    if (doubt !== null) return { code: 'order/line', found: line.name };
  }
  // Where tax is in prices, a line comes to no more than what is left of it.
  const isTaxIn = evidence.history
    .inForce('business.set', evidence.business, stamp)
    .every(({ pricesIncludeTax }) => pricesIncludeTax);
  const wrong = lines.find(({ total, gross, discount }) => isTaxIn && total !== gross - discount);
  return wrong === undefined ? null : { code: 'order/line', found: wrong.name };
}

/** Of an order that there is, to be collected at an event that there is. */
export function judgeTerms(
  { body }: EntryOf<'order.terms'>,
  { books, history }: Evidence,
): Doubt | null {
  const { order, customer, collectAt } = body;
  const known = books.row('orders', order);
  if (known === undefined) return { code: 'order/unknown', found: order };
  if (known.customer !== customer) return { code: 'order/customer', found: customer };
  return collectAt === null || history.knows('event.set', collectAt)
    ? null
    : { code: 'order/event', found: collectAt };
}

export const judgeOrderStage = (
  { body }: EntryOf<'order.stage'>,
  { books }: Evidence,
): Doubt | null =>
  books.row('orders', body.order) === undefined
    ? { code: 'order/unknown', found: body.order }
    : null;

/**
 * For an order that there is, by a way that is not cash and not somebody's account; the same is not said twice, and no
 * more than it comes to.
 */
export function judgeOrderPaid(
  { body, stamp }: EntryOf<'order.paid'>,
  { books, history }: Evidence,
): Doubt | null {
  const { order, way, amount, reference } = body;
  const known = books.row('orders', order);
  if (known === undefined) return { code: 'order/unknown', found: order };
  const isPaidSo = history
    .inForce('way.set', way, stamp)
    .some(({ method }) => method === 'own' || method === 'transfer' || method === 'cheque');
  if (!isPaidSo) return { code: 'order/way', found: way };
  const before = books.where('ordersPaid', 'order', order);
  if (before.some((each) => each.reference === reference && each.amount === amount))
    return { code: 'order/paid-again', found: reference };
  const left = totalOf(known.lines) - sum(before.map((each) => each.amount));
  return amount > left ? { code: 'order/paid-more', found: amount, wanted: left } : null;
}
