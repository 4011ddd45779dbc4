/** Tips: outside the total, untaxed, apart from the takings (docs/rules.md, "Payment"). */
import type { Tips } from '../books/tables';
import { fraction, roundToMinor, times } from '../money/fraction';
import { rateOf, sum, type Minor } from '../money/units';
import type { SideQuote } from '../pricing/slip';

/** Of what a tip is percent: the total with tax, or without, as the business says. Minor units. */
export const tipBase = ({ total, taxes }: Pick<SideQuote, 'total' | 'taxes'>, of: Tips['of']) =>
  of === 'total' ? total : total - sum(taxes.map(({ amount }) => amount));

/** `R(base × percent)`. @example tipOf(2640, '12.5') // => 330 */
export const tipOf = (base: number, percent: string): Minor =>
  roundToMinor(times(fraction(base), fraction(rateOf(percent), 1_000_000)));
