/** Owners, their sessions, the tries that are counted, and what shut-out devices had not sent. */
import type { Migration } from '../migration';

export const accounts: Migration = {
  name: '0005-accounts',
  statements: [
    `CREATE TABLE IF NOT EXISTS access_owners (
      owner CHAR(36) NOT NULL,
      business CHAR(36) NOT NULL,
      email VARCHAR(254) NOT NULL,
      password VARCHAR(200) NOT NULL,
      made VARCHAR(30) NOT NULL,
      PRIMARY KEY (owner),
      UNIQUE KEY by_email (email),
      KEY by_business (business)
    )`,
    `CREATE TABLE IF NOT EXISTS access_sessions (
      token CHAR(64) NOT NULL,
      id CHAR(36) NOT NULL,
      owner CHAR(36) NOT NULL,
      business CHAR(36) NOT NULL,
      made VARCHAR(30) NOT NULL,
      seen VARCHAR(30) NOT NULL,
      expires VARCHAR(30) NOT NULL,
      agent VARCHAR(200) NOT NULL,
      PRIMARY KEY (token),
      KEY by_owner (owner, id)
    )`,
    `CREATE TABLE IF NOT EXISTS access_tries (
      \`key\` VARCHAR(255) NOT NULL,
      points INT NOT NULL DEFAULT 0,
      expire BIGINT NULL,
      PRIMARY KEY (\`key\`)
    )`,
    `CREATE TABLE IF NOT EXISTS access_unsent (
      business CHAR(36) NOT NULL,
      device CHAR(36) NOT NULL,
      seq INT NOT NULL,
      entry LONGTEXT NOT NULL,
      PRIMARY KEY (business, device, seq)
    )`,
    `ALTER TABLE access_devices
      ADD COLUMN IF NOT EXISTS shutOutAt VARCHAR(30) NULL,
      ADD COLUMN IF NOT EXISTS copySeenAt VARCHAR(30) NULL`,
  ],
};
