import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Row } from '../books/tables';
import { orderEnds } from '../loose-end/order-ends';
import { sum } from '../money/units';
import { priceSlip } from '../slip/price-slip';
import {
  emptySlip,
  favoursOn,
  putItem,
  putPaidIn,
  removeLine,
  sayOfLine,
  setPrice,
  setQuantity,
  withoutFavours,
  type OpenSlip,
  type SlipOutcome,
} from '../slip/open-slip';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import { readEntry } from '../daybook/read-entry';
import type { Draft } from '../daybook/chain';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { PRICING, VAT } from '../testing/a-sale';
import { customerId, EVENT, eventBody, idOf, item } from '../testing/made-up-business';
import { keptBack } from '../stock/kept-back';
import { advanceFault, asksFor, feeSlip, keptAt } from './advance';
import { isStillToHand, offNext, restValueOf } from './agreed';
import { handOver } from './hand-over';
import { changeOf, orderNow, ordersNow, wantedAt, type OrderNow } from './order-state';
import {
  changeOrder,
  keepOrder,
  nextOrderNumber,
  stageOrder,
  type KeepOrder,
  type OrderOutcome,
} from './set-order';

const TODAY = '2026-11-22';
let count = 0;
const newId = (): string => idOf(90, (count += 1));
const done = (outcome: SlipOutcome): OpenSlip => {
  assert.ok(outcome.ok, JSON.stringify(outcome));
  return outcome.slip;
};
const buyer = { id: customerId(1), name: 'Wren', discount: '0' };
/** Three at 2.00 and one at 5.00. */
const slip: OpenSlip = {
  ...done(putItem(done(putItem(emptySlip('s'), item(1, 200), 3000, 'a')), item(2, 500), 1000, 'b')),
  customer: buyer,
};
const keep = (said: Partial<KeepOrder> = {}): OrderOutcome =>
  keepOrder({
    ...{ newId, slip, pricing: PRICING, taxes: [VAT], swaps: [], number: 'K1-1' },
    ...{ sort: 'kept', deposit: 300, collectAt: EVENT, place: 'base', until: '2026-12-12' },
    ...{
      note: ' by the door ',
      salt: 'sixteen-letters-',
      stage: 'ready',
      today: TODAY,
      event: EVENT,
    },
    ...said,
  });
const refusal = (outcome: OrderOutcome): string => (outcome.ok ? 'done' : outcome.refusal.code);

/** The order as the books have it once these are written. */
function written(...outcomes: readonly OrderOutcome[]): Row<'orders'> {
  const writer = new DeviceWriter(1);
  const books = new Books();
  const drafts = outcomes.flatMap((outcome): readonly Draft[] => {
    assert.ok(outcome.ok, JSON.stringify(outcome));
    return outcome.drafts;
  });
  for (const entry of writer.append(drafts, Date.UTC(2026, 10, 22, 9))) {
    const read = readEntry(entry);
    assert.ok(read.ok, JSON.stringify(read));
    books.apply(changesOf(read.entry));
  }
  const [row] = books.rows('orders');
  assert.ok(row !== undefined);
  return row;
}
const over = (
  order: Row<'orders'>,
  handed: ReadonlyMap<string, number> = new Map(),
  today = TODAY,
) =>
  handOver({
    ...{ newId, order, handed, customer: buyer, today },
    items: new Map([item(1, 250), { ...item(2, 500), cost: 99 }].map((each) => [each.id, each])),
  });
const totalOf = (open: OpenSlip): number => priceSlip(open, PRICING, [VAT]).cash.total;

