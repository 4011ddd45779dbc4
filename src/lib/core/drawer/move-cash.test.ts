/** Cash in between: what is asked, whose right it is, what is left in drawers, bags and the safe. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Draft } from '../daybook/chain';
import { draft, kinds, type BodyOf } from '../daybook/kinds';
import { readEntry } from '../daybook/read-entry';
import { journalOf } from '../journal';
import { Trial } from '../journal/trial';
import { lateCashes, settleLateCash } from '../loose-end/late-cash';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, idOf } from '../testing/made-up-business';
import {
  cashAct,
  inBag,
  inDrawer,
  NEW_BAG,
  OWNER,
  SAFE,
  spentOn,
  takesCashOut,
  type CashPlace,
} from './cash-places';
import { countDrawer, readLeaves } from './commands';
import { expectedCash } from './expected-cash';
import { bagsOf, moveCash, type MoveCash } from './move-cash';

const NOW = Date.UTC(2026, 10, 22, 9);

/** A business with cash, and what stands on its accounts. */
class Tin {
  readonly books = new Books();
  readonly trial = new Trial();
  readonly writer = new DeviceWriter(1);
  drawer = '';

  write(drafts: readonly Draft[]): void {
    for (const entry of this.writer.append(drafts, NOW)) {
      const read = readEntry(entry);
      assert.ok(read.ok, JSON.stringify(read));
      this.books.apply(changesOf(read.entry));
      this.trial.add(journalOf(read.entry).postings);
    }
  }

  open(float: number): this {
    this.drawer = this.writer.newId();
    const counts = [{ value: 1, count: float }];
    this.write([draft('drawer.opened', this.drawer, EVENT, { name: 'Drawer 1', float, counts })]);
    return this;
  }

  move(
    from: CashPlace,
    to: CashPlace,
    amount: string,
    more: Partial<MoveCash['typed']> = {},
  ): string {
    const typed = { from, to, amount, what: 'so', bag: '', ...more };
    const outcome = moveCash({
      newId: this.writer.newId,
      event: EVENT,
      currency: 'GBP',
      typed,
      photo: null,
      counted: this.books
        .rows('drawerReads')
        .map(({ drawer }) => ({ id: drawer, name: 'Drawer 1' })),
      bags: bagsOf(this.books.rows('drawerReads'), this.books.rows('cashMoves')),
    });
    if (!outcome.ok) return `${outcome.refusal.field}: ${outcome.refusal.code}`;
    this.write(outcome.drafts);
    return 'done';
  }

  get should(): number {
    return expectedCash(
      this.books.row('drawers', this.drawer)!,
      this.books.row('drawerSums', this.drawer),
    );
  }

  count(found: number, more: Partial<BodyOf<'drawer.counted'>> = {}): string {
    const outcome = countDrawer({
      newId: this.writer.newId,
      drawer: this.books.row('drawers', this.drawer)!,
      sums: this.books.row('drawerSums', this.drawer),
      counts: [{ value: 1, count: found }],
      reason: 'so',
      leaves: { stays: more.stays ?? 0, bag: more.bag ?? null },
      number: 1,
      reads: this.books.rows('drawerReads'),
      othersAreOpen: true,
    });
    if (!outcome.ok) return outcome.refusal.code;
    this.write(outcome.drafts);
    return 'done';
  }
}

