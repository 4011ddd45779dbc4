/** A whole event, replayed with faults: it ties up to the minor unit, or a loose end names what does not. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { draft } from '../daybook/kinds';
import { BASE } from '../books/names';
import { undoMoney } from '../bank/join-bank';
import { idOf, EVENT, personId } from '../testing/made-up-business';
import { NOON, MAKER, READER, SettlingWorld } from '../testing/settling-world';
import { averageOf } from './editions';
import type { EventEndCode } from './event-ends';
import { makerLetter, makerPaper } from './maker-statement';
import { makersGoods } from './makers-share';
import { settleMakers } from './people';
import {
  joinLine,
  mailStatement,
  moneyCame,
  owedBy,
  payOut,
  settleEvent,
  shareOutTips,
} from './settle-event';
import { shareTips } from './share-tips';
import { readReport, takeReport, type CardLine } from './take-report';
import { verifySettled } from './verify-settled';

interface Day {
  readonly world: SettlingWorld;
  /** Sales that are paid by card, in their order. */
  readonly cards: readonly string[];
}

/** What goes wrong, and at which point of the evening it does. */
interface Fault {
  readonly name: string;
  readonly code: EventEndCode;
  /** While trading. */
  readonly trading?: (day: Day) => void;
  /** What becomes of the goods that are left; of each of the three items how many too few come back. */
  readonly lost?: readonly number[];
  readonly neverBack?: true;
  readonly short?: number;
  readonly isUncounted?: true;
  readonly afterCount?: (day: Day) => void;
  readonly report?: (lines: readonly CardLine[], day: Day) => readonly CardLine[];
  readonly isUnreported?: true;
  readonly isNotAtBank?: true;
  /** What too little comes of the payout. */
  readonly payoutShort?: number;
  readonly isTakenBack?: true;
  readonly isBagLeft?: true;
  readonly areTipsLeft?: true;
  readonly areTipsUnpaid?: true;
  readonly isMakerUnpaid?: true;
  readonly after?: (day: Day) => void;
}

const device = (more: object) => ({
  ...{ id: idOf(5, 2), number: 2, name: 'Oriel’s phone', seq: 3, hash: 'b'.repeat(64) },
  ...{ seenAt: NOON + 86_400_000, headSaid: 3, isShutOut: false, hasWritten: true },
  ...more,
});
const [newCard] = [(world: SettlingWorld): string => [...world.charged.keys()].at(-1)!];

