/** Vouchers for goods of one tax: which tax, and what of it each was sold with. */
import type { Migration } from '../migration';

export const vouchersForOnePurpose: Migration = {
  name: '0041-vouchers-for-one-purpose',
  statements: [
    "ALTER TABLE books_ways ADD COLUMN IF NOT EXISTS `purpose` VARCHAR(40) NOT NULL DEFAULT ''",
    "ALTER TABLE books_vouchers ADD COLUMN IF NOT EXISTS `kept` JSON NOT NULL DEFAULT 'null'",
    "ALTER TABLE books_sale_lines ADD COLUMN IF NOT EXISTS `kept` JSON NOT NULL DEFAULT 'null'",
  ],
};
