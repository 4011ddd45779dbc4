/** Reading the books. Every read of any row goes through here and is scoped by its business. */
import { Op, type Transaction, type WhereOptions } from 'sequelize';
import { tables, tableNames, type Row, type TableName } from '../../core/books/tables';
import type { Database } from '../database/database';
import { bookModels, rowFrom, type BookModels } from '../database/book-tables';

export class BookReader {
  readonly #models: BookModels;

  constructor(readonly database: Database) {
    this.#models = bookModels(database.sequelize);
  }

  /** Rows of one business, in order of their keys. */
  async rows<T extends TableName>(
    business: string,
    table: T,
    where: WhereOptions = {},
    transaction?: Transaction,
  ): Promise<Row<T>[]> {
    const found = await this.#models[table].findAll({
      where: { [Op.and]: [where, { business }] },
      order: tables[table].key.map((field): [string, string] => [field, 'ASC']),
      raw: true,
      ...(transaction === undefined ? {} : { transaction }),
    });
    return found.map((row) => rowFrom(table, row as unknown as Record<string, unknown>));
  }

  /** Whether any row of one business has something in a field. */
  async any<T extends TableName>(
    business: string,
    table: T,
    field: keyof Row<T> & string,
    transaction?: Transaction,
  ): Promise<boolean> {
    const found = await this.#models[table].findOne({
      where: { business, [field]: { [Op.ne]: null } },
      raw: true,
      ...(transaction === undefined ? {} : { transaction }),
    });
    return found !== null;
  }

  /** Every row of one business, by table. */
  async all(business: string): Promise<Partial<Record<TableName, Row<TableName>[]>>> {
    const all: Partial<Record<TableName, Row<TableName>[]>> = {};
    for (const table of tableNames) all[table] = await this.rows(business, table);
    return all;
  }
}
