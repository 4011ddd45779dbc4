/** What a device has not seen yet, and where a new one starts. */
import { Op, type Transaction, type WhereOptions } from 'sequelize';
import type { StartAnswer } from '../../core/daybook/sync-messages';
import { MOST_PULLED } from '../../core/daybook/sync-messages';
import { tables, tableNames } from '../../core/books/tables';
import { lastDay } from '../../core/event/todays-event';
import type { BookReader } from '../books/read-books';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { DeviceRef } from './append';

/** The answer to a pull; entries are the stored JSON texts, word for word. */
export interface Pulled {
  readonly entries: readonly string[];
  readonly position: number;
  readonly latest: number;
  readonly have: number;
}

/** Entries of other devices after a position, in order; at most `MOST_PULLED`. */
export async function pull(
  database: Database,
  { business, device }: DeviceRef,
  after: number,
): Promise<Pulled> {
  return await database.snapshot(async (transaction) => {
    const latest = await latestPosition(database, business, transaction);
    const rows = await select<{ position: string; entry: string }>(
      database,
      'SELECT position, entry FROM daybook_entries WHERE business = ? AND position > ? ' +
        "AND device <> ? AND state <> 'barred' ORDER BY position LIMIT ?",
      [business, after, device, MOST_PULLED],
      transaction,
    );
    const [head] = await select<{ seq: number }>(
      database,
      'SELECT seq FROM access_devices WHERE business = ? AND device = ?',
      [business, device],
      transaction,
    );
    const isAll = rows.length < MOST_PULLED;
    return {
      entries: rows.map(({ entry }) => entry),
      position: isAll ? Math.max(after, latest) : Number(rows.at(-1)!.position),
      latest,
      have: head?.seq ?? 0,
    };
  });
}

async function latestPosition(
  database: Database,
  business: string,
  transaction: Transaction,
): Promise<number> {
  const [counter] = await select<{ position: string }>(
    database,
    'SELECT position FROM daybook_counters WHERE business = ?',
    [business],
    transaction,
  );
  return Number(counter?.position ?? 0);
}

/** Days after its last that a device keeps the documents of an event. */
const RECENT_DAYS = 14;

/**
 * The rows a new device starts from, all of one moment: set-up and sums whole, documents of recent
 * events only.
 * @param now Milliseconds since 1970.
 */
export async function start(
  database: Database,
  books: BookReader,
  business: string,
  now: number,
): Promise<StartAnswer> {
  return await database.snapshot(async (transaction) => {
    const position = await latestPosition(database, business, transaction);
    const heads = await select<{ device: string; seq: number }>(
      database,
      'SELECT device, seq FROM access_devices WHERE business = ?',
      [business],
      transaction,
    );
    const since = new Date(now - RECENT_DAYS * 86_400_000).toISOString().slice(0, 10);
    const events = await books.rows(business, 'events', {}, transaction);
    const recent = events.filter((event) => lastDay(event) >= since).map(({ id }) => id);
    const isRecent: WhereOptions = { [Op.or]: [{ event: recent }, { event: null }] };
    const rows: Record<string, Record<string, unknown>[]> = {};
    for (const table of tableNames) {
      const where = tables[table].keep === 'recent' ? isRecent : {};
      rows[table] = await books.rows(business, table, where, transaction);
    }
    return {
      position,
      received: Object.fromEntries(heads.map(({ device, seq }) => [device, seq])),
      rows,
    };
  });
}
