/** Points and rewards on the server: no more is brought than goods do, nothing is spent twice, and taxes fall by their share. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Draft } from '../../src/lib/core/daybook/chain';
import { draft } from '../../src/lib/core/daybook/kinds';
import { CASH_WAY, type WayToPay } from '../../src/lib/core/payment/ways';
import type { PointsFacts } from '../../src/lib/core/points/points-facts';
import type { Reward } from '../../src/lib/core/points/points-rule';
import { POINTS } from '../../src/lib/core/points/promotion-methods';
import { takePart } from '../../src/lib/core/sale/take-part';
import { makeReturn } from '../../src/lib/core/sale/make-return';
import { settlingOf } from '../../src/lib/core/settle/settling';
import { emptySlip, putItem, type OpenSlip } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { pointsWay, rewardOf, RULE } from '../../src/lib/core/testing/points-drafts';
import {
  BUSINESS,
  customerId,
  DRAWER,
  EVENT,
  item,
} from '../../src/lib/core/testing/made-up-business';
import { heldMovesOf } from '../../src/lib/server/books/held-moves';
import { saleDocument } from '../../src/lib/server/books/find-sales';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { HELPER, NOW, OWNER, Pushing } from '../support/pushing';

const desk = new Pushing();
const { push, newId, writers } = desk;
const REWARD: Reward = { ...rewardOf(1), spend: 1000, value: 200 };
const asSet = ({ setStamp: _stamp, ...body }: Reward): Draft =>
  draft('reward.set', newId(), null, { ...body, categories: [...body.categories] });

before(() =>
  desk.begin([
    draft('business.points', newId(), null, RULE),
    asSet(REWARD),
    desk.way(pointsWay('points')),
    desk.way(pointsWay('reward')),
    ...Array.from({ length: 9 }, (_, n) => desk.customer(n + 1)),
  ]),
);
after(() => desk.t.end());

/** Four of the goods that the founded business has, at 4.50 each. */
const goodsFor = (n: number, quantity = 4000): OpenSlip => {
  const put = putItem(emptySlip(newId()), item(1, 450), quantity, newId());
  assert.ok(put.ok);
  return { ...put.slip, customer: { id: customerId(n), name: 'Wren', discount: '0' } };
};

const facts = (points: number, toward = 0, more: Partial<PointsFacts> = {}): PointsFacts => ({
  rule: RULE,
  rewards: [{ ...REWARD, setStamp: 'set' }],
  has: new Map([
    [POINTS, points],
    [REWARD.id, toward],
  ]),
  movedOn: '',
  goods: new Map(),
  ...more,
});

function take(
  slip: OpenSlip,
  way: WayToPay,
  points: PointsFacts | null,
  { device = 1, reference = '', amount = null as number | null } = {},
) {
  const writer = writers[device - 1]!;
  const taken = takePart({
    ...{ newId: writer.newId, slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT, now: NOW },
    ...{ drawer: DRAWER, amount, business: BUSINESS, way, points, reference },
    ...{ deviceNumber: device, number: NEXT[device - 1]! + 1 },
  });
  assert.ok(taken.ok, JSON.stringify(taken));
  if (taken.slip === null) NEXT[device - 1] = NEXT[device - 1]! + 1;
  return taken;
}
const NEXT = [0, 0];

const has = async (n: number, of: string = POINTS): Promise<number> =>
  (
    await desk.books.rows(BUSINESS, 'pointSums', { account: `points:${customerId(n)}`, item: of })
  )[0]?.quantity ?? 0;
const changed = (draft: Draft, body: object): Draft => ({
  ...draft,
  body: { ...(draft.body as object), ...body },
});

