/** Find on the server: by what goods were called when they were sold, the latest first, however many there are. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { draft } from '../../src/lib/core/daybook/kinds';
import { inDrawer } from '../../src/lib/core/drawer/cash-places';
import { makeRefund } from '../../src/lib/core/sale/make-refund';
import { ringUp } from '../../src/lib/core/sale/ring-up';
import { MOST_FOUND } from '../../src/lib/core/sale/sale-document';
import { emptySlip, putUnlisted, type OpenSlip } from '../../src/lib/core/slip/open-slip';
import { AT_EVENT, PRICING, VAT } from '../../src/lib/core/testing/a-sale';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { foundedDrafts } from '../../src/lib/core/testing/founded';
import {
  BUSINESS,
  deviceId,
  DRAWER,
  EVENT,
  idOf,
  personId,
  tax,
  TAX,
} from '../../src/lib/core/testing/made-up-business';
import { goods } from '../../src/lib/core/testing/founded';
import { findDocuments, olderDocument } from '../../src/lib/server/books/find-documents';
import { findSales } from '../../src/lib/server/books/find-sales';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { testDatabase, type TestDatabase } from '../support/test-database';

const NOW = Date.UTC(2026, 10, 22, 10);
const writer = new DeviceWriter(1);
let t: TestDatabase;
let books: BookReader;
const OTHERS = idOf(1, 2);
let sales = 0;

before(async () => {
  t = await testDatabase();
  books = new BookReader(t.database);
  await t.enrol(BUSINESS, deviceId(1));
  const [owner, ...rest] = foundedDrafts(writer);
  const ref = { business: BUSINESS, device: deviceId(1) };
  await append(t.database, ref, writer.append([owner!], NOW), NOW);
  await append(t.database, ref, writer.append(rest, NOW, personId(1)), NOW);
});
after(() => t.end());

/** One sale for each list of names, each of an amount that is named by hand. @returns Their numbers. */
async function sell(...lists: readonly (readonly string[])[]): Promise<string[]> {
  const drafts = lists.flatMap((names) => {
    let slip: OpenSlip = emptySlip(writer.newId());
    for (const name of names) {
      const put = putUnlisted(
        slip,
        { name, price: 250, taxes: [TAX], maker: undefined, tag: undefined },
        writer.newId(),
      );
      assert.ok(put.ok);
      slip = put.slip;
    }
    const rung = ringUp({
      ...{ newId: writer.newId, slip, pricing: PRICING, taxes: [VAT], event: AT_EVENT },
      ...{ drawer: DRAWER, handed: 250 * names.length, deviceNumber: 1 },
      ...{ number: (sales += 1), now: NOW },
    });
    assert.ok(rung.ok, JSON.stringify(rung));
    return rung.drafts;
  });
  const ref = { business: BUSINESS, device: deviceId(1) };
  const { refused } = await append(t.database, ref, writer.append(drafts, NOW, personId(1)), NOW);
  assert.equal(refused, null);
  return lists.map((_, n) => `D1-${String(sales - lists.length + 1 + n)}`);
}

const numbers = async (typed: string): Promise<string[]> =>
  (await findSales(t.database, books, BUSINESS, typed)).map(({ sale }) => sale.number);

describe('finding sales by what was sold', () => {
  it('takes parts of words in any order, without accents, and all of them', async () => {
    const [rose, both] = await sell(['Rosier “Étoile”'], ['Étoile, dried', 'String of pearls']);
    assert.deepEqual(await numbers('etoi'), [both, rose]);
    assert.deepEqual(await numbers('OILE rosi'), [rose]);
    assert.deepEqual(await numbers('pearls string'), [both]);
    // Both words of one thing, not one of each.
    assert.deepEqual(await numbers('dried string'), []);
    for (const typed of ['%', '_', 'étoil%']) assert.deepEqual(await numbers(typed), [], typed);
  });

  it('names a sale once, however many of its lines fit, and knows its lines in their order', async () => {
    const [number] = await sell(['Fern, big', 'Fern, small', 'Moss']);
    const found = await findSales(t.database, books, BUSINESS, 'fern');
    assert.deepEqual(
      found.map(({ sale, lines }) => [sale.number, sale.total, lines.map(({ name }) => name)]),
      [[number, 750, ['Fern, big', 'Fern, small', 'Moss']]],
    );
  });

  it('finds the latest, as many as it may, of few names and of many', async () => {
    const few = await sell(
      ...Array.from({ length: 60 }, (_, n) => [`Quarry slab ${String(n % 3)}`]),
    );
    const latest = (all: readonly string[]): string[] => all.slice(-MOST_FOUND).reverse();
    assert.deepEqual(await numbers('quarry'), latest(few));
    // More names than are looked up one by one.
    const many = await sell(...Array.from({ length: 90 }, (_, n) => [`Brick no ${String(n)}`]));
    assert.deepEqual(await numbers('brick'), latest(many));
    assert.deepEqual(await numbers('brick 89'), [many.at(-1)]);
  });

  it('finds the same once the books were worked out anew', async () => {
    const [number] = await sell(['Kelp in a jar']);
    await rebuild(t.database, BUSINESS);
    assert.deepEqual(await numbers('kelp'), [number]);
  });
});

