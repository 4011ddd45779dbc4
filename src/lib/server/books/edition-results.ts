/** What the editions before an event left, each worked out as its own settling page has it. */
import type { EditionResult } from '../../core/settle/editions';
import { settlingOf } from '../../core/settle/settling';
import type { Database } from '../database/database';
import type { BookReader } from './read-books';
import { settlingRows } from './settling-rows';

/** @param now Milliseconds since 1970. @returns The latest first; null for an event that there is not. */
export async function editionResults(
  database: Database,
  books: BookReader,
  business: string,
  event: string,
  now: number,
): Promise<EditionResult[] | null> {
  const rows = await settlingRows(database, books, business, event, now);
  if (rows === null) return null;
  const results: EditionResult[] = [];
  // One after the other: five at once would hold up the counters' pushes.
  for (const { id } of rows.before) {
    const edition = await settlingRows(database, books, business, id, now);
    if (edition === null) continue;
    const { result, settled } = settlingOf(edition);
    results.push({ id, left: result.left, perHour: result.perHour, isSettled: settled !== null });
  }
  return results;
}
