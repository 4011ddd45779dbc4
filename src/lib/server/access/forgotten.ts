/** A forgotten password: a link by mail, good once and for half an hour. */
import { randomBytes } from 'node:crypto';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { hashPassword } from './passwords';
import { setPassword } from './set-password';
import { noteVerified } from './verification';
import { sha256 } from '../sha-256';

const LIFETIME = 30 * 60_000;

/**
 * Makes a link's token for an address; one made before it no longer works.
 * @returns Null if nobody has that address. Only a hash of the token is kept.
 */
export async function beginReset(
  { sequelize, ...database }: Database,
  email: string,
  now: number,
): Promise<string | null> {
  const sql = 'SELECT owner FROM access_owners WHERE email = ?';
  const [row] = await select<{ owner: string }>({ sequelize }, sql, [email.trim().toLowerCase()]);
  if (row === undefined) return null;
  const token = randomBytes(32).toString('hex');
  const expires = new Date(now + LIFETIME).toISOString();
  await database.transaction(async (transaction) => {
    const mine = { replacements: [row.owner], transaction };
    await sequelize.query('DELETE FROM access_resets WHERE owner = ?', mine);
    await sequelize.query('INSERT INTO access_resets (token, owner, expires) VALUES (?, ?, ?)', {
      replacements: [sha256(token), row.owner, expires],
      transaction,
    });
  });
  return token;
}

/** Whose link a token is, if it is still good; does not use it up. */
export async function ownerOfReset(
  database: Database,
  token: string,
  now: number,
): Promise<{ readonly owner: string; readonly email: string } | null> {
  const [row] = await select<{ owner: string; email: string }>(
    database,
    'SELECT o.owner, o.email FROM access_resets r JOIN access_owners o ON o.owner = r.owner ' +
      'WHERE r.token = ? AND r.expires > ?',
    [sha256(token), new Date(now).toISOString()],
  );
  return row ?? null;
}

/**
 * Sets the password, uses the link up, ends every session; passkeys go as well if that is wanted. Whoever
 * has the link reads the owner's mail, so the address is shown to be theirs. @returns False if it was not
 * good.
 */
export async function finishReset(
  { sequelize, ...database }: Database,
  token: string,
  password: string,
  removePasskeys: boolean,
  now: number,
): Promise<boolean> {
  const hashed = await hashPassword(password);
  return await database.transaction(async (transaction) => {
    const sql = 'SELECT owner FROM access_resets WHERE token = ? AND expires > ? FOR UPDATE';
    const good = [sha256(token), new Date(now).toISOString()];
    const [row] = await select<{ owner: string }>({ sequelize }, sql, good, transaction);
    if (row === undefined) return false;
    await setPassword({ sequelize }, row.owner, hashed, { removePasskeys, transaction });
    await sequelize.query('DELETE FROM access_sessions WHERE owner = ?', {
      replacements: [row.owner],
      transaction,
    });
    await noteVerified({ sequelize }, row.owner, now, transaction);
    return true;
  });
}
