/** Who may use the daybook: devices, and the codes that enrol them. */
import type { Migration } from '../migration';

export const access: Migration = {
  name: '0002-access',
  statements: [
    `CREATE TABLE IF NOT EXISTS access_devices (
      business CHAR(36) NOT NULL,
      device CHAR(36) NOT NULL,
      number INT NOT NULL,
      token CHAR(64) NOT NULL,
      code CHAR(64) NOT NULL,
      isShutOut TINYINT(1) NOT NULL DEFAULT 0,
      seq INT NOT NULL DEFAULT 0,
      hash CHAR(64) NOT NULL,
      stamp VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, device),
      UNIQUE KEY by_device (device),
      UNIQUE KEY by_number (business, number),
      UNIQUE KEY by_token (token)
    )`,
    `CREATE TABLE IF NOT EXISTS access_codes (
      code CHAR(64) NOT NULL,
      business CHAR(36) NOT NULL,
      expires VARCHAR(30) NOT NULL,
      usedBy CHAR(36) NULL,
      PRIMARY KEY (code)
    )`,
  ],
};
