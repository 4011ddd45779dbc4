/** All that is kept of a customer, made on a device that has let go of some of it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import type { Row } from '../core/books/tables';
import { BUSINESS, customerId, deviceId, idOf } from '../core/testing/made-up-business';
import { makeCustomerFile } from './customer-file';
import { DeviceDatabase } from './database';
import { Transport } from './sync/transport';

const CUSTOMER = customerId(1);
const AT = '2026-11-22T10:00:00.000Z';
const sale = (n: number, customer: string | null) =>
  ({
    ...{ id: idOf(9, n), number: `D1-${String(n)}`, at: AT, total: 450, customer },
    ...{ slip: idOf(7, n), event: null },
  }) as Row<'sales'>;
const rows = [{ id: CUSTOMER, name: 'Wren', joinedInto: null, isErased: false, cardLast4: '' }];
const records = rows as unknown as readonly Row<'customers'>[];

/** One that has three sales: theirs, somebody else's in truth, and theirs in truth. */
async function device(): Promise<DeviceDatabase> {
  const db = new DeviceDatabase('file', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  await db.books.customers.bulkPut([...records]);
  await db.books.sales.bulkPut([sale(1, CUSTOMER), sale(2, CUSTOMER), sale(3, null)]);
  const said = (n: number, customer: string | null) =>
    ({
      ...{ id: idOf(10, n), sale: idOf(9, n), stamp: '1', at: AT, event: null },
      fix: { is: 'customer', customer },
    }) as Row<'corrections'>;
  await db.books.corrections.bulkPut([said(2, customerId(2)), said(3, CUSTOMER)]);
  const drawn = { id: idOf(8, 1), event: null, customer: CUSTOMER, name: '', strokes: [[1, 2]] };
  await db.books.payers.put(drawn);
  return db;
}

/** A server that has two older sales, and has not heard what was said of one of this device. */
const OLDER = {
  sales: [4, 1, 2, 5].map((n) => {
    const { id, number, at, total } = sale(n, null);
    return { id, number, at, total };
  }),
  payers: [1, 2].map((n) => ({ id: idOf(8, n), name: '', strokes: [[1, 2]] })),
  moves: [
    {
      ...{ id: 'a', account: `customer:${CUSTOMER}`, at: AT, kind: 'payment.taken', amount: 450 },
      ...{ sale: idOf(9, 4), number: 'D1-4', invoice: '', pays: null },
    },
  ],
};

describe('a file of all that is kept of a customer', () => {
  it('has what this device let go of, once, and goes by what it knows of its own', async () => {
    const asked: string[] = [];
    const transport = new Transport('x', (input) => {
      asked.push((input as string).replace(CUSTOMER, 'them'));
      return Promise.resolve(Response.json(OLDER));
    });
    const { file, away } = await makeCustomerFile(await device(), transport, CUSTOMER, records);
    assert.deepEqual(asked, ['/api/customers/them/documents']);
    assert.deepEqual([file.isWhole, away], [true, null]);
    assert.deepEqual(file.sales.map(({ number }) => number).sort(), [
      'D1-1',
      'D1-3',
      'D1-4',
      'D1-5',
    ]);
    assert.deepEqual(file.payments.map(({ id }) => id).sort(), [idOf(8, 1), idOf(8, 2)]);
    assert.deepEqual(
      file.account.map(({ number, amount }) => [number, amount]),
      [['D1-4', 450]],
    );
  });
  it('says that it is not whole where the server does not say what it has', async () => {
    const transport = new Transport('x', () => Promise.reject(new TypeError('no network')));
    const { file, away } = await makeCustomerFile(await device(), transport, CUSTOMER, records);
    assert.deepEqual([file.isWhole, away], [false, { came: 'nothing', why: 'silence' }]);
    assert.deepEqual(file.sales.map(({ number }) => number).sort(), ['D1-1', 'D1-3']);
    assert.equal(file.payments.length, 1);
  });
});
