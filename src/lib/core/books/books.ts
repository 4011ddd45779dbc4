/** The books in memory: what tests compare the databases with, and what a replay prints. */
import { keyOfChange, rowAfter, type Change } from './change';
import { tableNames, tables, type Row, type TableName } from './tables';
import { keyOf, type AnyRow } from './table-spec';

type Index = Map<unknown, Map<string, AnyRow>>;

export class Books {
  readonly #rows = new Map<TableName, Map<string, AnyRow>>();
  /** Rows by their keys, by what they have in a field; made for those that are asked for. */
  readonly #indexes = new Map<TableName, Map<string, Index>>();

  apply(changes: readonly Change[]): void {
    for (const change of changes) {
      const key = keyOfChange(change);
      const before = this.#table(change.table).get(key);
      this.#set(change.table, key, rowAfter(before, change));
    }
  }

  /** The rows of a table, ordered by key. */
  rows<T extends TableName>(table: T): Row<T>[] {
    return inOrder<T>(this.#table(table));
  }

  /** The rows that have something in a field, ordered by key. */
  where<T extends TableName, F extends keyof Row<T> & string>(
    table: T,
    field: F,
    is: Row<T>[F],
  ): Row<T>[] {
    const found = this.#index(table, field).get(is);
    return found === undefined ? [] : inOrder<T>(found);
  }

  /** A row by its key, as `keyOf` writes it. */
  row<T extends TableName>(table: T, key: string): Row<T> | undefined {
    return this.#table(table).get(key) as Row<T> | undefined;
  }

  /** Rows that are there already, from another store. */
  put<T extends TableName>(table: T, rows: readonly Row<T>[]): void {
    for (const row of rows) this.#set(table, keyOf(tables[table], row), row);
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

  #set(name: TableName, key: string, row: AnyRow): void {
    const table = this.#table(name);
    const before = table.get(key);
    table.set(key, row);
    for (const [field, index] of this.#indexes.get(name) ?? []) {
      if (before !== undefined) index.get(before[field])?.delete(key);
      noteIn(index, field, key, row);
    }
  }

  #index(name: TableName, field: string): ReadonlyMap<unknown, ReadonlyMap<string, AnyRow>> {
    let indexes = this.#indexes.get(name);
    if (indexes === undefined) {
      indexes = new Map<string, Index>();
      this.#indexes.set(name, indexes);
    }
    let index = indexes.get(field);
    if (index === undefined) {
      index = new Map();
      indexes.set(field, index);
      for (const [key, row] of this.#table(name)) noteIn(index, field, key, row);
    }
    return index;
  }
}

function noteIn(index: Index, field: string, key: string, row: AnyRow): void {
  const those = index.get(row[field]);
  if (those === undefined) index.set(row[field], new Map([[key, row]]));
  else those.set(key, row);
}

const inOrder = <T extends TableName>(keyed: ReadonlyMap<string, AnyRow>): Row<T>[] =>
  [...keyed].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, row]) => row as Row<T>);