describe('finding what devices let go of', () => {
  it('goes by bag, number, amount, day, words and person, and opens; never those of others', async () => {
    const { newId } = writer;
    const bagged = draft('cash.moved', newId(), EVENT, {
      ...{ from: inDrawer(DRAWER), to: 'bag', amount: 12_345, bag: 'B-771', what: '' },
    });
    const spent = draft('cash.moved', newId(), EVENT, {
      ...{ from: inDrawer(DRAWER), to: 'spent:travel', amount: 640, what: 'Toll bridge' },
    });
    const made = makeRefund({
      ...{ newId, pricing: PRICING, taxes: [tax], event: { id: EVENT, swaps: [] }, now: NOW },
      lines: [{ item: undefined, quantity: '', each: '7.77', to: 'stock' }],
      ...{ saleNumber: '', reason: 'wilted by noon', way: 'cash', drawer: DRAWER, reference: '' },
      ...{ timeZone: 'Europe/London', deviceNumber: 1, number: 41, before: 0, most: null },
    });
    assert.ok(made.ok);
    const ref = { business: BUSINESS, device: deviceId(1) };
    const thrown = draft('stock.moved', newId(), EVENT, {
      ...{ from: EVENT, to: 'gone:broken', reason: 'broken', note: 'Off the tráiler' },
      goods: [{ item: idOf(6, 1), quantity: 2000 }],
    });
    const drafts = [goods(writer, 1), bagged, spent, ...made.drafts, thrown];
    await append(t.database, ref, writer.append(drafts, NOW, personId(1)), NOW);
    const found = async (typed: string, business = BUSINESS): Promise<readonly string[]> =>
      (await findDocuments(t.database, books, business, typed)).map(({ id }) => id);
    const refund = made.drafts[0]!.id;
    assert.deepEqual(await found('b-77'), [bagged.id]);
    assert.deepEqual(await found('123.45'), [bagged.id]);
    assert.deepEqual(await found('bridge TOLL'), [spent.id]);
    assert.deepEqual(await found('d1-b41'), [refund]);
    assert.deepEqual(await found('noon'), [refund]);
    assert.deepEqual(await found('7.77'), [refund]);
    assert.equal((await found('2026-11-22')).length, 4);
    const moved = `${thrown.id}:0`;
    // By the item, where to, its note without accents, and several words of these.
    for (const typed of ['thing trai', 'gone: broken', 'TRAILER', 'broken trailer person'])
      assert.deepEqual(await found(typed), [moved], typed);
    assert.deepEqual(await found('trailer nowhere'), []);
    assert.deepEqual(await found('%'), []);
    assert.deepEqual(await found('person 1', OTHERS), []);
    assert.deepEqual(await found('2026-11-22', OTHERS), []);

    const opened = await olderDocument(books, BUSINESS, spent.id);
    assert.ok(opened?.is === 'cash' && opened.row.amount === 640);
    assert.equal((await olderDocument(books, BUSINESS, refund))?.is, 'refund');
    assert.equal(await olderDocument(books, OTHERS, refund), null);
    assert.equal((await olderDocument(books, BUSINESS, moved))?.is, 'goods');
    assert.equal(await olderDocument(books, OTHERS, moved), null);
    assert.equal(await olderDocument(books, BUSINESS, newId()), null);
  });
});
