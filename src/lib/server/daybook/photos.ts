/** Pictures of goods that are sold, by item, a page at a time. */
import type { PhotosAnswer } from '../../core/daybook/sync-messages';
import { rowFrom } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';

const AT_ONCE = 10;

/** @param after The item of the last one; empty to begin with. */
export async function photosAfter(
  database: Pick<Database, 'sequelize'>,
  business: string,
  after: string,
): Promise<PhotosAnswer> {
  const rows = await select<Record<string, unknown>>(
    database,
    `SELECT p.* FROM books_photos p JOIN books_items i ON i.business = p.business AND i.id = p.id
      WHERE p.business = ? AND p.id > ? AND i.isActive = 1 ORDER BY p.id LIMIT ?`,
    [business, after, AT_ONCE],
  );
  const photos = rows.map((row) => rowFrom('photos', row));
  return { photos, next: photos.length < AT_ONCE ? null : photos.at(-1)!.id };
}
