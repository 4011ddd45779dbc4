/** Links by which an owner who forgot the password sets another one. */
import type { Migration } from '../migration';

export const resets: Migration = {
  name: '0006-resets',
  statements: [
    `CREATE TABLE IF NOT EXISTS access_resets (
      token CHAR(64) NOT NULL,
      owner CHAR(36) NOT NULL,
      expires VARCHAR(30) NOT NULL,
      PRIMARY KEY (token),
      KEY by_owner (owner)
    )`,
  ],
};
