/** Orders of customers, drawn for the property tests: agreed, paid for in advance, handed over, called off. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { stageOrder } from '../order/set-order';
import type { OrderLine } from '../order/agreed';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import { emptySlip, putPaidIn, type OpenSlip } from '../slip/open-slip';
import { customerId, EVENT, idOf, itemId, TAX } from './made-up-business';
import { sell } from './held-drafts';
import { voided, type Writer } from './put-right-drafts';

export const ORDER_DOES = [
  'agree',
  'terms',
  'off',
  'pay in',
  'paid there',
  'hand over',
  'void',
] as const;

export interface OrderStep {
  readonly does: 'order';
  readonly what: (typeof ORDER_DOES)[number];
  readonly n: number;
  readonly quantity: number;
}

export const orderId = (n: number): string => idOf(34, n);
export const DEPOSIT_WAY: WayToPay = {
  ...CASH_WAY,
  id: idOf(33, 4),
  setStamp: 'x',
  name: 'Deposit',
  method: 'deposit',
  opensDrawer: false,
  givesChange: false,
};

/** Nine of a thing at 2.00, 1.00 off all of them. */
export const orderLine = (n: number): OrderLine => ({
  ...{ id: idOf(35, n), item: itemId(n), name: `Thing ${String(n)}`, detail: '', unit: '' },
  ...{ decimals: 0, price: 200, quantity: 9000, taxes: [TAX], cost: 123_456, isStocked: true },
  ...{ gross: 1800, discount: 100, standing: 0, total: 1700 },
});

export function orderDrafts(
  writer: Writer,
  { what, n, quantity }: OrderStep,
  by: string | null,
  now: number,
): readonly Draft[] {
  const { newId } = writer;
  const order = orderId(n);
  switch (what) {
    case 'agree':
      return [
        draft('order.set', newId(), EVENT, {
          ...{ id: order, number: `K1-${String(n)}`, source: '', customer: customerId(n) },
          ...{ lines: [orderLine(n)], standingName: '' },
        }),
      ];
    case 'terms': {
      const kept = { sort: 'kept', collectAt: EVENT, place: 'base', until: '2027-11-22' } as const;
      return [
        draft('order.terms', newId(), EVENT, {
          ...kept,
          order,
          customer: customerId(n),
          deposit: quantity,
        }),
      ];
    }
    case 'off': {
      const staged = stageOrder({ newId, order, stage: 'off', reason: 'asked to', event: EVENT });
      return staged.ok ? staged.drafts : [];
    }
    case 'paid there': {
      const body = { order, way: idOf(32, 9), amount: quantity, reference: `web ${String(n)}` };
      return [draft('order.paid', newId(), null, body)];
    }
    case 'pay in': {
      const line = { account: `deposit:${order}`, name: 'Deposit', detail: '' } as const;
      const put = putPaidIn(emptySlip(newId()), { ...line, amount: quantity }, 'in');
      if (!put.ok) throw new Error(put.refusal.code);
      return sell(writer, put.slip, CASH_WAY, n, now);
    }
    case 'hand over':
    case 'void': {
      const { gross: _g, discount: off, standing: _s, total: _t, ...goods } = orderLine(n);
      const ordered = { order, line: goods.id, off, of: goods.quantity, before: 0 };
      const slip: OpenSlip = {
        ...emptySlip(newId()),
        lines: [{ ...goods, key: 'line', quantity: quantity * 1000, ordered }],
        handsOver: { id: order, number: `K1-${String(n)}`, customer: customerId(n) },
      };
      const sold = sell(writer, slip, quantity % 2 === 0 ? CASH_WAY : DEPOSIT_WAY, n, now);
      return what === 'void' ? [...sold, ...voided(writer, sold, by, true)] : sold;
    }
  }
}