const faults: readonly Fault[] = [
  { name: 'a line of the report is lost', code: 'card/missing', report: (lines) => lines.slice(1) },
  {
    name: 'a line of the report is there twice',
    code: 'card/odd',
    report: (lines) => [...lines, { ...lines[0]!, id: 'again' }],
  },
  {
    name: 'the report has another amount',
    code: 'card/odd',
    report: ([first, ...rest]) => [{ ...first!, amount: first!.amount + 100 }, ...rest],
  },
  {
    name: 'the report has a card that nobody knows',
    code: 'card/odd',
    report: (lines) => [
      ...lines,
      { ...lines[0]!, id: 'strange', reference: 'x', amount: 77_777, last4: '0000' },
    ],
  },
  {
    name: 'a cardholder takes a payment back',
    code: 'card/odd',
    report: (lines) => [
      ...lines,
      { ...lines[0]!, id: 'dispute', sort: 'chargeback', amount: -lines[0]!.amount },
    ],
  },
  {
    name: 'a card is declined late',
    code: 'card/odd',
    report: (lines) => [...lines, { ...lines[0]!, id: 'late', sort: 'decline', amount: 0 }],
  },
  { name: 'nobody has asked for the report', code: 'card/no-report', isUnreported: true },
  { name: 'the payout has not come', code: 'way/to-come', isNotAtBank: true },
  { name: 'the payout was short', code: 'payout/short', payoutShort: 40 },
  { name: 'the drawer is short', code: 'drawer/difference', short: 240 },
  { name: 'the drawer was not counted', code: 'drawer/open', isUncounted: true },
  {
    name: 'a phone sends a sale after the count',
    code: 'drawer/late',
    afterCount: ({ world }) => {
      world.sell(1, 'cash');
      world.move(BASE, EVENT, [1, 0, 0]);
    },
  },
  { name: 'a bag is not at the bank', code: 'bag/on-its-way', isBagLeft: true },
  { name: 'three are gone and were not rung up', code: 'stock/off', lost: [3, 0, 0] },
  { name: 'more were rung up than had gone', code: 'stock/off', lost: [0, -4, 0] },
  { name: 'the goods have not come back', code: 'goods/still-out', neverBack: true },
  {
    name: 'a slip is still set aside',
    code: 'slip/waiting',
    trading: ({ world }) =>
      world.write(
        world.writer.steps({ does: 'aside', slip: 1, goods: 1, name: 'by the gate' }, NOON),
      ),
  },
  {
    name: 'an order was not collected',
    code: 'order/uncollected',
    after: ({ world }) =>
      world.uncollected.push({ order: idOf(34, 1), number: 'K1-1', deposit: 0 }),
  },
  {
    name: 'a part was taken and the slip never rung up',
    code: 'slip/owing',
    trading: ({ world }) =>
      world.write(world.sale(1, 'cash').filter(({ kind }) => kind === 'payment.taken')),
  },
  {
    name: 'a slip was rung up twice',
    code: 'slip/twice',
    after: ({ world }) => world.soldTwice.push({ slip: idOf(20, 9), numbers: ['D1-1', 'D2-1'] }),
  },
  { name: 'tips are not shared', code: 'tips/not-shared', areTipsLeft: true },
  { name: 'tips are not paid', code: 'tips/not-paid', areTipsUnpaid: true },
  { name: 'a maker is not paid', code: 'maker/not-paid', isMakerUnpaid: true },
  {
    name: 'a wage is not paid',
    code: 'pay/not-paid',
    after: ({ world }) => {
      const { newId } = world.writer;
      const hours = { from: '09:00', until: '16:00' };
      const duty = [{ person: personId(2), date: '2026-11-22', ...hours }];
      const pay = { person: personId(2), wage: 1200, commission: '0' };
      world.write([
        draft('event.people', newId(), EVENT, { event: EVENT, duty, devices: [] }),
        draft('staff.pay', newId(), null, pay),
      ]);
    },
  },
  {
    name: 'money that was said to have come had not',
    code: 'way/to-come',
    isTakenBack: true,
    after: ({ world }) => {
      const came = world.settling().came.find(({ from }) => from[0]?.account.startsWith('owed:'));
      if (came === undefined) throw new Error('nothing came');
      const made = undoMoney(world.writer.newId, { is: 'came', ...came }, 'the wrong account');
      if (made.ok) world.write(made.drafts);
    },
  },
  {
    name: 'a phone has not sent all of it',
    code: 'device/not-sent',
    after: ({ world }) => world.others.push(device({ headSaid: 7 })),
  },
  {
    name: 'a phone was not heard of since',
    code: 'device/not-heard',
    after: ({ world }) => world.others.push(device({ id: idOf(5, 3), seenAt: NOON - 3_600_000 })),
  },
  {
    name: 'something was written without the right to it',
    code: 'entry/kept',
    after: ({ world }) =>
      world.kept.push({
        ...{ id: idOf(9, 9), kind: 'sale.rung', isCounted: true, by: null },
        message: 'without the right to it',
      }),
  },
  {
    name: 'a clock was a week off',
    code: 'clock/off-day',
    trading: ({ world }) => {
      world.write(world.sale(1, 'cash', 0, NOON - 7 * 86_400_000));
    },
  },
  {
    name: 'a card was carried, and is not sent',
    code: 'card/state',
    trading: ({ world }) => {
      const drafts = world.sale(2, 'card').map((each) =>
        each.kind === 'payment.taken'
          ? {
              ...each,
              body: {
                ...each.body,
                card: { ...(each.body['card'] as object), state: 'deferred' },
              },
            }
          : each,
      );
      world.charged.delete(newCard(world));
      world.write(drafts);
    },
  },
];

