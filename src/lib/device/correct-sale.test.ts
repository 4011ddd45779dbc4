/** A sale is put right on the device that rang it up: once by two taps, and its parts are where it was sold. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import type { Fix } from '../core/daybook/kinds/sale-corrected';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, idOf } from '../core/testing/made-up-business';
import { correctOnce } from './correct-sale';
import { DeviceDatabase } from './database';
import { DeviceDaybook } from './daybook';
import { partsAt } from './event-rows';
import { newId } from './new-id';
import { ownSale } from './sale-document';

const NOW = Date.UTC(2026, 10, 22, 9);
const [OTHER, TIN] = [idOf(4, 8), idOf(7, 8)];

describe('a sale that was rung up at the wrong event', () => {
  it('is moved once by two taps, and what was paid for it is there, cash in its drawer', async () => {
    const db = new DeviceDatabase('moved', { indexedDB: new IDBFactory(), IDBKeyRange });
    await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
    const daybook = new DeviceDaybook(db, { now: () => NOW });
    const writer = new DeviceWriter(1);
    const drafts = writer.sale([[1, 1]], 0, NOW);
    await daybook.append(() => ({ ok: true, drafts }));
    await daybook.settle();
    const parts = async (event: string): Promise<readonly (string | null)[]> =>
      (await partsAt(db, event)).map(({ drawer }) => drawer);
    const before = await parts(EVENT);
    assert.equal(before.length, 1);
    const sale = drafts.find(({ kind }) => kind === 'sale.rung')!.id;
    const tap = async (to: string, cash: string) => {
      const fix: Fix = { is: 'event', move: newId(), to, cash };
      const found = (await ownSale(db, sale))!;
      return await correctOnce(daybook, {
        found,
        fix,
        reason: 'the other market',
        lentBy: undefined,
      });
    };
    const [first, second] = await Promise.all([tap(OTHER, TIN), tap(OTHER, TIN)]);
    assert.ok(first.ok);
    assert.equal(second.ok ? 'moved twice' : second.refusal.code, 'correct/same');
    await daybook.settle();
    assert.deepEqual([await parts(EVENT), await parts(OTHER)], [[], [TIN]]);
    assert.equal((await ownSale(db, sale))!.sale.event, OTHER);
    assert.ok((await tap(EVENT, before[0]!)).ok);
    await daybook.settle();
    assert.deepEqual([await parts(EVENT), await parts(OTHER)], [before, []]);
  });
});