describe('cash in between', () => {
  it('is in what a drawer should hold, to the minor unit, and in what is outside it', () => {
    const tin = new Tin().open(8000);
    const drawer = inDrawer(tin.drawer);
    assert.equal(tin.move(drawer, spentOn('travel'), '12.50', { what: 'diesel' }), 'done');
    assert.equal(tin.move(OWNER, drawer, '20'), 'done');
    assert.equal(tin.move(drawer, SAFE, '30.00'), 'done');
    assert.equal(tin.move(SAFE, drawer, '5'), 'done');
    assert.equal(tin.move(drawer, drawer, '40', { what: 'coins from the baker' }), 'done');
    assert.equal(tin.move(drawer, NEW_BAG, '10', { bag: 'B7' }), 'done');
    assert.equal(tin.should, 8000 - 1250 + 2000 - 3000 + 500 - 1000);
    assert.equal(tin.trial.amount(drawer), tin.should);
    assert.equal(tin.trial.amount('spent:travel'), 1250);
    assert.equal(tin.trial.amount('owner'), -2000);
    assert.equal(tin.trial.amount('safe'), -8000 + 3000 - 500);
    const [bag] = bagsOf([], tin.books.rows('cashMoves'));
    assert.deepEqual([bag?.number, bag?.amount], ['B7', 1000]);
    assert.equal(tin.trial.amount(`bag:${bag!.id}`), 1000);
    assert.equal(tin.trial.total, 0);
  });

  it('for the pitch is the pitch’s, so that it is not counted twice', () => {
    const tin = new Tin().open(8000);
    tin.move(inDrawer(tin.drawer), spentOn('pitch'), '45');
    assert.equal(tin.trial.amount('pitch'), 4500);
  });

  it('in a bag goes back to the safe when the bag is opened again', () => {
    const tin = new Tin().open(8000);
    tin.move(inDrawer(tin.drawer), NEW_BAG, '10', { bag: 'B7' });
    const [bag] = bagsOf([], tin.books.rows('cashMoves'));
    tin.move(inBag(bag!.id), SAFE, '10');
    assert.equal(tin.move(inBag(bag!.id), SAFE, '10'), 'from: cash/bag-gone');
    assert.deepEqual(bagsOf([], tin.books.rows('cashMoves')), []);
    assert.equal(tin.trial.amount(`bag:${bag!.id}`), 0);
  });

  it('asks for what is missing, beside its field, and writes nothing', () => {
    const tin = new Tin().open(8000);
    const drawer = inDrawer(tin.drawer);
    assert.equal(tin.move(drawer, SAFE, ''), 'amount: cash/amount-wrong');
    assert.equal(tin.move(drawer, SAFE, '0'), 'amount: cash/amount-wrong');
    assert.equal(tin.move(drawer, SAFE, '-5'), 'amount: cash/amount-wrong');
    assert.equal(tin.move(drawer, spentOn('food'), '5', { what: ' ' }), 'what: cash/no-purpose');
    assert.equal(tin.move(drawer, SAFE, '5', { what: '' }), 'done');
    assert.equal(tin.move(drawer, NEW_BAG, '5'), 'bag: cash/no-bag');
    assert.equal(tin.move(drawer, NEW_BAG, '5', { bag: 'B7' }), 'done');
    assert.equal(tin.move(SAFE, NEW_BAG, '5', { bag: 'b7' }), 'bag: cash/bag-taken');
    assert.equal(tin.move(SAFE, SAFE, '5'), 'to: cash/same-place');
    assert.equal(tin.count(7000), 'done');
    assert.equal(tin.move(drawer, SAFE, '5'), 'from: cash/counted-already');
  });

  it('says what it is by where it comes from and goes', () => {
    const [one, two] = [inDrawer(idOf(4, 1)), inDrawer(idOf(4, 2))];
    const acts: readonly (readonly [CashPlace, CashPlace, string, boolean])[] = [
      [one, spentOn('food'), 'paid-out', true],
      [SAFE, spentOn('food'), 'paid-out', true],
      [OWNER, one, 'paid-in', false],
      [spentOn('food'), one, 'paid-in', false],
      [one, OWNER, 'to-owner', true],
      [one, SAFE, 'to-safe', true],
      [SAFE, one, 'float', false],
      [one, two, 'moved', false],
      [one, one, 'changed', false],
      [one, NEW_BAG, 'bagged', true],
      [inBag(idOf(4, 3)), SAFE, 'unbagged', true],
    ];
    for (const [from, to, act, isOut] of acts)
      assert.deepEqual([cashAct({ from, to }), takesCashOut({ from, to })], [act, isOut]);
  });

  it('is refused by its shape where it goes nowhere that holds cash', () => {
    const body = { from: SAFE, to: OWNER, amount: 5, what: 'x' };
    const fits = (change: object): boolean =>
      kinds['cash.moved'].body.safeParse({ ...body, ...change }).success;
    assert.ok(fits({}));
    for (const wrong of [
      { amount: 0 },
      { amount: 1.5 },
      { to: SAFE },
      { to: 'bag' },
      { to: 'drawer:x' },
      { to: 'spent:yachts' },
      { from: OWNER, to: spentOn('food') },
      { bag: 'B7' },
      { counts: [{ value: 1, count: 4 }] },
      { photo: 'data:text/html;base64,PGI+' },
    ])
      assert.ok(!fits(wrong), JSON.stringify(wrong));
  });
});

