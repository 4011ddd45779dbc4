import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { setTimeout as wait } from 'node:timers/promises';
import Dexie from 'dexie';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { DeviceDatabase } from './database';
import { follow } from './follow';
import { underKey } from './under-key';

// What is followed is only asked where there is a browser's database.
Object.assign(Dexie.dependencies, { indexedDB: new IDBFactory(), IDBKeyRange });

const stock = (place: string, item: string, quantity: number) => ({ place, item, quantity });
const open = (): DeviceDatabase =>
  new DeviceDatabase('under-key', { indexedDB: new IDBFactory(), IDBKeyRange });

describe('rows under the first part of their key', () => {
  it('are all of that place, and of no other, whatever it is called', async () => {
    const { books } = open();
    await books.stock.bulkPut([
      ...[
        stock('barn', 'a', 1),
        stock('barn', 'b', 2),
        stock('barn2', 'a', 3),
        stock('bar', 'z', 4),
      ],
      ...[stock('', 'a', 5), stock('barn', '', 6)],
    ]);
    const found = async (place: string): Promise<readonly number[]> =>
      (await underKey(books.stock, place).toArray()).map(({ quantity }) => quantity).sort();
    assert.deepEqual(await found('barn'), [1, 2, 6]);
    assert.deepEqual(await found('bar'), [4]);
    assert.deepEqual(await found(''), [5]);
    assert.deepEqual(await found('loft'), []);
  });

  it('are followed: one that changes, comes or goes is told, and what is elsewhere is not', async () => {
    const { books } = open();
    await books.stock.put(stock('barn', 'a', 1));
    const told: (readonly number[])[] = [];
    const following = follow(
      () => underKey(books.stock, 'barn').toArray(),
      (rows) => told.push(rows.map(({ quantity }) => quantity)),
    );
    const saysSoon = async (quantities: readonly number[]): Promise<void> => {
      const isSo = () => told.at(-1)?.join() === quantities.join();
      for (let tries = 0; tries < 1500 && !isSo(); tries += 1) await wait(20);
      assert.deepEqual(told.at(-1), quantities);
    };
    await saysSoon([1]);
    await books.stock.put(stock('barn', 'a', 2));
    await saysSoon([2]);
    await books.stock.put(stock('barn', 'b', 7));
    await saysSoon([2, 7]);
    const before = told.length;
    await books.stock.put(stock('loft', 'a', 9));
    await wait(300);
    assert.equal(told.length, before);
    await books.stock.delete(['barn', 'a']);
    await saysSoon([7]);
    following.unsubscribe();
  });
});
