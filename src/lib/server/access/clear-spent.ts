/** Rows that nobody needs any more: tries that no longer count, codes and links that ran out, ended sessions. */
import { QueryTypes } from 'sequelize';
import type { Database } from '../database/database';

/** A code that was used answers its device again for a week, should the answer have been lost. */
const CODES_KEPT = 7 * 86_400_000;
const IDLE = 14 * 86_400_000;
/** At a time, so that no statement holds up others for long. */
const AT_ONCE = 1000;

/** @param now Milliseconds since 1970. @returns How many rows went. */
export async function clearSpent(
  { sequelize }: Pick<Database, 'sequelize'>,
  now: number,
): Promise<number> {
  const iso = (at: number): string => new Date(at).toISOString();
  const spent: readonly (readonly [table: string, where: string, value: string | number])[] = [
    ['access_tries', 'expire < ?', now],
    ['access_codes', 'expires < ?', iso(now - CODES_KEPT)],
    ['access_sessions', 'expires < ?', iso(now)],
    ['access_sessions', 'seen < ?', iso(now - IDLE)],
    ['access_resets', 'expires < ?', iso(now)],
    ['access_challenges', 'expires < ?', iso(now)],
    ['access_known', 'expires < ?', iso(now)],
    ['access_verifications', 'expires < ?', iso(now)],
    ['daybook_quotas', 'day < ?', iso(now - CODES_KEPT).slice(0, 10)],
    ['receipts_counted', 'day < ?', iso(now - CODES_KEPT).slice(0, 10)],
  ];
  let cleared = 0;
  for (const [table, where, value] of spent) {
    let went: number;
    do {
      went = await sequelize.query(`DELETE FROM ${table} WHERE ${where} LIMIT ${AT_ONCE}`, {
        replacements: [value],
        type: QueryTypes.BULKDELETE,
      });
      cleared += went;
    } while (went === AT_ONCE);
  }
  return cleared;
}
