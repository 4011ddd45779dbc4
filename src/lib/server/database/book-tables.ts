/** The books' tables as MariaDB has them: names, models, and the one door for their rows. */
import {
  DataTypes,
  type ModelAttributes,
  type ModelStatic,
  type Model,
  type Sequelize,
} from 'sequelize';
import { tables, tableNames, type Row, type TableName } from '../../core/books/tables';
import type { AnyRow, Field, TableSpec } from '../../core/books/table-spec';

export type BookRow = Model<Record<string, unknown>, Record<string, unknown>>;

/** @example sqlTable('saleLines') // => 'books_sale_lines' */
export const sqlTable = (table: TableName): string =>
  `books_${table.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)}`;

export type BookModels = Readonly<Record<TableName, ModelStatic<BookRow>>>;

const defined = new WeakMap<Sequelize, BookModels>();

/** One model per table of the books; each key starts with the business. Defined once per connection pool. */
export function bookModels(sequelize: Sequelize): BookModels {
  const there = defined.get(sequelize);
  if (there !== undefined) return there;
  const models = defineModels(sequelize);
  defined.set(sequelize, models);
  return models;
}

function defineModels(sequelize: Sequelize): BookModels {
  const models = tableNames.map((table) => [
    table,
    sequelize.define<BookRow>(sqlTable(table), attributesOf(tables[table])),
  ]);
  return Object.fromEntries(models) as BookModels;
}

function attributesOf(spec: TableSpec): ModelAttributes<BookRow> {
  const attributes: ModelAttributes<BookRow> = {
    business: { type: DataTypes.CHAR(36), primaryKey: true },
  };
  for (const [field, { type, size, isNullable }] of Object.entries(spec.fields)) {
    attributes[field] = {
      type: {
        text: DataTypes.STRING(size),
        whole: DataTypes.BIGINT,
        flag: DataTypes.BOOLEAN,
        json: DataTypes.JSON,
      }[type],
      allowNull: isNullable,
      primaryKey: spec.key.includes(field),
    };
  }
  return attributes;
}

/**
 * A row of the books out of what the database gave: BIGINT comes as text, flags as 0 and 1, JSON
 * as text or parsed.
 */
export function rowFrom<T extends TableName>(table: T, found: AnyRow): Row<T> {
  const row: Record<string, unknown> = {};
  for (const [field, spec] of Object.entries<Field<unknown>>(tables[table].fields)) {
    row[field] = valueFrom(spec, found[field]);
  }
  return row as Row<T>;
}

function valueFrom({ type }: Field<unknown>, value: unknown): unknown {
  if (value === null || value === undefined) return null;
  if (type === 'whole') return Number(value);
  if (type === 'flag') return Number(value) === 1;
  if (type === 'json' && typeof value === 'string') return JSON.parse(value) as unknown;
  return value;
}

/** A value as a column of the field's type wants it. */
export function valueFor({ type }: Field<unknown>, value: unknown): string | number | null {
  // JSON has a null of its own; a column of it is never empty.
  if (type === 'json') return JSON.stringify(value ?? null);
  if (value === null || value === undefined) return null;
  if (type === 'flag') return value === true ? 1 : 0;
  return value as string | number;
}
