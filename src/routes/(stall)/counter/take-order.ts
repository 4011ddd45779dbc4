/** Orders of customers at this counter: handed over, and paid for in advance. */
import type { Row } from '$lib/core/books/tables';
import type { OrderNow } from '$lib/core/order/order-state';
import type { OrderRefusal } from '$lib/core/order/set-order';
import type { KeepRefusal } from '$lib/core/set-aside/kept-slips';
import {
  emptySlip,
  isBlank,
  putUnlisted,
  type SlipCustomer,
  type SlipRefusal,
} from '$lib/core/slip/open-slip';
import { newId } from '$lib/device/new-id';
import { slipOfOrder } from '$lib/device/orders';
import type { SlipOver } from '$lib/device/slip-acts';
import { HELD_LINES } from '$lib/ui/words/held-words';
import type { Stall } from '../stall.svelte';
import { setAside } from './keep-slip';

/** Nobody has set up that deposits pay for anything. */
export interface NoDepositWay {
  readonly code: 'order/no-way';
}

export type TakeRefusal = OrderRefusal | KeepRefusal | SlipOver | SlipRefusal;

/** What is left of the order is on the slip; what was on it is set aside. @returns Why not, or null. */
export async function takeOrder(
  stall: Stall,
  order: Pick<OrderNow, 'order' | 'handed'>,
): Promise<TakeRefusal | null> {
  const made = await slipOfOrder(stall.db, order, stall.today);
  if (!made.ok) return made.refusal;
  if (!isBlank(stall.slip.current)) {
    const aside = await setAside(stall);
    if (!aside.ok) return aside.refusal;
  }
  return stall.slip.takeOrder(made.slip);
}

/** A fee for an order that was called off, as a slip that its deposit pays for. @returns Why not, or null. */
export function putFee(
  { slip, taxes }: Pick<Stall, 'slip' | 'taxes'>,
  { id, number }: Row<'orders'>,
  { id: customer, name }: Row<'customers'>,
  price: number,
): SlipRefusal | null {
  const line = {
    name: `Fee, ${number} called off`,
    price,
    taxes: taxes.slice(0, 1).map((tax) => tax.id),
  };
  const made = putUnlisted(emptySlip(newId()), line, newId());
  if (!made.ok) return made.refusal;
  return slip.takeOrder({
    ...made.slip,
    // Nobody's standing discount is on a fee.
    customer: { id: customer, name, discount: '0' },
    handsOver: { id, number, customer },
  });
}

export const isDepositWay = ({ method, isActive }: Row<'ways'>): boolean =>
  method === 'deposit' && isActive;

/** A deposit, or an instalment of it, as a line of the slip. @returns Why not, or null. */
export function putDeposit(
  { slip, wayRows }: Pick<Stall, 'slip' | 'wayRows'>,
  { id, number, customer }: { id: string; number: string; customer: SlipCustomer },
  amount: number,
): SlipRefusal | NoDepositWay | null {
  // It could not be spent.
  if (!wayRows.some(isDepositWay)) return { code: 'order/no-way' };
  const said = slip.current.customer?.id === customer.id ? null : slip.say({ customer });
  return (
    said ??
    slip.putPaidIn({ account: `deposit:${id}`, name: HELD_LINES.deposit, detail: number, amount })
  );
}
