/**
 * Goods come back on two tills that are out of touch, and the money goes back to the card that paid, or onto one that
 * is there and had paid for nothing: requests and answers get lost, come twice or late, tills and the server die between
 * any two steps, and the acquirer may have let go of the payment. In the end a card got every refund at most once and
 * never more than it paid, the tills believe what the acquirer has, and what it would not give back is known by name.
 *
 * Tills are the core's own rules on rows in memory; the acquirer is the stand-in's.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Payments } from '../../standins/acquirer/payments.mjs';
import { Books } from '../../src/lib/core/books/books';
import { changesOf } from '../../src/lib/core/books/changes';
import type { Draft } from '../../src/lib/core/daybook/chain';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { draft } from '../../src/lib/core/daybook/kinds';
import { readEntry } from '../../src/lib/core/daybook/read-entry';
import { journalOf } from '../../src/lib/core/journal';
import { Trial } from '../../src/lib/core/journal/trial';
import { sum } from '../../src/lib/core/money/units';
import { refundErrands, refundState } from '../../src/lib/core/payment/refund-state';
import { makeRefund } from '../../src/lib/core/sale/make-refund';
import { makeReturn } from '../../src/lib/core/sale/make-return';
import { takePart } from '../../src/lib/core/sale/take-part';
import { emptySlip, putItem } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, CARD, PRICING } from '../../src/lib/core/testing/a-sale';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { CARD_WAY, deviceId, EVENT, item, tax } from '../../src/lib/core/testing/made-up-business';
import { SEED, TIMES } from '../support/random';

const RUNS = 800 * TIMES;
const PIECES = 3;

/** What becomes of one request to the server, and of the server's to the acquirer. */
type Fate = 'arrives' | 'lost going' | 'lost coming' | 'twice' | 'late' | 'server dies';
const fates = fc.array(
  fc.constantFrom<Fate>(
    'arrives',
    'arrives',
    'lost going',
    'lost coming',
    'twice',
    'late',
    'server dies',
  ),
  { minLength: 1, maxLength: 6 },
);
const till = fc.constantFrom(0, 1);
type Step =
  | {
      readonly does: 'back';
      readonly till: number;
      readonly sale: number;
      readonly typed: string;
      readonly isOff: boolean;
    }
  | {
      readonly does: 'errands';
      readonly till: number;
      readonly fates: readonly Fate[];
      dies: number;
    }
  | { readonly does: 'sync'; readonly till: number }
  /** Without a sale, onto a card that the bank behind it takes money for, or does not. */
  | {
      readonly does: 'onto';
      readonly till: number;
      readonly price: number;
      readonly isGood: boolean;
    }
  /** The acquirer lets go of the payment: nothing of it can go back any more. */
  | { readonly does: 'gone'; readonly sale: number };
const step: fc.Arbitrary<Step> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc
      .record({ till, sale: fc.nat({ max: 1 }), many: fc.integer({ min: 1, max: PIECES }) })
      .chain(({ many, ...rest }) =>
        fc.boolean().map((isOff) => ({
          ...rest,
          does: 'back' as const,
          isOff,
          typed: isOff ? `${String(many * 15)}%` : String(many),
        })),
      ),
  },
  {
    weight: 4,
    arbitrary: fc.record({
      does: fc.constant('errands' as const),
      till,
      fates,
      dies: fc.constantFrom(0, 1, 99, 99),
    }),
  },
  { weight: 3, arbitrary: fc.record({ does: fc.constant('sync' as const), till }) },
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('onto' as const),
      till,
      price: fc.integer({ min: 1, max: 999 }),
      isGood: fc.boolean(),
    }),
  },
  fc.record({ does: fc.constant('gone' as const), sale: fc.nat({ max: 1 }) }),
);

class Died extends Error {}

/** A device: its own chain, and the rows of what it knows. */
class Till {
  readonly books = new Books();
  readonly writer: DeviceWriter;
  /** Its own entries that the server has not heard of. */
  unsent: Entry[] = [];
  /** How many of the server's entries it knows. */
  heard = 0;
  lives = 99;
  #returns = 0;

  constructor(readonly number: number) {
    this.writer = new DeviceWriter(number);
  }

