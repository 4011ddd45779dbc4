/**
 * Browsers that an owner has signed in on. Tries from them are counted apart, so that a stranger who
 * guesses at an owner's password does not keep the owner out (OWASP, "device cookies").
 */
import { randomBytes } from 'node:crypto';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { sha256 } from '../sha-256';

export const KNOWN_FOR = 180 * 86_400_000;

/** @returns What the browser shows next time; only a hash of it is kept. */
export async function knowBrowser(
  { sequelize }: Pick<Database, 'sequelize'>,
  owner: string,
  now: number,
): Promise<string> {
  const token = randomBytes(32).toString('hex');
  await sequelize.query('INSERT INTO access_known (token, owner, expires) VALUES (?, ?, ?)', {
    replacements: [sha256(token), owner, new Date(now + KNOWN_FOR).toISOString()],
  });
  return token;
}

/** Whether the owner of an address has signed in on the browser that shows this. */
export async function isKnownBrowser(
  database: Pick<Database, 'sequelize'>,
  token: string,
  email: string,
  now: number,
): Promise<boolean> {
  const rows = await select(
    database,
    'SELECT k.token FROM access_known k JOIN access_owners o ON o.owner = k.owner ' +
      'WHERE k.token = ? AND o.email = ? AND k.expires > ?',
    [sha256(token), email, new Date(now).toISOString()],
  );
  return rows.length > 0;
}
