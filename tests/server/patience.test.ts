/** A database that says nothing is given up; one that is known to work long is waited for. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { isAway, openDatabase } from '../../src/lib/server/database/database';
import { select } from '../../src/lib/server/database/select';
import { testDatabase, type TestDatabase } from '../support/test-database';

let t: TestDatabase;
before(async () => {
  t = await testDatabase();
});
after(() => t.end());

/** Has the database take so many seconds over a statement. */
async function sleeps(
  seconds: number,
  timeouts: Omit<Parameters<typeof openDatabase>[0], 'databaseUrl'>,
): Promise<unknown> {
  const database = openDatabase({ databaseUrl: t.url, ...timeouts });
  try {
    return await select(database, 'SELECT SLEEP(?) AS woken', [seconds]);
  } finally {
    await database.close();
  }
}

describe('patience with the database', () => {
  it('ends when it has been silent for too long', async () => {
    await assert.rejects(sleeps(30, { databaseTimeout: 1000 }), (error) => isAway(error));
  });

  it('lasts as long as a statement may take, where that was said', async () => {
    const came = await sleeps(4, { databaseTimeout: 3000, statementTimeout: 60_000 });
    assert.deepEqual(came, [{ woken: 0 }]);
  });
});
