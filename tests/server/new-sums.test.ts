/** The server works a sum out from the daybook when it first meets the declaration. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { declaredSums, FIRST_SUMS, newSums } from '../../src/lib/core/journal/new-sums';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId } from '../../src/lib/core/testing/made-up-business';
import { makeNewSums } from '../../src/lib/server/books/make-new-sums';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { testDatabase, type TestDatabase } from '../support/test-database';

const now = Date.UTC(2026, 10, 22, 9);
let t: TestDatabase;
before(async () => (t = await testDatabase()));
after(async () => await t.end());

describe('a sum that is new to the server', () => {
  it('is what it would have been, whatever stood there; and is worked out once', async () => {
    await t.enrol(BUSINESS, deviceId(1));
    const writer = new DeviceWriter(1);
    for (let n = 0; n < 4; n += 1) {
      const entries = writer.append(writer.sale([[1 + n, 2]], 0, now), now);
      await append(t.database, { business: BUSINESS, device: deviceId(1) }, entries, now);
    }
    const books = new BookReader(t.database);
    const rows = async () => ({
      ways: await books.rows(BUSINESS, 'eventWays'),
      stock: await books.rows(BUSINESS, 'stock'),
    });
    const whole = await rows();
    assert.ok(whole.ways.length > 0);
    // What was declared since there is a list of them.
    assert.deepEqual(await makeNewSums(t.database), newSums(FIRST_SUMS));
    assert.deepEqual(await makeNewSums(t.database), []);
    await t.database.sequelize.query(
      "DELETE FROM books_sums_made WHERE name = 'eventWays' OR name = 'stock'",
    );
    await t.database.sequelize.query('UPDATE books_event_ways SET takings = 1');
    const progress: string[] = [];
    const made = await makeNewSums(t.database, (done, all) =>
      progress.push(`${String(done)}/${String(all)}`),
    );
    assert.deepEqual([...made].sort(), ['eventWays', 'stock']);
    assert.deepEqual(progress, ['8/8']);
    assert.deepEqual(await rows(), whole);
    assert.deepEqual(await makeNewSums(t.database), []);
    assert.deepEqual(
      await makeNewSums(t.database, undefined, { ...declaredSums(), eventTips: 'otherwise' }),
      ['eventTips'],
    );
  });
});
