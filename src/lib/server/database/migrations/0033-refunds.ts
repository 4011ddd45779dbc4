/** Money given back without a sale, and how much of that a person may on a day. */
import type { Migration } from '../migration';

export const refunds: Migration = {
  name: '0033-refunds',
  statements: [
    'ALTER TABLE books_businesses ADD COLUMN IF NOT EXISTS `refundMost` BIGINT NULL',
    `CREATE TABLE IF NOT EXISTS books_refunds (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`number\` VARCHAR(20) NOT NULL DEFAULT '',
      \`saleNumber\` VARCHAR(20) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`hour\` BIGINT NOT NULL DEFAULT 0,
      \`place\` VARCHAR(40) NOT NULL DEFAULT '',
      \`lines\` JSON NOT NULL DEFAULT '[]',
      \`taxes\` JSON NOT NULL DEFAULT '[]',
      \`money\` JSON NOT NULL DEFAULT '{}',
      \`way\` VARCHAR(40) NOT NULL DEFAULT '',
      \`drawer\` VARCHAR(40) NULL,
      \`total\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`),
      KEY by_number (business, \`number\`),
      KEY by_sale_number (business, \`saleNumber\`),
      KEY by_day (business, \`day\`)
    )`,
  ],
};
