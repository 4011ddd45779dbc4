/** Accounts that somebody holds: what customers owe, their credit, vouchers. */
import type { Migration } from '../migration';

export const held: Migration = {
  name: '0035-held',
  statements: [
    'ALTER TABLE books_sale_lines ADD COLUMN IF NOT EXISTS `account` VARCHAR(60) NULL',
    'ALTER TABLE books_sales ADD COLUMN IF NOT EXISTS `paidIn` BIGINT NOT NULL DEFAULT 0',
    "ALTER TABLE books_sale_lines ADD COLUMN IF NOT EXISTS `until` VARCHAR(10) NOT NULL DEFAULT ''",
    "ALTER TABLE books_payments ADD COLUMN IF NOT EXISTS `held` JSON NOT NULL DEFAULT 'null'",
    'ALTER TABLE books_ways ADD COLUMN IF NOT EXISTS `offlineMost` BIGINT NULL',
    `CREATE TABLE IF NOT EXISTS books_event_paid_in (
      business CHAR(36) NOT NULL,
      \`event\` VARCHAR(40) NOT NULL,
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_held_sums (
      business CHAR(36) NOT NULL,
      \`account\` VARCHAR(60) NOT NULL,
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`account\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_held_moves (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(44) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`account\` VARCHAR(60) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`kind\` VARCHAR(24) NOT NULL DEFAULT '',
      \`doc\` VARCHAR(40) NOT NULL DEFAULT '',
      \`docIs\` VARCHAR(4) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_account (business, \`account\`),
      KEY by_at (business, \`at\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_vouchers (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(44) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`number\` VARCHAR(40) NOT NULL DEFAULT '',
      \`value\` BIGINT NOT NULL DEFAULT 0,
      \`until\` VARCHAR(10) NOT NULL DEFAULT '',
      \`sale\` VARCHAR(40) NULL,
      \`saleNumber\` VARCHAR(20) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NULL,
      PRIMARY KEY (business, \`id\`),
      KEY by_number (business, \`number\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_voucher_states (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`isBlocked\` TINYINT(1) NOT NULL DEFAULT 0,
      \`until\` VARCHAR(10) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
  ],
};
