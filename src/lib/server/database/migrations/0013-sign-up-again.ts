/**
 * Accounts are called by ids of their own, which no till knows; what a repeated sign-up proves itself
 * by; browsers that an owner has signed in on; addresses that were shown to be the owner's.
 */
import type { Migration } from '../migration';

const of = (table: string): string =>
  `UPDATE ${table} t JOIN access_owner_ids i ON i.was = t.owner SET t.owner = i.owner`;

export const signUpAgain: Migration = {
  name: '0013-sign-up-again',
  statements: [
    `CREATE TABLE IF NOT EXISTS access_owner_ids (
      was CHAR(36) NOT NULL,
      owner CHAR(36) NOT NULL,
      PRIMARY KEY (was)
    )`,
    // Each step can be done again: what was renamed before is not found under its old id.
    'INSERT IGNORE INTO access_owner_ids (was, owner) SELECT owner, UUID() FROM access_owners',
    of('access_sessions'),
    of('access_passkeys'),
    of('access_resets'),
    of('access_challenges'),
    of('access_owners'),
    'DROP TABLE IF EXISTS access_owner_ids',
    // Whoever was here before there was a word for it is taken at their word.
    `ALTER TABLE access_owners
      ADD COLUMN IF NOT EXISTS askedWith CHAR(64) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS verified VARCHAR(30) NULL`,
    "UPDATE access_owners SET verified = made WHERE verified IS NULL AND askedWith = ''",
    `CREATE TABLE IF NOT EXISTS access_known (
      token CHAR(64) NOT NULL,
      owner CHAR(36) NOT NULL,
      expires VARCHAR(30) NOT NULL,
      PRIMARY KEY (token),
      KEY by_owner (owner),
      KEY by_expiry (expires)
    )`,
    `CREATE TABLE IF NOT EXISTS access_verifications (
      token CHAR(64) NOT NULL,
      owner CHAR(36) NOT NULL,
      expires VARCHAR(30) NOT NULL,
      PRIMARY KEY (token),
      KEY by_owner (owner),
      KEY by_expiry (expires)
    )`,
    `ALTER TABLE access_tries ADD KEY IF NOT EXISTS by_expiry (expire)`,
    `ALTER TABLE access_sessions ADD KEY IF NOT EXISTS by_expiry (expires)`,
    `ALTER TABLE access_resets ADD KEY IF NOT EXISTS by_expiry (expires)`,
    `ALTER TABLE access_codes ADD KEY IF NOT EXISTS by_expiry (expires)`,
  ],
};
