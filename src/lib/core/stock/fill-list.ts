/** What a list is filled with by itself: from what was sold last time, from par levels, from reorder levels. */
import type { Row } from '../books/tables';
import { isOpen, stateOf, type WholeList } from './list-state';
import type { Wanted } from './set-list';

/** The place that par levels for whatever event comes next stand under. */
export const EACH_EVENT = 'event';

export type Supplies = ReadonlyMap<string, Pick<Row<'supplies'>, 'suppliers' | 'pars'>>;

/** How much of an item should be at a place; null where nobody said. Thousandths. */
export const parOf = (supplies: Supplies, item: string, place: string): number | null =>
  supplies.get(item)?.pars.find((each) => each.place === place)?.par ?? null;

/** Up to whole units, or whole packs. Thousandths. */
export function inPacks(quantity: number, pack: number): number {
  return quantity <= 0 ? 0 : Math.ceil(quantity / pack) * pack;
}

/** What was sold last time, in whole units of what is counted. */
export function fromLastTime(
  sold: readonly Pick<Row<'eventItems'>, 'item' | 'quantity'>[],
  items: ReadonlyMap<string, Row<'items'>>,
): readonly Wanted[] {
  return sold.flatMap(({ item, quantity }) => {
    const known = items.get(item);
    return known?.isActive === true && known.isStocked && quantity > 0
      ? [{ item, wanted: inPacks(quantity, 10 ** (3 - known.decimals)) }]
      : [];
  });
}

/** Up to the par level of a place, less what is there already. @param there Thousandths by item. */
export function fromPar(
  place: string,
  supplies: Supplies,
  items: Iterable<Row<'items'>>,
  there: (item: string) => number,
): readonly Wanted[] {
  const found: Wanted[] = [];
  for (const { id, isActive, isStocked } of items) {
    const par = isActive && isStocked ? parOf(supplies, id, place) : null;
    const wanted = par === null ? 0 : par - there(id);
    if (wanted > 0) found.push({ item: id, wanted });
  }
  return found;
}

/** At its reorder level it is bought again. @param will On hand, less what is kept back, and what is on order. */
export const isLow = (level: number, will: number): boolean => will <= level;

export interface FromLevels {
  readonly place: string;
  /** Whom it is ordered from; null for another place of one's own. */
  readonly supplier: string | null;
  readonly items: Iterable<Row<'items'>>;
  readonly supplies: Supplies;
  /** Thousandths of an item at the place: on hand, kept back, and on order already. */
  readonly standing: (item: string) => {
    readonly onHand: number;
    readonly reserved: number;
    readonly onOrder: number;
  };
  /** What the source can give, in thousandths; missing asks for everything that is low. */
  readonly canGive?: ((item: string) => number) | undefined;
}

/**
 * Everything that is at or below its reorder level, counting what is on order and leaving out what is kept back, up to
 * its par level (or its reorder level, where it has none) in whole packs of the supplier. From a supplier only what
 * they are known to sell; of what several sell, only what they are preferred for.
 */
export function fromLevels(command: FromLevels): readonly Wanted[] {
  const { place, supplier, supplies, standing, canGive } = command;
  const found: Wanted[] = [];
  for (const { id, isActive, isStocked, reorder, decimals } of command.items) {
    if (!isActive || !isStocked) continue;
    const level = reorder.find((each) => each.place === place)?.level;
    if (level === undefined) continue;
    const from = supplier === null ? null : supplies.get(id)?.suppliers[0];
    if (from === undefined || (from !== null && from.supplier !== supplier)) continue;
    const { onHand, reserved, onOrder } = standing(id);
    const will = onHand - reserved + onOrder;
    if (!isLow(level, will)) continue;
    const par = Math.max(parOf(supplies, id, place) ?? level, level);
    // At its level with no par, the least that can be bought is bought.
    const lacks = Math.max(par - will, 1);
    const pack = from?.pack ?? 10 ** (3 - decimals);
    const all = inPacks(lacks, pack);
    const wanted = canGive === undefined ? all : Math.min(all, Math.max(0, canGive(id)));
    if (wanted > 0) found.push({ item: id, wanted, price: from?.price ?? null });
  }
  return found;
}

/**
 * What open load lists want from a place and is not there to be packed, all lists together.
 * @param there Thousandths of an item at the place, with what is to come there.
 */
export function shortOnLists(
  place: string,
  lists: readonly WholeList[],
  there: (item: string) => number,
): readonly Wanted[] {
  const wanted = new Map<string, number>();
  for (const { list, lines } of lists) {
    if (list.use !== 'load' || list.from !== place || !isOpen(stateOf(list, lines))) continue;
    for (const { item, wanted: all, packed, sent } of lines)
      wanted.set(item, (wanted.get(item) ?? 0) + Math.max(0, Math.max(all, packed) - sent));
  }
  return [...wanted].flatMap(([item, all]) => {
    const short = all - Math.max(0, there(item));
    return short > 0 ? [{ item, wanted: short }] : [];
  });
}

/** Weight and room of goods. `isWhole` is false where that of some is not known. */
export interface Load {
  /** Grams. */
  readonly weight: number;
  /** Thousandths of a crate. */
  readonly crates: number;
  readonly isWhole: boolean;
}

export function loadOf(
  goods: Iterable<{ readonly item: string; readonly quantity: number }>,
  supplies: ReadonlyMap<string, Pick<Row<'supplies'>, 'weight' | 'perCrate'>>,
): Load {
  let weight = 0;
  let crates = 0;
  let isWhole = true;
  for (const { item, quantity } of goods) {
    const known = supplies.get(item);
    if (known === undefined || known.weight === null) isWhole = false;
    weight += ((known?.weight ?? 0) * quantity) / 1000;
    if (known?.perCrate != null) crates += (quantity * 1000) / known.perCrate;
  }
  return { weight: Math.round(weight), crates: Math.ceil(crates), isWhole };
}

/** How full a van is by whichever of its limits is nearer; 1 is full, and nothing where it has none. */
export const fullOf = (
  { weight, crates }: Load,
  { mostWeight, mostCrates }: Pick<Row<'places'>, 'mostWeight' | 'mostCrates'>,
): number =>
  Math.max(
    mostWeight === null ? 0 : weight / mostWeight,
    mostCrates === null ? 0 : crates / mostCrates,
  );