/** From the first sale to the bank and the people, with what goes wrong in between. */
function evening(
  sales: readonly (readonly [number, 'cash' | 'card', number])[],
  wrong: readonly Fault[],
): Day {
  const world = new SettlingWorld();
  const has = (what: keyof Fault): boolean => wrong.some((fault) => fault[what] !== undefined);
  for (const [n, by, tip] of sales) world.sell(n, by, by === 'card' ? tip : 0);
  const day: Day = { world, cards: [...world.charged.keys()] };
  for (const fault of wrong) fault.trading?.(day);

  const lost = [0, 1, 2].map((n) => wrong.reduce((sum, { lost: few }) => sum + (few?.[n] ?? 0), 0));
  const left = [1, 2, 3].map((n) => {
    const row = world.books.row('stock', `${EVENT} ${idOf(6, n)}`);
    return (row?.quantity ?? 0) / 1000 - (lost[n - 1] ?? 0);
  });
  if (!has('neverBack')) world.move(EVENT, BASE, left);

  if (!has('isUncounted')) {
    const short = wrong.reduce((sum, each) => sum + (each.short ?? 0), 0);
    const read = world.count(-short, { number: 'B-1', amount: 100 });
    if (!has('isBagLeft')) world.came(`bag:${read}`, 100, 0, 'bag B-1');
  }
  for (const fault of wrong) fault.afterCount?.(day);

  const asked = [...world.charged.keys()].map((payment) => world.line(payment));
  const lines = wrong.reduce<readonly CardLine[]>(
    (all, fault) => (all.length === 0 ? all : (fault.report?.(all, day) ?? all)),
    asked,
  );
  if (!has('isUnreported') && lines.length > 0) world.report(lines);
  const owed = world.balances().get(`owed:${READER.id}`) ?? 0;
  const isShort = wrong.reduce((sum, each) => sum + (each.payoutShort ?? 0), 0);
  const net = lines.reduce(
    (sum, { sort, amount, fee }) => sum + (sort === 'decline' ? 0 : amount - fee),
    0,
  );
  if (!has('isNotAtBank') && owed > 0) {
    const came = Math.min(owed, Math.max(1, has('isUnreported') ? owed : net - isShort));
    world.came(`owed:${READER.id}`, came, owed - came, 'PO-1');
  }
  settlePeople(world, has);
  for (const fault of wrong) fault.after?.(day);
  return day;
}

function settlePeople(world: SettlingWorld, has: (what: keyof Fault) => boolean): void {
  const { newId } = world.writer;
  const at = { newId, event: EVENT };
  const write = (made: ReturnType<typeof payOut>): void => {
    assert.ok(made.ok, JSON.stringify(made));
    world.write(made.drafts);
  };
  const settling = world.settling();
  if (settling.tips.open.length > 0 && !has('areTipsLeft')) {
    write(shareOutTips({ ...at, how: 'taken', settling }));
    if (!has('areTipsUnpaid'))
      for (const { person, amount } of world.settling().tips.owed)
        write(
          payOut({
            ...{ ...at, for: 'tips', whom: person, from: 'safe', what: 'tips', currency: 'GBP' },
            ...{ typed: (amount / 100).toFixed(2), owed: amount },
          }),
        );
  }
  if (has('isMakerUnpaid')) return;
  for (const { maker, toPay } of world.settling().makers)
    if (toPay > 0)
      write(
        payOut({
          ...{ ...at, for: 'maker', whom: maker, from: 'bank', what: 'goods', currency: 'GBP' },
          ...{ typed: (toPay / 100).toFixed(2), owed: toPay },
        }),
      );
}

const codesOf = ({ world }: Day): readonly EventEndCode[] => [
  ...new Set(world.settling().ends.map(({ code }) => code)),
];
const SALES = [
  [1, 'cash', 0],
  [2, 'card', 50],
  [3, 'card', 0],
  [1, 'card', 20],
  [3, 'cash', 0],
] as const;

