/** Passkeys of owners, what they are asked to sign, and when a session last proved who it is. */
import type { Migration } from '../migration';

export const passkeys: Migration = {
  name: '0007-passkeys',
  statements: [
    // A credential's id has at most 1023 bytes, which is 1364 characters of base64url.
    `CREATE TABLE IF NOT EXISTS access_passkeys (
      credential VARCHAR(1364) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      id CHAR(36) NOT NULL,
      owner CHAR(36) NOT NULL,
      publicKey TEXT NOT NULL,
      counter BIGINT NOT NULL,
      transports VARCHAR(200) NOT NULL,
      name VARCHAR(80) NOT NULL,
      made VARCHAR(30) NOT NULL,
      seen VARCHAR(30) NULL,
      PRIMARY KEY (credential),
      KEY by_owner (owner, id)
    )`,
    `CREATE TABLE IF NOT EXISTS access_challenges (
      challenge CHAR(64) NOT NULL,
      owner CHAR(36) NULL,
      expires VARCHAR(30) NOT NULL,
      PRIMARY KEY (challenge),
      KEY by_expiry (expires)
    )`,
    `ALTER TABLE access_sessions
      ADD COLUMN IF NOT EXISTS proved VARCHAR(30) NOT NULL DEFAULT ''`,
  ],
};
