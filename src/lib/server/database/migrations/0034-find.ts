/** Find among years of sales: by what was sold, by what was paid and by who sold. */
import type { Migration } from '../migration';

export const find: Migration = {
  name: '0034-find',
  statements: [
    "ALTER TABLE books_sale_lines ADD COLUMN IF NOT EXISTS `called` VARCHAR(200) COLLATE utf8mb4_bin AS (CONCAT(`name`, ' ', `detail`)) VIRTUAL",
    'ALTER TABLE books_sale_lines ADD KEY IF NOT EXISTS by_called (business, `called`, `sale`)',
    // What goods are called is little beside all that was sold.
    `CREATE TABLE IF NOT EXISTS find_names (
      business CHAR(36) NOT NULL,
      called VARCHAR(200) COLLATE utf8mb4_bin NOT NULL,
      PRIMARY KEY (business, called)
    )`,
    'INSERT IGNORE INTO find_names (business, called) SELECT DISTINCT business, called FROM books_sale_lines',
    // The key of the table begins with the same.
    'ALTER TABLE books_sale_lines DROP KEY IF EXISTS by_sale',
    'ALTER TABLE books_sales ADD COLUMN IF NOT EXISTS `paid` BIGINT AS (`total` + `uplift`) VIRTUAL',
    'ALTER TABLE books_sales ADD KEY IF NOT EXISTS by_paid (business, `paid`)',
    'ALTER TABLE books_sales ADD KEY IF NOT EXISTS by_seller (business, `by`)',
  ],
};
