/** Cash in between: what was moved between drawers and the safe, what came late, and what becomes of counted cash. */
import type { Migration } from '../migration';

export const cashBetween: Migration = {
  name: '0026-cash-between',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_cash_moves (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`from\` VARCHAR(50) NOT NULL DEFAULT '',
      \`to\` VARCHAR(50) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`what\` VARCHAR(120) NOT NULL DEFAULT '',
      \`bag\` VARCHAR(40) NOT NULL DEFAULT '',
      \`counts\` JSON NOT NULL DEFAULT '[]',
      \`photo\` JSON NOT NULL DEFAULT 'null',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`),
      KEY by_from (business, \`from\`),
      KEY by_to (business, \`to\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_drawer_lates (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`drawer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`reason\` VARCHAR(500) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_drawer (business, \`drawer\`),
      KEY by_event (business, \`event\`)
    )`,
    `ALTER TABLE books_drawer_reads
      ADD COLUMN IF NOT EXISTS \`stays\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`bag\` JSON NOT NULL DEFAULT 'null',
      ADD COLUMN IF NOT EXISTS \`first\` BIGINT NULL`,
    `ALTER TABLE books_drawer_sums
      ADD COLUMN IF NOT EXISTS \`movedIn\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`movedOut\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`late\` BIGINT NOT NULL DEFAULT 0`,
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`isBlind\` TINYINT(1) NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`recountAbove\` BIGINT NULL,
      ADD COLUMN IF NOT EXISTS \`cashStamp\` VARCHAR(60) NOT NULL DEFAULT ''`,
  ],
};
