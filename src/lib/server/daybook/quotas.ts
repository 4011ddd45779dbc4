/** How much one device may leave with the server in a day: years of selling, and no more. */
import type { Transaction } from 'sequelize';
import type { Entry } from '../../core/daybook/entry';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { DeviceRef } from './device-ref';

export const MOST_A_DAY = { entries: 60_000, bytes: 200_000_000 } as const;

/** The device has sent too much for one day. It keeps the rest and tries again later. */
export class OverQuotaError extends Error {
  constructor() {
    super('this device has sent more than one day holds');
    this.name = 'OverQuotaError';
  }
}

/**
 * Counts what is about to be appended, in its transaction.
 * @param arrival Milliseconds since 1970; days are those of UTC.
 * @throws {OverQuotaError}
 */
export async function countAgainstQuota(
  database: Pick<Database, 'sequelize'>,
  { business, device }: DeviceRef,
  entries: readonly Entry[],
  arrival: number,
  transaction: Transaction,
): Promise<void> {
  if (entries.length === 0) return;
  const day = new Date(arrival).toISOString().slice(0, 10);
  const bytes = entries.reduce((all, entry) => all + JSON.stringify(entry).length, 0);
  const [known] = await select<{ entries: string; bytes: string }>(
    database,
    'SELECT entries, bytes FROM daybook_quotas WHERE business = ? AND device = ? AND day = ?',
    [business, device, day],
    transaction,
  );
  const isOver =
    Number(known?.entries ?? 0) + entries.length > MOST_A_DAY.entries ||
    Number(known?.bytes ?? 0) + bytes > MOST_A_DAY.bytes;
  if (isOver) throw new OverQuotaError();
  await database.sequelize.query(
    'INSERT INTO daybook_quotas (business, device, day, entries, bytes) VALUES (?, ?, ?, ?, ?) ' +
      'ON DUPLICATE KEY UPDATE entries = entries + VALUES(entries), bytes = bytes + VALUES(bytes)',
    { replacements: [business, device, day, entries.length, bytes], transaction },
  );
}
