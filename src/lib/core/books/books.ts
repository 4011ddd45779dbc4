/** The books in memory: what tests compare the databases with, and what a replay prints. */
import { keyOfChange, rowAfter, type Change } from './change';
import { tableNames, tables, type Row, type TableName } from './tables';
import { keyOf, type AnyRow } from './table-spec';

export class Books {
  readonly #rows = new Map<TableName, Map<string, AnyRow>>();

  apply(changes: readonly Change[]): void {
    for (const change of changes) {
      const table = this.#table(change.table);
      const key = keyOfChange(change);
      table.set(key, rowAfter(table.get(key), change));
    }
  }

  /** The rows of a table, ordered by key. */
  rows<T extends TableName>(table: T): Row<T>[] {
    const keyed = [...this.#table(table)].sort(([a], [b]) => (a < b ? -1 : 1));
    return keyed.map(([, row]) => row as Row<T>);
  }

  /** A row by its key, as `keyOf` writes it. */
  row<T extends TableName>(table: T, key: string): Row<T> | undefined {
    return this.#table(table).get(key) as Row<T> | undefined;
  }

  /** Rows that are there already, from another store. */
  put<T extends TableName>(table: T, rows: readonly Row<T>[]): void {
    for (const row of rows) this.#table(table).set(keyOf(tables[table], row), row);
  }

  /** All tables that hold anything. */
  toJSON(): Record<string, AnyRow[]> {
    const all: Record<string, AnyRow[]> = {};
    for (const table of tableNames) {
      const rows = this.rows(table);
      if (rows.length > 0) all[table] = rows;
    }
    return all;
  }

  #table(name: TableName): Map<string, AnyRow> {
    let table = this.#rows.get(name);
    if (table === undefined) {
      table = new Map();
      this.#rows.set(name, table);
    }
    return table;
  }
}
