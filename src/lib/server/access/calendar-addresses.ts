/**
 * The address under which calendars follow a business's events. Whoever has it reads names, places and hours, so it is as
 * long as nobody guesses, is kept hashed, and is withdrawn by an owner; a new one ends the one before.
 */
import { randomBytes } from 'node:crypto';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { sha256 } from '../sha-256';

export class CalendarAddresses {
  constructor(readonly database: Database) {}

  /** @returns What the address holds; it is shown once. */
  async give(business: string, now: number): Promise<string> {
    const token = randomBytes(32).toString('hex');
    await this.#run(
      'INSERT INTO access_calendars (business, token, made) VALUES (?, ?, ?) ' +
        'ON DUPLICATE KEY UPDATE token = VALUES(token), made = VALUES(made)',
      [business, sha256(token), new Date(now).toISOString()],
    );
    return token;
  }

  async withdraw(business: string): Promise<void> {
    await this.#run('DELETE FROM access_calendars WHERE business = ?', [business]);
  }

  /** When it was made, or null where there is none. */
  async madeAt(business: string): Promise<string | null> {
    const [row] = await select<{ made: string }>(
      this.database,
      'SELECT made FROM access_calendars WHERE business = ?',
      [business],
    );
    return row?.made ?? null;
  }

  async businessOf(token: string): Promise<string | null> {
    const [row] = await select<{ business: string }>(
      this.database,
      'SELECT business FROM access_calendars WHERE token = ?',
      [sha256(token)],
    );
    return row?.business ?? null;
  }

  async #run(sql: string, replacements: unknown[]): Promise<void> {
    await this.database.sequelize.query(sql, { replacements });
  }
}
