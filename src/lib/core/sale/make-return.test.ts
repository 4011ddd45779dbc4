/** Goods that come back: never more than was paid, and nothing of the sale is left once all of it is back. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { Books } from '../books/books';
import { changesOf } from '../books/changes';
import type { Row } from '../books/tables';
import type { Entry } from '../daybook/entry';
import type { BodyOf } from '../daybook/kinds';
import { journalOf } from '../journal';
import { headOf } from '../journal/accounts';
import { imbalance, type Posting } from '../journal/posting';
import { quantityText, sum, thousandths } from '../money/units';
import { AT_EVENT, CARD, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { CARD_WAY, DRAWER, EVENT, idOf, item, TAX } from '../testing/made-up-business';
import { booksOf, knownEntries } from '../testing/books-of';
import { emptySlip, putItem } from '../slip/open-slip';
import { makeReturn, type ChosenBack, type MakeReturn, type ReturnOutcome } from './make-return';
import { backOf, leftValueOf, type SoldSale } from './return-figures';
import { takePart } from './take-part';

const writer = new DeviceWriter(1);
const postingsIn = (entries: readonly Entry[]): readonly Posting[] =>
  knownEntries(entries).flatMap((entry) => journalOf(entry).postings);
/** Three goods, paid by card with a surcharge and the uplift, tax on top and a service charge. */
function rungUp(quantities: readonly number[]): readonly Entry[] {
  let slip = emptySlip(writer.newId());
  for (const [at, quantity] of quantities.entries()) {
    const put = putItem(slip, item(at + 1, 333 + at * 251), quantity * 1000, String(at));
    assert.ok(put.ok);
    slip = put.slip;
  }
  const taken = takePart({
    ...{ newId: writer.newId, slip, taxes: [VAT], event: AT_EVENT, now: 0 },
    pricing: {
      ...{ currency: 'GBP', pricesIncludeTax: false, taxRounding: 'line', cashStep: 1 },
      ...{ typedSide: 'cash', uplift: '3.5', service: { percent: '10', taxes: [TAX] } },
    },
    way: { ...CARD_WAY, surcharge: { percent: '1.8', fixed: 0 } } as typeof CARD_WAY,
    ...{ drawer: null, amount: null, tip: 0, card: CARD, deviceNumber: 1, number: 1 },
  });
  assert.ok(taken.ok && taken.slip === null);
  return writer.append(taken.drafts, 0);
}

const returned = (
  books: Books,
  chosen: readonly ChosenBack[],
  more: Partial<MakeReturn> = {},
): ReturnOutcome =>
  makeReturn({
    newId: writer.newId,
    sale: books.rows('sales')[0]!,
    lines: books.rows('saleLines'),
    payments: books.rows('payments'),
    before: books.rows('returns'),
    ...{ voids: books.rows('voids'), undone: books.rows('voidsUndone'), chosen },
    ...{ card: null, refunds: books.rows('cardRefunds'), isOff: false, currency: 'GBP' },
    ...{ reason: 'it wilted', way: 'cash', drawer: DRAWER, cashStep: 1, deviceNumber: 1 },
    ...{ number: books.rows('returns').length + 1, event: EVENT, place: EVENT },
    ...{ day: '2026-11-22', hour: 12, ...more },
  });
const soldIn = (books: Books): SoldSale => ({
  sale: books.rows('sales')[0]!,
  lines: books.rows('saleLines'),
  payments: books.rows('payments'),
  before: books.rows('returns'),
});
const some = (
  line: number,
  typed: number | string,
  to: ChosenBack['to'] = 'stock',
): ChosenBack => ({
  ...{ line, to },
  typed: typeof typed === 'number' ? quantityText(thousandths(typed * 1000)) : typed,
});
const bodyOf = (outcome: ReturnOutcome): BodyOf<'return.made'> => {
  if (!outcome.ok) assert.fail(outcome.refusal.code);
  return outcome.drafts[0]!.body as BodyOf<'return.made'>;
};
const givenIn = (books: Books): number =>
  sum(books.rows('returns').flatMap(({ money }) => money.map(({ amount }) => amount)));
const paidFor = (payments: readonly Row<'payments'>[]): number =>
  sum(payments.map(({ charge, surcharge }) => charge + surcharge));

