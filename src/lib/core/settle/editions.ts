import { fraction, roundToMinor } from '../money/fraction';

/** What one sale brought, `R(takings / sales)` in minor units; null where nothing was sold. */
export const averageOf = ({
  takings,
  sales,
}: {
  readonly takings: number;
  readonly sales: number;
}): number | null => (sales <= 0 ? null : roundToMinor(fraction(BigInt(takings), sales)));
