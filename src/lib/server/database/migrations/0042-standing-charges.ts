/** Standing charges, what became of their cards, and the daybooks in which the server writes what it makes itself. */
import type { Migration } from '../migration';

export const standingCharges: Migration = {
  name: '0042-standing-charges',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_charges (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`lines\` JSON NOT NULL DEFAULT '[]',
      \`unit\` VARCHAR(5) NOT NULL DEFAULT '',
      \`every\` BIGINT NOT NULL DEFAULT 0,
      \`from\` VARCHAR(10) NOT NULL DEFAULT '',
      \`notBefore\` VARCHAR(10) NOT NULL DEFAULT '',
      \`until\` VARCHAR(10) NULL,
      \`country\` VARCHAR(2) NOT NULL DEFAULT '',
      \`way\` VARCHAR(40) NULL,
      \`consent\` VARCHAR(8) NULL,
      \`isMailed\` TINYINT(1) NOT NULL DEFAULT 0,
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`reference\` VARCHAR(40) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`upTo\` VARCHAR(10) NOT NULL DEFAULT '',
      \`madeStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_customer (business, \`customer\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_charge_cards (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`is\` VARCHAR(6) NOT NULL DEFAULT '',
      \`invoice\` VARCHAR(40) NOT NULL DEFAULT '',
      \`charge\` VARCHAR(40) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`payment\` VARCHAR(40) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`why\` VARCHAR(12) NOT NULL DEFAULT '',
      \`says\` VARCHAR(120) NOT NULL DEFAULT '',
      \`last4\` VARCHAR(4) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_invoice (business, \`invoice\`),
      KEY by_charge (business, \`charge\`)
    )`,
    // When each is looked at next, milliseconds since 1970; none for those that have ended.
    `CREATE TABLE IF NOT EXISTS charges_due (
      business CHAR(36) NOT NULL,
      charge CHAR(36) NOT NULL,
      dueAt BIGINT NOT NULL,
      PRIMARY KEY (business, charge),
      KEY by_due (dueAt)
    )`,
    // Cards that are to be charged; an attempt is the entry that asks for it, or nothing for the first.
    `CREATE TABLE IF NOT EXISTS charge_cards_due (
      business CHAR(36) NOT NULL,
      invoice CHAR(36) NOT NULL,
      attempt VARCHAR(36) NOT NULL DEFAULT '',
      dueAt BIGINT NOT NULL,
      tries INT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, invoice, attempt),
      KEY by_due (dueAt)
    )`,
    // How far the server's own daybooks are: one of each business for each time that it was started.
    `CREATE TABLE IF NOT EXISTS daybook_own (
      business CHAR(36) NOT NULL,
      device CHAR(36) NOT NULL,
      seq INT NOT NULL,
      hash CHAR(64) NOT NULL,
      stamp VARCHAR(60) NOT NULL,
      PRIMARY KEY (business, device)
    )`,
  ],
};
