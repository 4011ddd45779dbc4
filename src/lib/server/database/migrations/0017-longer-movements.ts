/** A movement of a thousand goods and more: the last of them has a longer name than the first. */
import type { Migration } from '../migration';

export const longerMovements: Migration = {
  name: '0017-longer-movements',
  statements: ['ALTER TABLE books_movements MODIFY `id` VARCHAR(44) NOT NULL'],
};
