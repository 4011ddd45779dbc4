/** What acquirers call cards has been moved to `cards_on_file`: the books hold none of it any more. */
import type { Migration } from '../migration';

export const tokensMoved: Migration = {
  name: '0015-tokens-moved',
  statements: [
    'ALTER TABLE books_customers DROP COLUMN IF EXISTS `cardToken`',
    'DROP TABLE IF EXISTS cards_forgotten',
  ],
};
