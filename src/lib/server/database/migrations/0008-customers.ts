/** Customers and what they agreed to, how loose ends were settled, what a device is given. */
import type { Migration } from '../migration';

export const customers: Migration = {
  name: '0008-customers',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_customers (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`discount\` VARCHAR(12) NOT NULL DEFAULT '',
      \`terms\` BIGINT NOT NULL DEFAULT 0,
      \`creditLimit\` BIGINT NULL,
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`email\` VARCHAR(254) NOT NULL DEFAULT '',
      \`phone\` VARCHAR(40) NOT NULL DEFAULT '',
      \`company\` VARCHAR(80) NOT NULL DEFAULT '',
      \`address\` VARCHAR(300) NOT NULL DEFAULT '',
      \`taxNumber\` VARCHAR(40) NOT NULL DEFAULT '',
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`isErased\` TINYINT(1) NOT NULL DEFAULT 0,
      \`whoStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`mayKeep\` TINYINT(1) NOT NULL DEFAULT 0,
      \`consentStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_consents (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`isGiven\` TINYINT(1) NOT NULL DEFAULT 0,
      \`way\` VARCHAR(10) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_customer (business, \`customer\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_settlements (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`looseEnd\` VARCHAR(80) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`how\` VARCHAR(10) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(500) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_looseEnd (business, \`looseEnd\`)
    )`,
    `ALTER TABLE books_devices
      ADD COLUMN IF NOT EXISTS \`event\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`drawer\` VARCHAR(40) NULL`,
  ],
};