describe('an event', () => {
  it('with nothing wrong ties up, and each fault alone is named by the loose end that belongs to it', () => {
    assert.deepEqual(codesOf(evening(SALES, [])), []);
    for (const fault of faults) {
      const found = codesOf(evening(SALES, [fault]));
      assert.ok(found.includes(fault.code), `${fault.name}: ${found.join(', ')}`);
    }
  });

  it('with any faults at once has each of them named, and none that is not there', () => {
    const sale = fc.tuple(
      fc.integer({ min: 1, max: 3 }),
      fc.constantFrom('cash' as const, 'card' as const),
      fc.nat({ max: 99 }),
    );
    // Without a report it cannot be wrong, and without money nothing of it is short.
    const clashes: readonly (readonly [keyof Fault, keyof Fault])[] = [
      ['isUnreported', 'report'],
      ['isTakenBack', 'payoutShort'],
      ['isTakenBack', 'isNotAtBank'],
      ['isUnreported', 'payoutShort'],
      ['isNotAtBank', 'payoutShort'],
      ['report', 'payoutShort'],
      ['neverBack', 'lost'],
      ['isUncounted', 'short'],
      ['isUncounted', 'isBagLeft'],
      ['isUncounted', 'afterCount'],
      ['areTipsLeft', 'areTipsUnpaid'],
      ['report', 'report'],
      ['neverBack', 'afterCount'],
    ];
    const fits = (chosen: readonly Fault[]): boolean =>
      clashes.every(([one, other]) => {
        const [a, b] = [one, other].map((key) =>
          chosen.filter((fault) => fault[key] !== undefined),
        );
        return one === other ? a!.length < 2 : a!.length === 0 || b!.length === 0;
      });
    fc.assert(
      fc.property(
        fc.array(sale, { maxLength: 8 }),
        fc.subarray([...faults], { maxLength: 5 }).filter(fits),
        (more, wrong) => {
          const found = codesOf(evening([...SALES, ...more], wrong));
          for (const { name, code } of wrong)
            assert.ok(found.includes(code), `${name} is not named: ${found.join(', ')}`);
          const named = new Set(wrong.map(({ code }) => code));
          // Some faults leave money that has not come, or goods that do not agree, as well.
          const follows: readonly EventEndCode[] = [
            'way/to-come',
            'payout/short',
            'stock/off',
            'card/missing',
          ];
          for (const code of found)
            assert.ok(
              named.has(code) || follows.includes(code),
              `${code} names nothing that is wrong`,
            );
        },
      ),
      { numRuns: 60 },
    );
  });

  it('guesses that what is off both ways was tapped for the other', () => {
    const wrong: Fault = { name: 'both ways', code: 'stock/off', lost: [0, 3, -3] };
    const { world } = evening(SALES, [wrong]);
    const [two, three] = [2, 3].map((n) =>
      world.settling().stock.find((each) => each.item === idOf(6, n)),
    );
    assert.deepEqual([two?.open, three?.open], [3000, -3000]);
    assert.deepEqual(two?.guess, { is: 'taken for', item: idOf(6, 3) });
    assert.deepEqual(three?.guess, { is: 'taken for', item: idOf(6, 2) });
    assert.equal(two.retail, 630);
  });

  it('has nothing left of a card that was given back, here and in the report', () => {
    const { world } = evening(SALES, []);
    // Asked for, charged, never a part of anything, and undone at the acquirer.
    const payment = world.writer.newId();
    const at = new Date(NOON).toISOString();
    world.charged.set(payment, { amount: 700, at });
    const asked = { payment, slip: idOf(20, 8), way: READER.id, amount: 700 };
    const said = { amount: 700, approval: '', acquirer: 'a', reason: '' };
    const undone = { payment, state: 'reversed', ...said } as const;
    world.write([
      draft('payment.asked', world.writer.newId(), EVENT, asked),
      draft('payment.result', world.writer.newId(), EVENT, undone),
    ]);
    const taken = world.line(payment, { last4: '4242' });
    world.report([taken, { ...taken, id: 'back', sort: 'refund', amount: -700, fee: 0 }]);
    assert.deepEqual(codesOf({ world, cards: [] }), ['payout/short']);
    // Given back in part only, it does not come to nothing.
    world.report([{ ...taken, id: 'back', sort: 'refund', amount: -600, fee: 0 }]);
    assert.ok(codesOf({ world, cards: [] }).includes('card/odd'));
  });

  it('joins by hand what is like more than one, and leaves out what is none of ours', () => {
    const { world } = evening(SALES, []);
    const [first] = world.charged.keys();
    const line = world.line(first!, { reference: 'elsewhere', amount: 999, last4: '0000' });
    world.report([line]);
    const odd = (): readonly string[] =>
      world.settling().ends.flatMap((end) => (end.code === 'card/odd' ? end.odd.line : []));
    const [strange] = odd();
    assert.ok(strange !== undefined);
    const join = (payment: string | null, why: string): string => {
      const outcome = joinLine(world.writer.newId, strange, payment, why);
      if (outcome.ok) world.write(outcome.drafts);
      return outcome.ok ? 'done' : outcome.refusal.code;
    };
    assert.equal(join(null, ' '), 'settle/no-reason');
    assert.equal(join(null, 'of another stall on that terminal'), 'done');
    assert.deepEqual(odd(), []);
    // Said otherwise: it is a second line for that payment then.
    assert.equal(join(first!, 'it was ours after all'), 'done');
    const [again] = world.settling().cards.odd;
    assert.equal(again?.is, 'double');
  });

  it('leaves what is taken without tax, less goods, fees, makers and costs', () => {
    const { world } = evening(SALES, []);
    const costs = [{ what: 'Diesel', each: 45, per: 'km', many: 10_000 }] as const;
    const fee = { kind: 'both', fixed: 100, percent: '10', of: 'gross' } as const;
    world.write([draft('event.costs', world.writer.newId(), EVENT, { event: EVENT, fee, costs })]);
    const { result, makers, cards } = world.settling();
    const takings = 105 * 2 + 210 + 315 * 2;
    assert.equal(result.takings, takings);
    assert.equal(result.pitch, 100 + takings / 10);
    assert.equal(result.cardFees, 15);
    assert.equal(result.cardFees, cards.fees);
    assert.equal(result.makers, makers[0]?.toPay);
    assert.equal(
      result.left,
      result.net - result.goods - result.cardFees - result.pitch - result.makers - 450,
    );
    assert.equal(result.minutes, 7 * 60);
    assert.equal(result.sellThrough, Math.round((5 / 60) * 1000));
    // A bill for the same is not counted again.
    const body = { from: 'safe', to: 'spent:travel', amount: 500, what: 'diesel' };
    world.write([draft('cash.moved', world.writer.newId(), EVENT, body)]);
    assert.deepEqual(
      world.settling().result.costs.map(({ what, amount, is }) => [what, amount, is]),
      [['diesel', 500, 'from cash']],
    );
  });
});

