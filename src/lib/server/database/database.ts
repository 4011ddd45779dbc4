/** The connection to MariaDB, and transactions that are tried again as a whole. */
import net from 'node:net';
import { Sequelize, Transaction } from 'sequelize';
import type { Settings } from '../settings';

export interface Database {
  readonly sequelize: Sequelize;
  /** Runs `work` in a transaction, READ COMMITTED; tries the whole of it again when it must. */
  transaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** Runs `read` on one unchanging view of the database. */
  snapshot<T>(read: (transaction: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

export function openDatabase({
  databaseUrl,
  databaseTimeout,
}: Pick<Settings, 'databaseUrl' | 'databaseTimeout'>): Database {
  const sequelize = new Sequelize(databaseUrl, {
    dialect: 'mysql',
    logging: false,
    timezone: '+00:00',
    define: { timestamps: false, freezeTableName: true },
    pool: { max: 10, idle: databaseTimeout - 5000 },
    dialectOptions: {
      bigNumberStrings: true,
      supportBigNumbers: true,
      connectTimeout: databaseTimeout,
      // A database that hangs would hang us for ever: the socket gives up by itself.
      stream: ({ config }: { config: { host: string; port: number } }) => {
        const socket = net.connect(config.port, config.host);
        socket.setTimeout(databaseTimeout, () =>
          socket.destroy(
            new Error(`the database did not answer for ${String(databaseTimeout)} ms`),
          ),
        );
        return socket;
      },
    },
  });
  const run = async <T>(
    isolationLevel: Transaction.ISOLATION_LEVELS,
    work: (transaction: Transaction) => Promise<T>,
  ): Promise<T> => await tryAgain(() => sequelize.transaction({ isolationLevel }, work));
  return {
    sequelize,
    transaction: (work) => run(Transaction.ISOLATION_LEVELS.READ_COMMITTED, work),
    snapshot: (read) => run(Transaction.ISOLATION_LEVELS.REPEATABLE_READ, read),
    close: () => sequelize.close(),
  };
}

const MOST_TRIES = 5;
/** Deadlock, lock wait timeout. Anything else, lost connections included, is the caller's to send again. */
const WORTH_ANOTHER_TRY = new Set([1213, 1205]);

async function tryAgain<T>(attempt: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1) {
    try {
      return await attempt();
    } catch (error) {
      if (tries >= MOST_TRIES || !WORTH_ANOTHER_TRY.has(databaseErrorNumber(error) ?? 0))
        throw error;
      await new Promise((resolve) => setTimeout(resolve, 20 * tries * tries));
    }
  }
}

/** MariaDB's own number of an error, wherever Sequelize has put it. */
export function databaseErrorNumber(error: unknown): number | null {
  for (let at: unknown = error; typeof at === 'object' && at !== null;) {
    const { errno, parent, original } = at as Record<string, unknown>;
    if (typeof errno === 'number') return errno;
    at = parent ?? original;
  }
  return null;
}
