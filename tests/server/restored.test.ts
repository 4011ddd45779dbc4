/** The server is set back to an earlier day, and goes on: every device has every entry in the end. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { IDBFactory, IDBKeyRange } from 'fake-indexeddb';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { pullAnswerSchema } from '../../src/lib/core/daybook/sync-messages';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, itemId } from '../../src/lib/core/testing/made-up-business';
import { DeviceDatabase } from '../../src/lib/device/database';
import { NO_STANDING } from '../../src/lib/device/receive';
import { SyncRunner } from '../../src/lib/device/sync/runner';
import { Transport } from '../../src/lib/device/sync/transport';
import { append } from '../../src/lib/server/daybook/append';
import { pull } from '../../src/lib/server/daybook/pull';
import { rebuild } from '../../src/lib/server/daybook/rebuild';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 9);
const READER = deviceId(9);
let t: TestDatabase;
let db: DeviceDatabase;
before(async () => {
  t = await testDatabase();
  for (const n of [1, 2, 3, 9]) await t.enrol(BUSINESS, deviceId(n));
  db = new DeviceDatabase('reader', { indexedDB: new IDBFactory(), IDBKeyRange });
  await db.write('identity', { business: BUSINESS, device: READER, number: 9, token: 'x' });
  await db.write('standing', NO_STANDING);
});
after(async () => await t.end());

/** Straight to the server’s own functions, by the messages that go over the wire. */
class DirectTransport extends Transport {
  constructor() {
    super('x', async (address) => {
      const { searchParams: asked } = new URL(address as string, 'http://till.example');
      const pulled = await pull(
        t.database,
        { business: BUSINESS, device: READER },
        Number(asked.get('after')),
        asked.get('mark') ?? '',
      );
      const entries = pulled.entries.map((text) => JSON.parse(text) as Entry);
      const said = { ...pulled, entries, isCopy: false, now: Date.now() };
      return Response.json(pullAnswerSchema.parse(said));
    });
  }
}

/** Pulls until nothing more comes. */
async function catchUp(): Promise<void> {
  let isDone: () => void = () => undefined;
  const done = new Promise<void>((resolve) => (isDone = resolve));
  const runner = new SyncRunner(db, new DirectTransport(), READER, ({ doing, network }) => {
    if (doing === 'idle' && network === 'there') isDone();
  });
  await runner.start();
  await done;
  runner.end();
}

const writers = new Map([1, 2, 3].map((n) => [n, new DeviceWriter(n)]));
const written = new Map<number, Entry[]>([
  [1, []],
  [2, []],
  [3, []],
]);
async function write(n: number, many: number): Promise<void> {
  const entries = Array.from({ length: many }, () =>
    writers.get(n)!.write({ does: 'load', item: 1, quantity: 1000 }, now),
  ).flat();
  written.get(n)!.push(...entries);
  await send(n, entries);
}
const send = async (n: number, entries: readonly Entry[]): Promise<unknown> =>
  await append(t.database, { business: BUSINESS, device: deviceId(n) }, entries, now);

/** As a backup of that moment would leave it. */
async function setBackTo(position: number): Promise<void> {
  const { sequelize } = t.database;
  const where = { replacements: [BUSINESS, position] };
  await sequelize.query('DELETE FROM daybook_entries WHERE business = ? AND position > ?', where);
  await sequelize.query('UPDATE daybook_counters SET position = ? WHERE business = ?', {
    replacements: [position, BUSINESS],
  });
  await sequelize.query(
    `UPDATE access_devices d SET seq = COALESCE((SELECT MAX(seq) FROM daybook_entries e
       WHERE e.business = d.business AND e.device = d.device), 0)`,
  );
  await sequelize.query(
    `UPDATE access_devices d SET
       hash = COALESCE((SELECT hash FROM daybook_entries e WHERE e.business = d.business
         AND e.device = d.device AND e.seq = d.seq), REPEAT('0', 64)),
       stamp = COALESCE((SELECT stamp FROM daybook_entries e WHERE e.business = d.business
         AND e.device = d.device AND e.seq = d.seq), '')`,
  );
  await rebuild(t.database, BUSINESS);
}

describe('a server that was set back', () => {
  it('is noticed though others have written meanwhile, and nothing is missed for good', async () => {
    await write(1, 30);
    await write(2, 5);
    await catchUp();
    assert.equal((await db.read('standing'))?.position, 35);
    await setBackTo(20);
    // Another device goes on before anybody else has looked: the positions are taken again.
    // One writes all it has to say below where the reader stood: no missing number would tell.
    await write(3, 4);
    const second = written.get(2)!;
    await send(2, second);
    await write(2, 25);
    await catchUp();
    // What was lost there comes again from whoever wrote it, and is passed over here.
    await send(1, written.get(1)!.slice(20));
    await write(1, 5);
    await catchUp();
    const all = 30 + 5 + 4 + 25 + 5;
    assert.equal((await db.books.stock.get([EVENT, itemId(1)]))?.quantity, all * 1000);
    assert.deepEqual((await db.read('standing'))?.received, {
      [deviceId(1)]: 35,
      [deviceId(2)]: 30,
      [deviceId(3)]: 4,
    });
  });
});
