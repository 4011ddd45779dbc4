/**
 * Categories. An item names its category by id; a name that has no record, from a file or from
 * before there were records, stands for itself.
 */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';

type Category = Row<'categories'>;

/** The categories in their order. */
export const inOrderOfCategory = (categories: readonly Category[]): readonly Category[] =>
  categories
    .filter(({ setStamp }) => setStamp !== '')
    .sort((a, b) => a.sort - b.sort || (a.id < b.id ? -1 : 1));

/** What people call what an item names as its category; empty for none. */
export const categoryName = (named: string, categories: readonly Category[]): string =>
  categories.find(({ id }) => id === named)?.name ?? named;

/** What an item names for a category of this name: its id, or the name itself where there is none. */
export function categoryNamed(typed: string, categories: readonly Category[]): string {
  const name = typed.trim().toLowerCase();
  const called = categories.filter((each) => each.name.toLowerCase() === name);
  return (called.find(({ isActive }) => isActive) ?? called[0])?.id ?? typed.trim();
}

/** Names that items carry and that have no record yet, each once. */
export function unsetCategories(
  items: readonly Pick<Row<'items'>, 'category'>[],
  categories: readonly Category[],
): readonly string[] {
  const known = new Set(categories.map(({ id }) => id));
  const names = items.map(({ category }) => category);
  return [...new Set(names.filter((name) => name !== '' && !known.has(name)))].sort();
}

export type CategoryRefusal =
  | { readonly code: 'category/no-name' }
  | { readonly code: 'category/taken'; readonly name: string };

export type CategoryOutcome =
  | { readonly ok: true; readonly id: string; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: CategoryRefusal };

export interface SetCategory {
  readonly newId: () => string;
  /** Null for a new one. */
  readonly id: string | null;
  readonly name: string;
  readonly isActive: boolean;
  readonly categories: readonly Category[];
  /** Items that carry the name without a record are put into it. */
  readonly items: readonly Row<'items'>[];
}

/** Sets a category up, or as it now is; a new one stands after the others. */
export function setCategory(command: SetCategory): CategoryOutcome {
  const { newId, isActive, categories, items } = command;
  const name = command.name.trim().slice(0, 80);
  if (name === '') return { ok: false, refusal: { code: 'category/no-name' } };
  const isTaken = categories.some(
    (each) =>
      each.id !== command.id && each.isActive && each.name.toLowerCase() === name.toLowerCase(),
  );
  if (isTaken && isActive) return { ok: false, refusal: { code: 'category/taken', name } };
  const known = categories.find(({ id }) => id === command.id);
  const sort = known?.sort ?? Math.max(-1, ...categories.map((each) => each.sort)) + 1;
  const id = command.id ?? newId();
  const drafts = [draft('category.set', newId(), null, { id, name, sort, isActive })];
  for (const item of items.filter(
    ({ category }) => category.toLowerCase() === name.toLowerCase(),
  )) {
    const { setStamp: _stamp, ...body } = item;
    drafts.push(draft('item.set', newId(), null, { ...body, category: id }));
  }
  return { ok: true, id, drafts };
}

/** The categories in another order; only those whose place changes are written. */
export const orderCategories = (
  newId: () => string,
  categories: readonly Category[],
): readonly Draft[] =>
  categories.flatMap(({ setStamp: _stamp, ...category }, sort) =>
    category.sort === sort ? [] : [draft('category.set', newId(), null, { ...category, sort })],
  );