  readonly nextReturn = (): number => (this.#returns += 1);

  know(entry: Entry): void {
    const read = readEntry(entry);
    assert.ok(read.ok, JSON.stringify(read));
    this.books.apply(changesOf(read.entry));
  }

  write(drafts: readonly Draft[]): void {
    if ((this.lives -= 1) < 0) throw new Died();
    for (const entry of this.writer.append(drafts, 0)) {
      this.know(entry);
      this.unsent.push(entry);
    }
  }
}

class World {
  readonly tills = [new Till(1), new Till(2)] as const;
  readonly sales: string[] = [];
  /** What the server has taken in, in its order. */
  readonly taken: Entry[] = [];
  /** What the acquirer said of each refund first, as the server has noted it. */
  readonly noted = new Map<string, 'refunded' | 'refused'>();
  readonly late: (() => void)[] = [];
  #ids = 0;
  readonly acquirer = new Payments({
    now: () => 0,
    newId: () => `p${String((this.#ids += 1))}`,
    code: () => '123456',
    keep: () => undefined,
  });

  constructor(prices: readonly number[]) {
    const [first] = this.tills;
    prices.forEach((price, n) => {
      const put = putItem(emptySlip(first.writer.newId()), item(1, price), PIECES * 1000, 'line');
      assert.ok(put.ok);
      const taken = takePart({
        ...{ newId: first.writer.newId, slip: put.slip, pricing: PRICING, taxes: [tax] },
        ...{ event: AT_EVENT, way: CARD_WAY, drawer: null, amount: null, card: CARD },
        ...{ deviceNumber: 1, number: n + 1, now: 0 },
      });
      assert.ok(taken.ok);
      const { id, charge, surcharge } = taken.part;
      const amount = charge + surcharge;
      const body = { payment: id, slip: put.slip.id, way: CARD_WAY.id, amount };
      first.write([draft('payment.asked', first.writer.newId(), EVENT, body)]);
      const asked = { reference: id, amount, currency: 'GBP', capture: true };
      this.acquirer.authorise(asked, { number: '4000000000004471', outcome: 'approve' });
      first.write(taken.drafts);
    });
    this.sales.push(...first.books.rows('sales').map(({ id }) => id));
    for (const number of [0, 1]) this.sync(number);
  }

  sync(number: number): void {
    const of = this.tills[number]!;
    this.taken.push(...of.unsent);
    of.unsent = [];
    const own = deviceId(of.number);
    for (const entry of this.taken.slice(of.heard)) if (entry.device !== own) of.know(entry);
    of.heard = this.taken.length;
  }

  /** Goods of a sale come back, or something off them, to the card that paid: as far as this till knows there is any. */
  back({ till: number, sale: nth, typed, isOff }: Extract<Step, { does: 'back' }>): void {
    const of = this.tills[number]!;
    const { books, writer, nextReturn } = of;
    const sale = books.row('sales', this.sales[nth]!)!;
    const ofIt = <R extends { readonly sale: string }>(rows: readonly R[]): readonly R[] =>
      rows.filter((row) => row.sale === sale.id);
    const payments = sale.payments.map((id) => books.row('payments', id)!);
    const before = ofIt(books.rows('returns'));
    const made = makeReturn({
      ...{ newId: writer.newId, sale, lines: ofIt(books.rows('saleLines')), payments, before },
      ...{ voids: [], undone: [], isOff, reason: 'it wilted' },
      chosen: [{ line: 0, typed, to: 'stock' }],
      ...{ way: CARD_WAY.id, drawer: null, card: payments[0]!.id },
      refunds: books.rows('cardRefunds').filter(({ payment }) => payment === payments[0]!.id),
      ...{ currency: 'GBP', cashStep: 1, deviceNumber: number + 1, number: nextReturn() },
      ...{ event: EVENT, place: EVENT, day: sale.day, hour: sale.hour },
    });
    if (made.ok) of.write(made.drafts);
    // Nothing of it is left, as far as is known here.
    else assert.match(made.refusal.code, /^return\/(more|nothing|off-more|card-more)$/);
  }

