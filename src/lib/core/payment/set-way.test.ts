import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Row } from '../books/tables';
import { readEntry } from '../daybook/read-entry';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { CARD_WAY, EVENT, idOf } from '../testing/made-up-business';
import { orderWays, setEventWays, setWay, typedWay, type SetWay, type WayOutcome } from './set-way';
import { allWays, CASH_WAY, rulesOf, waysOpen } from './ways';

const writer = new DeviceWriter(1);
const amountText = (amount: number): string => (amount / 100).toFixed(2);
const typed = { ...typedWay(undefined, amountText), name: 'Town tokens' };
const set = (change: Partial<SetWay['typed']> = {}, id: string | null = null): WayOutcome =>
  setWay({
    newId: writer.newId,
    id,
    typed: { ...typed, ...change },
    currency: 'GBP',
    ways: [CARD_WAY],
  });
const code = (outcome: WayOutcome): string => (outcome.ok ? 'set' : outcome.refusal.code);
const bodyOf = (outcome: WayOutcome): Record<string, unknown> => {
  assert.ok(outcome.ok, JSON.stringify(outcome));
  const [entry] = writer.append(outcome.drafts, 0);
  assert.ok(entry !== undefined && readEntry(entry).ok);
  return entry.body;
};

describe('setting up a way to pay', () => {
  it('stands after the others, with its surcharge in figures', () => {
    const body = bodyOf(set({ surchargeRate: '1,8 %', surchargeFixed: '0.30' }));
    assert.deepEqual([body['sort'], body['surchargeRate'], body['surchargeFixed']], [2, '1.8', 30]);
  });

  it('gives no change at the card price', () =>
    assert.equal(bodyOf(set({ side: 'card', givesChange: true }))['givesChange'], false));

  it('leaves cash what it is: notes and coins at the cash price, with change', () => {
    const body = bodyOf(
      set({ name: 'Tin', method: 'own', side: 'card', givesChange: false }, CASH_WAY.id),
    );
    assert.deepEqual(
      [body['method'], body['side'], body['givesChange'], body['name']],
      ['cash', 'cash', true, 'Tin'],
    );
  });

  it('has how long a voucher usually lasts, and of nothing else', () => {
    const lasts = (method: 'voucher' | 'credit', days: string): unknown =>
      bodyOf(set({ method, lasts: days }))['lasts'];
    assert.deepEqual(
      [lasts('voucher', '365'), lasts('voucher', ''), lasts('credit', '365')],
      [365, 0, 0],
    );
  });

  const wrong = [
    { is: 'way/no-name', change: { name: ' ' } },
    { is: 'way/taken', change: { name: 'card' } },
    { is: 'way/rate-wrong', change: { surchargeRate: '101' } },
    { is: 'way/amount-wrong', change: { surchargeFixed: 'ten' } },
    { is: 'way/days-wrong', change: { method: 'voucher' as const, lasts: '1.5' } },
    { is: 'way/days-wrong', change: { method: 'voucher' as const, lasts: 'a year' } },
  ];
  for (const { is, change } of wrong) it(`says ${is}`, () => assert.equal(code(set(change)), is));
  it('says way/cash-stays', () =>
    assert.equal(code(set({ isActive: false, name: 'Cash' }, CASH_WAY.id)), 'way/cash-stays'));

  it('is what its form holds', () =>
    assert.deepEqual(
      typedWay({ ...CARD_WAY, surchargeFixed: 250 }, amountText).surchargeFixed,
      '2.50',
    ));
});

describe('ways to pay', () => {
  const tokens = { ...CARD_WAY, id: idOf(32, 5), name: 'Tokens', sort: 2 };
  const away = { ...CARD_WAY, id: idOf(32, 6), name: 'Old', sort: 3, isActive: false };
  const rows = [tokens, away, CARD_WAY];
  const names = (ways: readonly Row<'ways'>[]): readonly string[] => ways.map(({ name }) => name);

  it('always have cash, in the vendor’s order', () =>
    assert.deepEqual(names(allWays(rows)), ['Cash', 'Card', 'Tokens', 'Old']));
  it('are open unless they were put away', () =>
    assert.deepEqual(names(waysOpen(rows, undefined)), ['Cash', 'Card', 'Tokens']));
  it('are those an event names, in its order, without what is put away', () =>
    assert.deepEqual(names(waysOpen(rows, { ways: [tokens.id, away.id, 'cash'] })), [
      'Tokens',
      'Cash',
    ]));
  it('in another order write only what moves', () => {
    const drafts = orderWays(writer.newId, [CASH_WAY, tokens, CARD_WAY]);
    assert.deepEqual(
      drafts.map(({ body }) => [body['name'], body['sort']]),
      [
        ['Tokens', 1],
        ['Card', 2],
      ],
    );
  });
  it('of an event leave the rest of it as it was', () => {
    const { drafts } = setEventWays(writer.newId, { id: EVENT }, ['cash']);
    assert.deepEqual(drafts[0]?.body, { event: EVENT, ways: ['cash'] });
  });
  it('say to the sums which are notes and coins', () => {
    assert.equal(rulesOf(CASH_WAY).cash, true);
    assert.equal(rulesOf({ ...CARD_WAY, name: 'cash' }).cash, false);
  });
});
