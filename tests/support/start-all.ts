/** Where a new device starts, all pages together. */
import type { StartAnswer } from '../../src/lib/core/daybook/sync-messages';
import type { Database } from '../../src/lib/server/database/database';
import { cursorFrom, startPage } from '../../src/lib/server/daybook/start';

export async function startAll(
  database: Database,
  business: string,
  now: number,
): Promise<StartAnswer> {
  const rows: Record<string, Record<string, unknown>[]> = {};
  let page = await startPage(database, business, null, now);
  const { begins } = page;
  for (;;) {
    for (const [table, found] of Object.entries(page.rows)) (rows[table] ??= []).push(...found);
    if (page.next === null) break;
    page = await startPage(database, business, cursorFrom(page.next), now);
  }
  if (begins === undefined) throw new Error('the first page did not say where it begins');
  return { ...begins, rows };
}
