/** What a shut-out device hands over is put aside, up to a bound, and never in part. */
import assert from 'node:assert/strict';
import { after, before, it } from 'node:test';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId } from '../../src/lib/core/testing/made-up-business';
import { asideOf, clearAside, putAside } from '../../src/lib/server/access/devices';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 10);
const ref = { business: BUSINESS, device: deviceId(1) };
let t: TestDatabase;
before(async () => {
  t = await testDatabase();
});
after(() => t.end());

it('a batch for which there is no room is refused whole, and taken once there is', async () => {
  await t.database.sequelize.query(
    'INSERT INTO access_unsent (business, device, seq, entry) ' +
      "SELECT ?, ?, 100 + seq, '' FROM seq_1_to_19999",
    { replacements: [ref.business, ref.device] },
  );
  const writer = new DeviceWriter(1);
  const entries = writer.append(writer.sale([[1, 1]], 0, now), now);
  assert.equal(entries.length, 2);
  assert.equal(await putAside(t.database, ref, entries), false);
  await clearAside(t.database, ref, 20_099);
  assert.deepEqual(await asideOf(t.database, ref), []);
  assert.equal(await putAside(t.database, ref, entries), true);
  assert.equal(await putAside(t.database, ref, entries), true);
  assert.deepEqual(await asideOf(t.database, ref), entries);
});
