/** A sale is looked up by its number, however many there are. */
import type { Migration } from '../migration';

export const salesByNumber: Migration = {
  name: '0023-sales-by-number',
  statements: ['ALTER TABLE books_sales ADD KEY IF NOT EXISTS by_number (business, `number`)'],
};
