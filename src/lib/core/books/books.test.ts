import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import type { Entry } from '../daybook/entry';
import { readEntry } from '../daybook/read-entry';
import { paidWith } from '../payment/part-sums';
import { arbitraryDaybook, DeviceWriter } from '../testing/arbitrary-daybook';
import { EVENT, itemId } from '../testing/made-up-business';
import { Books } from './books';
import { booksOf } from '../testing/books-of';
import { changesOf } from './changes';
import { combine } from './combine';

function changesIn(entry: Entry) {
  const read = readEntry(entry);
  assert.ok(read.ok, JSON.stringify(read));
  return changesOf(read.entry);
}

describe('the books', () => {
  it('find what has something in a field, whatever was put or changed since it was first asked for', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const books = new Books();
        const isSame = (): void => {
          for (const { item } of books.rows('movements'))
            assert.deepEqual(
              books.where('movements', 'item', item),
              books.rows('movements').filter((row) => row.item === item),
            );
          for (const name of ['', ...new Set(books.rows('items').map((row) => row.name))])
            assert.deepEqual(
              books.where('items', 'name', name),
              books.rows('items').filter((row) => row.name === name),
            );
        };
        for (const [at, entry] of entries.entries()) {
          books.apply(changesIn(entry));
          if (at % 7 === 0) isSame();
        }
        isSame();
      }),
    );
  });

  it('are the same for every order of any devices’ entries', () => {
    const shuffled = arbitraryDaybook.chain((entries) =>
      fc.tuple(
        fc.constant(entries),
        fc.shuffledSubarray([...entries], { minLength: entries.length, maxLength: entries.length }),
      ),
    );
    fc.assert(
      fc.property(shuffled, ([entries, order]) => {
        assert.deepEqual(booksOf(order).toJSON(), booksOf(entries).toJSON());
      }),
      { numRuns: 200 },
    );
  });

  it('are the same when what a batch adds to a row is added at once', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const atOnce = new Books();
        atOnce.apply(combine(entries.flatMap(changesIn)));
        assert.deepEqual(atOnce.toJSON(), booksOf(entries).toJSON());
      }),
    );
  });

  it('never make or lose goods or money: stock sums to nothing, sums to the sales', () => {
    fc.assert(
      fc.property(arbitraryDaybook, (entries) => {
        const books = booksOf(entries);
        assert.equal(total(books.rows('stock').map((row) => row.quantity)), 0);
        const voided = new Set(books.rows('voids').map((row) => row.sale));
        const sales = books.rows('sales').filter(({ id }) => !voided.has(id));
        // What came back comes off; what cards were charged for paying so was no takings.
        const returns = books.rows('returns');
        const givenBack = returns.flatMap(({ promotions }) =>
          promotions.flatMap(({ postings }) => postings),
        );
        const slipOf = (postings: typeof givenBack) =>
          total(
            postings.map(({ account, amount = 0 }) => (account.startsWith('slip:') ? amount : 0)),
          );
        const promotedBack = slipOf(givenBack);
        // What a voucher for goods of one tax had paid goes back on it.
        const vouchersBack = slipOf(
          returns.flatMap(({ promotions }) =>
            promotions.flatMap(({ postings }) =>
              postings.some(({ account }) => account.startsWith('voucher:')) ? postings : [],
            ),
          ),
        );
        const cameBack =
          promotedBack +
          total(
            returns.map((row) => row.total - total(row.surcharges.map(({ amount }) => amount))),
          );
        const refunds = books.rows('refunds');
        const stand = new Set(sales.map(({ id }) => id));
        const paidIn = total(
          books
            .rows('saleLines')
            .map((line) => (line.account !== null && stand.has(line.sale) ? line.total : 0)),
        );
        const takings =
          total(sales.map((row) => row.total + row.uplift)) -
          cameBack -
          total(refunds.map((row) => row.total)) -
          paidIn;
        // What points and rewards paid is no takings, and lowers taxes.
        const ofVoided = new Set(
          books.rows('sales').flatMap(({ id, payments }) => (voided.has(id) ? payments : [])),
        );
        const given = books
          .rows('payments')
          .filter(({ id, promotion }) => promotion !== null && !ofVoided.has(id));
        // What was invoiced by hand, or again and again, was earned at no event.
        const byHand = books
          .rows('invoices')
          .filter(({ sourceIs }) => sourceIs === 'own' || sourceIs === 'charge')
          .map(({ sort, total: of, taxes }) => ({
            sign: sort === 'credit' ? -1 : 1,
            total: of,
            tax: total(taxes.map(({ amount }) => amount)),
          }));
        const invoiced = total(byHand.map((each) => each.sign * each.total));
        const promoted = total(given.map(({ clears }) => clears)) - (promotedBack - vouchersBack);
        assert.equal(
          total(books.rows('eventTotals').map((row) => row.takings)),
          takings - promoted + invoiced,
        );
        assert.equal(total(books.rows('eventHours').map((row) => row.takings)), takings);
        assert.equal(total(books.rows('eventItems').map((row) => row.takings)), takings);
        assert.equal(total(books.rows('eventPaidIn').map((row) => row.amount)), paidIn);
        assert.equal(total(books.rows('eventWays').map((row) => row.takings)), takings + paidIn);
        const back = new Set(books.rows('reversals').map((row) => row.payment));
        for (const { id, payments } of books.rows('sales'))
          if (voided.has(id)) for (const payment of payments) back.add(payment);
        const kept = books.rows('payments').filter(({ id }) => !back.has(id));
        const cash = kept.filter(({ drawer }) => drawer !== null);
        assert.equal(
          total(books.rows('drawerSums').map((row) => row.handed - row.change - row.back)),
          total(cash.map(paidWith)) -
            total(
              returns.flatMap(({ money }) =>
                money.flatMap(({ drawer, amount }) => (drawer === null ? [] : amount)),
              ),
            ) -
            total(refunds.map(({ money }) => (money.drawer === null ? 0 : money.amount))) -
            // Change that was counted wrongly.
            total(
              books.rows('corrections').flatMap(({ fix }) => {
                if (fix.is !== 'change') return [];
                const part = books.rows('payments').find(({ id }) => id === fix.part);
                return fix.change - (part?.change ?? 0);
              }),
            ),
        );
        const tips = total(kept.map(({ tip }) => tip));
        assert.equal(total(books.rows('eventWays').map((row) => row.tips)), tips);
        assert.equal(total(books.rows('eventTips').map((row) => row.tips)), tips);
        const taxBack = returns.flatMap(({ takes }) =>
          takes.flatMap((each) => (each.tax === undefined ? [] : (each.amount ?? 0))),
        );
        const tax =
          total(sales.map((row) => row.tax)) -
          total(taxBack) -
          total(
            given.flatMap(({ promotion }) => promotion?.lowers.map(({ amount }) => amount) ?? []),
          ) -
          total(
            books
              .rows('payments')
              .map(({ id, held }) => (ofVoided.has(id) ? 0 : (held?.lowers?.amount ?? 0))),
          ) -
          total(givenBack.map(({ tax, amount = 0 }) => (tax === undefined ? 0 : amount))) -
          total(refunds.flatMap((row) => row.taxes.map(({ amount }) => amount))) +
          total(byHand.map((each) => each.sign * each.tax));
        assert.equal(total(books.rows('eventTaxes').map((row) => row.amount)), tax);
      }),
    );
  });

  it('keep the figures of a sale when the price is changed afterwards', () => {
    const writer = new DeviceWriter(1);
    const now = Date.UTC(2026, 10, 22, 10);
    const sold = writer.append(writer.sale([[2, 3]], 0, now), now);
    const before = booksOf(sold);
    const repriced = writer.write({ does: 'price', item: 2, price: 9999 }, now + 1);
    const after = booksOf([...sold, ...repriced]);
    for (const table of ['sales', 'saleLines', 'eventTotals', 'eventItems'] as const) {
      assert.deepEqual(after.rows(table), before.rows(table));
    }
    assert.equal(after.rows('items')[0]?.price, 9999);
  });

  it('let the last pot be sold twice, and show what is below nothing', () => {
    const [one, two] = [new DeviceWriter(1), new DeviceWriter(2)];
    const now = Date.UTC(2026, 10, 22, 10);
    const loaded = one.write({ does: 'load', item: 1, quantity: 1000 }, now);
    const sales = [one, two].flatMap((device) => device.append(device.sale([[1, 1]], 0, now), now));
    const left = booksOf([...loaded, ...sales])
      .rows('stock')
      .find((row) => row.place === EVENT && row.item === itemId(1));
    assert.equal(left?.quantity, -1000);
  });
});

const total = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);
