/** The open slip becomes an order of its customer. */
import {
  keepOrder,
  nextOrderNumber,
  type KeepOrder,
  type OrderRefusal,
} from '../core/order/set-order';
import { slipEnded } from '../core/set-aside/slip-ended';
import { newId } from './new-id';
import type { SlipDesk, SlipOver } from './slip-acts';

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
