import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { COUNTRIES } from '../core/founding/countries';
import { idOf } from '../core/testing/made-up-business';
import { DeviceDaybook } from './daybook';
import { DeviceDatabase } from './database';
import { finishFounding } from './sign-up';

let db: DeviceDatabase;
beforeEach(async () => {
  db = new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', {
    business: idOf(1, 1),
    device: idOf(5, 1),
    number: 1,
    token: 'a'.repeat(64),
  });
});
const country = COUNTRIES.find(({ code }) => code === 'GB')!;
const founding = {
  name: 'Fernbank Jams',
  owner: { id: idOf(8, 1), name: 'Wren' },
  country,
  currency: 'GBP',
  timeZone: 'Europe/London',
  deviceName: 'Phone',
};
const entries = async (): Promise<number> => (await db.read('head'))?.seq ?? 0;

describe('founding a business on a device', () => {
  it('goes on at the next start if the browser died before its entries were written', async () => {
    await db.write('founding', founding);
    await finishFounding(db);
    // The device's name, the business, the owner and three taxes.
    assert.equal(await entries(), 6);
    await new DeviceDaybook(db).settle();
    assert.deepEqual(
      (await db.books.staff.toArray()).map(({ name, role }) => [name, role]),
      [['Wren', 'owner']],
    );
  });
  it('is done once, also if the browser died before that was noted', async () => {
    await db.write('founding', founding);
    await finishFounding(db);
    await db.write('founding', founding);
    await finishFounding(db);
    await finishFounding(db);
    assert.equal(await entries(), 6);
    assert.equal(await db.read('founding'), undefined);
  });
  it('is nothing to a device that was enrolled with a code', async () => {
    await finishFounding(db);
    assert.equal(await entries(), 0);
  });
});
