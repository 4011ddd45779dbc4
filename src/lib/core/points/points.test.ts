import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { OpenSlip } from '../slip/open-slip';
import { emptySlip, putItem, putPaidIn } from '../slip/open-slip';
import { booksOf } from '../testing/books-of';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import { CASH_WAY, type WayToPay } from '../payment/ways';
import { correctSale } from '../sale/correct-sale';
import { makeReturn } from '../sale/make-return';
import { takePart, type PartDone } from '../sale/take-part';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import {
  CARD_WAY,
  customerId,
  DRAWER,
  EVENT,
  idOf,
  item,
  itemId,
  pricing,
  START,
  tax,
} from '../testing/made-up-business';
import { pointsFacts, pointsWay, rewardOf, RULE } from '../testing/points-drafts';
import { earnedBy, earnedInAll } from './earned';
import { loweredBy } from './lowered';
import { pointsHeld, type PointsFacts } from './points-facts';
import { NO_POINTS, pointsFor, ranOut, worthOf } from './points-rule';
import { POINTS } from './promotion-methods';
import { movePoints, setPoints, setReward, takeRunOut, typedReward } from './set-points';

const line = (n: number, total: number, account?: string) => ({ item: itemId(n), total, account });

describe('what a sale brings', () => {
  const goods = new Map([
    [itemId(1), { earnsPoints: true, category: 'Plants' }],
    [itemId(2), { earnsPoints: false, category: 'Pots' }],
    [itemId(3), { earnsPoints: true, category: 'Pots' }],
  ]);
  const plants = { ...rewardOf(1), categories: ['Plants'] };
  const pots = { ...rewardOf(2), categories: ['Pots'] };
  const day = '2026-11-22';

  it('is ⌊eligible / per⌋ × points, of goods that earn, less what points and rewards paid', () => {
    const rule = { ...RULE, per: 100, points: 3 };
    const of = (cleared: number) =>
      earnedBy(
        [line(1, 450), line(2, 990), line(3, 249)],
        cleared,
        {
          ...{ rule, rewards: [], goods },
        },
        day,
      ).map(({ points }) => points);
    // ⌊699 / 100⌋ × 3 = 18, shared 450 : 249.
    assert.deepEqual(of(0), [12, 0, 6]);
    assert.deepEqual(of(100), [10, 0, 5]);
    assert.deepEqual(of(5000), [0, 0, 0]);
  });

  it('counts towards a reward what is of its goods, on its days', () => {
    const lines = [line(1, 450), line(2, 990), line(3, 249), line(1, 500, 'voucher:V1')];
    const toward = (reward: typeof plants) =>
      earnedBy(lines, 0, { rule: NO_POINTS, rewards: [reward], goods }, day).map(
        (each) => each.toward[reward.id] ?? 0,
      );
    assert.deepEqual(toward(plants), [450, 0, 0, 0]);
    // A category counts whatever earns points.
    assert.deepEqual(toward(pots), [0, 990, 249, 0]);
    assert.deepEqual(toward({ ...plants, categories: [] }), [450, 0, 249, 0]);
    assert.deepEqual(toward({ ...plants, until: '2026-11-21' }), [0, 0, 0, 0]);
    assert.deepEqual(toward({ ...plants, from: '2026-11-23' }), [0, 0, 0, 0]);
    assert.deepEqual(toward({ ...plants, isActive: false }), [0, 0, 0, 0]);
  });

  it('tells what there is now, and each reward that it reached', () => {
    const has = new Map([
      [POINTS, 10],
      [plants.id, 9500],
    ]);
    const told = earnedInAll([{ points: 4, toward: { [plants.id]: 5600 } }], {
      ...{ has, rewards: [plants, pots] },
    });
    assert.deepEqual(told, {
      ...{ points: 4, after: 14 },
      rewards: [{ reward: plants.id, name: plants.name, value: 300, times: 2 }],
    });
  });

  it('is shared over its lines, and each share is whole', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            n: fc.integer({ min: 1, max: 3 }),
            total: fc.integer({ min: -500, max: 9000 }),
          }),
          {
            minLength: 1,
            maxLength: 8,
          },
        ),
        fc.nat({ max: 3000 }),
        (all, cleared) => {
          const lines = all.map(({ n, total }) => line(n, total));
          const found = earnedBy(lines, cleared, { rule: RULE, rewards: [pots], goods }, day);
          const sumOf = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);
          const eligible = sumOf(all.map(({ n, total }) => (n === 2 ? 0 : total))) - cleared;
          const wanted = Math.max(0, Math.floor(Math.max(0, eligible) / RULE.per) * RULE.points);
          assert.equal(sumOf(found.map(({ points }) => points)), wanted);
          for (const [at, { points, toward }] of found.entries()) {
            assert.ok(Number.isInteger(points) && points >= 0);
            if (all[at]!.n === 2) assert.equal(points, 0);
            if (all[at]!.n === 1) assert.deepEqual(toward, {});
          }
        },
      ),
    );
  });
});

