/** How much one device may leave with the server in a day: years of selling, and no more. */
import type { Transaction } from 'sequelize';
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

/** What it has left with the server already, on one day. */
interface Counted {
  readonly entries: number;
  readonly bytes: number;
}

/** @param arrival Milliseconds since 1970; days are those of UTC. */
export async function countedOn(
  database: Pick<Database, 'sequelize'>,
  { business, device }: DeviceRef,
  arrival: number,
  transaction: Transaction,
): Promise<Counted> {
  const [known] = await select<{ entries: string; bytes: string }>(
    database,
    'SELECT entries, bytes FROM daybook_quotas WHERE business = ? AND device = ? AND day = ?',
    [business, device, dayOf(arrival)],
    transaction,
  );
  return { entries: Number(known?.entries ?? 0), bytes: Number(known?.bytes ?? 0) };
}

/**
 * Whether a day holds what is about to be appended as well.
 * @param sizes Of each entry, characters of its JSON.
 * @throws {OverQuotaError}
 */
export function checkQuota(counted: Counted, sizes: readonly number[]): void {
  const isOver =
    counted.entries + sizes.length > MOST_A_DAY.entries ||
    counted.bytes + allOf(sizes) > MOST_A_DAY.bytes;
  if (sizes.length > 0 && isOver) throw new OverQuotaError();
}

/** Counts what was appended, in its transaction. Sizes and arrival are as above. */
export async function countAgainstQuota(
  { sequelize }: Pick<Database, 'sequelize'>,
  { business, device }: DeviceRef,
  sizes: readonly number[],
  arrival: number,
  transaction: Transaction,
): Promise<void> {
  if (sizes.length === 0) return;
  await sequelize.query(
    'INSERT INTO daybook_quotas (business, device, day, entries, bytes) VALUES (?, ?, ?, ?, ?) ' +
      'ON DUPLICATE KEY UPDATE entries = entries + VALUES(entries), bytes = bytes + VALUES(bytes)',
    {
      replacements: [business, device, dayOf(arrival), sizes.length, allOf(sizes)],
      transaction,
    },
  );
}

const dayOf = (arrival: number): string => new Date(arrival).toISOString().slice(0, 10);

const allOf = (sizes: readonly number[]): number => sizes.reduce((all, size) => all + size, 0);