describe('keeping a slip for a customer', () => {
  it('takes down its goods at what they come to, with every discount', () => {
    const order = written(
      keep({
        slip: { ...slip, discount: { amount: 100 }, customer: { ...buyer, discount: '10' } },
      }),
    );
    assert.equal(sum(order.lines.map(({ total }) => total)), 1100 - 110 - 100);
    assert.deepEqual(
      order.lines.map(({ standing, quantity }) => [standing, quantity]),
      [
        [60, 3000],
        [50, 1000],
      ],
    );
    assert.deepEqual([order.sort, order.note, order.stage], ['kept', 'by the door', 'ready']);
  });

  it('wants goods and somebody, and nothing else on the slip', () => {
    const { customer: _nobody, ...without } = slip;
    const paidIn = { account: `credit:${customerId(1)}`, name: 'Credit', detail: '' } as const;
    const back = [] as unknown as NonNullable<OpenSlip['back']>;
    for (const [said, code] of [
      [{ slip: emptySlip('s') }, 'order/nothing-on-it'],
      [{ slip: without }, 'order/no-customer'],
      [{ slip: done(putPaidIn(slip, { ...paidIn, amount: 500 }, 'c')) }, 'order/not-plain'],
      [{ slip: { ...slip, back: [...back, {} as (typeof back)[number]] } }, 'order/not-plain'],
      [
        { slip: { ...slip, handsOver: { id: 'o', number: 'K1', customer: 'c' } } },
        'order/not-plain',
      ],
      [{ sort: 'quote', until: '' }, 'order/no-day'],
      [{ until: '2026-02-30' }, 'order/day-wrong'],
      [{ until: '2026-11-21' }, 'order/day-over'],
      [{ deposit: 1101 }, 'order/deposit-wrong'],
      [{ deposit: -1 }, 'order/deposit-wrong'],
      [{ until: '', deposit: 1100 }, 'done'],
    ] as const)
      assert.equal(refusal(keep(said)), code, JSON.stringify(said));
  });

  it('asks for nothing in advance of a quote, and keeps nothing back for it', () => {
    const quote = written(keep({ sort: 'quote' }));
    assert.deepEqual([quote.deposit, quote.place, quote.stage], [0, null, '']);
  });

  it('is changed without its goods, and a day that is over can stay', () => {
    const kept = keep();
    const order = written(kept);
    const change = (said: Partial<Parameters<typeof changeOrder>[0]>) =>
      changeOrder({ newId, order, salt: 'sixteen-letters-', today: TODAY, ...order, ...said });
    assert.equal(refusal(change({ until: '2026-12-31' })), 'done');
    assert.equal(refusal(change({ today: '2027-01-01' })), 'done');
    assert.equal(refusal(change({ today: '2027-01-01', until: '2026-12-30' })), 'order/day-over');
    assert.equal(refusal(change({ deposit: 5000 })), 'order/deposit-wrong');
    const later = written(kept, change({ until: '2026-12-31', deposit: 0 }));
    assert.deepEqual([later.until, later.deposit, later.lines], ['2026-12-31', 0, order.lines]);
  });

  it('makes a quote goods that are kept, and says that they are there', () => {
    const quote = keep({ sort: 'quote' });
    const order = written(quote);
    const salt = 'sixteen-letters-';
    const kept = changeOrder({ newId, today: TODAY, salt, ...order, order, sort: 'kept' });
    assert.deepEqual([written(quote, kept).sort, written(quote, kept).stage], ['kept', 'ready']);
  });

  it('is called off with a reason, and can be opened again', () => {
    const off = { newId, order: 'o', stage: 'off', event: null } as const;
    assert.equal(refusal(stageOrder({ ...off, reason: ' ' })), 'order/no-reason');
    assert.equal(refusal(stageOrder({ ...off, reason: 'moved away' })), 'done');
    assert.equal(refusal(stageOrder({ ...off, stage: 'ready', reason: '' })), 'done');
  });

  it('is numbered by its device, whatever came from elsewhere', () => {
    const row = (number: string, source = '') => ({ number, source });
    const known = [row('K1-4'), row('Q1-6'), row('K2-9'), row('K1-77', 'Web shop'), row('odd')];
    assert.equal(nextOrderNumber('kept', 1, known), 'K1-7');
    assert.equal(nextOrderNumber('collect', 2, known), 'K2-10');
    assert.equal(nextOrderNumber('quote', 3, []), 'Q3-1');
  });
});

