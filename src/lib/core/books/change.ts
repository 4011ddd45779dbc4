/**
 * What an entry does to the books: three kinds of change, each of which can come in any order and
 * give the same rows.
 */
import { tables, type Row, type TableName } from './tables';
import { keyOf, stampField, untouched, type AnyRow, type Way } from './table-spec';

export type Change =
  | { readonly op: 'put'; readonly table: TableName; readonly row: AnyRow }
  | {
      readonly op: 'merge';
      readonly table: TableName;
      readonly key: AnyRow;
      readonly group: string;
      readonly stamp: string;
      readonly fields: AnyRow;
    }
  | {
      readonly op: 'add';
      readonly table: TableName;
      readonly key: AnyRow;
      readonly fields: Readonly<Record<string, number>>;
    };

type TablesOf<W extends Way> = {
  [T in TableName]: (typeof tables)[T]['way'] extends W ? T : never;
}[TableName];
type WholeFields<T extends TableName> = {
  readonly [F in keyof Row<T> as Row<T>[F] extends number ? F : never]?: number;
};

/** Puts a row that no other entry can put: its key comes from the entry's own id. */
export const put = <T extends TablesOf<'facts'>>(table: T, row: Row<T>): Change => ({
  op: 'put',
  table,
  row,
});

/** Sets a group of fields, unless a later stamp has set them already. */
export const merge = <T extends TablesOf<'records'>>(
  table: T,
  id: string,
  group: string,
  stamp: string,
  fields: Partial<Omit<Row<T>, 'id'>>,
): Change => ({ op: 'merge', table, key: { id }, group, stamp, fields });

/** Adds to numbers of a row, which starts from nothing. */
export const add = <T extends TablesOf<'sums'>>(
  table: T,
  key: Partial<Row<T>>,
  fields: WholeFields<T>,
): Change => ({ op: 'add', table, key, fields: fields as Record<string, number> });

export const keyOfChange = (change: Change): string =>
  keyOf(tables[change.table], change.op === 'put' ? change.row : change.key);

/**
 * The row as it is after a change. Pure; the stores that read rows apply changes with it, and
 * MariaDB does the same in SQL.
 */
export function rowAfter(row: AnyRow | undefined, change: Change): AnyRow {
  if (change.op === 'put') return row ?? change.row;
  const now = { ...(row ?? untouched(tables[change.table], change.key)) };
  if (change.op === 'add') {
    for (const [field, by] of Object.entries(change.fields))
      now[field] = (now[field] as number) + by;
    return now;
  }
  const stamped = stampField(change.group);
  if ((now[stamped] as string) >= change.stamp) return now;
  return { ...now, ...change.fields, [stamped]: change.stamp };
}
