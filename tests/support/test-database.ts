/** A real MariaDB for tests: the one that TEST_DATABASE_URL names, or one of its own. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomBytes } from 'node:crypto';
import { startMariaDb } from '../../scripts/setup/mariadb.mjs';
import { Enrolment } from '../../src/lib/server/access/enrolment';
import { openDatabase, type Database } from '../../src/lib/server/database/database';
import { migrate } from '../../src/lib/server/database/migrate';

export interface TestDatabase {
  readonly url: string;
  readonly database: Database;
  readonly enrolment: Enrolment;
  /** Enrols a device of a business and gives its token. */
  enrol(business: string, device: string): Promise<string>;
  end(): Promise<void>;
}

export async function testDatabase(): Promise<TestDatabase> {
  const folder = mkdtempSync(join(tmpdir(), 'stall-till-test-'));
  const server = await startMariaDb(folder);
  const database = openDatabase({ databaseUrl: server.url, databaseTimeout: 15_000 });
  await migrate(database.sequelize);
  const enrolment = new Enrolment(database);
  return {
    url: server.url,
    database,
    enrolment,
    enrol: async (business, device) => {
      const token = randomBytes(32).toString('hex');
      const code = await enrolment.makeCode(business, Date.now(), 60_000);
      const outcome = await enrolment.enrol(code, device, token, Date.now());
      if (!outcome.ok) throw new Error(outcome.refusal.code);
      return token;
    },
    end: async () => {
      await database.close();
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
