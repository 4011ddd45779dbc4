/** What an event costs: its pitch by what was agreed, and everything else. Minor units. */
import type { EventCost, PitchFee } from '../books/tables';
import { fraction, roundToMinor } from '../money/fraction';
import { percentOf } from '../money/percent';
import { sum } from '../money/units';

export const NO_FEE: PitchFee = { kind: 'none', fixed: 0, percent: '0', of: 'gross' };

/** @param takings What the event brought in, with tax and without, in minor units. */
export function feeOf(
  { kind, fixed, percent, of }: PitchFee,
  takings: { readonly gross: number; readonly net: number },
): number {
  const share = percentOf(Math.max(0, takings[of]), percent);
  switch (kind) {
    case 'none':
      return 0;
    case 'fixed':
      return fixed;
    case 'percent':
      return share;
    case 'larger':
      return Math.max(fixed, share);
    case 'both':
      return fixed + share;
  }
}

/** `R(each × many)`. */
export const costOfCost = ({ each, many }: EventCost): number =>
  roundToMinor(fraction(BigInt(each) * BigInt(many), 1000));

export const costsOf = (costs: readonly EventCost[]): number => sum(costs.map(costOfCost));
