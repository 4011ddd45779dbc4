/** Banks: accounts, lines of statements, what they are; what is handed in, what people are paid, who looks after what, and the ledger. */
import type { Migration } from '../migration';

const SAID = `\`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`device\` VARCHAR(40) NOT NULL DEFAULT ''`;

export const bank: Migration = {
  name: '0028-bank',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_bank_accounts (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`number\` VARCHAR(34) NOT NULL DEFAULT '',
      \`columns\` JSON NOT NULL DEFAULT 'null',
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_bank_lines (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`account\` VARCHAR(40) NOT NULL DEFAULT '',
      \`source\` VARCHAR(60) NOT NULL DEFAULT '',
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`reference\` VARCHAR(140) NOT NULL DEFAULT '',
      \`text\` VARCHAR(300) NOT NULL DEFAULT '',
      \`other\` VARCHAR(140) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_account (business, \`account\`),
      KEY by_day (business, \`day\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_bank_joins (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`line\` VARCHAR(40) NOT NULL DEFAULT '',
      \`money\` VARCHAR(40) NULL,
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`why\` VARCHAR(500) NOT NULL DEFAULT '',
      \`saidAt\` VARCHAR(30) NOT NULL DEFAULT '',
      \`saidBy\` VARCHAR(40) NULL,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_line (business, \`line\`),
      KEY by_money (business, \`money\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_money_undone (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`money\` VARCHAR(40) NOT NULL DEFAULT '',
      \`why\` VARCHAR(500) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_money (business, \`money\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_handed_in (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`way\` VARCHAR(40) NOT NULL DEFAULT '',
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`payments\` JSON NOT NULL DEFAULT '[]',
      \`what\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_staff_pay (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`wage\` BIGINT NOT NULL DEFAULT 0,
      \`commission\` VARCHAR(12) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_loose_end_hands (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`looseEnd\` VARCHAR(80) NOT NULL DEFAULT '',
      \`to\` VARCHAR(40) NULL,
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_ledger_charts (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`accounts\` JSON NOT NULL DEFAULT '[]',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_ledger_handed (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`stamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`groupedBy\` VARCHAR(10) NOT NULL DEFAULT '',
      \`heads\` JSON NOT NULL DEFAULT '[]',
      \`leftOut\` JSON NOT NULL DEFAULT '[]',
      \`postings\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `ALTER TABLE books_money_came
      ADD COLUMN IF NOT EXISTS \`payments\` JSON NOT NULL DEFAULT '[]',
      ADD KEY IF NOT EXISTS by_day (business, \`day\`)`,
  ],
};