describe('points on the server', () => {
  it('come with what is bought, and stand to whoever bought it', async () => {
    const { drafts } = take(goodsFor(1), CASH_WAY, facts(0));
    assert.deepEqual(await push(drafts, HELPER), []);
    // 18.00, a point for each 0.50.
    assert.deepEqual([await has(1), await has(1, REWARD.id)], [36, 1800]);
    const { balances, moves } = await heldMovesOf(desk.books, BUSINESS, [
      `points:${customerId(1)}`,
    ]);
    assert.deepEqual(balances, [-36]);
    assert.deepEqual(
      moves.map(({ amount, kind, number }) => [amount, kind, number]),
      [[-36, 'sale.rung', 'D1-1']],
    );
    assert.equal((await desk.books.rows(BUSINESS, 'pointStates'))[0]?.day, '2026-11-22');
  });

  it('are doubted where a sale brings more than its goods do', async () => {
    const more = take(goodsFor(2), CASH_WAY, facts(0, 0, { rule: { ...RULE, per: 1 } }));
    assert.deepEqual(await push(more.drafts, HELPER), ['sale/points']);
    const rewards = [{ ...REWARD, id: newId(), setStamp: 'set' }];
    const unknown = take(goodsFor(2), CASH_WAY, facts(0, 0, { rewards }));
    assert.deepEqual(await push(unknown.drafts, HELPER), ['sale/points']);
  });

  it('may be fewer: a device may not have heard of the rule', async () => {
    const { drafts } = take(goodsFor(2), CASH_WAY, null);
    assert.deepEqual(await push(drafts, HELPER), []);
  });

  it('pay for what they are worth, lower the taxes, and are found spent twice out of touch', async () => {
    const given = draft('points.moved', newId(), null, {
      ...{ customer: customerId(3), of: POINTS, quantity: 200, reason: 'from paper' },
    });
    assert.deepEqual(await push([given], HELPER), ['right/missing']);
    assert.equal(await has(3), 0);
    const again = draft('points.moved', newId(), null, {
      ...{ customer: customerId(3), of: POINTS, quantity: 200, reason: 'from paper' },
    });
    assert.deepEqual(await push([again]), []);
    assert.equal(await has(3), 200);
    const taxes = async () =>
      (await desk.books.rows(BUSINESS, 'eventTaxes', { event: EVENT })).reduce(
        (all, { amount }) => all + amount,
        0,
      );
    const before = await taxes();
    const first = take(goodsFor(3), pointsWay('points'), facts(200));
    // 200 points pay 3.00 of 18.00; a sixth of its tax.
    assert.equal(first.part.clears, 300);
    const rest = take(first.slip!, CASH_WAY, facts(0));
    assert.deepEqual(await push([...first.drafts, ...rest.drafts], HELPER), []);
    assert.equal(await taxes(), before + 300 - 50);
    assert.equal(await has(3), 30);
    // The other device has not heard of it.
    const second = take(goodsFor(3, 1000), pointsWay('points'), facts(200), { device: 2 });
    const paid = take(second.slip!, CASH_WAY, facts(0), { device: 2 });
    assert.deepEqual(await push([...second.drafts, ...paid.drafts], HELPER, 2), [
      'points/overspent',
    ]);
    assert.ok((await has(3)) < 0);
  });

  it('are doubted for another worth, for another’s taxes, and for goods that they do not count for', async () => {
    const give = draft('points.moved', newId(), null, {
      ...{ customer: customerId(4), of: POINTS, quantity: 900, reason: 'from paper' },
    });
    assert.deepEqual(await push([give]), []);
    const dear = facts(100, 0, { rule: { ...RULE, worth: 10_000 } });
    const first = take(goodsFor(4), pointsWay('points'), dear);
    const rest = take(first.slip!, CASH_WAY, null);
    assert.deepEqual(await push([...first.drafts, ...rest.drafts], HELPER), ['payment/points']);
    const fair = take(goodsFor(4), pointsWay('points'), facts(100));
    const [part] = fair.drafts;
    const { promotion } = part!.body as { promotion: object };
    const untaxed = changed(part!, { promotion: { ...promotion, lowers: [] } });
    const paid = take(fair.slip!, CASH_WAY, null);
    assert.deepEqual(await push([untaxed, ...paid.drafts], HELPER), ['sale/lowered']);
    // Somebody else's points pay for nobody's sale.
    const own = take(goodsFor(4), pointsWay('points'), facts(100));
    const bought = { ...own.slip!, customer: goodsFor(5).customer };
    const foreign = take(bought, CASH_WAY, null);
    assert.deepEqual(await push([...own.drafts, ...foreign.drafts], HELPER), ['payment/account']);
  });

  it('cannot be taken from somebody who has fewer, nor given to nobody', async () => {
    const move = (n: number, quantity: number, of: string = POINTS): Draft =>
      draft('points.moved', newId(), null, {
        ...{ customer: n === 0 ? newId() : customerId(n), quantity, reason: 'a mistake' },
        of,
      });
    assert.deepEqual(await push([move(5, -1)]), ['points/less']);
    assert.deepEqual(await push([move(0, 5)]), ['points/unknown']);
    assert.deepEqual(await push([move(5, 500, newId())]), ['points/unknown']);
    assert.deepEqual(await push([move(5, 500, REWARD.id)]), []);
    assert.deepEqual([await has(5), await has(5, REWARD.id)], [0, 500]);
  });
});

