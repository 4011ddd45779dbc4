/** Sales that are paid from accounts that somebody holds, or pay in on them, as a device writes them; for the server tests. */
import assert from 'node:assert/strict';
import type { HeldAccount } from '../../src/lib/core/held/held-account';
import type { HeldFacts } from '../../src/lib/core/held/spend';
import { CASH_WAY } from '../../src/lib/core/payment/ways';
import { takePart, type TakePart } from '../../src/lib/core/sale/take-part';
import { emptySlip, putItem, putPaidIn, type OpenSlip } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { heldWay } from '../../src/lib/core/testing/held-drafts';
import { BUSINESS, customerId, DRAWER, item } from '../../src/lib/core/testing/made-up-business';
import { NOW, type Pushing } from './pushing';

/** As a device has it that heard of so much on the account and of nothing since. */
export const known = (balance: number, creditLimit: number | null = null): HeldFacts => ({
  ...{ balance, sold: [{ until: '', value: 1000, kept: null }], state: undefined, creditLimit },
});

export const buyer = (n: number) => ({ id: customerId(n), name: 'Wren', discount: '0' });

/** @param desk Whose devices write them. */
export function heldTill(desk: Pushing) {
  function sell(slip: OpenSlip, device: number, paid: Partial<TakePart> & Pick<TakePart, 'way'>) {
    const writer = desk.writers[device - 1]!;
    const taken = takePart({
      ...{ newId: writer.newId, slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: NOW },
      ...{ drawer: DRAWER, amount: null, business: BUSINESS },
      ...{ deviceNumber: device, number: writer.nextSale() },
      ...paid,
    });
    assert.ok(taken.ok, JSON.stringify(taken));
    assert.equal(taken.slip, null);
    return taken.drafts;
  }

  function paidIn(account: HeldAccount, amount: number, device = 1, buys?: number) {
    const line = { account, name: 'Voucher', detail: '', amount };
    const put = putPaidIn(emptySlip(desk.newId()), line, 'in');
    assert.ok(put.ok);
    const slip = buys === undefined ? put.slip : { ...put.slip, customer: buyer(buys) };
    return sell(slip, device, { way: CASH_WAY });
  }

  function spent(
    on: 'customer' | 'credit' | 'voucher',
    device: number,
    held: HeldFacts,
    more: Partial<TakePart> & { readonly buys?: number } = {},
  ) {
    const { buys, ...paid } = more;
    const put = putItem(emptySlip(desk.newId()), item(1, 105), 2000, 'a');
    assert.ok(put.ok);
    const slip = buys === undefined ? put.slip : { ...put.slip, customer: buyer(buys) };
    return sell(slip, device, { way: heldWay(on), held, ...paid });
  }

  return { sell, paidIn, spent };
}
