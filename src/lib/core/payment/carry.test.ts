import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { at, card, DEVICE } from '../testing/a-card';
import { idOf } from '../testing/made-up-business';
import { carriedBy, carryRefusal } from './carry';

const now = Date.parse(at) + 3_600_000;

describe('cards with no network', () => {
  const all = [
    card(1),
    card(2, { at: '2026-11-22T09:00:00.000Z' }),
    card(3, { state: 'captured' }),
    card(4, { device: idOf(5, 2) }),
    card(5, { event: null }),
    card(6, { isReversed: true }),
    card(7, { takenState: 'captured', state: 'captured' }),
  ];
  it('are carried by the device that took them, at whichever event, until somebody has been asked', () =>
    assert.deepEqual(carriedBy(all, DEVICE), {
      amount: 3000,
      count: 3,
      since: '2026-11-22T09:00:00.000Z',
    }));

  const limits = { perPayment: 6000, perDevice: 10_000, hours: 12 };
  const carried = { amount: 5000, count: 1, since: at };
  const cases = [
    { about: 'within the limits', amount: 5000, is: undefined },
    { about: 'more than one may be', amount: 6001, is: 'carry/too-much' },
    { about: 'more than the device may carry', amount: 5001, is: 'carry/over' },
  ];
  for (const { about, amount, is } of cases)
    it(about, () => assert.equal(carryRefusal(limits, carried, amount, now)?.code, is));
  it('while the oldest is too old', () =>
    assert.equal(carryRefusal(limits, carried, 100, now + 12 * 3_600_000)?.code, 'carry/too-old'));
  it('where the vendor takes none', () =>
    assert.equal(carryRefusal(null, carried, 1, now)?.code, 'carry/none'));
});
