import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { BodyOf } from '../daybook/kinds';
import { kinds } from '../daybook/kinds';
import { PLAIN_ITEM } from '../goods/plain-item';
import { EVENT, idOf, itemId, personId } from '../testing/made-up-business';
import { itemAt, priceOver } from './event-prices';
import { costOfCost, costsOf, feeOf, NO_FEE } from './pitch-fee';
import {
  addThing,
  removeThing,
  setCosts,
  setPeople,
  setPrices,
  tickThing,
  type GroupOutcome,
  type TypedCosts,
} from './set-groups';

let ids = 0;
const newId = (): string => idOf(72, (ids += 1));
const event = { id: EVENT };
function made<K extends 'event.costs' | 'event.prices' | 'event.people'>(
  kind: K,
  outcome: GroupOutcome,
): BodyOf<K> {
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return kinds[kind].body.parse(outcome.drafts[0]?.body) as BodyOf<K>;
}
const fault = (outcome: GroupOutcome): string =>
  outcome.ok ? 'ok' : `${outcome.refusal.field}: ${outcome.refusal.code}`;

describe('a pitch fee', () => {
  const takings = { gross: 120_000, net: 100_000 };
  const fee = (kind: (typeof NO_FEE)['kind'], of: 'gross' | 'net' = 'gross') =>
    feeOf({ kind, fixed: 5000, percent: '7.5', of }, takings);

  it('is fixed, a part of the takings with tax or without, the larger of both, or both', () => {
    assert.deepEqual(
      [fee('none'), fee('fixed'), fee('percent'), fee('percent', 'net')],
      [0, 5000, 9000, 7500],
    );
    assert.deepEqual([fee('larger'), fee('both', 'net')], [9000, 12_500]);
    assert.equal(feeOf({ ...NO_FEE, kind: 'larger', fixed: 5000 }, takings), 5000);
    // Not below what was agreed, nor above it; without a fee nothing was.
    const bounds = { least: 1000, most: 8000 };
    assert.equal(feeOf({ ...NO_FEE, kind: 'percent', percent: '7.5', ...bounds }, takings), 8000);
    assert.equal(feeOf({ ...NO_FEE, kind: 'fixed', fixed: 5, ...bounds }, takings), 1000);
    assert.equal(feeOf({ ...NO_FEE, ...bounds }, takings), 0);
    // More went back than came in: nobody pays the vendor for that.
    assert.equal(
      feeOf({ ...NO_FEE, kind: 'percent', percent: '10' }, { gross: -500, net: -400 }),
      0,
    );
  });

  it('is beside other costs, by the kilometre and the hour', () => {
    const costs = [
      { what: 'diesel', each: 45, per: 'km', many: 62_500 },
      { what: 'Oriel', each: 1200, per: 'hour', many: 7500 },
      { what: 'power', each: 1500, per: 'once', many: 1000 },
    ] as const;
    assert.deepEqual(costs.map(costOfCost), [2813, 9000, 1500]);
    assert.equal(costsOf(costs), 13_313);
  });

  it('is set up with what is wrong said of its field', () => {
    const typed: TypedCosts = {
      ...{ kind: 'larger', fixed: '50', percent: '7,5', of: 'net', least: '', most: '' },
      costs: [
        { what: 'diesel', each: '0.45', per: 'km', many: '62.5' },
        { what: '', each: '', per: 'once', many: '' },
      ],
    };
    const body = made('event.costs', setCosts(newId, event, typed, 'GBP'));
    assert.deepEqual(body.fee, { kind: 'larger', fixed: 5000, percent: '7.5', of: 'net' });
    assert.deepEqual(body.costs, [{ what: 'diesel', each: 45, per: 'km', many: 62_500 }]);
    const set = (more: Partial<TypedCosts>): string =>
      fault(setCosts(newId, event, { ...typed, ...more }, 'GBP'));
    assert.equal(set({ fixed: 'much' }), 'fixed: event/amount-wrong');
    assert.equal(set({ percent: '-3' }), 'percent: event/percent-wrong');
    assert.equal(set({ least: 'some' }), 'least: event/amount-wrong');
    assert.equal(set({ least: '60', most: '50' }), 'most: event/most-below-least');
    const bound = { ...typed, least: '20', most: '60.50' };
    const agreed = made('event.costs', setCosts(newId, event, bound, 'GBP'));
    assert.deepEqual([agreed.fee.least, agreed.fee.most], [2000, 6050]);
    const [cost] = typed.costs;
    assert.equal(set({ costs: [{ ...cost!, what: ' ' }] }), 'what 0: event/cost-unnamed');
    assert.equal(set({ costs: [{ ...cost!, each: 'x' }] }), 'each 0: event/amount-wrong');
    assert.equal(set({ costs: [{ ...cost!, many: '-1' }] }), 'many 0: event/amount-wrong');
  });
});

