/** Editions of an event side by side. */
import { z } from 'zod';
import { uuid } from '../daybook/entry';
import { fraction, roundToMinor } from '../money/fraction';

/** What an edition left; minor units. */
const editionResultSchema = z
  .object({
    id: uuid,
    left: z.int(),
    /** For an hour of trading; null where it has no hours. */
    perHour: z.int().nullable(),
    /** Until it is, its result may still change. */
    isSettled: z.boolean(),
  })
  .readonly();
export type EditionResult = z.infer<typeof editionResultSchema>;

/** What the server answers; both sides go by it. */
export const editionsSchema = z.object({ editions: z.array(editionResultSchema).readonly() });

/** What one sale brought, `R(takings / sales)` in minor units; null where nothing was sold. */
export const averageOf = ({
  takings,
  sales,
}: {
  readonly takings: number;
  readonly sales: number;
}): number | null => (sales <= 0 ? null : roundToMinor(fraction(BigInt(takings), sales)));
