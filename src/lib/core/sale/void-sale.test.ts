import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { BodyOf } from '../daybook/kinds';
import { handedBackIn } from '../journal/take-back';
import { readEntry } from '../daybook/read-entry';
import { AT_EVENT, CARD, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { CARD_WAY, DRAWER, EVENT, idOf, item, TAX } from '../testing/made-up-business';
import { booksOf } from '../testing/books-of';
import { heldDrafts, voucherOf } from '../testing/held-drafts';
import { isTooLarge } from '../daybook/entry-size';
import { emptySlip, MOST_LINES, putItem } from '../slip/open-slip';
import { takePart } from './take-part';
import { voidSale, type VoidOutcome, type VoidSale } from './void-sale';

const writer = new DeviceWriter(1);

/** A sale paid by card with a surcharge, a tip and the uplift, tax on top and a service charge. */
const sold = (() => {
  const put = putItem(emptySlip(writer.newId()), item(2, 333), 3000, 'a');
  assert.ok(put.ok);
  const taken = takePart({
    newId: writer.newId,
    slip: put.slip,
    pricing: {
      currency: 'GBP',
      pricesIncludeTax: false,
      taxRounding: 'line',
      cashStep: 1,
      typedSide: 'cash',
      uplift: '3.5',
      service: { percent: '10', taxes: [TAX] },
    },
    taxes: [VAT],
    event: AT_EVENT,
    way: CARD_WAY,
    drawer: null,
    amount: null,
    tip: 150,
    card: CARD,
    deviceNumber: 1,
    number: 1,
    now: 0,
  });
  assert.ok(taken.ok && taken.slip === null);
  return writer.append(taken.drafts, 0);
})();
const before = booksOf(sold);
const voided = (change: Partial<VoidSale> = {}): VoidOutcome =>
  voidSale({
    newId: writer.newId,
    sale: before.rows('sales')[0]!,
    lines: before.rows('saleLines'),
    payments: before.rows('payments'),
    reason: 'wrong table',
    ...{ voids: [], returns: [] },
    event: EVENT,
    openDrawers: [],
    ...change,
  });

describe('voiding a sale', () => {
  it('is refused once a voucher that it sold has been spent, and not before', () => {
    const writing = new DeviceWriter(2);
    const drafts = heldDrafts(
      writing,
      { does: 'held', what: 'pay in', on: 'voucher', n: 1, amount: 500 },
      null,
      0,
    );
    const books = booksOf(writing.append(drafts, 0));
    const of = {
      ...{ sale: books.rows('sales')[0]!, lines: books.rows('saleLines') },
      ...{ payments: books.rows('payments'), openDrawers: [DRAWER] },
    };
    const account = `voucher:${voucherOf(1)}`;
    assert.ok(voided({ ...of, balances: new Map([[account, -500]]) }).ok);
    const late = voided({ ...of, balances: new Map([[account, -499]]) });
    assert.equal(late.ok ? 'ok' : late.refusal.code, 'void/spent');
  });

  it('takes every sum back to nothing, and the goods to where they were', () => {
    const outcome = voided();
    assert.ok(outcome.ok);
    const after = booksOf([...sold, ...writer.append(outcome.drafts, 1)]);
    for (const table of ['eventTotals', 'eventItems', 'eventHours', 'eventTaxes'] as const)
      for (const row of after.rows(table))
        for (const [field, value] of Object.entries(row))
          if (typeof value === 'number' && field !== 'hour')
            assert.equal(value, 0, `${table}.${field}`);
    for (const row of [...after.rows('eventWays'), ...after.rows('eventTips')])
      assert.deepEqual([row.parts, row.tips], [0, 0]);
    for (const { quantity } of after.rows('stock')) assert.equal(quantity, 0);
    assert.equal(after.rows('cardPayments')[0]?.isReversed, true);
    // The sale itself stays as it was, with the void beside it.
    assert.deepEqual(after.rows('sales'), before.rows('sales'));
    assert.equal(after.rows('voids')[0]?.reason, 'wrong table');
  });

  it('gives back all that was charged, tip and surcharge with it', () => {
    const outcome = voided();
    assert.ok(outcome.ok);
    const [part] = before.rows('payments');
    const { charge, surcharge, tip } = part!;
    const [, back] = (outcome.drafts[0]!.body as BodyOf<'sale.voided'>).takes;
    assert.equal(handedBackIn(back!), charge + surcharge + tip);
  });

  it('fits into an entry with as many lines as a slip may hold, each with four taxes', () => {
    const line = before.rows('saleLines')[0]!;
    const ids = [1, 2, 3, 4].map((n) => idOf(3, n));
    const taxes = ids.map((id) => ({ id, name: 'Tax', rate: '17.125', base: 99999900, amount: 1 }));
    const tax = Object.fromEntries(ids.map((id) => [id, 16666650]));
    const lines = Array.from({ length: MOST_LINES }, (_, at) => ({
      ...line,
      line: at,
      item: idOf(6, at),
      maker: idOf(7, at),
      quantity: 999_000,
      total: 99_999_900,
      tax,
    }));
    const outcome = voided({ lines, sale: { ...before.rows('sales')[0]!, taxes } });
    assert.ok(outcome.ok);
    const [entry] = writer.append(outcome.drafts, 0);
    assert.ok(!isTooLarge(entry!));
    assert.ok(readEntry(entry!).ok);
  });

  const cash = { ...before.rows('payments')[0]!, drawer: DRAWER };
  const refused = [
    { is: 'void/no-reason', change: { reason: ' ' } },
    { is: 'void/already', change: { voids: [{ sale: before.rows('sales')[0]!.id }] } },
    { is: 'void/returned', change: { returns: [{ sale: before.rows('sales')[0]!.id }] } },
    { is: 'void/shift-over', change: { payments: [cash] } },
    { is: 'void/shift-over', change: { event: null } },
  ];
  for (const { is, change } of refused)
    it(`says ${is}`, () => {
      const outcome = voided(change);
      assert.equal(outcome.ok ? 'voided' : outcome.refusal.code, is);
    });
});
