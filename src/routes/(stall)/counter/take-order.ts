/** Orders of customers at this counter: handed over, and paid for in advance. */
import type { Row } from '$lib/core/books/tables';
import type { OrderRefusal } from '$lib/core/order/set-order';
import type { KeepRefusal } from '$lib/core/set-aside/kept-slips';
import { isBlank, type SlipCustomer, type SlipRefusal } from '$lib/core/slip/open-slip';
import { slipOfOrder } from '$lib/device/orders';
import type { SlipOver } from '$lib/device/slip-acts';
import { HELD_LINES } from '$lib/ui/words/held-words';
import type { Stall } from '../stall.svelte';
import { setAside } from './keep-slip';

export type TakeRefusal = OrderRefusal | KeepRefusal | SlipOver | SlipRefusal;

/** What is left of the order is on the slip; what was on it is set aside. @returns Why not, or null. */
export async function takeOrder(stall: Stall, order: string): Promise<TakeRefusal | null> {
  const made = await slipOfOrder(stall.db, order, stall.today);
  if (!made.ok) return made.refusal;
  if (!isBlank(stall.slip.current)) {
    const aside = await setAside(stall);
    if (!aside.ok) return aside.refusal;
  }
  return stall.slip.takeOrder(made.slip);
}

export const isDepositWay = ({ method, isActive }: Row<'ways'>): boolean =>
  method === 'deposit' && isActive;

/** A deposit, or an instalment of it, as a line of the slip. @returns Why not, or null. */
export function putDeposit(
  { slip, wayRows }: Pick<Stall, 'slip' | 'wayRows'>,
  { id, number, customer }: { id: string; number: string; customer: SlipCustomer },
  amount: number,
): SlipRefusal | OrderRefusal | null {
  // It could not be spent.
  if (!wayRows.some(isDepositWay)) return { code: 'order/no-way' };
  const said = slip.current.customer?.id === customer.id ? null : slip.say({ customer });
  return (
    said ??
    slip.putPaidIn({ account: `deposit:${id}`, name: HELD_LINES.deposit, detail: number, amount })
  );
}
