/** Another password, and the end of all that the one before had opened. */
import type { Transaction } from 'sequelize';
import type { Database } from '../database/database';

export interface SettingPassword {
  /** Somebody else may have added one: whoever sets a new password can have all of them removed. */
  readonly removePasskeys: boolean;
  readonly transaction: Transaction;
}

/**
 * Links that were asked for and browsers that are known go; sessions are the caller's to end, since one
 * of them may be asking.
 * @param password Hashed.
 */
export async function setPassword(
  { sequelize }: Pick<Database, 'sequelize'>,
  owner: string,
  password: string,
  { removePasskeys, transaction }: SettingPassword,
): Promise<void> {
  await sequelize.query('UPDATE access_owners SET password = ? WHERE owner = ?', {
    replacements: [password, owner],
    transaction,
  });
  const ended = ['access_resets', 'access_known', ...(removePasskeys ? ['access_passkeys'] : [])];
  for (const table of ended) {
    await sequelize.query(`DELETE FROM ${table} WHERE owner = ?`, {
      replacements: [owner],
      transaction,
    });
  }
}