describe('wages and commission', () => {
  it('are earned by hours and by what was sold, and are costs before they are paid', () => {
    const { world } = evening(SALES, []);
    const { newId } = world.writer;
    const person = personId(2);
    const duty = [{ person, date: '2026-11-22', from: '09:00', until: '16:30' }];
    world.write([
      draft('event.people', newId(), EVENT, { event: EVENT, duty, devices: [] }),
      draft('staff.pay', newId(), null, { person, wage: 1250, commission: '10' }),
    ]);
    const before = world.settling();
    const [pay] = before.pay;
    assert.deepEqual([pay?.minutes, pay?.wage, pay?.commission], [450, 9375, 0]);
    const costs = before.result.costs.filter(({ is }) => is === 'earned');
    assert.deepEqual(costs, [{ what: 'wages', amount: 9375, is: 'earned', person }]);
    const paid = payOut({
      ...{ newId, event: EVENT, for: 'wages', whom: person, from: 'safe', what: 'wages' },
      ...{ typed: '50', currency: 'GBP', owed: 9375 },
    });
    assert.ok(paid.ok);
    world.write(paid.drafts);
    const after = world.settling();
    assert.equal(after.result.left, before.result.left);
    const end = after.ends.find(({ code }) => code === 'pay/not-paid');
    assert.ok(end?.code === 'pay/not-paid');
    assert.deepEqual([end.person, end.for, end.amount], [person, 'wages', 4375]);
  });
});

describe('what a sale brought', () => {
  it('is rounded to the minor unit, and none where nothing was sold', () => {
    assert.equal(averageOf({ takings: 1001, sales: 2 }), 501);
    assert.equal(averageOf({ takings: 0, sales: 0 }), null);
  });
});

