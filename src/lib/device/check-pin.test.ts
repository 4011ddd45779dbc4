import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { checkPin, type PinHolder } from './check-pin';
import { DeviceDatabase } from './database';
import { hashPin, isPinTaken } from './pin-hash';

const BUSINESS = 'b';
const pin = await hashPin('4071', BUSINESS, 'salt-1', 1000);
const helper = { role: 'helper', rights: [] };
const maren = { id: 'maren', pin, ...helper };
const ines = { id: 'ines', ...helper, pin: await hashPin('2605', BUSINESS, 'salt-2', 1000) };
let db: DeviceDatabase;
beforeEach(() => {
  db = new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });
});
const check = (typed: string, now: number, person: PinHolder = maren) =>
  checkPin(db, BUSINESS, person, typed, now);

describe('checking a PIN on a device', () => {
  it('knows the right one, and forgets the wrong ones before it', async () => {
    for (const typed of ['1', '2']) assert.equal((await check(typed, 0)).ok, false);
    assert.deepEqual(await check('4071', 0), { ok: true, needs: 'nothing' });
    assert.deepEqual(await db.read('pinTries'), {});
  });
  it('does not look at the right one while there is still to be waited', async () => {
    for (const typed of ['1', '2', '3']) await check(typed, 1000);
    assert.deepEqual(await check('4071', 2000), { ok: false, code: 'pin/wait', wait: 4000 });
    assert.deepEqual(await check('4071', 6000), { ok: true, needs: 'nothing' });
  });
  it('is not won by one’s own right PIN in between', async () => {
    for (const typed of ['1', '2', '3']) await check(typed, 0);
    assert.deepEqual(await check('2605', 0, ines), { ok: true, needs: 'nothing' });
    assert.equal((await check('4', 0)).ok, false);
    assert.equal((await db.read('pinTries'))?.['maren']?.wrong, 3);
  });
  it('notes a try before it looks, so that many at once are many tries', async () => {
    const all = await Promise.all(Array.from({ length: 8 }, () => check('0000', 0)));
    const looked = all.filter((each) => !each.ok && each.code === 'pin/wrong');
    assert.equal(looked.length, 3);
  });
  it('gives another hash in another business', async () => {
    const other = await hashPin('4071', 'c', 'salt-1', 1000);
    assert.notEqual(other.hash, pin.hash);
  });
  it('gives another hash to another person, and is found all the same', async () => {
    const other = await hashPin('4071', BUSINESS, 'salt-2', 1000);
    assert.notEqual(other.hash, pin.hash);
    assert.equal(await isPinTaken([ines, { pin: null }], '4071', BUSINESS), false);
    assert.equal(await isPinTaken([ines, { pin: other }], '4071', BUSINESS), true);
  });
  it('knows one from before there were salts, and says that it is to be kept anew', async () => {
    const old = { ...maren, pin: await hashPin('4071', BUSINESS, '', 1000) };
    assert.deepEqual(await check('4071', 0, old), { ok: true, needs: 'salt' });
  });
  it('says when it is too short for what its holder may do', async () => {
    const lead = { ...maren, rights: ['refund'] };
    assert.deepEqual(await check('4071', 0, lead), { ok: true, needs: 'longer' });
  });
});