describe('handing an order over', () => {
  it('comes to what was agreed, whatever the goods cost by now', () => {
    const order = written(keep({ slip: { ...slip, discount: { amount: 101 } } }));
    const made = over(order);
    assert.ok(made.ok);
    assert.equal(totalOf(made.slip), 999);
    // What goods had cost, and whose they are, is as it is now.
    assert.deepEqual(
      made.slip.lines.map(({ price, cost }) => [price, cost]),
      [
        [200, 123_456],
        [500, 99],
      ],
    );
    assert.equal(made.slip.note, undefined, 'what was noted may be personal, and stays there');
    assert.deepEqual(made.slip.handsOver, { id: order.id, number: 'K1-1', customer: buyer.id });
    // A standing discount was in it already, and is not given twice.
    assert.equal(totalOf({ ...made.slip, customer: { ...buyer, discount: '50' } }), 999);
    assert.equal(totalOf({ ...made.slip, discount: { percent: '50' } }), 999);
  });

  it('in any parts comes to the same in all', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.nat({ max: 900 }),
        fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 12 }),
        (quantity, off, parts) => {
          const of = quantity * 1000;
          let before = 0;
          let all = 0;
          for (const part of [...parts, quantity]) {
            const next = Math.min(part * 1000, of - before);
            all += offNext({ off, of, before }, next);
            before += next;
          }
          assert.equal(all, off);
        },
      ),
    );
  });

  it('leaves the rest open, and gives a part its share of what is off', () => {
    const order = written(keep({ slip: { ...slip, discount: { amount: 110 } } }));
    const made = over(order);
    assert.ok(made.ok);
    const [first] = made.slip.lines;
    const part = done(setQuantity(made.slip, first!.key, 1000));
    assert.equal(part.lines[0]!.quantity, 1000);
    const most = setQuantity(made.slip, first!.key, 4000);
    assert.deepEqual(most.ok ? null : most.refusal, {
      ...{ code: 'slip/ordered-most', name: 'Thing 1', most: 3000 },
    });
    const handed = new Map([[order.lines[0]!.id, 1000]]);
    const rest = over(order, handed);
    assert.ok(rest.ok);
    const second = done(removeLine(part, part.lines[1]!.key));
    assert.equal(totalOf(second) + totalOf(rest.slip), 990);
    assert.equal(restValueOf(order.lines, handed), 990 - Math.round(540 / 3));
    assert.equal(
      refusal(
        over(order, new Map(order.lines.map(({ id, quantity }) => [id, quantity]))) as OrderOutcome,
      ),
      'order/ended',
    );
  });

  it('stays as it was agreed: no other price, nothing more off, nobody’s right is asked for', () => {
    const priced = done(setPrice(slip, 'a', 150, 'bruised'));
    const made = over(written(keep({ slip: priced })));
    assert.ok(made.ok);
    const { key } = made.slip.lines[0]!;
    assert.equal(made.slip.lines[0]!.listPrice, 200);
    assert.deepEqual(favoursOn(made.slip), []);
    assert.deepEqual(withoutFavours(made.slip).lines, made.slip.lines);
    for (const outcome of [
      setPrice(made.slip, key, 100, 'why'),
      sayOfLine(made.slip, key, { discount: { percent: '5' } }),
      sayOfLine(made.slip, key, { discount: undefined }),
    ])
      assert.equal(outcome.ok ? 'done' : outcome.refusal.code, 'slip/ordered');
    // More of the same is a line of its own, at what it costs now.
    const more = done(putItem(made.slip, item(1, 250), 1000, 'more'));
    assert.equal(more.lines.length, 3);
  });

  it('without any line of it left on the slip pays with no deposit of it', () => {
    const made = over(written(keep()));
    assert.ok(made.ok);
    const [first, second] = made.slip.lines.map(({ key }) => key);
    const one = done(removeLine(made.slip, first!));
    assert.ok(one.handsOver !== undefined);
    assert.equal(done(removeLine(one, second!)).handsOver, undefined);
  });

  it('of a quote that is out of date is at the prices of now', () => {
    const quote = written(keep({ sort: 'quote', slip: { ...slip, discount: { amount: 100 } } }));
    const now = over(quote, new Map(), '2026-12-13');
    assert.ok(now.ok);
    assert.equal(totalOf(now.slip), 3 * 250 + 500);
    const before = over(quote, new Map(), '2026-12-12');
    assert.ok(before.ok);
    assert.equal(totalOf(before.slip), 1000);
  });
});

