/** Tries that are counted, and rows that are cleared once nobody needs them. */
import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { v4 } from 'uuid';
import { BUSINESS } from '../../src/lib/core/testing/made-up-business';
import { Accounts } from '../../src/lib/server/access/accounts';
import { clearSpent } from '../../src/lib/server/access/clear-spent';
import { beginReset } from '../../src/lib/server/access/forgotten';
import { isKnownBrowser, knowBrowser } from '../../src/lib/server/access/known-browsers';
import { Limits } from '../../src/lib/server/access/limits';
import { beginVerification } from '../../src/lib/server/access/verification';
import { select } from '../../src/lib/server/database/select';
import { testDatabase, type TestDatabase } from '../support/test-database';

let t: TestDatabase;
before(async () => {
  t = await testDatabase();
});
after(() => t.end());

const expire = async (): Promise<number[]> =>
  (await select<{ expire: string }>(t.database, 'SELECT expire FROM access_tries', [])).map((row) =>
    Number(row.expire),
  );

describe('the limit on an account', () => {
  it('is not outlived by its own block: trying on neither shortens nor resets it', async () => {
    const limits = new Limits(t.database);
    const began = Date.now();
    for (let n = 0; n < 10; n += 1) assert.equal(await limits.count('account', 'a'), 0);
    const [until] = await expire();
    assert.ok(until! > began + 3.9 * 3_600_000 && until! < began + 4.1 * 3_600_000);
    for (let n = 0; n < 5; n += 1) assert.ok((await limits.count('account', 'a')) > 3.9 * 3600);
    assert.deepEqual(await expire(), [until]);
  });

  it('counts what was wrong also when something right comes between', async () => {
    const limits = new Limits(t.database);
    const rights = async (): Promise<void> => {
      assert.equal(await limits.count('code', 'b'), 0);
      await limits.giveBack('code', 'b');
    };
    for (let n = 0; n < 20; n += 1) {
      assert.equal(await limits.count('code', 'b'), 0, `wrong ${String(n)}`);
      if (n < 19) await rights();
    }
    assert.ok((await limits.count('code', 'b')) > 0);
  });
});

describe('what has run out', () => {
  it('is cleared, and nothing else', async () => {
    const now = Date.now();
    const past = now - 200 * 86_400_000;
    const accounts = new Accounts(t.database, t.enrolment);
    await accounts.addOwner(BUSINESS, 'o@stall.example', 'three quiet herons', now);
    const account = await accounts.ownerOf('o@stall.example', 'three quiet herons');
    assert.ok(account);
    const makeAll = async (at: number): Promise<string> => {
      await accounts.begin(account, 'test', at);
      await t.enrolment.makeCode(BUSINESS, at, 60_000);
      await beginReset(t.database, 'o@stall.example', at);
      await beginVerification(t.database, account.owner, at);
      await t.database.sequelize.query(
        'INSERT INTO access_challenges (challenge, owner, expires) VALUES (?, NULL, ?)',
        { replacements: [v4(), new Date(at + 60_000).toISOString()] },
      );
      return await knowBrowser(t.database, account.owner, at);
    };
    await t.database.sequelize.query('UPDATE access_tries SET expire = ?', {
      replacements: [now - 1],
    });
    await makeAll(past);
    const known = await makeAll(now);
    const tables = ['codes', 'sessions', 'verifications', 'challenges', 'known', 'resets', 'tries'];
    const counts = async (): Promise<number[]> => {
      const found: number[] = [];
      for (const table of tables)
        found.push((await select(t.database, `SELECT * FROM access_${table}`, [])).length);
      return found;
    };
    // Of links to set a password the earlier one went when the later one was made.
    assert.deepEqual(await counts(), [2, 2, 2, 2, 2, 1, 2]);
    assert.equal(await clearSpent(t.database, now), 7);
    assert.deepEqual(await counts(), [1, 1, 1, 1, 1, 1, 0]);
    assert.equal(await isKnownBrowser(t.database, known, 'o@stall.example', now), true);
    assert.equal(await isKnownBrowser(t.database, known, 'p@stall.example', now), false);
  });
});
