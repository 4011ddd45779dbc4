/** What people may do: rights, PINs, the lock; and finding the entries of one kind. */
import type { Migration } from '../migration';

export const people: Migration = {
  name: '0004-people',
  statements: [
    `ALTER TABLE books_staff
      ADD COLUMN IF NOT EXISTS \`rights\` JSON NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS \`discountUpTo\` VARCHAR(12) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`pin\` JSON NOT NULL DEFAULT 'null'`,
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`lockAfter\` BIGINT NOT NULL DEFAULT 0`,
    `CREATE TABLE IF NOT EXISTS books_acts (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`lentBy\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`what\` VARCHAR(20) NOT NULL DEFAULT '',
      \`about\` VARCHAR(120) NOT NULL DEFAULT '',
      \`amount\` BIGINT NULL,
      PRIMARY KEY (business, \`id\`),
      KEY by_by (business, \`by\`),
      KEY by_at (business, \`at\`)
    )`,
    `ALTER TABLE daybook_entries ADD INDEX IF NOT EXISTS by_kind (business, kind, position)`,
  ],
};
