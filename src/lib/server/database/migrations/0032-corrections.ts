/** What had been booked wrongly of sales. */
import type { Migration } from '../migration';

export const corrections: Migration = {
  name: '0032-corrections',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_corrections (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`stamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`sale\` VARCHAR(40) NOT NULL DEFAULT '',
      \`saleNumber\` VARCHAR(20) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      \`fix\` JSON NOT NULL DEFAULT '{}',
      PRIMARY KEY (business, \`id\`),
      KEY by_sale (business, \`sale\`),
      KEY by_event (business, \`event\`)
    )`,
  ],
};
