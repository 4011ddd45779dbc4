/** A sale that only the server has: what came back of it here does not come back again, sent or not. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import type { Row } from '../core/books/tables';
import type { SaleDocument } from '../core/sale/sale-document';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, DRAWER, EVENT } from '../core/testing/made-up-business';
import { booksOf } from '../core/testing/books-of';
import { DeviceDatabase } from './database';
import { DeviceDaybook } from './daybook';
import { ownBack, returnOnce, withOwn } from './return-goods';

const NOW = Date.UTC(2026, 10, 22, 9);

describe('goods of a sale that only the server has', () => {
  it('come back once, by a second tap as well, and are seen at once', async () => {
    const db = new DeviceDatabase('older', { indexedDB: new IDBFactory(), IDBKeyRange });
    await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
    const daybook = new DeviceDaybook(db, { now: () => NOW });
    await db.table('drawers').put({ id: DRAWER, event: EVENT, device: deviceId(1), name: 'Tin' });
    const writer = new DeviceWriter(2);
    const books = booksOf(writer.append(writer.sale([[1, 1]], 0, NOW), NOW));
    const found: SaleDocument = {
      sale: books.rows('sales')[0]!,
      lines: books.rows('saleLines'),
      payments: books.rows('payments'),
      ...{ voids: [], undone: [], corrections: [], returns: [], refunds: [], payers: [] },
    };
    const event = { id: EVENT, timeZone: 'Europe/London' };
    const business = { cashStep: 1, timeZone: 'Europe/London' } as Row<'businesses'>;
    const tap = () =>
      returnOnce(daybook, {
        ...{ found, event, business, deviceNumber: 1, lentBy: undefined },
        chosen: [{ line: 0, typed: '1', to: 'stock' }],
        ...{ reason: 'it wilted', way: 'cash', drawer: DRAWER, card: null, rest: null },
      });
    const [first, second] = await Promise.all([tap(), tap()]);
    assert.ok(first.ok);
    assert.equal(second.ok ? '' : second.refusal.code, 'return/nothing');
    const { returns } = withOwn(found, await ownBack(db, found.sale.id));
    assert.deepEqual(
      returns.map(({ number }) => number),
      ['D1-B1'],
    );
    // What the server says of it later is the same one.
    assert.equal(
      withOwn({ ...found, returns }, await ownBack(db, found.sale.id)).returns.length,
      1,
    );
  });
});
