/** A real MariaDB for tests: the files of one process share a server, and each has a database of its own. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomBytes } from 'node:crypto';
import mysql, { type Connection, type RowDataPacket } from 'mysql2/promise';
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
  const server = await taken();
  const url = await server.another();
  const database = openDatabase({ databaseUrl: url, databaseTimeout: PATIENCE });
  const enrolment = new Enrolment(database);
  return {
    url,
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
      await server.drop(url);
      left();
    },
  };
}

/** The server that the files of one process share, and how many of them use it now. */
let shared: Promise<SharedServer> | null = null;
let users = 0;
let ending: NodeJS.Timeout | undefined;
/** Milliseconds in which the next file begins; a server that is left would keep the process from ending. */
const NEXT_FILE_WITHIN = 1000;

async function taken(): Promise<SharedServer> {
  clearTimeout(ending);
  users += 1;
  shared ??= SharedServer.start();
  return await shared.catch((error: unknown) => {
    shared = null;
    users -= 1;
    throw error;
  });
}

function left(): void {
  users -= 1;
  if (users > 0) return;
  ending = setTimeout(() => {
    const ended = shared;
    shared = null;
    void ended?.then((server) => server.end());
  }, NEXT_FILE_WITHIN);
}

/** One MariaDB: its first database is made by the migrations, and the others are made like it. */
class SharedServer {
  #made = 0;

  private constructor(
    readonly url: string,
    readonly pattern: Connection,
    readonly end: () => Promise<void>,
  ) {}

  static async start(): Promise<SharedServer> {
    const folder = mkdtempSync(join(tmpdir(), 'stall-till-test-'));
    const server = await startMariaDb(folder, { isForTests: true });
    const end = async (): Promise<void> => {
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    };
    try {
      await migrated(server.url);
      const pattern = await mysql.createConnection(server.url);
      return new SharedServer(server.url, pattern, async () => {
        await pattern.end();
        await end();
      });
    } catch (error) {
      await end();
      throw error;
    }
  }

  /** @returns The address of another database, with the tables and the rows that the migrations make. */
  async another(): Promise<string> {
    this.#made += 1;
    const url = new URL(this.url);
    const name = `${url.pathname.slice(1)}_${String(this.#made)}`;
    await this.pattern.query(`CREATE DATABASE \`${name}\``);
    const [tables] = await this.pattern.query<RowDataPacket[]>('SHOW TABLES');
    for (const table of tables.map((row) => String(Object.values(row)[0]))) {
      await this.pattern.query(`CREATE TABLE \`${name}\`.\`${table}\` LIKE \`${table}\``);
      await this.pattern.query(`INSERT INTO \`${name}\`.\`${table}\` SELECT * FROM \`${table}\``);
    }
    url.pathname = `/${name}`;
    return url.href;
  }

  async drop(url: string): Promise<void> {
    await this.pattern.query(`DROP DATABASE \`${new URL(url).pathname.slice(1)}\``);
  }
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
