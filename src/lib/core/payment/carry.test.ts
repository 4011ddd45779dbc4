import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { idOf } from '../testing/arbitrary-daybook';
import {
  cardErrands,
  cardLooseEnds,
  carriedBy,
  carryRefusal,
  heldCards,
  isCarried,
  openCardEnds,
  type CardPayment,
} from './carry';

const DEVICE = idOf(5, 1);
const EVENT = idOf(2, 1);
const at = '2026-11-22T10:00:00.000Z';
const NOW = '2026-11-22T11:00:00.000Z';
const now = Date.parse(at) + 3_600_000;
const card = (n: number, change: Partial<CardPayment> = {}): CardPayment => ({
  id: idOf(40, n),
  slip: idOf(9, 1),
  way: idOf(32, 1),
  event: EVENT,
  device: DEVICE,
  by: null,
  at,
  amount: 1000,
  askedStamp: `stamp-${String(n)}`,
  takenState: 'deferred',
  scheme: 'Visa',
  last4: '4471',
  clears: 1000,
  customer: null,
  sealed: `sealed-${String(n)}`,
  voice: '',
  takenStamp: 'x',
  isReversed: false,
  reversedStamp: '',
  decision: '',
  decidedAmount: 0,
  decidedBy: '',
  decidedOn: '',
  decidedStamp: '',
  state: '',
  resultAmount: 0,
  approval: '',
  acquirer: '',
  reason: '',
  expires: '',
  resultAt: '',
  resultStamp: '',
  ...change,
});

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

describe('what the acquirer must still be told', () => {
  it('is sent in the order in which it was asked for, and by its own device', () =>
    assert.deepEqual(cardErrands([card(3), card(1), card(2, { device: idOf(5, 2) })], DEVICE), [
      { does: 'send', payment: idOf(40, 1), amount: 1000, sealed: 'sealed-1', voice: '' },
      { does: 'send', payment: idOf(40, 3), amount: 1000, sealed: 'sealed-3', voice: '' },
    ]));
  it('undoes what was asked for and never finished', () =>
    assert.deepEqual(cardErrands([card(1, { takenState: '' })], DEVICE), [
      { does: 'cancel', payment: idOf(40, 1), why: 'unfinished' },
    ]));
  it('undoes what was given back, once', () => {
    const back = { takenState: 'captured', state: 'captured', isReversed: true };
    assert.deepEqual(
      cardErrands([card(1, back), card(2, { ...back, state: 'reversed' })], DEVICE),
      [{ does: 'cancel', payment: idOf(40, 1), why: 'given back' }],
    );
  });
  it('is nothing where all is well', () =>
    assert.deepEqual(
      cardErrands([card(1, { state: 'captured' }), card(2, { state: 'declined' })], DEVICE),
      [],
    ));
});

describe('cards that do not tie up', () => {
  const held = { takenState: 'authorised', state: 'authorised' };
  it('are not those that are held, which are listed by when they run out', () =>
    assert.deepEqual(
      heldCards([
        card(1, { ...held, expires: '2026-11-29' }),
        card(2, { ...held, expires: '2026-11-28' }),
        card(3, { ...held, isReversed: true }),
        card(4),
      ]).map(({ id }) => id),
      [idOf(40, 2), idOf(40, 1)],
    ));
  const ends = [
    { is: 'not sent yet', of: card(1) },
    { is: 'declined after it was taken', of: card(1, { state: 'declined' }) },
    { is: 'perhaps charged', of: card(1, { takenState: '' }) },
    { is: 'still to be given back', of: card(1, { state: 'captured', isReversed: true }) },
    { is: 'released', of: card(1, { takenState: 'authorised', state: 'released' }) },
    { is: 'held too long', of: card(1, { ...held, expires: '2026-11-22T10:59:00.000Z' }) },
    { is: undefined, of: card(1, { ...held, expires: '2026-11-29T10:00:00.000Z' }) },
    { is: 'approved in part', of: card(1, { state: 'captured', resultAmount: 999 }) },
    { is: undefined, of: card(1, { state: 'captured', resultAmount: 1000 }) },
    { is: undefined, of: card(1, { takenState: '', state: 'declined' }) },
    { is: undefined, of: card(1, { state: 'reversed', isReversed: true }) },
  ];
  for (const { is, of } of ends)
    it(`${of.takenState || 'only asked for'}, ${of.state || 'no answer'}, ${of.isReversed ? 'given back' : 'kept'}: ${is ?? 'ties up'}`, () =>
      assert.equal(cardLooseEnds([of], NOW)[0]?.is, is));
  it('are settled once, and a card that may be under way is left alone', () => {
    const ends = [card(1), card(2), card(3, { takenState: '' })];
    const settled = [{ looseEnd: `card:${idOf(40, 1)}` }];
    assert.deepEqual(
      openCardEnds(ends, settled, '2026-11-22T09:59:00.000Z', NOW).map(({ payment }) => payment.id),
      [idOf(40, 2)],
    );
    assert.equal(openCardEnds(ends, settled, '2026-11-22T10:00:01.000Z', NOW).length, 2);
  });
  it('a carried one is carried', () => assert.ok(isCarried(card(1))));
});
