/** Records of customers that are of one person. */
import type { Migration } from '../migration';

export const joinedCustomers: Migration = {
  name: '0040-joined-customers',
  statements: [
    `ALTER TABLE books_customers
      ADD COLUMN IF NOT EXISTS \`joinedInto\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`joinedStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      ADD KEY IF NOT EXISTS by_joined_into (business, \`joinedInto\`)`,
  ],
};