describe('how an order stands', () => {
  const order = written(keep());
  const [first, second] = order.lines.map(({ id }) => id);
  const some = new Map([[first!, 1000]]);
  const all = new Map([
    [first!, 3000],
    [second!, 1000],
  ]);
  const stands = (
    handed: ReadonlyMap<string, number>,
    balance: number,
    of = order,
    today = TODAY,
  ) => {
    const { goods, money, due, deposit } = orderNow(of, handed, balance, today);
    return [goods, money, due, deposit];
  };

  it('says its goods and its money apart', () => {
    assert.deepEqual(stands(new Map(), 0), ['ready', 'to pay', 1100, 0]);
    assert.deepEqual(stands(new Map(), 0, { ...order, stage: 'waiting' }), [
      'waiting',
      'to pay',
      1100,
      0,
    ]);
    assert.deepEqual(stands(new Map(), -300), ['ready', 'in part', 800, 300]);
    assert.deepEqual(stands(new Map(), -1100), ['ready', 'paid', 0, 1100]);
    assert.deepEqual(stands(some, -300), ['in part', 'in part', 600, 300]);
    assert.deepEqual(stands(all, 0), ['handed over', 'paid', 0, 0]);
    assert.deepEqual(stands(new Map(), -300, { ...order, stage: 'off' }), ['off', 'paid', 0, 300]);
    const quote: Row<'orders'> = { ...order, sort: 'quote', stage: '' as 'ready' };
    assert.equal(stands(new Map(), 0, quote)[0], 'quoted');
    assert.equal(stands(new Map(), 0, quote, '2026-12-13')[0], 'out of date');
  });

  it('keeps goods back where they are, and at the event once a list takes them there', () => {
    const now = orderNow(order, some, 0, TODAY);
    const [one, two] = [item(1, 0).id, item(2, 0).id];
    const at = (stage: string, of: OrderNow = now): Record<string, number> => {
      const list = { use: 'load', event: EVENT, stage, from: 'base', to: EVENT } as Row<'lists'>;
      const kept = [...keptBack([{ list, lines: [] }], [of])];
      return Object.fromEntries(kept.map(([key, { reserved }]) => [key, reserved]));
    };
    const atBase = { [`base ${one}`]: 2000, [`base ${two}`]: 1000 };
    assert.deepEqual(at('draft'), atBase);
    assert.deepEqual(at('off'), atBase);
    const atEvent = { [`${EVENT} ${one}`]: 2000, [`${EVENT} ${two}`]: 1000 };
    assert.deepEqual(at('approved'), atEvent);
    assert.deepEqual(at('done'), atEvent);
    assert.deepEqual(at('draft', orderNow(order, all, 0, TODAY)), {});
    assert.deepEqual(at('draft', orderNow({ ...order, stage: 'off' }, some, 0, TODAY)), {});
    assert.deepEqual(at('draft', orderNow({ ...order, sort: 'quote' }, some, 0, TODAY)), {});
    assert.deepEqual(
      [...wantedAt(EVENT, [now])],
      [
        [one, 2000],
        [two, 1000],
      ],
    );
    assert.deepEqual([...wantedAt('elsewhere', [now])], []);
  });

  it('asks for what was agreed in advance, then for all that is due, and takes no more', () => {
    const asks = (balance: number): number => asksFor(orderNow(order, new Map(), balance, TODAY));
    assert.deepEqual([asks(0), asks(-100), asks(-300), asks(-1100)], [300, 200, 800, 0]);
    const now = orderNow(order, new Map(), -300, TODAY);
    assert.equal(advanceFault(now, 800), null);
    assert.deepEqual(advanceFault(now, 801), { code: 'order/more-than-due', due: 800 });
    assert.deepEqual(
      [keptAt(true, EVENT, EVENT), keptAt(false, EVENT, EVENT), keptAt(true, null, EVENT)],
      [EVENT, 'base', 'base'],
    );
    assert.equal(keptAt(true, null, undefined), 'base');
  });

  it('keeps a fee of its deposit when it is called off: a sale with its tax, and nobody’s discount', () => {
    const now = orderNow({ ...order, stage: 'off' }, new Map(), -300, TODAY);
    const fee = (amount: number) =>
      feeSlip({ newId, now, name: 'Wren', amount, taxes: [VAT, { id: 'another' }] });
    const made = fee(200);
    assert.ok(made.ok);
    const { cash } = priceSlip(made.slip, PRICING, [VAT]);
    assert.deepEqual([cash.total, cash.taxes[0]?.amount], [200, 33]);
    assert.equal(made.slip.handsOver?.id, order.id);
    const more = fee(301);
    assert.deepEqual(more.ok ? null : more.refusal, { code: 'order/fee-more', left: 300 });
  });

  it('is handed over no more by a slip that waited while another one did', () => {
    const made = over(order);
    assert.ok(made.ok);
    const { lines } = made.slip;
    const isStill = (handed: ReadonlyMap<string, number>, of = order): boolean =>
      isStillToHand(lines, of, handed);
    assert.ok(isStill(new Map()));
    assert.equal(isStill(some), false);
    assert.equal(isStill(new Map(), { ...order, stage: 'off' }), false);
    assert.ok(isStillToHand(lines.slice(1), order, some), 'what the others did not touch');
    assert.ok(isStillToHand([{ quantity: 1000 }], { ...order, stage: 'off' }, all), 'a fee');
  });

  it('is read of all rows at once, the latest first', () => {
    const sums = [{ order: order.id, line: first!, handed: 1000 }];
    const later = { ...order, id: idOf(99, 9) };
    const found = ordersNow(
      [order, later, { ...order, id: 'x', setStamp: '' }],
      sums,
      new Map([[`deposit:${order.id}`, -300]]),
      TODAY,
    );
    assert.deepEqual(
      found.map(({ order: { id }, due }) => [id, due]),
      [
        [later.id, 1100],
        [order.id, 600],
      ],
    );
  });

  it('says what has changed since', () => {
    const line = order.lines[0]!;
    assert.equal(changeOf(line, item(1, 200)), null);
    assert.deepEqual(changeOf(line, item(1, 250)), { is: 'price', now: 250 });
    assert.deepEqual(changeOf(line, { ...item(1, 200), isActive: false }), { is: 'gone' });
    assert.deepEqual(changeOf(line, undefined), { is: 'gone' });
    assert.equal(changeOf({ ...line, item: null }, undefined), null);
    // What somebody gave off does not count as a change of the goods.
    assert.equal(changeOf({ ...line, price: 150, listPrice: 200 }, item(1, 200)), null);
  });
});

