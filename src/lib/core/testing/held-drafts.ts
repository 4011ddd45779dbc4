/** Accounts that somebody holds, drawn for the property tests: paid in, spent, moved, and what is said of vouchers. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import type { HeldAccount } from '../held/held-account';
import { taxWithin, type KeptTax } from '../held/one-purpose';
import type { HeldFacts } from '../held/spend';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import { takePart } from '../sale/take-part';
import { emptySlip, putItem, putPaidIn } from '../slip/open-slip';
import { BUSINESS, customerId, DRAWER, EVENT, idOf, item, pricing, tax } from './made-up-business';
import { voided, type Writer } from './put-right-drafts';

export const HELD_DOES = ['pay in', 'spend', 'void', 'move', 'set', 'lapse'] as const;

export interface HeldStep {
  readonly does: 'held';
  readonly what: (typeof HELD_DOES)[number];
  readonly on: 'customer' | 'credit' | 'voucher';
  readonly n: number;
  readonly amount: number;
}

const METHODS = { customer: 'account', credit: 'credit', voucher: 'voucher' } as const;
export const heldWay = (on: HeldStep['on']): WayToPay => ({
  ...CASH_WAY,
  id: idOf(33, ['customer', 'credit', 'voucher'].indexOf(on) + 1),
  setStamp: 'x',
  name: on,
  method: METHODS[on],
  opensDrawer: false,
  givesChange: false,
});

export const voucherOf = (n: number): string => `PRINTED${String(n)}`;
const accountOf = (on: HeldStep['on'], n: number): HeldAccount =>
  on === 'voucher' ? `voucher:${voucherOf(n)}` : `${on}:${customerId(n)}`;

/** The second voucher is for goods of one tax. */
const keptWith = (on: HeldStep['on'], n: number, value: number): KeptTax | null =>
  on === 'voucher' && n === 2 ? taxWithin(value, tax) : null;

/** As a device knows it that has heard of enough: whether that is so the books say. */
const factsOf = (on: HeldStep['on'], n: number): HeldFacts => ({
  balance: -1_000_000,
  sold: [{ until: '', value: 1000, kept: keptWith(on, n, 1000) }],
  ...{ state: undefined, creditLimit: null },
});

export function heldDrafts(
  writer: Writer,
  { what, on, n, amount }: HeldStep,
  by: string | null,
  now: number,
): readonly Draft[] {
  const account = accountOf(on, n);
  const kept = keptWith(on, n, amount) ?? undefined;
  switch (what) {
    case 'set': {
      const body = { number: voucherOf(n), isBlocked: amount % 2 === 0, until: '', reason: 'lost' };
      return [draft('voucher.set', writer.newId(), null, body)];
    }
    case 'lapse': {
      const body = { number: voucherOf(n), amount, ...(kept === undefined ? {} : { kept }) };
      return [draft('voucher.lapsed', writer.newId(), null, body)];
    }
    case 'move': {
      const to = accountOf(on === 'voucher' ? 'credit' : 'voucher', 3 - n);
      const body = { from: account, to, amount, until: '', reason: 'asked for' };
      return [draft('held.moved', writer.newId(), null, body)];
    }
    case 'pay in':
    case 'void': {
      const line = { account, name: 'Paid in', detail: '', amount, until: '2027-11-22', kept };
      const put = putPaidIn(emptySlip(writer.newId()), line, 'in');
      if (!put.ok) throw new Error(put.refusal.code);
      const sold = sell(writer, put.slip, CASH_WAY, n, now);
      return what === 'void' ? [...sold, ...voided(writer, sold, by, true)] : sold;
    }
    case 'spend': {
      const put = putItem(emptySlip(writer.newId()), item(n, amount), 1000, 'line');
      if (!put.ok) throw new Error(put.refusal.code);
      return sell(writer, put.slip, heldWay(on), n, now, factsOf(on, n));
    }
  }
}

/** Rung up for a customer, whatever the way to pay knows of any account. */
export function sell(
  writer: Writer,
  slip: ReturnType<typeof emptySlip>,
  way: WayToPay,
  n: number,
  now: number,
  held: HeldFacts = factsOf('customer', n),
): readonly Draft[] {
  const taken = takePart({
    newId: writer.newId,
    slip: { ...slip, customer: { id: customerId(n), name: 'Wren', discount: '0' } },
    ...{ pricing, taxes: [tax], event: { id: EVENT, timeZone: 'Europe/London' } },
    ...{ drawer: DRAWER, deviceNumber: writer.number, number: writer.nextSale(), now },
    ...{ way, amount: null, reference: voucherOf(n), held, business: BUSINESS },
  });
  if (!taken.ok) throw new Error(taken.refusal.code);
  return taken.drafts;
}
