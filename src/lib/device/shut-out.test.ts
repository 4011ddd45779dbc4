import assert from 'node:assert/strict';
import { beforeEach, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import type { Entry } from '../core/daybook/entry';
import { draft } from '../core/daybook/kinds';
import { LARGEST_BODY } from '../core/daybook/sync-messages';
import { DeviceWriter } from '../core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, idOf } from '../core/testing/made-up-business';
import { DeviceDatabase } from './database';
import { DeviceDaybook, ownEntriesAfter } from './daybook';
import { handOver, startAnew, wipe } from './shut-out';
import { PortionSize } from './sync/portion';
import type { Transport } from './sync/transport';

const now = Date.UTC(2026, 10, 22, 9);
let db: DeviceDatabase;
let daybook: DeviceDaybook;
const writer = new DeviceWriter(9);
const sell = async (): Promise<void> => {
  await daybook.append(() => ({ ok: true, drafts: writer.sale([[1, 1]], 0, now) }));
};
beforeEach(async () => {
  db = new DeviceDatabase('test', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: deviceId(1), number: 1, token: 'x' });
  daybook = new DeviceDaybook(db, { now: () => now });
});

/** Answers each batch with what `answers` says; counts what was handed over. */
function server(answers: (batch: readonly Entry[]) => 'answer' | 'nothing') {
  const handed: number[] = [];
  const portion = new PortionSize();
  const transport = {
    portion,
    handOver: async (batch: readonly Entry[]) => {
      const came = answers(batch);
      portion.hear(came, batch.length);
      if (came === 'answer') handed.push(...batch.map(({ seq }) => seq));
      return await Promise.resolve(came === 'answer' ? { came, answer: {} } : { came });
    },
  } as unknown as Transport;
  return { handed, transport };
}

describe('a device that is shut out', () => {
  it('hands over what it had not sent and then has nothing', async () => {
    await sell();
    await sell();
    await daybook.settle();
    await db.write('standing', {
      sent: 2,
      position: 0,
      received: {},
      clock: { millis: 0, counter: 0 },
    });
    await wipe(db);
    assert.equal(await db.books.sales.count(), 0);
    const { handed, transport } = server(() => 'answer');
    assert.equal(await handOver(db, transport), 0);
    assert.deepEqual(handed, [3, 4]);
    await startAnew(db);
    assert.equal(await db.read('identity'), undefined);
  });

  it('hands over in portions that a server reads, however much there is', async () => {
    for (let n = 0; n < 30; n += 1) {
      const picture = 'x'.repeat(80_000);
      const body = { item: idOf(6, n), picture: `data:image/jpeg;base64,${picture}` };
      await daybook.append(() => ({
        ok: true,
        drafts: [draft('photo.set', idOf(80, n), null, body)],
      }));
    }
    const sizes: number[] = [];
    const { handed, transport } = server((batch) => {
      sizes.push(JSON.stringify(batch).length);
      return 'answer';
    });
    assert.equal(await handOver(db, transport), 0);
    assert.equal(handed.length, 30);
    assert.ok(sizes.length > 1);
    assert.ok(Math.max(...sizes) < LARGEST_BODY / 2, String(sizes));
  });

  it('keeps all of it while the server does not take it', async () => {
    await sell();
    assert.equal(await handOver(db, server(() => 'nothing').transport), 2);
    assert.equal((await ownEntriesAfter(db, 0, 10)).length, 2);
    await assert.rejects(startAnew(db), /something to hand over/);
  });

  it('keeps what another window wrote while it was handing over', async () => {
    await sell();
    const { transport } = server(() => 'answer');
    const { entries } = db;
    const where = entries.where.bind(entries);
    // Between the last look and the deletion another window sells.
    Object.assign(entries, {
      where: (field: string) => {
        const clause = where(field);
        return Object.assign(Object.create(clause) as typeof clause, {
          belowOrEqual: (upTo: number) => ({
            delete: async () => {
              await sell();
              await clause.belowOrEqual(upTo).delete();
            },
          }),
        });
      },
    });
    assert.equal(await handOver(db, transport), 0);
    Object.assign(entries, { where });
    assert.deepEqual(
      (await ownEntriesAfter(db, 0, 10)).map(({ seq }) => seq),
      [3, 4],
    );
  });
});
