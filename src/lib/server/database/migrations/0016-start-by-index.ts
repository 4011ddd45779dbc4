/** Where a new device starts is looked up, however much lies behind it: what is open, there, or of an event. */
import type { Migration } from '../migration';

export const startByIndex: Migration = {
  name: '0016-start-by-index',
  statements: [
    'ALTER TABLE books_acts ADD KEY IF NOT EXISTS by_event (business, `event`, `at`)',
    'ALTER TABLE books_receipt_asks ADD KEY IF NOT EXISTS by_event (business, `event`, `at`)',
    'ALTER TABLE books_stock ADD KEY IF NOT EXISTS by_quantity (business, `quantity`)',
    'ALTER TABLE books_slips ADD KEY IF NOT EXISTS by_state (business, `state`)',
    'ALTER TABLE books_card_payments ADD KEY IF NOT EXISTS by_given_back (business, `isReversed`)',
  ],
};
