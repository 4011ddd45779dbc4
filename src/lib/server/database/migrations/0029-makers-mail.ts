/** Where a maker's statements go. */
import type { Migration } from '../migration';

export const makersMail: Migration = {
  name: '0029-makers-mail',
  statements: [
    `ALTER TABLE books_makers
      ADD COLUMN IF NOT EXISTS \`email\` VARCHAR(120) NOT NULL DEFAULT ''`,
  ],
};
