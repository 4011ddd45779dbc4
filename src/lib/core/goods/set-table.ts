/** Laying goods out on a table: a command. */
import type { Row, TableGoods } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';

export const TAG_SIZES = ['small', 'middle', 'large'] as const;
export type TagSize = (typeof TAG_SIZES)[number];

export interface TypedTable {
  /** Null for a new one. */
  readonly id: string | null;
  readonly name: string;
  readonly goods: readonly TableGoods[];
  /** The event that it is laid out for alone, or null. */
  readonly event: string | null;
  readonly size: TagSize;
  readonly isActive: boolean;
}

export type TableRefusal =
  | { readonly code: 'table/no-name' }
  | { readonly code: 'table/twice'; readonly item: string };

export type TableOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: TableRefusal };

/** A new table stands after the others. The same goods lie on it once. */
export function setTable(
  newId: () => string,
  typed: TypedTable,
  tables: readonly Row<'tables'>[],
): TableOutcome {
  const name = typed.name.trim().slice(0, 80);
  if (name === '') return { ok: false, refusal: { code: 'table/no-name' } };
  const { goods, event, size, isActive } = typed;
  const twice = goods.find(({ item }, at) => goods.findIndex((each) => each.item === item) !== at);
  if (twice !== undefined) return { ok: false, refusal: { code: 'table/twice', item: twice.item } };
  const known = tables.find(({ id }) => id === typed.id);
  const sort = known?.sort ?? Math.max(-1, ...tables.map((each) => each.sort)) + 1;
  const id = typed.id ?? newId();
  const body = { id, name, sort, goods, event, size, isActive };
  return { ok: true, drafts: [draft('table.set', newId(), null, body)] };
}

/** The tables in another order; only those whose place changes are written. */
export function orderTables(
  newId: () => string,
  tables: readonly Row<'tables'>[],
): readonly Draft[] {
  return tables.flatMap(({ setStamp: _stamp, ...table }, sort) => {
    if (table.sort === sort) return [];
    return [draft('table.set', newId(), null, { ...table, sort })];
  });
}