describe('orders that are loose ends', () => {
  const order = written(keep());
  const [first] = order.lines.map(({ id }) => id);
  const event = { ...eventBody('Green'), setStamp: 'x' } as unknown as Row<'events'>;
  const stamps = {
    ...{ packedStamp: '', tradingStamp: '', countedStamp: '', settledStamp: '', backStamp: '' },
    backTo: '',
  };
  const ends = (
    of: Row<'orders'>,
    today: string,
    handed: ReadonlyMap<string, number> = new Map(),
    settled: readonly string[] = [],
  ) =>
    orderEnds(
      [orderNow(of, handed, 0, today)],
      [{ ...event, ...stamps } as Row<'events'>],
      settled.map((looseEnd) => ({ looseEnd })),
      today,
    ).map(({ why, looseEnd }) => [why, looseEnd]);

  it('were not fetched by their day, or by the end of the event; handed over twice; until somebody says what came of it', () => {
    assert.deepEqual(ends(order, TODAY), []);
    const byEvent = `order:${order.id}-${EVENT}`;
    assert.deepEqual(ends(order, '2026-11-23'), [['event', byEvent]]);
    assert.deepEqual(ends(order, '2026-11-23', new Map(), [byEvent]), []);
    assert.deepEqual(ends({ ...order, collectAt: null }, '2026-12-12'), []);
    assert.equal(ends(order, '2026-12-13')[0]?.[0], 'day');
    assert.deepEqual(ends({ ...order, sort: 'quote' }, '2026-12-13'), []);
    assert.deepEqual(ends({ ...order, stage: 'off' }, '2026-12-13'), []);
    assert.equal(ends(order, TODAY, new Map([[first!, 4000]]))[0]?.[0], 'twice');
  });
});
