/** What should be in a drawer (docs/rules.md, "Drawer"). */
import type { Row } from '../books/tables';
import { sum, type Minor } from '../money/units';

/**
 * Float and what was handed over, less the change given and what was given back. Cash rounding is not added: what was
 * handed over and the change already are the rounded sums (docs/decisions/0005).
 *
 * Units: minor units.
 */
export function expectedCash(
  drawer: Pick<Row<'drawers'>, 'float'>,
  sums:
    | (Pick<Row<'drawerSums'>, 'handed' | 'change'> & Partial<Pick<Row<'drawerSums'>, 'back'>>)
    | undefined,
): Minor {
  return sum([drawer.float, sums?.handed ?? 0, -(sums?.change ?? 0), -(sums?.back ?? 0)]);
}
