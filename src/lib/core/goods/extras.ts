/** Extras of an item: groups of additions, with at least and at most so many of each. */
import type { Extra, ExtraGroup } from '../books/tables';

/** Names of what is chosen of each group, in the group's own order. */
export type ChosenExtras = readonly (readonly string[])[];

export const extrasToBegin = (groups: readonly ExtraGroup[]): ChosenExtras =>
  groups.map(({ options }) => options.filter(({ isDefault }) => isDefault).map(({ name }) => name));

/**
 * Chooses an extra, or takes it back when it is chosen. Beyond "at most" the one that was chosen first
 * makes way, so that a group of which one is chosen changes by one tap.
 */
export function chooseExtra(
  groups: readonly ExtraGroup[],
  chosen: ChosenExtras,
  group: number,
  name: string,
): ChosenExtras {
  return chosen.map((names, at) => {
    const rule = groups[at];
    if (at !== group || rule === undefined) return names;
    if (names.includes(name)) return names.filter((each) => each !== name);
    return [...names, name].slice(-rule.most);
  });
}

/** The first group of which too few are chosen, or null when the rules are kept. */
export const lackingGroup = (
  groups: readonly ExtraGroup[],
  chosen: ChosenExtras,
): ExtraGroup | null => groups.find(({ least }, at) => (chosen[at]?.length ?? 0) < least) ?? null;

/** What is chosen, with its prices, in the order of the set-up. */
export const chosenExtras = (
  groups: readonly ExtraGroup[],
  chosen: ChosenExtras,
): readonly Extra[] =>
  groups.flatMap(({ options }, at) =>
    options
      .filter(({ name }) => chosen[at]?.includes(name) === true)
      .map(({ name, price }) => ({ name, price })),
  );
