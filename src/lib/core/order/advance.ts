/** What is paid for an order in advance, and kept of that when it is called off. Minor units. */
import { BASE, type Row } from '../books/tables';
import { emptySlip, putUnlisted, type SlipOutcome } from '../slip/open-slip';
import type { OrderNow } from './order-state';
import type { OrderRefusal } from './set-order';

/** What was agreed and has not been paid in yet; after that all that is due. */
export function asksFor({
  due,
  deposit,
  order,
}: Pick<OrderNow, 'due' | 'deposit' | 'order'>): number {
  const agreed = order.deposit - deposit;
  return Math.min(due, agreed > 0 ? agreed : due);
}

/** Why so much is not taken in advance; null if it is. */
export const advanceFault = ({ due }: Pick<OrderNow, 'due'>, amount: number): OrderRefusal | null =>
  amount > due ? { code: 'order/more-than-due', due } : null;

/** Where goods are kept: what is there stays where it is collected, if that is here; all else where goods are at home. */
export const keptAt = (
  isThere: boolean,
  collectAt: string | null,
  here: string | undefined,
): string => (isThere && here !== undefined && collectAt === here ? here : BASE);

export interface FeeOf {
  readonly newId: () => string;
  readonly now: Pick<OrderNow, 'order' | 'deposit'>;
  /** Whose order it is, as they are called. */
  readonly name: string;
  readonly amount: number;
  /** That it carries: the first of the set-up, which is the one most goods carry. */
  readonly taxes: readonly Pick<Row<'taxes'>, 'id'>[];
}

/** A fee for an order that was called off, as a slip that its deposit pays for: nobody's standing discount is on it. */
export function feeSlip({
  newId,
  now,
  name,
  amount,
  taxes,
}: FeeOf): SlipOutcome | { readonly ok: false; readonly refusal: OrderRefusal } {
  const { id, number, customer } = now.order;
  if (amount > now.deposit)
    return { ok: false, refusal: { code: 'order/fee-more', left: now.deposit } };
  const carries = taxes.slice(0, 1).map((tax) => tax.id);
  const line = { name: `Fee, ${number} called off`, price: amount, taxes: carries };
  const made = putUnlisted(emptySlip(newId()), line, newId());
  if (!made.ok) return made;
  return {
    ok: true,
    slip: {
      ...made.slip,
      customer: { id: customer, name, discount: '0' },
      handsOver: { id, number, customer },
    },
  };
}
