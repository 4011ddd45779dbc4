/** What a customer has on all of their records, on a device; followed as it changes. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import Dexie from 'dexie';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import { draft } from '../core/daybook/kinds';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import { BUSINESS, customerDraft, customerId, deviceId } from '../core/testing/made-up-business';
import { wait } from '../../../scripts/setup/run.mjs';
import { DeviceDatabase } from './database';
import { DeviceDaybook } from './daybook';
import { personOf } from './customer-records';
import { customerHolds } from './held-accounts';
import { ownMoves } from './held-statement';
import { follow } from './follow';
import { newId } from './new-id';

const NOW = Date.UTC(2026, 10, 22, 9);
let devices = 0;
// What is followed is only asked where there is a browser's database.
Object.assign(Dexie.dependencies, { indexedDB: new IDBFactory(), IDBKeyRange });

/** Two customers, joined or not. */
async function device(isJoined: boolean): Promise<{ db: DeviceDatabase; daybook: DeviceDaybook }> {
  const writer = new DeviceWriter(1);
  const name = `records-${String((devices += 1))}`;
  const db = new DeviceDatabase(name, { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  const daybook = new DeviceDaybook(db, { now: () => NOW });
  const [customer, into] = [customerId(1), customerId(2)];
  const drafts = [
    customerDraft(1, 'Wren', writer.newId),
    customerDraft(2, 'Rowan', writer.newId),
    ...(isJoined ? [draft('customer.joined', writer.newId(), null, { customer, into })] : []),
  ];
  await daybook.append(() => ({ ok: true, drafts }));
  await daybook.settle();
  return { db, daybook };
}

/** Credit from nowhere in particular: the books of a device are asked, not judged. */
const credit = (n: number, amount: number) => ({
  ok: true as const,
  drafts: [
    draft('held.moved', newId(), null, {
      ...{ from: `voucher:CARD0${String(n)}` as const, to: `credit:${customerId(n)}` as const },
      ...{ amount, until: '', reason: 'from an old card' },
    }),
  ],
});

describe('what a customer has', () => {
  for (const isJoined of [false, true])
    it(`is followed as it changes, ${isJoined ? 'on whichever of their records' : 'with one record'}`, async () => {
      const { db, daybook } = await device(isJoined);
      const who = { id: customerId(2) };
      const seen: (readonly number[])[] = [];
      const following = follow(
        () => customerHolds(db, who),
        (now) => seen.push([now.credit]),
      );
      const moves: number[] = [];
      const alsoFollowing = follow(
        () => ownMoves(db, [`credit:${who.id}`]),
        (now) => moves.push(now.moves.length, now.balances[0] ?? 0),
      );
      const saysSoon = async (holds: number, moved: readonly number[]): Promise<void> => {
        const isSo = () => seen.at(-1)?.[0] === holds && moves.slice(-2).join() === moved.join();
        // Long, for a machine with other work.
        for (let tries = 0; tries < 1500 && !isSo(); tries += 1) await wait(20);
        assert.deepEqual([seen.at(-1), moves.slice(-2)], [[holds], moved]);
      };
      await saysSoon(0, [0, 0]);
      await daybook.append(() => credit(2, 500));
      await daybook.settle();
      await saysSoon(500, [1, -500]);
      await daybook.append(() => credit(1, 300));
      await daybook.settle();
      // Of one record the other's credit is nothing to it, now and in a while.
      if (!isJoined) await wait(300);
      await (isJoined ? saysSoon(800, [2, -800]) : saysSoon(500, [1, -500]));
      following.unsubscribe();
      alsoFollowing.unsubscribe();
    });

  it('is one person’s, whichever record is asked for', async () => {
    const { db } = await device(true);
    for (const n of [1, 2]) {
      const { customer, records } = await personOf(db, customerId(n));
      assert.equal(customer?.name, 'Rowan');
      assert.deepEqual(records, [customerId(2), customerId(1)]);
    }
    const nobody = await personOf(db, customerId(9));
    assert.deepEqual([nobody.customer, nobody.records], [undefined, [customerId(9)]]);
  });
});
