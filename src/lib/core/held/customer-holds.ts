/** What a customer has and owes. Minor units. */
import type { PointsHeld } from '../points/points-facts';

export interface CustomerHolds {
  /** Below nothing where they paid more than they owed. */
  readonly owes: number;
  readonly credit: number;
  /** What they may owe; null for any amount. */
  readonly limit: number | null;
  /** Orders of theirs that are open, and what was paid for them in advance. */
  readonly orders: number;
  readonly deposits: number;
  /** Null where none are given. */
  readonly points: PointsHeld | null;
}
