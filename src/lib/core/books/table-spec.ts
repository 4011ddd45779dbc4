/** How a table of the books is described once, for memory, IndexedDB and MariaDB alike. */

/** A field of a row: its type, what an untouched row holds, and how a database keeps it. */
export interface Field<T> {
  readonly type: 'text' | 'whole' | 'flag' | 'json';
  /** Most characters, for text. */
  readonly size: number;
  readonly isNullable: boolean;
  /** What the field holds in a row that nothing has set yet. */
  readonly initial: T;
}

export const text = (size: number): Field<string> => ({
  type: 'text',
  size,
  isNullable: false,
  initial: '',
});
export const textOrNull = (size: number): Field<string | null> => ({
  type: 'text',
  size,
  isNullable: true,
  initial: null,
});
/**
 * One of a few words, which the schema of its kind holds it to. A record that nothing has set yet holds none:
 * `W` names '' where that is met, and `isKnown` tells such a record.
 */
export const word = <W extends string>(size: number): Field<W> => ({
  type: 'text',
  size,
  isNullable: false,
  initial: '' as W,
});
export const id = (): Field<string> => text(40);
/** A whole number within the safe integers: amounts, quantities, counts. */
export const whole = (): Field<number> => ({
  type: 'whole',
  size: 0,
  isNullable: false,
  initial: 0,
});
export const wholeOrNull = (): Field<number | null> => ({
  type: 'whole',
  size: 0,
  isNullable: true,
  initial: null,
});
export const flag = (): Field<boolean> => ({
  type: 'flag',
  size: 0,
  isNullable: false,
  initial: false,
});
export const json = <T>(initial: T): Field<T> => ({
  type: 'json',
  size: 0,
  isNullable: false,
  initial,
});

export type Fields = Readonly<Record<string, Field<unknown>>>;

/**
 * A table and the one way in which its rows change:
 * - `facts` are put once and never change;
 * - `records` are set by group of fields, the latest stamp of each group wins;
 * - `sums` are added to.
 */
export interface TableSpec<W extends Way = Way, F extends Fields = Fields, K extends Keep = Keep> {
  readonly way: W;
  readonly key: readonly string[];
  readonly fields: F;
  /** Records only: which fields belong to which group. */
  readonly groups: Readonly<Record<string, readonly string[]>>;
  /** Fields that rows are looked up by. */
  readonly indexes: readonly string[];
  readonly keep: K;
}
/**
 * What a device keeps of a table: every row; those of recent events, the others being asked of the server; or
 * none, where only the server reads it.
 */
export type Keep = 'always' | 'recent' | 'server';
export type Way = 'facts' | 'records' | 'sums';

interface Options<F extends Fields, K extends Keep> {
  readonly indexes?: readonly (keyof F & string)[];
  readonly keep?: K;
}

export function facts<const F extends Fields, K extends Keep = 'always'>(
  key: readonly (keyof F & string)[],
  fields: F,
  { indexes = [], keep }: Options<F, K> = {},
): TableSpec<'facts', F, K> {
  return { way: 'facts', key, fields, groups: {}, indexes, keep: keep ?? ('always' as K) };
}

export function sums<const F extends Fields, K extends Keep = 'always'>(
  key: readonly (keyof F & string)[],
  fields: F,
  { indexes = [], keep }: Options<F, K> = {},
): TableSpec<'sums', F, K> {
  return { way: 'sums', key, fields, groups: {}, indexes, keep: keep ?? ('always' as K) };
}

type Both<U> = (U extends unknown ? (of: U) => void : never) extends (of: infer I) => void
  ? I
  : never;
type RecordFields<G extends Readonly<Record<string, Fields>>> = Both<G[keyof G]> & {
  readonly [S in 'id' | `${keyof G & string}Stamp`]: Field<string>;
};

/** Each group gets a field of its own for its stamp: `set` has `setStamp`. */
export function records<
  const G extends Readonly<Record<string, Fields>>,
  K extends Keep = 'always',
>(
  groups: G,
  { indexes = [], keep }: { readonly indexes?: readonly string[]; readonly keep?: K } = {},
): TableSpec<'records', RecordFields<G>, K> {
  const fields: Record<string, Field<unknown>> = { id: id() };
  const names: Record<string, string[]> = {};
  for (const [group, own] of Object.entries<Fields>(groups)) {
    names[group] = Object.keys(own);
    Object.assign(fields, own, { [stampField(group)]: text(60) });
  }
  return {
    way: 'records',
    key: ['id'],
    fields: fields as RecordFields<G>,
    groups: names,
    indexes,
    keep: keep ?? ('always' as K),
  };
}

export const stampField = (group: string): string => `${group}Stamp`;

export type RowOf<T extends TableSpec> = {
  readonly [F in keyof T['fields']]: T['fields'][F] extends Field<infer V> ? V : never;
};

/** A row of any table. */
export type AnyRow = Readonly<Record<string, unknown>>;

/** Text that names a row within its table; parts of a key hold no blanks. */
export function keyOf({ key }: TableSpec, row: AnyRow): string {
  const [first = '', ...others] = key;
  let all = String(row[first]);
  for (const field of others) all += ` ${String(row[field])}`;
  return all;
}

/** A row that nothing has been set in yet. */
export function untouched(spec: TableSpec, key: AnyRow): Record<string, unknown> {
  const row: Record<string, unknown> = {};
  for (const [field, { initial }] of Object.entries(spec.fields)) row[field] = initial;
  for (const field of spec.key) row[field] = key[field];
  return row;
}
