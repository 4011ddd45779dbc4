/** What comes back may pay for another slip, and slips that are kept have it on them. */
import type { Migration } from '../migration';

export const exchanges: Migration = {
  name: '0031-exchanges',
  statements: [
    'ALTER TABLE books_returns ADD COLUMN IF NOT EXISTS `forSlip` VARCHAR(40) NULL',
    'ALTER TABLE books_returns ADD KEY IF NOT EXISTS `by_forSlip` (business, `forSlip`)',
    "ALTER TABLE books_slips ADD COLUMN IF NOT EXISTS `back` JSON NOT NULL DEFAULT '[]'",
  ],
};