  /** Something comes back that nobody knows the sale of, and its money goes onto a card that is there. */
  onto({ till: number, price, isGood }: Extract<Step, { does: 'onto' }>): void {
    const { writer, nextReturn } = this.tills[number]!;
    const made = makeRefund({
      ...{ newId: writer.newId, pricing: PRICING, taxes: [tax], now: 0, before: 0, most: null },
      lines: [{ item: item(1, price), quantity: '1', each: (price / 100).toFixed(2), to: 'stock' }],
      ...{ event: { id: EVENT, swaps: [] }, timeZone: 'Europe/London', saleNumber: '' },
      ...{ reason: 'a gift', way: CARD_WAY.id, drawer: null, reference: '' },
      card: {
        ...{ refund: writer.newId(), scheme: 'Visa', last4: '4471', entry: 'tap' },
        sealed: isGood ? 'approve' : 'decline:closed',
      },
      ...{ deviceNumber: number + 1, number: nextReturn() },
    });
    assert.ok(made.ok, JSON.stringify(made));
    this.tills[number]!.write(made.drafts);
  }

  /** As the server does it (`server/cards/refunds.ts`): decided and known there, noted once, and asked for by its id. */
  #serverRefund(refund: string, dies: boolean): 'refunded' | 'refused' | null {
    const row = this.#atServer(refund);
    if (row === null) return null;
    const noted = this.noted.get(refund);
    if (noted !== undefined) return noted;
    const { payment, amount, sealed } = row;
    const asked = { reference: refund, amount, currency: 'GBP' };
    const { status, body } =
      payment === null
        ? this.acquirer.credit(asked, { number: '4000000000004471', outcome: sealed })
        : this.acquirer.refund(payment, refund, amount);
    if (dies) return null;
    if (status === 409 && (body as { code: string }).code === 'not yet') return null;
    const isDeclined = (body as { state?: string }).state === 'declined';
    const said = status === 200 && !isDeclined ? 'refunded' : 'refused';
    this.noted.set(refund, said);
    return said;
  }

  #atServer(
    refund: string,
  ): { readonly payment: string | null; readonly amount: number; readonly sealed: string } | null {
    for (const entry of this.taken) {
      const read = readEntry(entry);
      assert.ok(read.ok);
      if (read.entry.kind === 'refund.made') {
        const { amount, card } = read.entry.body.money;
        if (card?.refund === refund) return { payment: null, amount, sealed: card.sealed };
      }
      if (read.entry.kind !== 'return.made') continue;
      for (const { amount, card } of read.entry.body.money)
        if (card?.refund === refund) return { payment: card.payment, amount, sealed: '' };
    }
    return null;
  }

  #ask(refund: string, fate: Fate): 'refunded' | 'refused' | null {
    if (fate === 'late') this.late.push(() => void this.#serverRefund(refund, false));
    if (fate === 'late' || fate === 'lost going') return null;
    if (fate === 'twice') this.#serverRefund(refund, false);
    const said = this.#serverRefund(refund, fate === 'server dies');
    return fate === 'lost coming' ? null : said;
  }

  /** @returns Whether there is nothing left to do. */
  errands(number: number, fatesNow: readonly Fate[], dies: number): boolean {
    const of = this.tills[number]!;
    const left = [...fatesNow];
    of.lives = dies;
    try {
      for (const { id, payment, amount } of this.open(number)) {
        const state = this.#ask(id, left.shift() ?? 'arrives');
        if (state === null) continue;
        const reason = state === 'refused' ? 'not given back' : '';
        const body = { refund: id, payment, state, amount, reason };
        of.write([draft('refund.result', of.writer.newId(), EVENT, body)]);
      }
    } catch (error) {
      if (!(error instanceof Died)) throw error;
    } finally {
      of.lives = 99;
    }
    return this.open(number).length === 0;
  }

  open(number: number) {
    const { books, number: device } = this.tills[number]!;
    return refundErrands(books.rows('cardRefunds'), deviceId(device), new Set());
  }

  arriveLate(): void {
    for (const arrive of this.late.splice(0)) arrive();
  }

  /** What the journal says that cards owe. */
  get owed(): number {
    const trial = new Trial();
    for (const entry of this.taken) {
      const read = readEntry(entry);
      assert.ok(read.ok);
      trial.add(journalOf(read.entry).postings);
    }
    return trial.amount(`owed:${CARD_WAY.id}`);
  }
}

