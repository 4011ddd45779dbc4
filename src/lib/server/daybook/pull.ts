/** What a device has not seen yet. */
import type { Transaction } from 'sequelize';
import { SERVER_ONLY } from '../../core/daybook/server-only';
import { MOST_PULLED, PULL_BYTES } from '../../core/daybook/sync-messages';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { DeviceRef } from './device-ref';

/** The answer to a pull; entries are the stored JSON texts, word for word. */
export interface Pulled {
  readonly entries: readonly string[];
  readonly position: number;
  readonly latest: number;
  readonly have: number;
  readonly isSetBack: boolean;
  readonly mark: string;
  readonly passed: readonly { readonly device: string; readonly seq: number }[];
  readonly shutOut: readonly string[];
}

/**
 * Entries of other devices after a position, in order: at most `MOST_PULLED` and about `PULL_BYTES`, but
 * always one. What was barred or cannot be read is handed out to nobody, and neither is what only the server needs.
 */
export async function pull(
  database: Database,
  { business, device }: DeviceRef,
  after: number,
  mark = '',
): Promise<Pulled> {
  return await database.snapshot(async (transaction) => {
    const latest = await latestPosition(database, business, transaction);
    const markAt = async (position: number): Promise<string> =>
      await markOf(database, business, position, transaction);
    const sizes = await select<{ position: string; bytes: number }>(
      database,
      'SELECT position, LENGTH(entry) AS bytes FROM daybook_entries WHERE business = ? ' +
        "AND position > ? AND device <> ? AND state IN ('applied', 'doubted') " +
        'AND kind NOT IN (?) ORDER BY position LIMIT ?',
      [business, after, device, SERVER_ONLY, MOST_PULLED],
      transaction,
    );
    const upTo = lastWithin(sizes);
    const rows =
      upTo === null
        ? []
        : await select<{ position: string; entry: string; held: string; late: number }>(
            database,
            'SELECT position, entry, held, late FROM daybook_entries WHERE business = ? ' +
              "AND position > ? AND position <= ? AND device <> ? AND state IN ('applied', 'doubted') " +
              'AND kind NOT IN (?) ORDER BY position',
            [business, after, upTo, device, SERVER_ONLY],
            transaction,
          );
    const [head] = await select<{ seq: number }>(
      database,
      'SELECT seq FROM access_devices WHERE business = ? AND device = ?',
      [business, device],
      transaction,
    );
    const isAll = rows.length === sizes.length && rows.length < MOST_PULLED;
    const position = isAll ? Math.max(after, latest) : Number(upTo);
    const passed = await select<{ device: string; seq: number }>(
      database,
      'SELECT device, seq FROM daybook_entries WHERE business = ? AND position > ? ' +
        "AND position <= ? AND device <> ? AND (state NOT IN ('applied', 'doubted') OR kind IN (?)) " +
        'ORDER BY position',
      [business, after, position, device, SERVER_ONLY],
      transaction,
    );
    const shutOut = await select<{ device: string }>(
      database,
      'SELECT device FROM access_devices WHERE business = ? AND isShutOut = 1 ORDER BY number',
      [business],
      transaction,
    );
    return {
      entries: rows.map(asHandedOut),
      position,
      latest,
      have: head?.seq ?? 0,
      isSetBack: after > latest || (mark !== '' && mark !== (await markAt(after))),
      mark: await markAt(position),
      passed,
      shutOut: shutOut.map((row) => row.device),
    };
  });
}

/** The last position of those that go into one answer, or null if there are none. */
function lastWithin(sizes: readonly { position: string; bytes: number }[]): string | null {
  let all = 0;
  let last: string | null = null;
  for (const { position, bytes } of sizes) {
    all += bytes;
    if (last !== null && all > PULL_BYTES) break;
    last = position;
  }
  return last;
}

/** The stored text word for word, with the server's own words about it in front. */
function asHandedOut({ entry, held, late }: { entry: string; held: string; late: number }): string {
  const said = {
    ...(held === '' ? {} : { held }),
    ...(late === 1 ? { late: true } : {}),
  };
  const words = JSON.stringify(said).slice(1, -1);
  return words === '' ? entry : `{${words},${entry.slice(1)}`;
}

/**
 * What a device knows a position by: the hash of the last entry up to it. After the server was set back to
 * an earlier day and others have written since, another one stands there.
 */
export async function markOf(
  database: Pick<Database, 'sequelize'>,
  business: string,
  position: number,
  transaction: Transaction,
): Promise<string> {
  const [row] = await select<{ hash: string }>(
    database,
    'SELECT hash FROM daybook_entries WHERE business = ? AND position <= ? ORDER BY position DESC LIMIT 1',
    [business, position],
    transaction,
  );
  return row?.hash ?? '';
}

/** Whether the server has an entry of the device under this number that is another one. */
export async function isOtherEntry(
  database: Pick<Database, 'sequelize'>,
  { business, device }: DeviceRef,
  seq: number,
  hash: string,
): Promise<boolean> {
  if (!/^[0-9a-f]{64}$/.test(hash)) return false;
  const [row] = await select<{ hash: string }>(
    database,
    'SELECT hash FROM daybook_entries WHERE business = ? AND device = ? AND seq = ?',
    [business, device, seq],
  );
  return row !== undefined && row.hash !== hash;
}

export async function latestPosition(
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
