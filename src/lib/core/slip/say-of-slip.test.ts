import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { readEntry } from '../daybook/read-entry';
import { saleRights } from '../people/judge';
import { ringUp } from '../sale/ring-up';
import { AT_EVENT, PRICING, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { idOf, item, TAX } from '../testing/made-up-business';
import {
  emptySlip,
  putItem,
  sayOfLine,
  sayOfSlip,
  setPrice,
  type OpenSlip,
  type SlipOutcome,
} from './open-slip';
import { priceSlip, standingOf, taxesAt } from './price-slip';
import type { Pricing } from './pricing';
import { discountText, readDiscount } from './read-discount';

const pricing: Pricing = PRICING;
const taxes = [VAT];
const done = (outcome: SlipOutcome): OpenSlip => {
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome.slip;
};
const refusal = (outcome: SlipOutcome): string => (outcome.ok ? 'done' : outcome.refusal.code);
const fern = item(1, 1000);
const one = done(putItem(emptySlip(idOf(50, 1)), fern, 1000, idOf(51, 1)));
const key = idOf(51, 1);
const total = (slip: OpenSlip, with_: Partial<Pricing> = {}): number =>
  priceSlip(slip, { ...pricing, ...with_ }, taxes).cash.total;

describe('saying more of a line', () => {
  it('another price keeps what it was and why, and at what it was it is as before', () => {
    const cheaper = done(setPrice(one, key, 800, 'bruised'));
    const [line] = cheaper.lines;
    assert.deepEqual([line?.price, line?.listPrice, line?.reason], [800, 1000, 'bruised']);
    const twice = done(setPrice(cheaper, key, 700, 'very bruised'));
    assert.equal(twice.lines[0]?.listPrice, 1000);
    const back = done(setPrice(twice, key, 1000, ''));
    assert.deepEqual(JSON.parse(JSON.stringify(back.lines)), JSON.parse(JSON.stringify(one.lines)));
  });
  it('another price wants a reason, and is not below zero', () => {
    assert.equal(refusal(setPrice(one, key, 800, '  ')), 'slip/no-reason');
    assert.equal(refusal(setPrice(one, key, -1, 'x')), 'slip/price-wrong');
    assert.equal(refusal(setPrice(one, 'nowhere', 1, 'x')), 'slip/no-such-line');
  });
  it('a line of which something was said takes no more of the same', () => {
    for (const said of [
      done(setPrice(one, key, 800, 'bruised')),
      done(sayOfLine(one, key, { discount: { percent: '10' } })),
      done(sayOfLine(one, key, { note: 'by the door' })),
      done(sayOfLine(one, key, { seller: idOf(7, 1) })),
    ])
      assert.equal(done(putItem(said, fern, 1000, 'k2')).lines.length, 2);
    assert.equal(done(putItem(one, fern, 1000, 'k2')).lines.length, 1);
  });
  it('extras make another line, and the same extras the same one', () => {
    const wrap = [{ name: 'Gift wrap', price: 150 }];
    const wrapped = done(putItem(one, fern, 1000, 'k2', { extras: wrap }));
    const again = done(putItem(wrapped, fern, 2000, 'k3', { extras: wrap }));
    assert.deepEqual(
      again.lines.map(({ quantity }) => quantity),
      [1000, 3000],
    );
    assert.equal(total(again), 1000 + 3 * 1150);
  });
});

describe('what a slip comes to', () => {
  const customer = (discount: string) => ({ id: idOf(8, 1), name: 'Hazel', discount });
  const group = { name: 'Neighbours', percent: '5' };
  it('the larger of two standing discounts counts, the customer’s if they are alike', () => {
    assert.equal(standingOf({ customer: customer('10'), group })?.name, 'Hazel');
    assert.equal(standingOf({ customer: customer('3'), group })?.name, 'Neighbours');
    assert.equal(standingOf({ customer: customer('5'), group })?.name, 'Hazel');
    assert.equal(standingOf({ customer: customer('0') }), null);
    assert.equal(total(sayOfSlip(one, { customer: customer('10'), group })), 900);
  });
  it('a service charge is what the business charges unless the slip says otherwise', () => {
    const service = { percent: '10', taxes: [TAX] };
    assert.equal(total(one, { service }), 1100);
    assert.equal(total(sayOfSlip(one, { service: null }), { service }), 1000);
    assert.equal(total(sayOfSlip(one, { service: { amount: 50, taxes: [] } }), { service }), 1050);
    assert.equal(total(emptySlip('x'), { service: { amount: 50, taxes: [] } }), 0);
  });
  it('an event charges other taxes in the place of some, or none', () => {
    const swaps = [
      { from: 'a', to: 'c' },
      { from: 'b', to: null },
    ];
    assert.deepEqual(taxesAt(['a', 'b', 'd'], swaps), ['c', 'd']);
    assert.deepEqual(taxesAt(['a', 'c'], swaps), ['c']);
  });
});

describe('a discount as it is typed', () => {
  for (const [typed, is] of [
    ['', undefined],
    ['0', undefined],
    ['0 %', undefined],
    ['10%', { percent: '10' }],
    ['12,5 %', { percent: '12.5' }],
    ['2', { amount: 200 }],
    ['£2.50', { amount: 250 }],
  ] as const) {
    it(`“${typed}” is ${JSON.stringify(is)}`, () =>
      assert.deepEqual(readDiscount(typed, 'GBP'), { ok: true, discount: is }));
  }
  for (const typed of ['101 %', 'ten', '-2', '2.505', '%']) {
    it(`“${typed}” is refused`, () => assert.equal(readDiscount(typed, 'GBP').ok, false));
  }
  it('reads again what it writes', () => {
    const text = (amount: number): string => (amount / 100).toFixed(2);
    for (const discount of [{ percent: '12.5' }, { amount: 250 }])
      assert.deepEqual(readDiscount(discountText(discount, text), 'GBP'), { ok: true, discount });
  });
});

describe('ringing up all that a slip can hold', () => {
  const percent = fc.integer({ min: 0, max: 100 }).map(String);
  const line = fc.record({
    price: fc.integer({ min: 0, max: 9999 }),
    count: fc.integer({ min: 1, max: 9 }),
    off: percent,
    extra: fc.integer({ min: 0, max: 500 }),
    changed: fc.boolean(),
  });
  it('gives an entry that is in order, whatever is on it, and the slip’s own total', () => {
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 6 }),
        percent,
        percent,
        fc.constantFrom('line', 'sale'),
        fc.boolean(),
        (lines, standing, service, taxRounding, pricesIncludeTax) => {
          let slip = emptySlip(idOf(50, 1));
          lines.forEach(({ price, count, off, extra, changed }, at) => {
            const own = idOf(52, at);
            const extras = extra === 0 ? [] : [{ name: 'Wrap', price: extra }];
            slip = done(putItem(slip, item(at, price), count * 1000, own, { extras }));
            slip = done(sayOfLine(slip, own, { discount: { percent: off }, note: 'n' }));
            if (changed) slip = done(setPrice(slip, own, price + 1, 'dearer'));
          });
          const hazel = { id: idOf(8, 1), name: 'Hazel', discount: standing };
          slip = sayOfSlip(slip, {
            customer: hazel,
            service: { percent: service, taxes: [TAX] },
            kept: { sort: 'aside', name: '' },
          });
          const all = { ...pricing, taxRounding, pricesIncludeTax };
          const rung = ringUp({
            newId: new DeviceWriter(1).newId,
            slip,
            pricing: all,
            taxes,
            event: AT_EVENT,
            drawer: idOf(4, 1),
            handed: 100_000_000,
            deviceNumber: 1,
            number: 1,
            now: 0,
          });
          assert.ok(rung.ok);
          assert.equal(rung.total, priceSlip(slip, all, taxes).cash.total);
          const written = new DeviceWriter(1).append(rung.drafts, 0);
          for (const entry of written) assert.deepEqual(readEntry(entry).ok, true);
          assert.equal(written.at(-1)?.kind, 'slip.gone');
          // Who bought is an id; a name could never be forgotten.
          assert.ok(!JSON.stringify(written).includes('Hazel'));
        },
      ),
      { numRuns: 200 },
    );
  });
});

describe('the rights that a slip asks for', () => {
  const sold = (gross: number, discount: number, more: object = {}) => [
    { gross, discount, ...more },
  ];
  it('none within what everybody may give, and standing discounts are free', () => {
    assert.deepEqual(saleRights(sold(1000, 50), '5'), []);
    assert.deepEqual(saleRights(sold(1000, 150, { standing: 100 }), '5'), []);
  });
  it('one for more off, one for another price, both for both', () => {
    assert.deepEqual(saleRights(sold(1000, 51), '5'), ['discount.over']);
    assert.deepEqual(saleRights(sold(1000, 0, { listPrice: 1200 }), '5'), ['price.change']);
    assert.deepEqual(saleRights(sold(1000, 51, { listPrice: 1200 }), '5'), [
      'discount.over',
      'price.change',
    ]);
  });
});
