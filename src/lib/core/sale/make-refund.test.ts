/** Money given back without a sale: priced and taxed as the goods are, and never out of nowhere. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { BodyOf } from '../daybook/kinds';
import { journalOf } from '../journal';
import { imbalance } from '../journal/posting';
import { PRICING, VAT } from '../testing/a-sale';
import { DeviceWriter } from '../testing/arbitrary-daybook';
import { heldWay } from '../testing/held-drafts';
import { CARD_WAY, customerId, DRAWER, EVENT, item, itemId } from '../testing/made-up-business';
import { readEntry } from '../daybook/read-entry';
import { refundState } from '../payment/refund-state';
import { booksOf, knownEntries } from '../testing/books-of';
import { makeRefund, refundOwed, type MakeRefund, type TypedRefund } from './make-refund';

const writer = new DeviceWriter(1);
const one = (more: Partial<TypedRefund> = {}): TypedRefund => ({
  ...{ item: item(1, 450), quantity: '1', each: '4.50', to: 'stock' },
  ...more,
});
const refund = (more: Partial<MakeRefund> = {}) =>
  makeRefund({
    ...{ newId: writer.newId, lines: [one()], pricing: PRICING, taxes: [VAT], now: 0 },
    ...{ event: { id: EVENT, swaps: [] }, timeZone: 'Europe/London', saleNumber: ' d3-17 ' },
    ...{ reason: 'from the spring', way: 'cash', drawer: DRAWER, reference: '' },
    ...{ deviceNumber: 1, number: 4, before: 0, most: null, ...more },
  });

describe('money given back without a sale', () => {
  it('is what the goods come to, with the tax that is in them, to stock or gone for good', () => {
    const made = refund({
      lines: [one({ quantity: '2' }), one({ item: item(2, 100), each: '1.00', to: 'broken' })],
    });
    assert.ok(made.ok);
    assert.equal(made.amount, 1000);
    const body = made.drafts[0]!.body as BodyOf<'refund.made'>;
    assert.equal(body.saleNumber, 'D3-17');
    assert.deepEqual(
      body.taxes.map(({ amount, base }) => [base, amount]),
      [[833, 167]],
    );
    const books = booksOf(writer.append(made.drafts, 1));
    const at = (place: string, of: string): number =>
      books.rows('stock').find((row) => row.place === place && row.item === of)?.quantity ?? 0;
    assert.deepEqual([at(EVENT, itemId(1)), at('gone:sold', itemId(1))], [2000, -2000]);
    assert.deepEqual([at(EVENT, itemId(2)), at('gone:broken', itemId(2))], [0, 1000]);
    const [totals] = books.rows('eventTotals');
    assert.deepEqual([totals!.sales, totals!.takings, totals!.tax], [0, -1000, -167]);
    assert.equal(books.rows('drawerSums')[0]!.back, 1000);
    const [row] = books.rows('refunds');
    assert.deepEqual([row!.number, row!.total, row!.drawer], ['D1-B4', 1000, DRAWER]);
  });

  it('becomes somebody’s credit, and no money goes', () => {
    const account = `credit:${customerId(1)}` as const;
    const made = refund({ way: heldWay('credit').id, drawer: null, account });
    assert.ok(made.ok);
    const books = booksOf(writer.append(made.drafts, 1));
    assert.equal(books.row('heldSums', account)?.amount, -450);
    assert.deepEqual(books.rows('drawerSums'), []);
  });

  it('goes onto a card that is there, by an id of its own', () => {
    const card = {
      ...{ refund: writer.newId(), scheme: 'Visa', last4: '4471', entry: 'tap' as const },
      sealed: 'opaque',
    };
    const made = refund({ way: CARD_WAY.id, drawer: null, card });
    assert.ok(made.ok);
    const books = booksOf(writer.append(made.drafts, 1));
    const [row] = books.rows('cardRefunds');
    assert.deepEqual(
      [row!.id, row!.payment, row!.return, row!.amount, row!.way, refundState(row!)],
      [card.refund, card.refund, made.drafts[0]!.id, 450, CARD_WAY.id, 'to do'],
    );
    const owed = books.rows('eventAccounts').find(({ account }) => account.startsWith('owed:'));
    assert.deepEqual([owed!.account, owed!.amount], [`owed:${CARD_WAY.id}`, -450]);
    assert.deepEqual(books.rows('drawerSums'), []);
  });

  it('is onto a card, out of a drawer or on an account, and not two of them', () => {
    const card = {
      ...{ refund: writer.newId(), scheme: 'Visa', last4: '4471', entry: 'tap' as const },
      sealed: 'opaque',
    };
    const made = refund({ card });
    assert.ok(made.ok);
    const [entry] = writer.append(made.drafts, 1);
    const read = readEntry(entry!);
    assert.ok(!read.ok);
    assert.match(JSON.stringify(read), /onto a card, out of a drawer/);
  });

  it('adds up whatever is typed, in the coins that there are', () => {
    const line = fc.record({
      goods: fc.integer({ min: 0, max: 4 }),
      many: fc.integer({ min: 1, max: 9 }),
      each: fc.integer({ min: 1, max: 9999 }),
      to: fc.constantFrom('stock' as const, 'broken' as const),
    });
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 5 }),
        fc.constantFrom(1, 5, 10),
        (all, step) => {
          const lines = all.map(({ goods, many, each, to }) =>
            one({
              item: goods === 0 ? undefined : item(goods, each),
              ...{ quantity: String(many), each: (each / 100).toFixed(2), to },
            }),
          );
          const made = refund({ lines, pricing: { ...PRICING, cashStep: step } });
          assert.ok(made.ok);
          const owed = refundOwed({ lines, pricing: PRICING, taxes: [VAT], event: null });
          assert.equal(made.amount % step, 0);
          assert.ok(Math.abs(made.amount - owed!) * 2 <= step);
          const [entry] = knownEntries(writer.append(made.drafts, 1));
          const { postings } = journalOf(entry!);
          assert.equal(imbalance(postings), null);
          assert.ok(postings.every(({ account }) => account !== 'unexplained'));
        },
      ),
      { numRuns: 60 },
    );
  });

  const refused: readonly [string, string, Partial<MakeRefund>][] = [
    ['nothing is chosen', 'refund/nothing', { lines: [] }],
    ['an amount of nothing', 'refund/nothing', { lines: [one({ item: undefined, each: '' })] }],
    ['goods for nothing', 'refund/nothing', { lines: [one({ each: '0' })] }],
    ['half a thing', 'refund/quantity-wrong', { lines: [one({ quantity: '0.5' })] }],
    ['below nothing', 'refund/quantity-wrong', { lines: [one({ quantity: '-1' })] }],
    ['no amount', 'refund/amount-wrong', { lines: [one({ each: 'a bit' })] }],
    ['nobody says why', 'refund/no-reason', { reason: '  ' }],
    ['no drawer is open', 'refund/no-drawer', { drawer: null }],
    ['out of a drawer by another way', 'refund/no-drawer', { way: CARD_WAY.id }],
    ['more than is left of the day', 'refund/limit', { most: 1000, before: 600 }],
  ];
  for (const [what, code, more] of refused)
    it(`says so: ${what}`, () => {
      const outcome = refund(more);
      assert.equal(outcome.ok ? 'given' : outcome.refusal.code, code);
    });

  it('may come to just what is left of the day', () => {
    assert.ok(refund({ most: 1000, before: 550 }).ok);
  });
});
