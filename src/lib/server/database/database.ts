/** The connection to MariaDB, and transactions that are tried again as a whole. */
import net from 'node:net';
import mysql from 'mysql2';
import {
  BaseError,
  ConnectionAcquireTimeoutError,
  ConnectionError,
  Sequelize,
  Transaction,
} from 'sequelize';
import type { Settings } from '../settings';

export interface Database {
  readonly sequelize: Sequelize;
  /** Runs `work` in a transaction, READ COMMITTED; tries the whole of it again when it must. */
  transaction<T>(work: (transaction: Transaction) => Promise<T>): Promise<T>;
  /** Runs `read` on one unchanging view of the database. */
  snapshot<T>(read: (transaction: Transaction) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

interface Opening extends Pick<Settings, 'databaseUrl' | 'databaseTimeout'> {
  /** How long a statement may take, in milliseconds, where that is longer than the database may be silent otherwise. */
  readonly statementTimeout?: number;
}

export function openDatabase({
  databaseUrl,
  databaseTimeout,
  statementTimeout = databaseTimeout,
}: Opening): Database {
  const sequelize = new Sequelize(databaseUrl, {
    dialect: 'mysql',
    logging: false,
    timezone: '+00:00',
    define: { timestamps: false, freezeTableName: true },
    // Let go of before the socket gives up.
    pool: { max: 10, idle: Math.max(databaseTimeout / 2, databaseTimeout - 5000) },
    dialectOptions: {
      bigNumberStrings: true,
      supportBigNumbers: true,
      connectTimeout: databaseTimeout,
      // Every statement comes with its values in it: what looks for places to put them reads all of it again.
      queryFormat: (sql: string, values: unknown) =>
        Array.isArray(values) && values.length > 0 ? mysql.format(sql, values) : sql,
      // A database that hangs would hang us for ever: the socket gives up by itself.
      stream: ({ config }: { config: { host: string; port: number } }) => {
        const socket = net.connect(config.port, config.host);
        // A statement goes out when it is written, not when the answer to the one before was heard.
        socket.setNoDelay(true);
        socket.setKeepAlive(true);
        socket.setTimeout(statementTimeout, () =>
          socket.destroy(
            new Error(`the database did not answer for ${String(statementTimeout)} ms`),
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

/** Whether an error came from the database or the way to it, and not from our own code. */
export const isOfDatabase = (error: unknown): boolean =>
  error instanceof BaseError || databaseErrorNumber(error) !== null;

const LOST = /^(ECONN|EPIPE|ETIMEDOUT|ENOTFOUND|PROTOCOL_)|closed state|did not answer/;
/** Shutting down, started anew, too many connections, read-only while it is moved. */
const AWAY = new Set([1053, 1040, 1077, 1079, 1290, 1927]);

/** Whether the database is not there just now: it may be again in a moment, and nothing was changed. */
export function isAway(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof ConnectionAcquireTimeoutError)
    return true;
  if (AWAY.has(databaseErrorNumber(error) ?? 0)) return true;
  for (let at: unknown = error; typeof at === 'object' && at !== null;) {
    const { code, message, parent, original } = at as Record<string, unknown>;
    if ([code, message].some((each) => typeof each === 'string' && LOST.test(each))) return true;
    at = parent ?? original;
  }
  return false;
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