describe('what points are worth', () => {
  it('is whole points, as many as come to no more than that', () => {
    assert.equal(worthOf(7, { worth: 1500 }), 11);
    fc.assert(
      fc.property(
        fc.nat({ max: 99_999 }),
        fc.integer({ min: 1, max: 9_000_000 }),
        (amount, worth) => {
          const points = pointsFor(amount, { worth });
          assert.ok(worthOf(points, { worth }) <= amount);
          assert.ok(
            worthOf(points + 1, { worth }) > amount ||
              worthOf(points + 1, { worth }) === worthOf(points, { worth }),
          );
        },
      ),
    );
  });

  it('is nothing once they have run out', () => {
    const rule = { ...RULE, lasts: 30 };
    assert.equal(ranOut(rule, '2026-10-23', '2026-11-22'), false);
    assert.equal(ranOut(rule, '2026-10-22', '2026-11-22'), true);
    assert.equal(ranOut(RULE, '1999-01-01', '2026-11-22'), false);
    assert.equal(ranOut(rule, '', '2026-11-22'), false);
    const facts = pointsFacts(1, { rule, movedOn: '2026-10-22' });
    const { points, worth, areOver, rewards } = pointsHeld(facts, '2026-11-22');
    assert.deepEqual([points, worth, areOver], [400, 0, true]);
    assert.deepEqual(
      rewards.map(({ times, toGo }) => [times, toGo]),
      [[2, 3000]],
    );
  });
});

const slipFor = (n: number | null, ...prices: readonly number[]): OpenSlip => {
  const slip = prices.reduce<OpenSlip>(
    (before, price, at) => {
      const put = putItem(before, item(at + 1, price), 1000, `line ${String(at)}`);
      assert.ok(put.ok);
      return put.slip;
    },
    emptySlip(idOf(20, 1)),
  );
  return n === null
    ? slip
    : { ...slip, customer: { id: customerId(n), name: 'Wren', discount: '0' } };
};

const pay = (
  slip: OpenSlip,
  way: WayToPay,
  amount: number | null,
  points: PointsFacts | null,
  more: Partial<Parameters<typeof takePart>[0]> = {},
) => {
  const writer = new DeviceWriter(7);
  return takePart({
    ...{
      newId: writer.newId,
      slip,
      pricing,
      taxes: [tax],
      drawer: DRAWER,
      deviceNumber: 1,
      number: 1,
    },
    ...{
      event: { id: EVENT, timeZone: 'Europe/London' },
      now: START,
      way,
      amount,
      points,
      ...more,
    },
  });
};

const codeOf = (outcome: ReturnType<typeof takePart>): string =>
  outcome.ok ? 'ok' : outcome.refusal.code;