describe('what becomes of counted cash', () => {
  it('stays for the next float, goes into a bag, and the rest to the safe', () => {
    const tin = new Tin().open(8000);
    assert.equal(tin.count(8000, { stays: 5000, bag: { number: 'B9', amount: 2000 } }), 'done');
    const [read] = tin.books.rows('drawerReads');
    assert.deepEqual([read?.stays, read?.bag], [5000, { number: 'B9', amount: 2000 }]);
    assert.equal(tin.trial.amount('safe'), -2000);
    assert.equal(tin.trial.amount(`bag:${read!.id}`), 2000);
    assert.deepEqual(
      bagsOf(tin.books.rows('drawerReads'), []).map(({ number }) => number),
      ['B9'],
    );
  });

  it('is no more than was counted', () => {
    const tin = new Tin().open(8000);
    const bag = { number: 'B9', amount: 3001 };
    assert.equal(tin.count(8000, { stays: 5000, bag }), 'drawer/leaves-too-much');
  });

  it('is read as it is typed', () => {
    const read = (stays: string, bag: string, bagNumber: string): unknown => {
      const outcome = readLeaves({ stays, bag, bagNumber }, 'GBP');
      return outcome.ok ? outcome.leaves : outcome.refusal.code;
    };
    assert.deepEqual(read('', '', ''), { stays: 0, bag: null });
    assert.deepEqual(read('50', '120.50', ' B9 '), {
      stays: 5000,
      bag: { number: 'B9', amount: 12_050 },
    });
    assert.equal(read('much', '', ''), 'drawer/amount-wrong');
    assert.equal(read('', '5', ' '), 'drawer/no-bag-number');
  });
});

describe('a difference over the limit', () => {
  it('is counted once more, and then stands', () => {
    const drawer = new Tin().open(8000);
    const asked = {
      newId: drawer.writer.newId,
      drawer: drawer.books.row('drawers', drawer.drawer)!,
      sums: undefined,
      reason: 'so',
      number: 1,
      reads: [],
      othersAreOpen: true,
      recountAbove: 500,
    };
    const count = (found: number, first: number | null) =>
      countDrawer({ ...asked, counts: [{ value: 1, count: found }], first });
    assert.ok(count(7500, null).ok);
    const again = count(7499, null);
    assert.deepEqual(again.ok ? null : again.refusal, {
      code: 'drawer/count-again',
      counted: 7499,
    });
    const second = count(7000, 7499);
    assert.ok(second.ok);
    assert.equal((second.drafts[0]!.body as BodyOf<'drawer.counted'>).first, 7499);
  });
});

describe('cash that is heard of after the count', () => {
  const late = (tin: Tin) =>
    lateCashes(
      tin.books.rows('drawers'),
      tin.books.rows('drawerSums'),
      tin.books.rows('drawerReads'),
    );
  /** A sale whose cash went into the drawer, from a device that sends it late. */
  const lateSale = (tin: Tin): void => {
    const body = { from: OWNER, to: inDrawer(tin.drawer), amount: 450, what: 'of a late phone' };
    tin.write([draft('cash.moved', tin.writer.newId(), EVENT, body)]);
  };

  it('is found, called a difference, and is none then', () => {
    const tin = new Tin().open(8000);
    tin.count(8450);
    assert.deepEqual(late(tin), []);
    lateSale(tin);
    const [found] = late(tin);
    assert.equal(found?.amount, 450);
    const settled = settleLateCash(tin.writer.newId, found, 'Oriel’s phone sent at home');
    assert.ok(settled.ok);
    tin.write(settled.drafts);
    assert.deepEqual(late(tin), []);
    assert.equal(tin.trial.amount(inDrawer(tin.drawer)), 0);
    // Counted 4.50 over; with what came late it was right.
    assert.equal(tin.trial.amount('drawer-difference'), 0);
    lateSale(tin);
    assert.equal(late(tin)[0]?.amount, 450);
  });

  it('is not settled without a reason, nor where nothing is late any more', () => {
    const tin = new Tin().open(8000);
    tin.count(8000);
    lateSale(tin);
    const code = (found: ReturnType<typeof late>[number] | undefined, why: string): string => {
      const outcome = settleLateCash(tin.writer.newId, found, why);
      return outcome.ok ? 'done' : outcome.refusal.code;
    };
    assert.equal(code(late(tin)[0], ' '), 'looseEnd/no-reason');
    assert.equal(code(undefined, 'so'), 'looseEnd/settled');
  });
});
