/** Codes of cards that customers are known by, and debts that were chosen to be paid. */
import type { Migration } from '../migration';

export const customerMatters: Migration = {
  name: '0038-customer-matters',
  statements: [
    `ALTER TABLE books_customers
      ADD COLUMN IF NOT EXISTS \`code\` VARCHAR(40) NOT NULL DEFAULT '',
      ADD KEY IF NOT EXISTS by_code (business, \`code\`)`,
    'ALTER TABLE books_held_moves ADD COLUMN IF NOT EXISTS `pays` VARCHAR(40) NULL',
  ],
};
