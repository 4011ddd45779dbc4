/** Rows of a table whose key begins with one value: all stock of a place, all that was done for a list. */
import Dexie, { type Collection, type Table } from 'dexie';

/**
 * Asked by the key itself. What follows a query by another index is told of each row that it found, one by one, and with
 * thousands of them that takes longer than reading them; a stretch of keys is one thing.
 * @param table Its key is made of several fields, `first` being of the first of them.
 */
export const underKey = <T>(table: Table<T>, first: string): Collection<T> =>
  table.where(':id').between([first, Dexie.minKey], [first, Dexie.maxKey]) as Collection<T>;
