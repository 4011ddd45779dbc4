/** Notes and coins, counted. */
import { sum, type Minor } from './units';

/** A number of the same note or coin; `value` in minor units. */
export interface Pieces {
  readonly value: number;
  readonly count: number;
}

/** What counted notes and coins come to, in minor units. */
export const worthOf = (counts: readonly Pieces[]): Minor =>
  sum(counts.map(({ value, count }) => value * count));