describe('goods that come back', () => {
  it('in any number of returns leave nothing of the sale, and give back what was paid for it', () => {
    const back = fc.array(
      fc.record({
        line: fc.nat(2),
        quantity: fc.integer({ min: 1, max: 3 }),
        off: fc.constantFrom('', '', '0.37', '10%', '2.50', '100%'),
      }),
      { maxLength: 6 },
    );
    const quantities = fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(quantities, back, (of, steps) => {
        const entries = [...rungUp(of)];
        const take = (line: number, quantity: number, off = ''): void => {
          const books = booksOf(entries);
          const isOff = off !== '';
          const outcome = returned(books, [some(line, isOff ? off : quantity)], { isOff });
          if (!outcome.ok) return;
          const made = writer.append(outcome.drafts, 1);
          assert.equal(imbalance(postingsIn(made)), null);
          assert.ok(!postingsIn(made).some(({ account }) => account === 'unexplained'));
          entries.push(...made);
        };
        for (const { line, quantity, off } of steps) take(line % of.length, quantity, off);
        for (const [line, quantity] of of.entries()) {
          const gone = backOf(booksOf(entries).rows('returns')).get(line) ?? 0;
          take(line, quantity - gone / 1000);
        }
        const books = booksOf(entries);
        assert.equal(givenIn(books), paidFor(books.rows('payments')));
        const sums = new Map<string, number>();
        for (const { account, amount = 0 } of postingsIn(entries))
          sums.set(account, (sums.get(account) ?? 0) + amount);
        // Cash for what a card paid: the drawer owes it, the acquirer brings it.
        const card = paidFor(books.rows('payments'));
        for (const [account, amount] of sums)
          assert.equal(
            amount,
            headOf(account) === 'drawer' ? -card : headOf(account) === 'owed' ? card : 0,
            account,
          );
        for (const { quantity } of books.rows('stock')) assert.equal(quantity, 0);
        for (const row of books.rows('eventItems'))
          assert.deepEqual([row.quantity, row.takings, row.tax], [0, 0, 0]);
      }),
      { numRuns: 60 },
    );
  });

  it('go back to stock here, or are gone for good with what they had cost', () => {
    const entries = rungUp([3]);
    const outcome = returned(booksOf(entries), [some(0, 2, 'broken')]);
    const books = booksOf([...entries, ...writer.append(outcome.ok ? outcome.drafts : [], 1)]);
    const at = (place: string) =>
      sum(books.rows('stock').flatMap((row) => (row.place === place ? row.quantity : [])));
    assert.deepEqual([at(EVENT), at('gone:broken'), at('gone:sold')], [-3000, 2000, 1000]);
    const [gone] = books.rows('movements');
    assert.deepEqual(
      [gone?.from, gone?.to, gone?.quantity, gone?.reason],
      [EVENT, 'gone:broken', 2000, 'broken'],
    );
    const lost = books.rows('eventAccounts').find(({ account }) => account === 'lost');
    const goods = books.rows('eventAccounts').find(({ account }) => account === 'goods');
    assert.equal((lost?.amount ?? 0) > 0, true);
    // What was sold and not brought back, and what was thrown away, are gone from the goods.
    assert.ok((goods?.amount ?? 0) < 0);

    const elsewhere = idOf(20, 4);
    const moved = bodyOf(returned(booksOf(entries), [some(0, 1)], { place: elsewhere }));
    const [entry] = knownEntries(
      writer.append(
        [{ id: writer.newId(), kind: 'return.made', v: 1, event: null, body: moved }],
        1,
      ),
    );
    const there = new Books();
    there.apply(changesOf(entry!));
    const stock = (place: string) =>
      there.rows('stock').find((row) => row.place === place)?.quantity ?? 0;
    assert.deepEqual([stock('gone:sold'), stock(EVENT), stock(elsewhere)], [-1000, 0, 1000]);
  });

  it('are given back in coins that there are', () => {
    const body = bodyOf(returned(booksOf(rungUp([1])), [some(0, 1)], { cashStep: 10 }));
    const [given] = body.money;
    assert.equal((given?.amount ?? 1) % 10, 0);
    assert.ok(Math.abs(given?.rounding ?? 99) <= 5);
    const none = bodyOf(
      returned(booksOf(rungUp([1])), [some(0, 1)], {
        cashStep: 10,
        way: CARD_WAY.id,
        drawer: null,
      }),
    );
    assert.equal(none.money[0]?.rounding, 0);
  });

  it('go to the card as far as it paid, and the rest another way beside it', () => {
    const paid = writer.append(
      writer.parts({ goods: 3, clears: 40, tip: 0, isGivenBack: false, isVoided: false }, 0),
      0,
    );
    const books = booksOf(paid);
    const card = books.rows('payments').find(({ way }) => way === CARD_WAY.id)!;
    const onCard = card.charge + card.surcharge;
    const toCard = { way: card.way, drawer: null, card: card.id };
    const all = [some(0, 1)];
    const alone = returned(books, all, toCard);
    assert.deepEqual(alone, { ok: false, refusal: { code: 'return/card-more', left: onCard } });
    const noDrawer = returned(books, all, { ...toCard, rest: { way: 'cash', drawer: null } });
    assert.deepEqual(noDrawer, { ok: false, refusal: { code: 'return/no-drawer' } });
    const outcome = returned(books, all, { ...toCard, rest: { way: 'cash', drawer: DRAWER } });
    const { money } = bodyOf(outcome);
    assert.deepEqual(
      money.map(({ way, drawer, amount }) => [way, drawer, amount]),
      [
        [card.way, null, onCard],
        ['cash', DRAWER, paidFor(books.rows('payments')) - onCard],
      ],
    );
    assert.equal(money[0]?.card?.payment, card.id);
    assert.equal(money[1]?.card, null);
    // All of it is back: nothing is left on any account but where the money had come from and went.
    const after = [...paid, ...writer.append(outcome.ok ? outcome.drafts : [], 1)];
    assert.equal(imbalance(postingsIn(after)), null);
    const left = sum(
      postingsIn(after).flatMap(({ account, amount = 0 }) =>
        headOf(account) === 'slip' ? amount : [],
      ),
    );
    assert.equal(left, 0);
    // Where the card paid enough, the other way is not asked.
    const enough = returned(books, [some(0, '10%')], {
      ...{ ...toCard, isOff: true, rest: { way: 'cash', drawer: null } },
    });
    assert.deepEqual(
      bodyOf(enough).money.map(({ way }) => way),
      [card.way],
    );
  });

  it('may be something off a price alone: its tax in proportion, and the goods stay', () => {
    const entries = rungUp([2]);
    const before = booksOf(entries);
    const total = before.rows('saleLines')[0]!.total;
    const outcome = returned(before, [some(0, '25 %')], { isOff: true });
    const { lines, money, takes } = bodyOf(outcome);
    assert.deepEqual(lines, [{ line: 0, quantity: 0, to: 'stock', off: Math.round(total / 4) }]);
    const tax = sum(takes.postings.flatMap((each) => (each.tax === undefined ? [] : each.amount!)));
    assert.ok(tax > 0);
    // A quarter of everything that was paid, whatever it was called.
    const quarter = paidFor(before.rows('payments')) / 4;
    assert.ok(Math.abs(money[0]!.amount - quarter) <= 1);
    assert.ok(takes.postings.every(({ quantity }) => quantity === undefined));
    const after = [...entries, ...writer.append(outcome.ok ? outcome.drafts : [], 1)];
    const books = booksOf(after);
    assert.deepEqual(
      books.rows('stock').map(({ quantity }) => quantity),
      before.rows('stock').map(({ quantity }) => quantity),
    );
    // One of two comes back for half of what is left.
    const half = bodyOf(returned(books, [some(0, 1)]));
    assert.ok(Math.abs(half.money[0]!.amount - (quarter * 3) / 2) <= 1);
    assert.equal(leftValueOf({ ...soldIn(books), before: [] }).get(0), total);
    assert.equal(leftValueOf(soldIn(books)).get(0), total - Math.round(total / 4));
  });

  it('give back no more than a price that was lowered is, also where all of it was', () => {
    const entries = rungUp([1, 1]);
    const off = returned(booksOf(entries), [some(0, '100%')], { isOff: true });
    const books = booksOf([...entries, ...writer.append(off.ok ? off.drafts : [], 1)]);
    const body = bodyOf(returned(books, [some(0, 1)]));
    assert.deepEqual(body.money, []);
    assert.deepEqual(body.lines, [{ line: 0, quantity: 1000, to: 'stock' }]);
    assert.equal(sum(body.takes.postings.flatMap((each) => each.quantity ?? 0)), 0);
    assert.ok(body.takes.postings.some(({ quantity = 0 }) => quantity > 0));
  });

  const entries = rungUp([2, 1]);
  const books = booksOf(entries);
  const refused: readonly [string, string, readonly ChosenBack[], Partial<MakeReturn>?][] = [
    ['nothing is chosen', 'return/nothing', [some(0, ''), some(1, '0')]],
    ['more than is left', 'return/more', [some(0, 3)]],
    ['half a thing', 'return/quantity-wrong', [some(0, '0.5')]],
    ['below nothing', 'return/quantity-wrong', [some(0, '-1')]],
    ['no number', 'return/quantity-wrong', [some(0, 'two')]],
    ['a line that there is not', 'return/nothing', [some(7, 1)]],
    ['more off than it cost', 'return/off-more', [some(0, '99')], { isOff: true }],
    ['off nothing known', 'return/off-wrong', [some(0, 'a bit')], { isOff: true }],
    ['nothing off', 'return/nothing', [some(0, '0 %')], { isOff: true }],
    ['nobody says why', 'return/no-reason', [some(0, 1)], { reason: '  ' }],
    ['cash, and no drawer is open', 'return/no-drawer', [some(0, 1)], { drawer: null }],
  ];
  for (const [what, code, chosen, more = {}] of refused)
    it(`says so: ${what}`, () => {
      const outcome = returned(books, chosen, more);
      assert.equal(outcome.ok ? 'returned' : outcome.refusal.code, code);
    });

  it('says so: the sale was voided', () => {
    const voids = [{ ...books.rows('sales')[0]!, sale: books.rows('sales')[0]!.id }];
    const outcome = returned(books, [some(0, 1)], {
      voids: voids as unknown as readonly Row<'voids'>[],
    });
    assert.equal(outcome.ok ? '' : outcome.refusal.code, 'return/voided');
  });
});
