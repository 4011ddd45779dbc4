/**
 * Choosing one variant of an item: choices can be made in any order, each can be taken back, and only
 * what still leads somewhere is offered.
 */
import type { Choice, Row } from '../books/tables';

type Item = Row<'items'>;
/** A value for each choice, or null where none has been made. */
export type Chosen = readonly (string | null)[];

/** The variants of an item that are sold, in the order of the item's own values. */
export function variantsOf(item: Item, items: readonly Item[]): readonly Item[] {
  const place = ({ values }: Item): readonly number[] =>
    item.choices.map((choice, at) => choice.values.indexOf(values[at] ?? ''));
  return items
    .filter((each) => each.variantOf === item.id && each.isActive)
    .map((each) => ({ each, at: place(each) }))
    .sort(
      (a, b) =>
        a.at.map((n, i) => n - (b.at[i] ?? 0)).find((difference) => difference !== 0) ??
        (a.each.id < b.each.id ? -1 : 1),
    )
    .map(({ each }) => each);
}

/** Nothing chosen, except where there is only one value. */
export const chosenToBegin = (choices: readonly Choice[]): Chosen =>
  choices.map(({ values }) => (values.length === 1 ? (values[0] ?? null) : null));

/** Chooses a value, or takes it back when it is chosen already; the other choices stay. */
export const choose = (chosen: Chosen, at: number, value: string): Chosen =>
  chosen.map((each, i) => (i !== at ? each : each === value ? null : value));

/** Values of one choice that still lead to a variant, whatever else has been chosen. */
export function possible(
  variants: readonly Item[],
  chosen: Chosen,
  at: number,
): ReadonlySet<string> {
  const fitting = variants.filter(({ values }) =>
    chosen.every((value, i) => i === at || value === null || values[i] === value),
  );
  return new Set(fitting.flatMap(({ values }) => values[at] ?? []));
}

/** The variant that has been chosen; undefined until each choice is made and leads to one. */
export const variantFor = (variants: readonly Item[], chosen: Chosen): Item | undefined =>
  chosen.includes(null)
    ? undefined
    : variants.find(({ values }) => chosen.every((value, at) => values[at] === value));

/** Every combination of the values, the last choice changing fastest. */
export const combinations = (choices: readonly Choice[]): readonly (readonly string[])[] =>
  choices.reduce<readonly (readonly string[])[]>(
    (all, { values }) => all.flatMap((begun) => values.map((value) => [...begun, value])),
    [[]],
  );
