/** What whoever ended a kept slip knew of its lines: what others put on it out of touch is found by it. */
import type { Migration } from '../migration';

export const leftOnSlips: Migration = {
  name: '0019-left-on-slips',
  statements: [
    "ALTER TABLE books_slips ADD COLUMN IF NOT EXISTS `known` JSON NOT NULL DEFAULT 'null'",
  ],
};
