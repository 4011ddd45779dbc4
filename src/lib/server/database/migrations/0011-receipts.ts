/** Receipts that somebody wants sent, what became of sending them, and sales that were voided. */
import type { Migration } from '../migration';

export const receipts: Migration = {
  name: '0011-receipts',
  statements: [
    `ALTER TABLE books_sales
      ADD COLUMN IF NOT EXISTS \`serviceTax\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`upliftTaxes\` JSON NOT NULL DEFAULT '{}',
      ADD COLUMN IF NOT EXISTS \`place\` VARCHAR(40) NOT NULL DEFAULT ''`,
    `ALTER TABLE books_sale_lines
      ADD COLUMN IF NOT EXISTS \`isStocked\` TINYINT(1) NOT NULL DEFAULT 0`,
    `CREATE TABLE IF NOT EXISTS books_voids (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`lentBy\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`sale\` VARCHAR(40) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_sale (business, \`sale\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_receipt_asks (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`sale\` VARCHAR(40) NOT NULL DEFAULT '',
      \`way\` VARCHAR(10) NOT NULL DEFAULT '',
      \`isGift\` TINYINT(1) NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`id\`),
      KEY by_sale (business, \`sale\`)
    )`,
    // Not of the books: what this server has done stays when the books are worked out anew.
    `CREATE TABLE IF NOT EXISTS receipts_sent (
      business CHAR(36) NOT NULL,
      id VARCHAR(40) NOT NULL,
      state VARCHAR(10) NOT NULL,
      tries INT NOT NULL,
      triedAt BIGINT NOT NULL,
      PRIMARY KEY (business, id)
    )`,
  ],
};
