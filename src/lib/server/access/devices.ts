/** What an owner sees of the devices, and shutting one out. */
import type { Entry } from '../../core/daybook/entry';
import { entrySchema } from '../../core/daybook/entry';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { lockCounter } from '../daybook/append';
import type { DeviceRef } from '../daybook/device-ref';
import { asMayBeStored } from '../daybook/erase';

export interface DeviceSeen {
  readonly device: string;
  readonly number: number;
  /** Entries that the server has of it. */
  readonly seq: number;
  readonly shutOutAt: string | null;
  /** When a copy of it, writing another chain, was noticed. */
  readonly copySeenAt: string | null;
  /** Entries it had not sent when it was shut out, kept apart until an owner has looked. */
  readonly unsent: number;
}

/** The devices of one business, by number. */
export async function devicesOf(database: Database, business: string): Promise<DeviceSeen[]> {
  const rows = await select<Omit<DeviceSeen, 'unsent'> & { unsent: string }>(
    database,
    'SELECT device, number, seq, shutOutAt, copySeenAt, ' +
      '(SELECT COUNT(*) FROM access_unsent u WHERE u.business = d.business AND u.device = d.device) AS unsent ' +
      'FROM access_devices d WHERE business = ? ORDER BY number',
    [business],
  );
  return rows.map((row) => ({ ...row, unsent: Number(row.unsent) }));
}

/** Whether the business has such a device; another business's is none. */
export async function isDeviceOf(database: Database, ref: DeviceRef): Promise<boolean> {
  const known = await select(
    database,
    'SELECT device FROM access_devices WHERE business = ? AND device = ?',
    [ref.business, ref.device],
  );
  return known.length > 0;
}

/** Whether it was shut out, so that others see to what it carried. */
export async function isShutOut(
  database: Pick<Database, 'sequelize'>,
  ref: DeviceRef,
): Promise<boolean> {
  const known = await select(
    database,
    'SELECT device FROM access_devices WHERE business = ? AND device = ? AND isShutOut = 1',
    [ref.business, ref.device],
  );
  return known.length > 0;
}

/** How long a device's last word is not written down again, milliseconds: it asks every few seconds. */
const SEEN_AGAIN_AFTER = 60_000;

/** When it was heard of, and the last entry that it says it has. @param head Its own last `seq`. */
export async function noteSeen(
  database: Database,
  { business, device }: DeviceRef,
  head: number,
  now: number,
): Promise<void> {
  await database.sequelize.query(
    'UPDATE access_devices SET seenAt = ?, headSaid = ? ' +
      'WHERE business = ? AND device = ? AND (seenAt < ? OR headSaid <> ?)',
    { replacements: [now, head, business, device, now - SEEN_AGAIN_AFTER, head] },
  );
}

/** @returns Whether the business has such a device. What it had sent stays. */
export async function shutOut(database: Database, ref: DeviceRef, now: number): Promise<boolean> {
  if (!(await isDeviceOf(database, ref))) return false;
  await database.sequelize.query(
    'UPDATE access_devices SET isShutOut = 1, shutOutAt = COALESCE(shutOutAt, ?) ' +
      'WHERE business = ? AND device = ?',
    { replacements: [new Date(now).toISOString(), ref.business, ref.device] },
  );
  return true;
}

/** Notes that a second device writes under this one's name. */
export async function noteCopy(database: Database, ref: DeviceRef, now: number): Promise<void> {
  await database.sequelize.query(
    'UPDATE access_devices SET copySeenAt = COALESCE(copySeenAt, ?) WHERE business = ? AND device = ?',
    { replacements: [new Date(now).toISOString(), ref.business, ref.device] },
  );
}

/** Most that is kept of one device that was shut out: weeks of selling with no network. */
const MOST_UNSENT = { entries: 20_000, bytes: 20_000_000 } as const;

/**
 * Puts what a shut-out device had not sent aside. The same entry again changes nothing.
 * @returns False, with nothing put aside, if there is no room: the device keeps them until an owner
 *   has looked.
 */
export async function putAside(
  database: Database,
  ref: DeviceRef,
  entries: readonly Entry[],
): Promise<boolean> {
  return await database.transaction(async (transaction) => {
    // Whoever forgets a customer waits for this, and the other way round.
    await lockCounter(database, ref.business, transaction);
    const [there] = await select<{ n: string; bytes: string | null }>(
      database,
      'SELECT COUNT(*) AS n, SUM(LENGTH(entry)) AS bytes FROM access_unsent WHERE business = ? AND device = ?',
      [ref.business, ref.device],
      transaction,
    );
    const bytes = entries.reduce((all, entry) => all + JSON.stringify(entry).length, 0);
    const isRoom =
      Number(there?.n ?? 0) + entries.length <= MOST_UNSENT.entries &&
      Number(there?.bytes ?? 0) + bytes <= MOST_UNSENT.bytes;
    if (!isRoom) return false;
    for (const entry of await asMayBeStored(database, ref.business, entries, transaction)) {
      await database.sequelize.query(
        'INSERT INTO access_unsent (business, device, seq, entry) VALUES (?, ?, ?, ?) ' +
          'ON DUPLICATE KEY UPDATE seq = VALUES(seq)',
        {
          replacements: [ref.business, ref.device, entry.seq, JSON.stringify(entry)],
          transaction,
        },
      );
    }
    return true;
  });
}

/** What is put aside of a device, in its order. */
export async function asideOf(database: Database, ref: DeviceRef): Promise<Entry[]> {
  const rows = await select<{ entry: string }>(
    database,
    'SELECT entry FROM access_unsent WHERE business = ? AND device = ? ORDER BY seq',
    [ref.business, ref.device],
  );
  return rows.map(({ entry }) => entrySchema.parse(JSON.parse(entry)));
}

/** Forgets what was put aside, up to a `seq`: it has been taken in, or an owner does not want it. */
export async function clearAside(database: Database, ref: DeviceRef, upTo: number): Promise<void> {
  await database.sequelize.query(
    'DELETE FROM access_unsent WHERE business = ? AND device = ? AND seq <= ?',
    { replacements: [ref.business, ref.device, upTo] },
  );
}
