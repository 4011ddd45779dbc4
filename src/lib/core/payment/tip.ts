/** Tips: outside the total, untaxed, apart from the takings (docs/rules.md, "Payment"). */
import type { Tips } from '../books/tables';
import { percentOf } from '../money/percent';
import { sum, type Minor } from '../money/units';
import type { SideQuote } from '../pricing/slip';

/** Of what a tip is percent: the total with tax, or without, as the business says. Minor units. */
export const tipBase = ({ total, taxes }: Pick<SideQuote, 'total' | 'taxes'>, of: Tips['of']) =>
  of === 'total' ? total : total - sum(taxes.map(({ amount }) => amount));

/** What is offered on one tap each. */
export const offeredTips = (
  cash: Pick<SideQuote, 'total' | 'taxes'>,
  { percents, of }: Tips,
): readonly OfferedTip[] =>
  percents.map((percent) => ({ percent, amount: tipOf(tipBase(cash, of), percent) }));

export interface OfferedTip {
  readonly percent: string;
  /** Minor units. */
  readonly amount: Minor;
}

/** `R(base × percent)`. @example tipOf(2640, '12.5') // => 330 */
export const tipOf: (base: number, percent: string) => Minor = percentOf;
