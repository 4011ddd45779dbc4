import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { Dexie } from 'dexie';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { DeviceDatabase } from './database';

let indexedDB: IDBFactory;
beforeEach(() => (indexedDB = new IDBFactory()));
const options = () => ({ indexedDB, IDBKeyRange });

/** A database as an older version left it. */
async function left(
  version: number,
  stores: Readonly<Record<string, string>>,
  rows: Readonly<Record<string, readonly object[]>>,
): Promise<void> {
  const old = new Dexie('test', options());
  old.version(version).stores({ meta: 'key', ...stores });
  await old.open();
  for (const [table, found] of Object.entries(rows)) await old.table(table).bulkPut(found);
  old.close();
}

const ASKS = 'receiptAsks';
const lead = { id: 'p', name: 'Wren', role: 'lead', rights: ['sale.void'], setStamp: 's' };
async function leads(): Promise<readonly string[]> {
  const db = new DeviceDatabase('test', options());
  const row = await db.books.staff.get('p');
  db.close();
  return row?.rights ?? [];
}

describe('a database of an older version', () => {
  it('keeps its rows, gets what they lack, and lets go of what only the server reads', async () => {
    await left(
      7,
      { staff: 'id', customers: 'id', [ASKS]: 'id' },
      {
        customers: [{ id: 'c', name: 'Otis', cardToken: 'secret' }],
        [ASKS]: [{ id: 'r' }],
      },
    );
    const db = new DeviceDatabase('test', options());
    const row = (await db.books.customers.get('c')) as Record<string, unknown> | undefined;
    assert.equal(row?.['name'], 'Otis');
    assert.ok('discount' in row);
    assert.equal(db.verno, 19);
    const there = db.backendDB().objectStoreNames;
    assert.deepEqual([there.contains('invoices'), there.contains(ASKS)], [true, false]);
    db.close();
  });

  it('gives later rights once: those of today’s version are what they are', async () => {
    await left(8, { staff: 'id' }, { staff: [lead] });
    const given = await leads();
    assert.ok(given.length > lead.rights.length, given.join());
    assert.deepEqual(await leads(), given);
    indexedDB = new IDBFactory();
    await left(19, { staff: 'id' }, { staff: [lead] });
    assert.deepEqual(await leads(), lead.rights);
  });

  it('of the first version is understood as well', async () => {
    const stores = { staff: 'id', businesses: 'id', devices: 'id' };
    await left(1, stores, {
      staff: [{ id: 'p', name: 'Wren', role: 'owner', setStamp: 's' }],
      businesses: [{ id: 'b', name: 'Larkmoss', setStamp: 's' }],
      devices: [{ id: 'd', name: 'Phone', number: 1 }],
    });
    const db = new DeviceDatabase('test', options());
    const business = (await db.books.businesses.get('b'))!;
    assert.deepEqual([business.lockAfter, business.lockStamp], [0, 's']);
    assert.ok((await db.books.staff.get('p'))!.rights.includes('set-up'));
    assert.equal((await db.books.devices.get('d'))!.event, null);
    db.close();
  });
});
