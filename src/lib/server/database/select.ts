import { QueryTypes, type Transaction } from 'sequelize';
import type { Database } from './database';

/** Rows of a SELECT; each `?` stands for one value, or for a list of them. */
export async function select<Row extends object>(
  { sequelize }: Pick<Database, 'sequelize'>,
  sql: string,
  values: readonly unknown[],
  transaction?: Transaction,
): Promise<Row[]> {
  return await sequelize.query<Row>(sql, {
    replacements: [...values],
    type: QueryTypes.SELECT,
    ...(transaction === undefined ? {} : { transaction }),
  });
}