describe('a card that was declined late', () => {
  it('is one loose end, and not missing as well; it says what it had been taken for', () => {
    const { world } = evening(SALES, [
      {
        name: 'declined in place of paid',
        code: 'card/odd',
        report: ([first, ...rest]) => [
          { ...first!, id: 'late', sort: 'decline', amount: 0, fee: 0 },
          ...rest,
        ],
      },
    ]);
    const { missing, odd } = world.settling().cards;
    assert.deepEqual(missing, []);
    assert.deepEqual(
      odd.map(({ is, amount, payment }) => [is, amount > 0, payment !== null]),
      [['decline', true, true]],
    );
  });
});

describe('a payout', () => {
  it('is owed by the ways whose cards it is of, and by no more than is still to come', () => {
    const { world } = evening(SALES, [
      { name: 'not come', code: 'way/to-come', isNotAtBank: true },
    ]);
    const { cards, toCome } = world.settling();
    const [payout] = cards.payouts;
    assert.ok(payout !== undefined);
    assert.deepEqual(payout.ways, [{ way: READER.id, amount: payout.gross }]);
    assert.deepEqual(owedBy(payout, toCome), [
      { account: `owed:${READER.id}`, amount: payout.gross },
    ]);
    const less = toCome.map((each) => ({ ...each, open: 5 }));
    assert.deepEqual(owedBy(payout, less), [{ account: `owed:${READER.id}`, amount: 5 }]);
    assert.deepEqual(owedBy(payout, []), []);
  });
});

describe('settling an event', () => {
  const settle = (world: SettlingWorld, isAddendum = false, toSend = 0) =>
    settleEvent({
      newId: world.writer.newId,
      event: EVENT,
      settling: world.settling(),
      toSend,
      isAddendum,
    });
  const code = (outcome: ReturnType<typeof settle>): string =>
    outcome.ok ? 'done' : outcome.refusal.code;

  it('waits until nothing is loose or each is accepted, and until all is sent', () => {
    const { world } = evening(SALES, [faults.find((fault) => fault.short !== undefined)!]);
    assert.equal(code(settle(world)), 'settle/loose-ends');
    const [end] = world.settling().ends;
    const body = { looseEnd: end!.looseEnd, how: 'accepted', reason: 'a change error' } as const;
    world.write([draft('looseEnd.settled', world.writer.newId(), null, body)]);
    assert.equal(code(settle(world, false, 2)), 'settle/not-sent');
    const outcome = settle(world);
    assert.ok(outcome.ok);
    world.write(outcome.drafts);
    assert.deepEqual(world.settling().ends, []);
    assert.equal(code(settle(world)), 'settle/settled');
  });

  it('can be checked from the daybook: what is changed, dropped or comes later shows', () => {
    const { world } = evening(SALES, []);
    const outcome = settle(world);
    assert.ok(outcome.ok);
    world.write(outcome.drafts);
    const verified = verifySettled(world.entries, world.known, EVENT);
    assert.deepEqual(verified.faults, []);
    assert.ok(verified.entries > 10);
    // What comes later is not what it was settled with.
    world.sell(1, 'cash');
    assert.deepEqual(verifySettled(world.entries, world.known, EVENT).faults, []);
    const [late] = world.settling().ends.filter((each) => each.code === 'settled/changed');
    assert.ok(late !== undefined);
    const again = settle(world, true);
    assert.equal(code(again), 'settle/loose-ends');

    const sale = world.known.findIndex(({ kind }) => kind === 'sale.rung');
    const without = world.known.filter((_, at) => at !== sale);
    const codes = (all: typeof world.entries, known: typeof world.known): readonly string[] =>
      verifySettled(all, known, EVENT).faults.map((fault) => fault.code);
    assert.deepEqual(codes(world.entries, without), ['settled/balances']);
    assert.deepEqual(codes(world.entries.slice(0, 5), world.known), ['settled/gone']);
    const other = world.entries.map((entry) => ({ ...entry, hash: 'c'.repeat(64) }));
    assert.deepEqual(codes(other, world.known), ['settled/other']);
    assert.deepEqual(codes(world.entries, []), ['settled/never']);
  });

  it('is done once more for what came since', () => {
    const { world } = evening(SALES, []);
    const first = settle(world);
    assert.ok(first.ok);
    world.write(first.drafts);
    const body = { from: 'safe', to: 'owner', amount: 100, what: 'a coffee' };
    world.write([draft('cash.moved', world.writer.newId(), EVENT, body)]);
    assert.deepEqual(codesOf({ world, cards: [] }), ['settled/changed']);
    const again = settle(world, true);
    assert.ok(again.ok);
    world.write(again.drafts);
    assert.deepEqual(world.settling().ends, []);
    assert.deepEqual(verifySettled(world.entries, world.known, EVENT).faults, []);
  });
});

