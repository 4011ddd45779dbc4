/** Editions of an event side by side. */
import { fraction, roundToMinor } from '../money/fraction';

/** What an edition left; minor units. */
export interface EditionResult {
  readonly id: string;
  readonly left: number;
  /** For an hour of trading; null where it has no hours. */
  readonly perHour: number | null;
  /** Until it is, its result may still change. */
  readonly isSettled: boolean;
}

/** What one sale brought, `R(takings / sales)` in minor units; null where nothing was sold. */
export const averageOf = ({
  takings,
  sales,
}: {
  readonly takings: number;
  readonly sales: number;
}): number | null => (sales <= 0 ? null : roundToMinor(fraction(BigInt(takings), sales)));
