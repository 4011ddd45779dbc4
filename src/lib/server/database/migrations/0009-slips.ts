/** What a slip can hold, slips kept for later, variants and extras, makers, pictures. */
import type { Migration } from '../migration';

export const slips: Migration = {
  name: '0009-slips',
  statements: [
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`typedSide\` VARCHAR(4) NOT NULL DEFAULT 'cash',
      ADD COLUMN IF NOT EXISTS \`uplift\` VARCHAR(12) NOT NULL DEFAULT '0',
      ADD COLUMN IF NOT EXISTS \`groups\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`service\` JSON NOT NULL DEFAULT 'null'`,
    `ALTER TABLE books_items
      ADD COLUMN IF NOT EXISTS \`description\` VARCHAR(500) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`otherPrice\` BIGINT NULL,
      ADD COLUMN IF NOT EXISTS \`isOpenPrice\` TINYINT(1) NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`isTimed\` TINYINT(1) NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`reorder\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`variantOf\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`values\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`choices\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`extras\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`maker\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`commodityCode\` VARCHAR(20) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`isReturnable\` TINYINT(1) NOT NULL DEFAULT 1,
      ADD COLUMN IF NOT EXISTS \`earnsPoints\` TINYINT(1) NOT NULL DEFAULT 1`,
    `ALTER TABLE books_tables
      ADD COLUMN IF NOT EXISTS \`event\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`size\` VARCHAR(6) NOT NULL DEFAULT 'middle'`,
    `ALTER TABLE books_events
      ADD COLUMN IF NOT EXISTS \`swaps\` JSON NOT NULL DEFAULT '[]'`,
    `ALTER TABLE books_sales
      ADD COLUMN IF NOT EXISTS \`customer\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`standingName\` VARCHAR(80) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`service\` BIGINT NOT NULL DEFAULT 0`,
    `ALTER TABLE books_sale_lines
      ADD COLUMN IF NOT EXISTS \`extras\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`listPrice\` BIGINT NULL,
      ADD COLUMN IF NOT EXISTS \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`note\` VARCHAR(200) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`seller\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`maker\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`tag\` VARCHAR(40) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`standing\` BIGINT NOT NULL DEFAULT 0`,
    `CREATE TABLE IF NOT EXISTS books_makers (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`number\` BIGINT NOT NULL DEFAULT 0,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`commission\` VARCHAR(12) NOT NULL DEFAULT '',
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_photos (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`picture\` JSON NOT NULL DEFAULT 'null',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_slips (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`sort\` VARCHAR(5) NOT NULL DEFAULT '',
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NULL,
      \`group\` JSON NOT NULL DEFAULT 'null',
      \`discount\` JSON NOT NULL DEFAULT 'null',
      \`service\` JSON NOT NULL DEFAULT 'null',
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`state\` VARCHAR(5) NOT NULL DEFAULT '',
      \`device\` VARCHAR(40) NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`stateStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_slip_lines (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`slip\` VARCHAR(40) NOT NULL DEFAULT '',
      \`person\` VARCHAR(40) NOT NULL DEFAULT '',
      \`line\` JSON NOT NULL DEFAULT 'null',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_slip (business, \`slip\`)
    )`,
  ],
};
