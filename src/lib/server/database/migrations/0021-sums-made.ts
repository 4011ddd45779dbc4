/** Which sums the books have been worked out for, as they were declared then. */
import { FIRST_SUMS } from '../../../core/journal/new-sums';
import type { Migration } from '../migration';

export const sumsMade: Migration = {
  name: '0021-sums-made',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_sums_made (
      name VARCHAR(40) NOT NULL PRIMARY KEY,
      digest CHAR(64) NOT NULL
    )`,
    ...Object.entries(FIRST_SUMS).map(
      ([name, digest]) =>
        `INSERT IGNORE INTO books_sums_made (name, digest) VALUES ('${name}', '${digest}')`,
    ),
  ],
};