describe('a part by points', () => {
  const way = pointsWay('points');

  it('clears what whole points are worth, takes them, and lowers the taxes by its share', () => {
    // 400 points at 1.5 are 600; of 1000 with 167 tax on 833.
    const outcome = pay(slipFor(1, 400, 600), way, null, pointsFacts(1));
    assert.ok(outcome.ok);
    const { clears, charge, promotion, held } = outcome.part;
    assert.deepEqual([clears, charge, held, outcome.left], [600, 600, undefined, 400]);
    assert.deepEqual(promotion, {
      ...{ of: POINTS, taken: 400, after: 0 },
      lowers: [{ id: tax.id, rate: '20', amount: 100, base: 500 }],
    });
    // 67 of them would come to 101.
    const some = pay(slipFor(1, 400, 600), way, 100, pointsFacts(1));
    assert.ok(some.ok);
    assert.deepEqual([some.part.clears, some.part.promotion?.taken], [99, 66]);
  });

  it('lowers no taxes where the vendor’s country has it otherwise', () => {
    const rule = { ...RULE, lowersTax: false };
    const outcome = pay(slipFor(1, 1000), way, null, pointsFacts(1, { rule }));
    assert.ok(outcome.ok);
    assert.deepEqual(outcome.part.promotion?.lowers, []);
  });

  it('says why none are taken', () => {
    const facts = pointsFacts(1);
    assert.equal(
      codeOf(pay(slipFor(null, 500), { ...way, needsCustomer: false }, null, facts)),
      'held/no-customer',
    );
    assert.equal(codeOf(pay(slipFor(1, 500), way, null, null)), 'points/none');
    assert.equal(
      codeOf(pay(slipFor(1, 500), way, null, { ...facts, has: new Map() })),
      'points/none',
    );
    const rule = { ...RULE, lasts: 10 };
    assert.equal(
      codeOf(pay(slipFor(1, 500), way, null, { ...facts, rule, movedOn: '2026-11-01' })),
      'points/over',
    );
    assert.equal(codeOf(pay(slipFor(1, 900), way, 700, facts)), 'points/less');
    assert.equal(codeOf(pay(slipFor(1, 500), way, null, facts, { tip: 10 })), 'held/no-tip');
    const offline = { isOutOfTouch: true };
    const few = { ...way, offlineMost: 200 };
    assert.equal(codeOf(pay(slipFor(1, 500), few, 300, facts, offline)), 'held/offline-most');
    const most = pay(slipFor(1, 500), few, null, facts, offline);
    assert.ok(most.ok);
    assert.equal(most.part.clears, 200);
    assert.equal(
      codeOf(pay(slipFor(1, 500), way, null, { ...facts, rule: { ...RULE, worth: 900_000 } })),
      'points/too-little',
    );
  });

  it('pays for goods, not for what is paid in on an account', () => {
    const slip = slipFor(1, 200);
    const put = putPaidIn(
      slip,
      { account: 'voucher:CARD7', name: 'Voucher', detail: '', amount: 500, until: '' },
      'v',
    );
    assert.ok(put.ok);
    const outcome = pay(put.slip, way, null, pointsFacts(1));
    assert.ok(outcome.ok);
    assert.deepEqual([outcome.part.clears, outcome.left], [200, 500]);
    assert.equal(codeOf(pay(outcome.slip!, way, null, pointsFacts(1))), 'points/too-little');
  });
});

