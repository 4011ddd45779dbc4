import type { Database } from '../../src/lib/server/database/database';
import { select } from '../../src/lib/server/database/select';

/** The columns of a table that can be written: what is worked out from others works itself out. */
export async function columnsOf(
  database: Pick<Database, 'sequelize'>,
  table: string,
): Promise<string[]> {
  const all = await select<{ Field: string; Extra: string }>(
    database,
    `SHOW COLUMNS FROM ${table}`,
    [],
  );
  return all.flatMap(({ Field, Extra }) => (Extra.includes('GENERATED') ? [] : Field));
}