describe('commands of settling', () => {
  it('pay no more than is owed, and say what is wrong with what is typed', () => {
    const paid = (typed: string): string => {
      const outcome = payOut({
        newId: () => idOf(9, 1),
        ...{ event: EVENT, for: 'maker', whom: MAKER, typed, from: 'safe', what: '' },
        ...{ currency: 'GBP', owed: 500 },
      });
      return outcome.ok ? 'done' : outcome.refusal.code;
    };
    assert.deepEqual(
      [paid('5'), paid('5.01'), paid(''), paid('all')],
      ['done', 'settle/more-than-owed', 'settle/amount-wrong', 'settle/amount-wrong'],
    );
    const came = moneyCame({
      newId: () => idOf(9, 1),
      ...{ event: EVENT, typed: '9.50', currency: 'GBP', day: '2026-11-24', what: 'PO-1' },
      from: [{ account: `owed:${READER.id}`, amount: 1000 }],
    });
    assert.ok(came.ok);
    assert.deepEqual((came.drafts[0]!.body as { fees: number }).fees, 50);
  });

  it('share tips with nobody only by a word', () => {
    const tips = { taken: 5, open: [{ seller: 'nobody', amount: 5 }], owed: [], isShared: false };
    const share = (how: 'hours' | 'equally', minutes: { person: string; minutes: number }[]) => {
      const settling = { tips, minutes };
      const outcome = shareOutTips({ newId: () => idOf(9, 1), event: EVENT, how, settling });
      return outcome.ok ? 'done' : outcome.refusal.code;
    };
    assert.equal(share('hours', []), 'settle/nobody-on-duty');
    assert.equal(share('hours', [{ person: idOf(7, 1), minutes: 5 }]), 'done');
    assert.deepEqual(shareTips('equally', 5, [0, 0]), [3, 2]);
  });
});

describe('a report as a file', () => {
  const read = (line: Record<string, string>) =>
    readReport([{ reference: 'r', amount: '4.50', ...line }], '2026-11-22', 'GBP').rows[0]!;
  const says = (line: Record<string, string>): string => {
    const row = read(line);
    return row.ok ? 'fits' : row.says;
  };

  it('is read line by line, whichever way amounts and times are written', () => {
    const row = read({ fee: '0,13', last4: '****4242', at: '2026-11-22 12:30', payout: 'PO-1' });
    assert.ok(row.ok);
    const { amount, fee, last4, at, sort } = row.line;
    assert.deepEqual(
      [amount, fee, last4, at, sort],
      [450, 13, '4242', '2026-11-22T12:30:00.000Z', 'payment'],
    );
    const back = read({ amount: '−4.50' });
    assert.ok(back.ok && back.line.sort === 'refund' && back.line.amount === -450);
  });

  it('says of each line what is wrong, and what would be right', () => {
    assert.match(says({ amount: 'much' }), /“much” is no amount.*12\.50/);
    assert.match(says({ amount: '' }), /is no amount/);
    assert.match(says({ fee: '-1' }), /is no fee/);
    assert.match(says({ at: 'yesterday' }), /“yesterday” is no time/);
    assert.match(says({ sort: 'gift' }), /none of payment, refund/);
    assert.match(says({ last4: '42' }), /last4: the last four/);
  });

  it('has a line once that is there twice, also when it is taken in again', () => {
    const line = { reference: 'r', amount: '4.50' };
    const found = readReport([line, line, { ...line, reference: 'q' }], '2026-11-22', 'GBP');
    assert.deepEqual([found.rows.length, found.double], [2, 1]);
    const lines = found.rows.flatMap((row) => (row.ok ? row.line : []));
    const world = new SettlingWorld();
    for (let n = 0; n < 2; n += 1)
      world.write(takeReport(world.writer.newId, 'file.csv', '2026-11-22', lines));
    assert.equal(world.books.rows('cardLines').length, 2);
  });
});

