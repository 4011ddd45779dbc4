import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { SlipTax } from '../pricing/slip';
import { emptySlip, putItem, type OpenSlip } from '../slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../testing/a-sale';
import { DRAWER, idOf, item, TAX } from '../testing/made-up-business';
import { ringUp, type RingUp, type RungUp } from './ring-up';

const tax: SlipTax = VAT;
const put = putItem(emptySlip(idOf(9, 1)), item(1, 450), 3000, 'a');
assert.ok(put.ok);
let ids = 0;
const command: RingUp = {
  newId: () => idOf(8, (ids += 1)),
  slip: put.slip,
  pricing: PRICING,
  taxes: [tax],
  event: AT_EVENT,
  drawer: DRAWER,
  handed: 2000,
  deviceNumber: 3,
  number: 17,
  now: Date.UTC(2026, 6, 4, 23, 30),
};
const rung = (change: Partial<RingUp>): RungUp => ringUp({ ...command, ...change });
const code = (outcome: RungUp): string => (outcome.ok ? 'rung up' : outcome.refusal.code);

describe('ringing up for cash', () => {
  it('makes a payment and a sale that name each other', () => {
    const outcome = rung({});
    assert.ok(outcome.ok);
    const [payment, sale] = outcome.drafts;
    assert.deepEqual([payment?.kind, sale?.kind], ['payment.taken', 'sale.rung']);
    assert.deepEqual(sale?.body['payments'], [payment?.id]);
    assert.deepEqual(
      [outcome.total, outcome.change, payment?.body['clears'], payment?.body['charge']],
      [1350, 650, 1350, 2000],
    );
  });

  it('keeps the tax as it was worked out', () => {
    const outcome = rung({});
    assert.ok(outcome.ok);
    assert.deepEqual(outcome.drafts[1]?.body['taxes'], [
      { id: TAX, name: 'VAT', rate: '20', base: 1125, amount: 225 },
    ]);
  });

  it('files the sale under the day and hour at the event, not those of the server', () => {
    const outcome = rung({});
    assert.ok(outcome.ok);
    const { day, hour } = outcome.drafts[1]!.body;
    assert.deepEqual([day, hour], ['2026-07-05', 0]);
  });

  it('needs no payment for what costs nothing', () => {
    const free = putItem(emptySlip(idOf(9, 2)), item(1, 0), 1000, 'a');
    assert.ok(free.ok);
    const outcome = rung({ slip: free.slip, handed: 0 });
    assert.ok(outcome.ok);
    assert.deepEqual(
      outcome.drafts.map(({ kind }) => kind),
      ['sale.rung'],
    );
  });

  const nothing: OpenSlip = emptySlip(idOf(9, 3));
  it('refuses an empty slip', () =>
    assert.equal(code(rung({ slip: nothing })), 'sale/nothing-on-it'));
  it('refuses to be paid short, and says by how much', () => {
    const outcome = rung({ handed: 1000 });
    assert.deepEqual(outcome.ok ? null : outcome.refusal, { code: 'sale/paid-short', left: 350 });
  });
  for (const handed of [-1, 0.5, Number.NaN, Number.POSITIVE_INFINITY]) {
    it(`refuses ${handed} as an amount`, () =>
      assert.equal(code(rung({ handed })), 'sale/not-an-amount'));
  }
});
