/** Orders of customers: quotes, goods that are kept, orders to collect; how long vouchers last. */
import type { Migration } from '../migration';

export const orders: Migration = {
  name: '0036-orders',
  statements: [
    'ALTER TABLE books_ways ADD COLUMN IF NOT EXISTS `lasts` BIGINT NOT NULL DEFAULT 0',
    "ALTER TABLE books_sale_lines ADD COLUMN IF NOT EXISTS `ordered` JSON NOT NULL DEFAULT 'null'",
    "ALTER TABLE books_slips ADD COLUMN IF NOT EXISTS `handsOver` JSON NOT NULL DEFAULT 'null'",
    `CREATE TABLE IF NOT EXISTS books_orders (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`number\` VARCHAR(40) NOT NULL DEFAULT '',
      \`source\` VARCHAR(40) NOT NULL DEFAULT '',
      \`customer\` VARCHAR(40) NOT NULL DEFAULT '',
      \`lines\` JSON NOT NULL DEFAULT '[]',
      \`standingName\` VARCHAR(80) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`sort\` VARCHAR(8) NOT NULL DEFAULT '',
      \`deposit\` BIGINT NOT NULL DEFAULT 0,
      \`collectAt\` VARCHAR(40) NULL,
      \`place\` VARCHAR(40) NULL,
      \`until\` VARCHAR(10) NOT NULL DEFAULT '',
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`termsStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`stage\` VARCHAR(8) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      \`stageStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_customer (business, \`customer\`),
      KEY by_collect_at (business, \`collectAt\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_order_sums (
      business CHAR(36) NOT NULL,
      \`order\` VARCHAR(40) NOT NULL,
      \`line\` VARCHAR(40) NOT NULL,
      \`handed\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`order\`, \`line\`),
      KEY by_order (business, \`order\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_orders_paid (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`order\` VARCHAR(40) NOT NULL DEFAULT '',
      \`way\` VARCHAR(40) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`reference\` VARCHAR(80) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_order (business, \`order\`)
    )`,
  ],
};
