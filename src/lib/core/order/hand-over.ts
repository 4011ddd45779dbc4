/** Taking an order to the counter: what is still to be handed over of it, as lines of a slip. Thousandths. */
import type { Row } from '../books/tables';
import { emptySlip, type OpenLine, type OpenSlip, type SlipCustomer } from '../slip/open-slip';
import { offNext, restOf, type HandedOver, type OrderLine } from './agreed';
import type { OrderRefusal } from './set-order';

export interface HandOver {
  readonly newId: () => string;
  readonly order: Row<'orders'>;
  readonly handed: HandedOver;
  readonly customer: SlipCustomer;
  /** The goods as they are set up now, by id. */
  readonly items: ReadonlyMap<string, Row<'items'>>;
  /** The local day, ISO 8601. */
  readonly today: string;
}

export type HandOverOutcome =
  | { readonly ok: true; readonly slip: OpenSlip }
  | { readonly ok: false; readonly refusal: OrderRefusal };

/**
 * What was noted of the order stays there: it may be personal, and a sale's note is for good.
 *
 * A slip with all of it that is left, at the prices that were agreed. What goods cost, whose they are and how they are
 * taxed is as it is now. Of a quote that is out of date the prices are those of now.
 */
export function handOver(command: HandOver): HandOverOutcome {
  const { newId, order, handed, customer, items, today } = command;
  const isOver = order.sort === 'quote' && order.until !== '' && order.until < today;
  const lines = order.lines.flatMap((line): OpenLine[] => {
    const quantity = restOf(line, handed);
    if (quantity === 0) return [];
    const item = line.item === null ? undefined : items.get(line.item);
    const agreed = openLine(newId(), order.id, line, quantity, handed);
    const now = item === undefined ? agreed : { ...agreed, ...asNow(item) };
    return [isOver && item !== undefined ? atPriceOfNow(now, item) : now];
  });
  if (lines.length === 0) return { ok: false, refusal: { code: 'order/ended' } };
  const { id, number } = order;
  return {
    ok: true,
    slip: {
      ...emptySlip(newId()),
      ...{ lines, customer },
      handsOver: { id, number, customer: order.customer },
    },
  };
}

function openLine(
  key: string,
  order: string,
  line: OrderLine,
  quantity: number,
  handed: HandedOver,
): OpenLine {
  const { id, gross: _gross, discount: off, standing: _standing, total: _total, ...goods } = line;
  const ordered = { order, line: id, off, of: line.quantity, before: handed.get(id) ?? 0 };
  const amount = offNext(ordered, quantity);
  return {
    ...{ ...goods, key, quantity, ordered },
    ...(amount === 0 ? {} : { discount: { amount } }),
  };
}

/** What moves money and stock beside its price. */
const asNow = ({ taxes, cost, isStocked, maker }: Row<'items'>) => ({
  ...{ taxes, cost, isStocked },
  maker: maker ?? undefined,
});

function atPriceOfNow(line: OpenLine, { price, otherPrice }: Row<'items'>): OpenLine {
  const { discount: _off, listPrice: _list, listOther: _other, reason: _why, ...rest } = line;
  return {
    ...rest,
    price,
    otherPrice: otherPrice ?? undefined,
    ...(line.ordered === undefined ? {} : { ordered: { ...line.ordered, off: 0 } }),
  };
}
