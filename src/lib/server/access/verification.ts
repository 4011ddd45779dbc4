/**
 * Whether an owner's address is theirs: a link by mail, good for two days. Until it has been opened
 * nothing is sent in the business's name (server/receipts).
 */
import { randomBytes } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { sha256 } from '../sha-256';

const LIFETIME = 48 * 3_600_000;

/** A link's token for an owner; only a hash of it is kept. Ones that were made before stay good. */
export async function beginVerification(
  { sequelize }: Pick<Database, 'sequelize'>,
  owner: string,
  now: number,
): Promise<string> {
  const token = randomBytes(32).toString('hex');
  await sequelize.query(
    'INSERT INTO access_verifications (token, owner, expires) VALUES (?, ?, ?)',
    { replacements: [sha256(token), owner, new Date(now + LIFETIME).toISOString()] },
  );
  return token;
}

/** Notes that whoever has the link reads the owner's mail. @returns False if it was not good. */
export async function finishVerification(
  { sequelize, ...database }: Database,
  token: string,
  now: number,
): Promise<boolean> {
  return await database.transaction(async (transaction) => {
    const [row] = await select<{ owner: string }>(
      { sequelize },
      'SELECT owner FROM access_verifications WHERE token = ? AND expires > ? FOR UPDATE',
      [sha256(token), new Date(now).toISOString()],
      transaction,
    );
    if (row === undefined) return false;
    await noteVerified({ sequelize }, row.owner, now, transaction);
    return true;
  });
}

/** The owner has shown that they read the mail of their address. */
export async function noteVerified(
  { sequelize }: Pick<Database, 'sequelize'>,
  owner: string,
  now: number,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    'UPDATE access_owners SET verified = COALESCE(verified, ?) WHERE owner = ?',
    { replacements: [new Date(now).toISOString(), owner], transaction },
  );
  await sequelize.query('DELETE FROM access_verifications WHERE owner = ?', {
    replacements: [owner],
    transaction,
  });
}
