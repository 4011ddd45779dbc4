/** Goods that an entry speaks of, against what was set up of them then or lately. */
import type { BodyOf } from '../daybook/kinds';

type Item = Omit<BodyOf<'item.set'>, 'id'>;

/** Whose they are, what they cost, how they are counted: by that money and stock move. */
export const isAsSetUp = (
  goods: Pick<Item, 'unit' | 'cost' | 'isStocked' | 'maker'>,
  versions: readonly Item[],
): boolean =>
  versions.some(
    ({ unit, cost, isStocked, maker }) =>
      unit === goods.unit &&
      cost === goods.cost &&
      isStocked === goods.isStocked &&
      maker === goods.maker,
  );
