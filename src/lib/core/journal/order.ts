/** What orders move: what is handed over of them with a sale, and what was paid for them elsewhere. */
import type { EntryOf } from '../daybook/kinds';
import { minus, money, type Posting } from './posting';

/** A line of an order that is handed over, so much of it. Thousandths. */
export const handedOver = (
  { order, line }: { readonly order: string; readonly line: string },
  quantity: number,
): Posting[] => [
  { account: `handed:${order}`, quantity, item: line, list: order },
  { account: `to-hand:${order}`, quantity: minus(quantity), item: line, list: order },
];

/** It is still to come by the way it was paid by there. Minor units. */
export const orderPaid = ({ body }: EntryOf<'order.paid'>): Posting[] => [
  ...money(`owed:${body.way}`, body.amount, { way: body.way }),
  ...money(`deposit:${body.order}`, minus(body.amount)),
];
