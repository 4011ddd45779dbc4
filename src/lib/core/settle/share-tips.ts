/** Who gets what of the tips (docs/rules.md, "Settling"). */
import { shareByWeights } from '../money/apportion';
import { sum, type Minor } from '../money/units';

/** How tips are shared: by minutes on duty, the same for everybody, or to whoever took them. */
export const TIP_SHARES = ['hours', 'equally', 'taken'] as const;
export type TipShare = (typeof TIP_SHARES)[number];

/** Tips that nobody can be given: nobody was on duty, or there is nobody at all. */
export class NobodyOnDutyError extends RangeError {
  constructor(how: TipShare, tips: number) {
    const what = `tips of ${String(tips)} minor units cannot be shared`;
    super(
      how === 'hours'
        ? `${what} by hours: nobody was on duty for a minute; share them equally, or enter the hours`
        : `${what}: there is nobody to share them between`,
    );
    this.name = 'NobodyOnDutyError';
  }
}

/**
 * Shares tips out. Minor units; what cannot be shared evenly goes by *Sharing*, ties to whoever stands first.
 *
 * @param weights One per person, in order: minutes on duty for `hours`, minor units taken for `taken`; for
 * `equally` only how many there are counts.
 * @throws {NobodyOnDutyError} If there are tips and nobody to give them to.
 * @example shareTips('hours', 17169, [240, 240, 15]) // => [8325, 8324, 520]
 */
export function shareTips(how: TipShare, tips: number, weights: readonly number[]): Minor[] {
  const by = how === 'equally' ? weights.map(() => 1) : weights;
  const isNobody = sum(by) === 0;
  if (isNobody && tips !== 0) throw new NobodyOnDutyError(how, tips);
  return isNobody ? by.map(() => 0 as Minor) : shareByWeights(tips, by);
}
