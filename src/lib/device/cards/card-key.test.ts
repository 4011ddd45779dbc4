/** When the key that cards are sealed with is asked for. */
import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { DeviceDatabase } from '../database';
import type { Asked, Transport } from '../sync/transport';
import { cardKey } from './card-key';

const NOW = Date.UTC(2026, 10, 22, 9);
const AN_HOUR = 3_600_000;
let db: DeviceDatabase;
let asked: number;
let n: string;

/** An acquirer whose key is the number `n`; empty: there is no network. */
const transport = {
  ask: (): Promise<Asked<unknown>> => {
    asked += 1;
    return Promise.resolve(
      n === ''
        ? { came: 'nothing', why: 'silence' }
        : { came: 'answer', answer: { key: { kty: 'RSA', n }, isPractice: true } },
    );
  },
} as unknown as Transport;

const keyAt = async (now: number): Promise<string | null> => {
  const known = await cardKey(db, transport, now);
  // What is asked for behind it has come by then.
  await new Promise((resolve) => setTimeout(resolve, 20));
  return known === null ? null : (known.key.n ?? '');
};

beforeEach(() => {
  db = new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });
  asked = 0;
  n = 'first';
});

describe('the key that cards are sealed with', () => {
  it('is asked for until it was heard of, and then once an hour at most', async () => {
    n = '';
    assert.deepEqual([await keyAt(NOW), asked], [null, 1]);
    n = 'first';
    assert.deepEqual([await keyAt(NOW), asked], ['first', 2]);
    for (const minutes of [0, 1, 30, 59])
      assert.equal(await keyAt(NOW + minutes * 60_000), 'first');
    assert.equal(asked, 2);
  });

  it('holds until another one has come', async () => {
    await keyAt(NOW);
    n = '';
    assert.deepEqual([await keyAt(NOW + AN_HOUR), asked], ['first', 2]);
    n = 'second';
    // It does not wait for the new one, which is there for the next card.
    assert.deepEqual([await keyAt(NOW + AN_HOUR), asked], ['first', 3]);
    assert.deepEqual([await keyAt(NOW + AN_HOUR), asked], ['second', 3]);
  });

  it('is asked for again where a clock was wrong, or an older version noted no time', async () => {
    await keyAt(NOW + 365 * 24 * AN_HOUR);
    n = 'second';
    await keyAt(NOW);
    assert.equal(await keyAt(NOW), 'second');
    await db.write('cardKey', { key: { kty: 'RSA', n: 'old' }, isPractice: true });
    n = 'third';
    await keyAt(NOW);
    assert.equal(await keyAt(NOW), 'third');
  });
});
