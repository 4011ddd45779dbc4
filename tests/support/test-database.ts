/** A real MariaDB for tests, one for each test file. */
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

/** Milliseconds that the database may be silent: long, for a machine with other work. */
const PATIENCE = 60_000;

export async function testDatabase(): Promise<TestDatabase> {
  const folder = mkdtempSync(join(tmpdir(), 'stall-till-test-'));
  const server = await startMariaDb(folder, { isForTests: true });
  const end = async () => {
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  };
  // A server that is left would keep the file's process, and with it the whole run, from ending.
  await migrated(server.url).catch(async (error: unknown) => {
    await end();
    throw error;
  });
  const database = openDatabase({ databaseUrl: server.url, databaseTimeout: PATIENCE });
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
      await end();
    },
  };
}

/** The connection that holds the lock says nothing while the others work: minutes, on a busy machine. */
async function migrated(databaseUrl: string): Promise<void> {
  const database = openDatabase({
    databaseUrl,
    databaseTimeout: PATIENCE,
    statementTimeout: 10 * PATIENCE,
  });
  try {
    await migrate(database.sequelize);
  } finally {
    await database.close();
  }
}
