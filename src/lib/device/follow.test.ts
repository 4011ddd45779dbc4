/** What a screen shows is there in the end, though the browser broke the reading off. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { setTimeout as wait } from 'node:timers/promises';
import Dexie from 'dexie';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { DeviceDatabase } from './database';
import { follow } from './follow';

// What is followed is only asked where there is a browser's database.
Object.assign(Dexie.dependencies, { indexedDB: new IDBFactory(), IDBKeyRange });

const open = (): DeviceDatabase =>
  new DeviceDatabase('follow', { indexedDB: new IDBFactory(), IDBKeyRange });
const aborted = (): Error => new DOMException('broken off', 'AbortError');

async function soon(isSo: () => boolean): Promise<void> {
  for (let tries = 0; tries < 1500 && !isSo(); tries += 1) await wait(20);
  assert.ok(isSo());
}

describe('what is followed', () => {
  it('is asked again where the first answers failed, and goes on being followed', async () => {
    const { books } = open();
    await books.stock.put({ place: 'barn', item: 'a', quantity: 1 });
    let asked = 0;
    const told: number[] = [];
    const faults: unknown[] = [];
    const following = follow(
      async () => {
        asked += 1;
        if (asked <= 2) throw aborted();
        return await books.stock.count();
      },
      (many) => told.push(many),
      (fault) => faults.push(fault),
    );
    await soon(() => told.at(-1) === 1);
    assert.deepEqual(
      faults.map((fault) => (fault as Error).name),
      ['AbortError', 'AbortError'],
    );
    await books.stock.put({ place: 'barn', item: 'b', quantity: 1 });
    await soon(() => told.at(-1) === 2);
    following.unsubscribe();
  });

  it('is asked again where a later answer failed', async () => {
    const { books } = open();
    let isBroken = false;
    const told: number[] = [];
    const following = follow(
      async () => {
        const many = await books.stock.count();
        if (isBroken) throw aborted();
        return many;
      },
      (many) => told.push(many),
    );
    await soon(() => told.at(-1) === 0);
    isBroken = true;
    await books.stock.put({ place: 'barn', item: 'a', quantity: 1 });
    await wait(100);
    assert.equal(told.at(-1), 0);
    isBroken = false;
    await soon(() => told.at(-1) === 1);
    following.unsubscribe();
  });

  it('is asked no more once nobody follows it', async () => {
    let asked = 0;
    const following = follow(
      () => {
        asked += 1;
        throw aborted();
      },
      () => undefined,
    );
    await soon(() => asked === 1);
    following.unsubscribe();
    await wait(600);
    assert.equal(asked, 1);
  });
});