describe('refunds to cards, whatever fails', () => {
  it(`${String(RUNS)} runs from seed ${String(SEED)}: once each, never more than was paid, and known by all`, () => {
    const seen = { refunded: 0, refused: 0, inParts: 0, onto: 0, notOnto: 0 };
    fc.assert(
      fc.property(
        fc.array(step, { minLength: 1, maxLength: 12 }),
        fc.tuple(fc.integer({ min: 1, max: 999 }), fc.integer({ min: 1, max: 999 })),
        fc.boolean(),
        (steps, prices, lateLast) => {
          const world = new World(prices);
          for (const each of steps) {
            if (each.does === 'back') world.back(each);
            else if (each.does === 'onto') world.onto(each);
            else if (each.does === 'errands') world.errands(each.till, each.fates, each.dies);
            else if (each.does === 'sync') world.sync(each.till);
            else {
              const [payment] = world.tills[0].books.row(
                'sales',
                world.sales[each.sale]!,
              )!.payments;
              world.acquirer.cancel(payment!);
            }
          }
          if (!lateLast) world.arriveLate();
          // The network is well at last; twice round, so that all have heard of all.
          for (let round = 0; round < 2; round += 1)
            for (const number of [0, 1]) {
              world.sync(number);
              assert.ok(world.errands(number, [], 99), 'a refund is still to do');
            }
          for (const number of [0, 1]) world.sync(number);
          world.arriveLate();

          let refusedInAll = 0;
          let paidInAll = 0;
          let ontoInAll = 0;
          for (const { books } of world.tills) {
            const rows = books.rows('cardRefunds');
            for (const row of rows.filter(({ id, payment }) => id === payment)) {
              const theirs = world.acquirer.all.get(row.id);
              const isDone = refundState(row) === 'done';
              assert.equal(theirs?.state, isDone ? 'credited' : 'declined');
              assert.equal(theirs?.refunded, isDone ? row.amount : 0);
              assert.notEqual(refundState(row), 'to do');
              seen[isDone ? 'onto' : 'notOnto'] += 1;
              ontoInAll += row.amount;
            }
            for (const payment of books.rows('cardPayments')) {
              const own = rows.filter((row) => row.payment === payment.id);
              const theirs = world.acquirer.all.get(payment.id)!;
              const { refunds = [] } = theirs;
              assert.equal(new Set(refunds.map(({ id }) => id)).size, refunds.length);
              assert.ok(theirs.refunded <= payment.amount);
              const done = own.filter((row) => refundState(row) === 'done');
              assert.deepEqual(
                done.map(({ id, amount }) => ({ id, amount })).sort(byId),
                refunds.map(({ id, amount }) => ({ id, amount })).sort(byId),
              );
              assert.ok(own.every((row) => refundState(row) !== 'to do'));
              const refused = own.filter((row) => refundState(row) === 'refused');
              // Refused only where the acquirer let go, or where both gave back what was there once.
              if (theirs.state === 'captured' && refused.length > 0)
                assert.ok(sum(own.map(({ amount }) => amount)) > payment.amount);
              seen.refunded += done.length;
              seen.refused += refused.length;
              if (done.length > 1) seen.inParts += 1;
              refusedInAll += sum(refused.map(({ amount }) => amount));
              paidInAll += payment.amount - sum(done.map(({ amount }) => amount));
            }
          }
          // Both tills were added up: the journal has each once, and what was refused beside it.
          assert.equal(world.owed * 2, paidInAll - refusedInAll - ontoInAll);
        },
      ),
      { numRuns: RUNS, seed: SEED, includeErrorInReport: true },
    );
    // A test that never came to a refund, or never saw one refused, would hold anything.
    if (RUNS >= 500) for (const [what, times] of Object.entries(seen)) assert.ok(times > 0, what);
  });
});

const byId = (a: { readonly id: string }, b: { readonly id: string }): number =>
  a.id < b.id ? -1 : 1;