describe('rewards on the server', () => {
  it('are reached by spending, used once, and found used twice', async () => {
    const sold = take(goodsFor(6), CASH_WAY, facts(0));
    assert.deepEqual(await push(sold.drafts, HELPER), []);
    assert.equal(await has(6, REWARD.id), 1800);
    const use = (device: number) => {
      const first = take(goodsFor(6, 1000), pointsWay('reward'), facts(36, 1800), {
        ...{ reference: REWARD.id, device },
      });
      const rest = take(first.slip!, CASH_WAY, facts(36, 800), { device });
      return [...first.drafts, ...rest.drafts];
    };
    assert.deepEqual(await push(use(1), HELPER), []);
    // 4.50 less the 2.00 that the reward paid.
    assert.equal(await has(6, REWARD.id), 800 + 250);
    assert.deepEqual(await push(use(2), HELPER, 2), []);
    assert.equal(await has(6, REWARD.id), 50 + 250);
    assert.deepEqual(await push(use(2), HELPER, 2), ['points/overspent']);
  });

  it('are doubted for more than their value, and for another spend', async () => {
    const rewards = [{ ...REWARD, setStamp: 'set', value: 400 }];
    const first = take(goodsFor(1), pointsWay('reward'), facts(36, 1800, { rewards }), {
      reference: REWARD.id,
    });
    const rest = take(first.slip!, CASH_WAY, null);
    assert.deepEqual(await push([...first.drafts, ...rest.drafts], HELPER), ['payment/reward']);
  });
});

describe('an evening with points', () => {
  it('takes back by postings: points as points, by the server’s own figures', async () => {
    const give = draft('points.moved', newId(), null, {
      ...{ customer: customerId(7), of: POINTS, quantity: 200, reason: 'from paper' },
    });
    assert.deepEqual(await push([give]), []);
    const first = take(goodsFor(7), pointsWay('points'), facts(200));
    const rest = take(first.slip!, CASH_WAY, facts(0));
    assert.deepEqual(await push([...first.drafts, ...rest.drafts], HELPER), []);
    const id = rest.drafts.find(({ kind }) => kind === 'sale.rung')!.id;
    const found = await saleDocument(desk.t.database, desk.books, BUSINESS, id);
    assert.ok(found !== null);
    const { sale, lines, payments } = found;
    const back = makeReturn({
      ...{ newId, sale, lines, payments, before: [], voids: [], undone: [], refunds: [] },
      chosen: [{ line: 0, typed: '2', to: 'stock' }],
      ...{ reason: 'two too many', way: 'cash', drawer: DRAWER, card: null },
      ...{ cashStep: 1, currency: 'GBP', deviceNumber: 1, number: 1 },
      ...{ event: EVENT, place: EVENT, day: sale.day, hour: sale.hour },
    });
    assert.ok(back.ok);
    const body = back.drafts[0]!.body as { money: { amount: number }[]; promotions: object[] };
    // Half of 18.00: 1.50 of it as a hundred points, which had brought half of thirty.
    assert.equal(body.money[0]?.amount, 750);
    const tampered = changed(back.drafts[0]!, {
      promotions: [],
      money: [{ ...body.money[0], amount: 900 }],
    });
    const codes = await push([{ ...tampered, id: newId() }], OWNER);
    assert.deepEqual(codes, ['return/figures']);
    assert.equal(await has(7), 30 - 15);
    const other = take(goodsFor(8), CASH_WAY, facts(0));
    assert.deepEqual(await push(other.drafts, HELPER), []);
  });

  it('settles: what points paid is no takings, and no money is missing', async () => {
    const rows = await settlingRows(desk.t.database, desk.books, BUSINESS, EVENT, NOW);
    assert.ok(rows !== null);
    const settling = settlingOf(rows);
    const [totals] = await desk.books.rows(BUSINESS, 'eventTotals', { event: EVENT });
    const ways = await desk.books.rows(BUSINESS, 'eventWays', { event: EVENT });
    const byPoints = ways
      .filter(({ way }) => [pointsWay('points').id, pointsWay('reward').id].includes(way))
      .reduce((all, { takings }) => all + takings, 0);
    const inAll = ways.reduce((all, { takings }) => all + takings, 0);
    assert.ok(byPoints > 0);
    assert.equal(totals?.takings, inAll - byPoints);
    assert.equal(settling.result.takings, totals?.takings);
    const accounts = await desk.books.rows(BUSINESS, 'eventAccounts', { event: EVENT });
    assert.equal(
      accounts.reduce((all, { amount }) => all + amount, 0),
      0,
    );
    assert.ok((accounts.find(({ account }) => account === 'promotions')?.amount ?? 0) > 0);
  });
});