describe('a part by a reward', () => {
  const way = pointsWay('reward');
  const reference = rewardOf(1).id;

  it('clears its value at most, and at most what its goods come to', () => {
    const outcome = pay(slipFor(1, 400, 600), way, null, pointsFacts(1), { reference });
    assert.ok(outcome.ok);
    const { clears, promotion } = outcome.part;
    assert.deepEqual(
      [clears, promotion?.of, promotion?.taken, promotion?.after],
      [300, reference, 5000, 7000],
    );
    const goods = new Map([
      [itemId(1), { earnsPoints: true, category: 'Plants' }],
      [itemId(2), { earnsPoints: true, category: 'Pots' }],
    ]);
    const rewards = [{ ...rewardOf(1), categories: ['Plants'] }];
    const few = pay(slipFor(1, 120, 600), way, null, pointsFacts(1, { goods, rewards }), {
      reference,
    });
    assert.ok(few.ok);
    assert.equal(few.part.clears, 120);
    const none = [{ ...rewardOf(1), categories: ['Books'] }];
    assert.equal(
      codeOf(
        pay(slipFor(1, 120), way, null, pointsFacts(1, { goods, rewards: none }), { reference }),
      ),
      'reward/no-goods',
    );
  });

  it('says why it is not taken', () => {
    const facts = pointsFacts(1);
    const slip = slipFor(1, 900);
    assert.equal(codeOf(pay(slip, way, null, facts)), 'reward/unknown');
    const off = { ...facts, rewards: [{ ...rewardOf(1), until: '2026-11-21' }] };
    assert.equal(codeOf(pay(slip, way, null, off, { reference })), 'reward/not-on');
    const outcome = pay(
      slip,
      way,
      null,
      { ...facts, has: new Map([[reference, 4200]]) },
      { reference },
    );
    assert.deepEqual(outcome, {
      ok: false,
      refusal: { code: 'reward/not-reached', name: rewardOf(1).name, toGo: 800 },
    });
  });

  it('once used cannot be used again beside itself, unless it was reached twice', () => {
    const facts = pointsFacts(1, { has: new Map([[reference, 5100]]) });
    const first = pay(slipFor(1, 900), way, null, facts, { reference });
    assert.ok(first.ok);
    const after = { ...facts, has: new Map([[reference, first.part.promotion!.after]]) };
    assert.equal(codeOf(pay(first.slip!, way, null, after, { reference })), 'reward/not-reached');
  });
});

