/** The daybook. Written once and never changed: later migrations change what it made. */
import type { Migration } from '../migration';

export const daybook: Migration = {
  name: '0001-daybook',
  statements: [
    `CREATE TABLE IF NOT EXISTS daybook_counters (
      business CHAR(36) NOT NULL,
      position BIGINT NOT NULL,
      PRIMARY KEY (business)
    )`,
    `CREATE TABLE IF NOT EXISTS daybook_entries (
      business CHAR(36) NOT NULL,
      position BIGINT NOT NULL,
      id CHAR(36) NOT NULL,
      device CHAR(36) NOT NULL,
      seq INT NOT NULL,
      kind VARCHAR(40) NOT NULL,
      event CHAR(36) NULL,
      stamp VARCHAR(60) NOT NULL,
      hash CHAR(64) NOT NULL,
      state VARCHAR(10) NOT NULL,
      fault VARCHAR(1000) NOT NULL,
      entry LONGTEXT NOT NULL,
      PRIMARY KEY (business, position),
      UNIQUE KEY by_id (business, id),
      UNIQUE KEY by_device (business, device, seq)
    )`,
  ],
};
