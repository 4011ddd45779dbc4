/** Invoices and credit notes, the numbers that were given to them, and those that are to be sent. */
import type { Migration } from '../migration';

export const invoices: Migration = {
  name: '0039-invoices',
  statements: [
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`invoicing\` JSON NOT NULL DEFAULT 'null',
      ADD COLUMN IF NOT EXISTS \`invoicingStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`reminders\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`remindersStamp\` VARCHAR(60) NOT NULL DEFAULT ''`,
    "ALTER TABLE books_held_moves MODIFY COLUMN `docIs` VARCHAR(7) NOT NULL DEFAULT ''",
    `CREATE TABLE IF NOT EXISTS books_invoices (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`sort\` VARCHAR(7) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`credits\` VARCHAR(40) NULL,
      \`sourceIs\` VARCHAR(6) NOT NULL DEFAULT '',
      \`source\` VARCHAR(40) NULL,
      \`sourceNumber\` VARCHAR(40) NOT NULL DEFAULT '',
      \`issued\` VARCHAR(10) NOT NULL DEFAULT '',
      \`due\` VARCHAR(10) NOT NULL DEFAULT '',
      \`vendor\` JSON NOT NULL DEFAULT 'null',
      \`foot\` VARCHAR(500) NOT NULL DEFAULT '',
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`lines\` JSON NOT NULL DEFAULT '[]',
      \`taxes\` JSON NOT NULL DEFAULT '[]',
      \`total\` BIGINT NOT NULL DEFAULT 0,
      \`paid\` BIGINT NOT NULL DEFAULT 0,
      \`buyer\` JSON NOT NULL DEFAULT 'null',
      \`takes\` JSON NOT NULL DEFAULT 'null',
      PRIMARY KEY (business, \`id\`),
      KEY by_customer (business, \`customer\`),
      KEY by_source (business, \`source\`),
      KEY by_credits (business, \`credits\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_invoice_numbers (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`series\` VARCHAR(20) NOT NULL DEFAULT '',
      \`n\` BIGINT NOT NULL DEFAULT 0,
      \`number\` VARCHAR(30) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_reminders (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`invoice\` VARCHAR(40) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`step\` BIGINT NOT NULL DEFAULT 0,
      \`days\` BIGINT NOT NULL DEFAULT 0,
      \`subject\` VARCHAR(120) NOT NULL DEFAULT '',
      \`text\` VARCHAR(2000) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_invoice (business, \`invoice\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_invoice_asks (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`invoice\` VARCHAR(40) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    // Given once: the books can be worked out again, these cannot.
    `CREATE TABLE IF NOT EXISTS invoice_numbers (
      business CHAR(36) NOT NULL,
      series VARCHAR(20) NOT NULL,
      n BIGINT NOT NULL,
      invoice CHAR(36) NOT NULL,
      number VARCHAR(30) NOT NULL,
      PRIMARY KEY (business, series, n),
      UNIQUE KEY by_invoice (business, invoice)
    )`,
    // By which the server knows numbers again that it gave before it was set back to an earlier day.
    `CREATE TABLE IF NOT EXISTS invoice_secrets (
      business CHAR(36) NOT NULL PRIMARY KEY,
      secret CHAR(64) NOT NULL
    )`,
  ],
};
