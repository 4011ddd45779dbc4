/** Categories, ways to pay, tips, parts that were given back, what cards pay above the cash price. */
import type { Migration } from '../migration';

export const waysToPay: Migration = {
  name: '0010-ways-to-pay',
  statements: [
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`tips\` JSON NOT NULL DEFAULT 'null'`,
    `ALTER TABLE books_events
      ADD COLUMN IF NOT EXISTS \`ways\` JSON NOT NULL DEFAULT 'null'`,
    `ALTER TABLE books_drawer_sums
      ADD COLUMN IF NOT EXISTS \`back\` BIGINT NOT NULL DEFAULT 0`,
    `ALTER TABLE books_sales
      ADD COLUMN IF NOT EXISTS \`uplift\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`isUpliftWaived\` TINYINT(1) NOT NULL DEFAULT 0`,
    `ALTER TABLE books_payments
      MODIFY COLUMN \`drawer\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`wayName\` VARCHAR(80) NOT NULL DEFAULT 'Cash',
      ADD COLUMN IF NOT EXISTS \`method\` VARCHAR(10) NOT NULL DEFAULT 'cash',
      ADD COLUMN IF NOT EXISTS \`side\` VARCHAR(4) NOT NULL DEFAULT 'cash',
      ADD COLUMN IF NOT EXISTS \`tip\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`reference\` VARCHAR(80) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`customer\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`share\` BIGINT NULL,
      ADD COLUMN IF NOT EXISTS \`card\` JSON NOT NULL DEFAULT 'null'`,
    `ALTER TABLE books_payments ADD INDEX IF NOT EXISTS by_slip (business, \`slip\`)`,
    `ALTER TABLE books_event_ways
      ADD COLUMN IF NOT EXISTS \`surcharge\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`tips\` BIGINT NOT NULL DEFAULT 0`,
    `CREATE TABLE IF NOT EXISTS books_categories (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`sort\` BIGINT NOT NULL DEFAULT 0,
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_ways (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`sort\` BIGINT NOT NULL DEFAULT 0,
      \`method\` VARCHAR(10) NOT NULL DEFAULT '',
      \`side\` VARCHAR(4) NOT NULL DEFAULT '',
      \`needsCustomer\` TINYINT(1) NOT NULL DEFAULT 0,
      \`reference\` VARCHAR(40) NOT NULL DEFAULT '',
      \`account\` VARCHAR(80) NOT NULL DEFAULT '',
      \`surchargeRate\` VARCHAR(12) NOT NULL DEFAULT '',
      \`surchargeFixed\` BIGINT NOT NULL DEFAULT 0,
      \`opensDrawer\` TINYINT(1) NOT NULL DEFAULT 0,
      \`givesChange\` TINYINT(1) NOT NULL DEFAULT 0,
      \`ledger\` VARCHAR(40) NOT NULL DEFAULT '',
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_reversals (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`payment\` VARCHAR(40) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`slip\` VARCHAR(40) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_payment (business, \`payment\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_event_tips (
      business CHAR(36) NOT NULL,
      \`event\` VARCHAR(40) NOT NULL,
      \`seller\` VARCHAR(40) NOT NULL,
      \`parts\` BIGINT NOT NULL DEFAULT 0,
      \`tips\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`event\`, \`seller\`),
      KEY by_event (business, \`event\`)
    )`,
  ],
};
