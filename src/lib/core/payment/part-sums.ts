/** What a part that was taken comes to, counted one way or the other. */
import type { Side } from '../pricing/slip';

interface Sums {
  readonly side: Side;
  readonly clears: number;
  readonly charge: number;
  readonly surcharge: number;
  readonly tip: number;
  readonly change: number;
}

/**
 * What it adds to the takings of its way: what it cleared, and on the card side what it was charged
 * above that. Surcharge, tip and cash rounding are counted apart. Minor units.
 */
export const takingsOfPart = ({ side, clears, charge }: Pick<Sums, 'side' | 'clears' | 'charge'>) =>
  side === 'card' ? charge : clears;

/** What the customer is out of pocket by it: all that was handed over or charged, less the change. */
export const paidWith = ({ charge, surcharge, tip, change }: Omit<Sums, 'side' | 'clears'>) =>
  charge + surcharge + tip - change;
