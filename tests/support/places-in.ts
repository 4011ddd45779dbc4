/** Looking through a whole database for what must not be in it. */
import type { Database } from '../../src/lib/server/database/database';
import { select } from '../../src/lib/server/database/select';

/** Every column of every table that holds `word`, as `table.column`. */
export async function placesIn(database: Database, word: string): Promise<string[]> {
  const columns = await select<{ name: string; field: string }>(
    database,
    'SELECT TABLE_NAME AS name, COLUMN_NAME AS field FROM information_schema.COLUMNS ' +
      'WHERE TABLE_SCHEMA = DATABASE()',
    [],
  );
  const places: string[] = [];
  for (const { name, field } of columns) {
    const found = await select(
      database,
      `SELECT 1 FROM \`${name}\` WHERE CONVERT(\`${field}\` USING utf8mb4) LIKE ? LIMIT 1`,
      [`%${word}%`],
    );
    if (found.length > 0) places.push(`${name}.${field}`);
  }
  return places;
}
