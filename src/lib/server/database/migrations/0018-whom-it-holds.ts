/** Whose personal data an entry holds stands beside it: forgetting somebody looks at those alone. */
import type { Migration } from '../migration';

export const whomItHolds: Migration = {
  name: '0018-whom-it-holds',
  statements: [
    `ALTER TABLE daybook_entries
      ADD COLUMN IF NOT EXISTS person CHAR(36) NULL,
      ADD KEY IF NOT EXISTS by_person (business, person)`,
    `UPDATE daybook_entries SET person =
        JSON_VALUE(entry, IF(kind = 'customer.set', '$.body.id', '$.body.customer'))
      WHERE kind IN ('customer.set', 'customer.card', 'payment.taken', 'receipt.asked')
        AND JSON_EXISTS(entry, '$.private')`,
  ],
};