describe('a sale of which points paid a part', () => {
  const facts = pointsFacts(1, {
    has: new Map([
      [POINTS, 200],
      [rewardOf(1).id, 4900],
    ]),
  });

  const sold = (
    writer: DeviceWriter,
  ): { readonly drafts: readonly Draft[]; readonly last: PartDone } => {
    const setting = {
      ...{
        pricing,
        taxes: [tax],
        drawer: DRAWER,
        deviceNumber: 7,
        now: START,
        newId: writer.newId,
      },
      ...{ event: { id: EVENT, timeZone: 'Europe/London' }, number: 1, points: facts },
    };
    const slip = slipFor(1, 401, 599);
    const first = takePart({ ...setting, slip, way: pointsWay('points'), amount: null });
    assert.ok(first.ok);
    const points = { ...facts, has: new Map(facts.has).set(POINTS, 0) };
    const rest = takePart({ ...setting, points, slip: first.slip!, way: CARD_WAY, amount: null });
    assert.ok(rest.ok);
    return { drafts: [...first.drafts, ...rest.drafts], last: rest };
  };

  it('brings points of the rest, and says what it reached', () => {
    const writer = new DeviceWriter(7);
    const { drafts } = sold(writer);
    const books = booksOf(writer.append(drafts, START));
    const [sale] = books.rows('sales');
    // 300 were paid by points: ⌊700 / 50⌋.
    assert.deepEqual(sale?.earned, {
      ...{ points: 14, after: 14 },
      rewards: [{ reward: rewardOf(1).id, name: 'Reward 1', value: 300, times: 1 }],
    });
    const account = `points:${customerId(1)}`;
    assert.equal(books.row('pointSums', `${account} ${POINTS}`)?.quantity, -200 + 14);
    assert.equal(books.row('pointSums', `${account} ${rewardOf(1).id}`)?.quantity, 700);
    // Its taxes are lower by 300 of 1000, and so are the takings.
    assert.deepEqual(
      books.rows('eventTaxes').map(({ base, amount }) => [base, amount]),
      [[833 - 250, 167 - 50]],
    );
    const [totals] = books.rows('eventTotals');
    assert.deepEqual([totals?.takings, totals?.tax], [700, 117]);
    assert.equal(books.row('pointStates', customerId(1))?.day, '2026-11-22');
  });

  it('takes what it brought along to whoever had bought it in truth, and never twice', () => {
    const writer = new DeviceWriter(7);
    const entries = writer.append(sold(writer).drafts, START);
    const books = booksOf(entries);
    const correct = (customer: string | null, returns: readonly { lines: [] }[]) =>
      correctSale({
        ...{ newId: writer.newId, sale: books.rows('sales')[0]!, lines: books.rows('saleLines') },
        ...{ payments: books.rows('payments'), voids: [], undone: [], returns },
        ...{ fix: { is: 'customer', customer }, reason: 'it was the other one' },
      });
    const made = correct(customerId(2), []);
    assert.ok(made.ok);
    const after = booksOf([...entries, ...writer.append(made.drafts, START + 1)]);
    const points = (n: number) =>
      after.row('pointSums', `points:${customerId(n)} ${POINTS}`)?.quantity;
    // Who spent points has spent them all the same.
    assert.deepEqual([points(1), points(2)], [-200, 14]);
    const late = correct(customerId(2), [{ lines: [] }]);
    assert.equal(late.ok ? 'ok' : late.refusal.code, 'correct/came-back');
  });

  it('comes back in any number of steps, points as points and the rest in money, to the last of each', () => {
    for (const steps of [[[0, 1]], [[0], [1]], [[1], [0]]]) {
      const writer = new DeviceWriter(7);
      const entries = writer.append(sold(writer).drafts, START);
      for (const [at, lines] of steps.entries()) {
        const books = booksOf(entries);
        const [sale] = books.rows('sales');
        const outcome = makeReturn({
          ...{ newId: writer.newId, sale: sale!, lines: books.rows('saleLines') },
          ...{ payments: books.rows('payments'), before: books.rows('returns') },
          ...{ voids: [], undone: [], card: null, refunds: [], cashStep: 1, currency: 'GBP' },
          chosen: lines.map((each) => ({ line: each, typed: '1', to: 'stock' })),
          ...{
            reason: 'too many',
            way: CARD_WAY.id,
            drawer: null,
            deviceNumber: 7,
            number: at + 1,
          },
          ...{ event: EVENT, place: EVENT, day: sale!.day, hour: sale!.hour },
        });
        assert.ok(outcome.ok);
        entries.push(...writer.append(outcome.drafts, START + at));
      }
      const books = booksOf(entries);
      const account = `points:${customerId(1)}`;
      // What was spent is there again, and what it brought is gone.
      assert.equal(books.row('pointSums', `${account} ${POINTS}`)?.quantity, 0);
      assert.equal(books.row('pointSums', `${account} ${rewardOf(1).id}`)?.quantity, 0);
      const money = books
        .rows('returns')
        .flatMap((each) => each.money.map(({ amount }) => amount))
        .reduce((a, b) => a + b, 0);
      // The surcharge goes back with it: 1.8 % of 700.
      assert.equal(money, 700 + 13);
      for (const table of ['eventTaxes', 'eventTotals', 'eventAccounts'] as const)
        for (const row of books.rows(table))
          for (const figure of ['amount', 'base', 'takings', 'tax'] as const)
            if (
              typeof (row as unknown as Record<string, unknown>)[figure] === 'number' &&
              !('account' in row && String(row.account).startsWith('owed:'))
            )
              assert.equal(
                (row as unknown as Record<string, number>)[figure],
                0,
                `${table} ${figure}`,
              );
    }
  });
});

describe('parts that lower taxes', () => {
  it('lower them together as one would', () => {
    const taxes = [{ id: 't', amount: 167, base: 833 }];
    const parts = loweredBy(1000, taxes, [111, 222, 333]);
    const one = loweredBy(1000, taxes, [666])[0]![0]!;
    assert.equal(
      parts.reduce((all, [each]) => all + each!.amount, 0),
      one.amount,
    );
    assert.equal(
      parts.reduce((all, [each]) => all + each!.base, 0),
      one.base,
    );
  });
});