describe('a maker’s statement', () => {
  const line = (quantity: number, total: number, more: Partial<Row<'saleLines'>> = {}) =>
    makersGoods({
      ...{ maker: 'm', item: 'mug', name: 'Mug', detail: '0.3 l', quantity, total },
      ...{ tax: { a: total / 10, b: total / 10 }, ...more },
    });

  it('has each of the goods once, what came back apart, and tax beside what is paid', () => {
    const { world } = evening(SALES, []);
    const rows = world.rows();
    const makerLines = [
      ...line(2000, 1000),
      ...line(1000, 500),
      ...line(-1000, -500),
      ...line(1000, 2000, { item: null, name: 'Jug', detail: '' }),
      ...line(1000, 700, { maker: null }),
    ];
    const makers = [{ ...rows.makers[0]!, id: 'm', commission: '25' }];
    const [maker] = settleMakers({ ...rows, makers, makerLines });
    assert.deepEqual(
      maker?.goods.map(({ name, quantity, net, tax }) => [name, quantity, net, tax]),
      [
        ['Jug', 1000, 1600, 400],
        ['Mug, 0.3 l', 3000, 1200, 300],
        ['Mug, 0.3 l', -1000, -400, -100],
      ],
    );
    assert.deepEqual(
      [maker?.sold, maker?.cameBack, maker?.tax, maker?.commission, maker?.toPay],
      [2400, 400, 600, 600, 1800],
    );
  });

  it('says on paper and in its letter what each brought, and what is left to pay', () => {
    const { world } = evening(SALES, []);
    const rows = world.rows();
    const makerLines = [...line(2000, 1000), ...line(-1000, -500)];
    const makers = [{ ...rows.makers[0]!, id: 'm', commission: '25' }];
    const mails = [{ maker: 'm' }, { maker: 'other' }];
    const [maker] = settleMakers({ ...rows, makers, makerLines, makerMails: mails });
    assert.equal(maker?.mailed, 1);
    const statement = {
      ...{ maker, name: 'Fern', unit: () => '', event: rows.event },
      business: { name: 'Larkmoss', currency: 'GBP', locale: 'en-GB' },
    };
    const paper = makerPaper(statement);
    assert.deepEqual(paper.rows, [
      ['Mug, 0.3 l', '2', '2.00', '8.00'],
      ['Mug, 0.3 l', '−1', '−1.00', '−4.00'],
      ['Sold, without tax', '', '', '8.00'],
      ['Brought back', '', '', '−4.00'],
      ['Commission', '', '', '−1.00'],
      ['To pay', '', '', '3.00'],
    ]);
    assert.equal(paper.foot, 'Thank you for your goods.');
    const { subject, text } = makerLetter(statement);
    assert.match(subject, /^Your goods at Quay, Sunday 22 November$/);
    assert.match(text, /\r\n2 × Mug, 0\.3 l: £8\.00 \(tax £2\.00\)\r\n/);
    assert.match(text, /\r\nTo pay: £3\.00\r\n\r\nLarkmoss$/);
  });

  it('is mailed to an address, and says how often it was asked for', () => {
    const newId = (): string => 'id';
    const maker = { maker: 'm', mailed: 2 };
    assert.deepEqual(mailStatement(newId, EVENT, maker, ''), {
      ok: false,
      refusal: { code: 'settle/no-address' },
    });
    const outcome = mailStatement(newId, EVENT, maker, 'fern@pots.example');
    assert.deepEqual(outcome.ok && outcome.drafts[0]?.body, {
      event: EVENT,
      maker: 'm',
      before: 2,
    });
  });
});
