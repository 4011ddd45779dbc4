/** What an event costs: its pitch by what was agreed, and everything else. Minor units. */
import type { EventCost, PitchFee } from '../books/tables';
import { fraction, roundToMinor } from '../money/fraction';
import { percentOf } from '../money/percent';
import { sum } from '../money/units';

export const NO_FEE: PitchFee = { kind: 'none', fixed: 0, percent: '0', of: 'gross' };

/**
 * What the pitch costs: not below what was agreed as the least, and not above what was agreed as the most.
 * @param takings What the event brought in, with tax and without, in minor units.
 * @example feeOf({ kind: 'both', fixed: 2500, percent: '12.25', of: 'gross' }, { gross: 180418, net: 0 }) // => 24601
 */
export function feeOf(
  fee: PitchFee,
  takings: { readonly gross: number; readonly net: number },
): number {
  const { kind, least = 0, most = Number.POSITIVE_INFINITY } = fee;
  if (kind === 'none') return 0;
  return Math.min(most, Math.max(least, byKind(fee, takings[fee.of])));
}

function byKind({ kind, fixed, percent }: PitchFee, takings: number): number {
  const share = percentOf(Math.max(0, takings), percent);
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