describe('setting points and rewards up', () => {
  const ids = () => idOf(70, 1);
  const typed = {
    isOn: true,
    per: '1',
    points: '2',
    worth: '0.015',
    lowersTax: true,
    lasts: '365',
  };

  it('reads what was typed', () => {
    const outcome = setPoints(ids, typed, 'GBP');
    assert.ok(outcome.ok);
    assert.deepEqual(outcome.drafts[0]?.body, {
      ...{ isOn: true, per: 100, points: 2, worth: 1500, lowersTax: true, lasts: 365 },
    });
  });

  it('says what is wrong, and where', () => {
    for (const [more, code, field] of [
      [{ per: '0' }, 'points/amount-wrong', 'per'],
      [{ points: '1.5' }, 'points/whole-wrong', 'points'],
      [{ points: '0' }, 'points/whole-wrong', 'points'],
      [{ worth: '0' }, 'points/worth-wrong', 'worth'],
      [{ worth: 'much' }, 'points/worth-wrong', 'worth'],
      [{ lasts: '-3' }, 'points/days-wrong', 'lasts'],
    ] as const) {
      const outcome = setPoints(ids, { ...typed, ...more }, 'GBP');
      assert.deepEqual(outcome.ok ? null : [outcome.refusal.code, outcome.refusal.field], [
        code,
        field,
      ]);
    }
    const reward = { ...typedReward(undefined, String), name: 'Tea', spend: '50', value: '5' };
    const set = (more: object) =>
      setReward({
        ...{ newId: ids, id: null, currency: 'GBP', rewards: [{ ...rewardOf(1), name: 'Cake' }] },
        typed: { ...reward, ...more },
      });
    assert.ok(set({}).ok);
    for (const [more, code] of [
      [{ name: ' ' }, 'reward/no-name'],
      [{ name: 'cake' }, 'reward/taken'],
      [{ spend: '' }, 'points/amount-wrong'],
      [{ value: '-5' }, 'points/amount-wrong'],
      [{ from: '2026-12-02', until: '2026-12-01' }, 'reward/days-wrong'],
    ] as const) {
      const outcome = set(more);
      assert.equal(outcome.ok ? 'ok' : outcome.refusal.code, code);
    }
  });

  it('gives and takes points with a reason, and no more than there are', () => {
    const move = (points: string, reason = 'from the old card') =>
      movePoints({ newId: ids, customer: customerId(1), typed: points, reason, has: 30 });
    const given = move('+25');
    assert.ok(given.ok);
    assert.deepEqual(given.drafts[0]?.body, {
      ...{ customer: customerId(1), of: POINTS, quantity: 25, reason: 'from the old card' },
    });
    const taken = move('−30');
    assert.ok(taken.ok);
    assert.equal((taken.drafts[0]!.body as { quantity: number }).quantity, -30);
    const code = (outcome: ReturnType<typeof move>) => (outcome.ok ? 'ok' : outcome.refusal.code);
    assert.deepEqual([move('-31'), move('0'), move('some'), move('5', ' ')].map(code), [
      'points/fewer',
      'points/whole-wrong',
      'points/whole-wrong',
      'points/no-reason',
    ]);
    const over = takeRunOut(ids, [
      { customer: customerId(1), points: 12 },
      { customer: customerId(2), points: 0 },
    ]);
    assert.deepEqual(
      over.map(({ kind }) => kind),
      ['points.moved'],
    );
  });

  it('is read back as it was written', () => {
    const made = [
      draft('business.points', idOf(70, 2), null, { ...RULE }),
      ...takeRunOut(() => idOf(70, 3), [{ customer: customerId(1), points: 12 }]),
    ];
    const books = booksOf(new DeviceWriter(1).append(made, START));
    assert.deepEqual(books.rows('businesses')[0]?.pointsRule, RULE);
    assert.equal(books.row('pointSums', `points:${customerId(1)} ${POINTS}`)?.quantity, -12);
    assert.equal(CASH_WAY.method, 'cash');
  });
});
