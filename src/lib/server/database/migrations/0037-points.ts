/** Points and rewards: how they are set up, what each customer has, what paid by them lowers, and what went back as such. */
import type { Migration } from '../migration';

export const points: Migration = {
  name: '0037-points',
  statements: [
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`pointsRule\` JSON NOT NULL DEFAULT 'null',
      ADD COLUMN IF NOT EXISTS \`pointsStamp\` VARCHAR(60) NOT NULL DEFAULT ''`,
    "ALTER TABLE books_payments ADD COLUMN IF NOT EXISTS `promotion` JSON NOT NULL DEFAULT 'null'",
    "ALTER TABLE books_sales ADD COLUMN IF NOT EXISTS `earned` JSON NOT NULL DEFAULT 'null'",
    `ALTER TABLE books_sale_lines
      ADD COLUMN IF NOT EXISTS \`points\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`toward\` JSON NOT NULL DEFAULT '{}'`,
    "ALTER TABLE books_returns ADD COLUMN IF NOT EXISTS `promotions` JSON NOT NULL DEFAULT '[]'",
    `CREATE TABLE IF NOT EXISTS books_rewards (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`spend\` BIGINT NOT NULL DEFAULT 0,
      \`value\` BIGINT NOT NULL DEFAULT 0,
      \`from\` VARCHAR(10) NOT NULL DEFAULT '',
      \`until\` VARCHAR(10) NOT NULL DEFAULT '',
      \`categories\` JSON NOT NULL DEFAULT '[]',
      \`isActive\` BOOLEAN NOT NULL DEFAULT FALSE,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_point_sums (
      business CHAR(36) NOT NULL,
      \`account\` VARCHAR(60) NOT NULL,
      \`item\` VARCHAR(40) NOT NULL,
      \`quantity\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`account\`, \`item\`),
      KEY by_account (business, \`account\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_point_states (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`movedStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
  ],
};
