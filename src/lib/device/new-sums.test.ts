/** A device that meets a sum for the first time works it out from what it has. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { isOnDevice } from '../core/books/tables';
import { declaredSums, FIRST_SUMS, newSums } from '../core/journal/new-sums';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import { BUSINESS, deviceId } from '../core/testing/made-up-business';
import { DeviceDatabase } from './database';
import { DeviceDaybook } from './daybook';
import { makeNewSums } from './new-sums';
import { receive } from './receive';

const NOW = Date.UTC(2026, 10, 22, 9);

async function device(): Promise<DeviceDatabase> {
  const [own, other] = [new DeviceWriter(1), new DeviceWriter(2)];
  const db = new DeviceDatabase('new-sums', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  const daybook = new DeviceDaybook(db, { now: () => NOW });
  for (let n = 1; n <= 3; n += 1)
    await daybook.append(() => ({ ok: true, drafts: own.sale([[n, n]], 0, NOW) }));
  await daybook.settle();
  const entries = other.append(other.sale([[2, 4]], 0, NOW), NOW);
  await receive(db, deviceId(1), { entries, position: 2 });
  return db;
}

describe('a sum that is new to a device', () => {
  it('is worked out from what it wrote and took in, and is what it would have been', async () => {
    const db = await device();
    const before = await db.books.eventItems.toArray();
    assert.ok(before.length > 0);
    const { eventItems: _none, ...made } = declaredSums();
    await db.write('sums', made);
    await db.books.eventItems.clear();
    const totals = await db.books.eventTotals.toArray();
    const seen: number[] = [];
    assert.deepEqual(await makeNewSums(db, (done, all) => seen.push(done / all)), ['eventItems']);
    assert.equal(seen.at(-1), 1);
    assert.deepEqual(await db.books.eventItems.toArray(), before);
    assert.deepEqual(await db.books.eventTotals.toArray(), totals);
    // Once.
    assert.deepEqual(await makeNewSums(db), []);
    assert.deepEqual(await db.books.eventItems.toArray(), before);
  });

  it('leaves out what is not applied yet: the rows follow it later', async () => {
    const db = await device();
    const before = await db.books.stock.toArray();
    await db.write('applied', 0);
    await db.write('sums', { ...declaredSums(), stock: 'otherwise' });
    await makeNewSums(db);
    const others = await db.books.stock.toArray();
    assert.notDeepEqual(others, before);
    await new DeviceDaybook(db, { now: () => NOW }).settle();
    assert.deepEqual(await db.books.stock.toArray(), before);
  });

  it('is what was declared since, on a device from before there was a list of them', async () => {
    const db = await device();
    const before = await db.books.stock.toArray();
    assert.deepEqual(await makeNewSums(db), newSums(FIRST_SUMS).filter(isOnDevice));
    assert.deepEqual(await db.read('sums'), declaredSums());
    assert.deepEqual(await db.books.stock.toArray(), before);
  });
});