describe('prices at an event', () => {
  const item = { ...PLAIN_ITEM, id: itemId(1), name: 'Thing', price: 450, category: 'herbs' };
  const up = { category: '', percent: '10', isOff: false, step: 50 };

  it('are single ones before a category, and a category before everything', () => {
    const off = { category: 'herbs', percent: '20', isOff: true, step: 10 };
    const at = (single: number[], over: (typeof up)[]) =>
      itemAt(
        { ...item, otherPrice: 470 },
        { single: single.map((price) => ({ item: item.id, price })), over },
      );
    assert.equal(at([], []).price, 450);
    assert.deepEqual([at([], [up]).price, at([], [up]).otherPrice], [500, 500]);
    assert.equal(at([], [up, off]).price, 360);
    assert.deepEqual([at([399], [up]).price, at([399], [up]).otherPrice], [399, null]);
    const open = { ...item, isOpenPrice: true };
    assert.equal(itemAt(open, { single: [], over: [up] }), open);
    assert.equal(itemAt(item, undefined), item);
  });

  it('are multiples of the step, nearest to what the percentage gives', () => {
    assert.equal(priceOver(425, up), 450);
    // Half a step goes up.
    assert.equal(priceOver(250, { ...up, percent: '10', step: 50 }), 300);
    assert.equal(priceOver(450, { ...up, percent: '100', isOff: true }), 0);
    fc.assert(
      fc.property(
        fc.nat({ max: 1_000_000 }),
        fc.integer({ min: 1, max: 500 }),
        fc.nat({ max: 300 }),
        fc.boolean(),
        (price, step, percent, isOff) => {
          const found = priceOver(price, { ...up, percent: String(percent), isOff, step });
          const exact = Math.max(0, (price * (100 + (isOff ? -percent : percent))) / 100);
          assert.equal(found % step, 0);
          assert.ok(Math.abs(found - exact) <= step / 2 + 1e-6);
        },
      ),
    );
  });

  it('are set up with what is wrong said of its field', () => {
    const over = [{ category: 'herbs', percent: '-12,5', step: '0.10' }];
    const single = [{ item: itemId(1), price: '4.20' }];
    const body = made('event.prices', setPrices(newId, event, { single, over }, 'GBP'));
    assert.deepEqual(body.single, [{ item: itemId(1), price: 420 }]);
    assert.deepEqual(body.over, [{ category: 'herbs', percent: '12.5', isOff: true, step: 10 }]);
    const set = (typed: Partial<Parameters<typeof setPrices>[2]>): string =>
      fault(setPrices(newId, event, { single, over, ...typed }, 'GBP'));
    assert.equal(set({ single: [{ item: itemId(1), price: 'x' }] }), 'price 0: event/amount-wrong');
    assert.equal(set({ single: [...single, ...single] }), 'price 1: event/item-twice');
    const [one] = over;
    assert.equal(set({ over: [{ ...one!, percent: '-101' }] }), 'percent 0: event/percent-wrong');
    assert.equal(set({ over: [{ ...one!, step: '0' }] }), 'step 0: event/amount-wrong');
  });
});

describe('who is there and what is brought', () => {
  it('is on duty between two times, over midnight as well', () => {
    const duty = { person: personId(2), date: '2026-11-28', from: '18:00', until: '01:00' };
    const body = made('event.people', setPeople(newId, event, [duty], []));
    assert.deepEqual(body.duty, [duty]);
    assert.equal(
      fault(setPeople(newId, event, [{ ...duty, until: '18:00' }], [])),
      'from 0: event/duty-hours',
    );
    assert.equal(
      fault(setPeople(newId, event, [{ ...duty, person: '' }], [])),
      'person 0: event/no-person',
    );
  });

  it('is added once, taken off, and ticked', () => {
    const [cloth] = addThing(newId, event, [], ' Cloth ');
    const { things } = kinds['event.bring'].body.parse(cloth?.body);
    assert.equal(things[0]?.name, 'Cloth');
    assert.deepEqual(addThing(newId, event, things, 'cloth'), []);
    assert.deepEqual(addThing(newId, event, things, ' '), []);
    const [without] = removeThing(newId, event, things, things[0].id);
    assert.deepEqual(without?.body['things'], []);
    const [ticked] = tickThing(newId, event, things[0].id, true);
    assert.equal(ticked?.kind, 'event.ticked');
  });
});
