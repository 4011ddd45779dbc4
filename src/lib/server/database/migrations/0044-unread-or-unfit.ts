/** What could not be applied was of one state; what cannot be read, and what does not fit, are two. */
import type { Migration } from '../migration';

export const unreadOrUnfit: Migration = {
  name: '0044-unread-or-unfit',
  statements: [
    `UPDATE daybook_entries
      SET state = IF(JSON_VALID(fault) AND JSON_VALUE(fault, '$.code') = 'body/unfit', 'unfit', 'unread')
      WHERE state = 'kept'`,
  ],
};
