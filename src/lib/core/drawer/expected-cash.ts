/** What should be in a drawer (docs/rules.md, "Drawer"). */
import type { Row } from '../books/tables';
import { sum, type Minor } from '../money/units';

type Sums = Pick<Row<'drawerSums'>, 'handed' | 'change'> &
  Partial<Pick<Row<'drawerSums'>, 'back' | 'movedIn' | 'movedOut' | 'late'>>;

/**
 * Float and what was handed over, less the change given and what was given back, and what was moved in and out in
 * between. Cash rounding is not added: what was handed over and the change already are the rounded sums
 * (docs/decisions/0005).
 *
 * Units: minor units.
 */
export function expectedCash(drawer: Pick<Row<'drawers'>, 'float'>, sums: Sums | undefined): Minor {
  const { handed, change, back = 0, movedIn = 0, movedOut = 0 } = sums ?? { handed: 0, change: 0 };
  return sum([drawer.float, handed, -change, -back, movedIn, -movedOut]);
}

/**
 * What was heard of after the drawer's final read, and has no name yet: nothing, unless a device sent later what it
 * had written before, or somebody gave cash of it back since.
 *
 * Units: minor units; above nothing for more than the read knew of.
 */
export function lateCash(
  drawer: Pick<Row<'drawers'>, 'float'>,
  sums: Sums | undefined,
  reads: readonly Pick<Row<'drawerReads'>, 'expected'>[],
): Minor {
  if (reads.length === 0) return 0 as Minor;
  const known = reads.map(({ expected }) => -expected);
  return sum([expectedCash(drawer, sums), ...known, -(sums?.late ?? 0)]);
}
