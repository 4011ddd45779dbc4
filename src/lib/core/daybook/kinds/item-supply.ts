import { z } from 'zod';
import { cost, kind, placeId, quantity, recordId } from '../kind';

/** How an item is bought, kept in stock and carried: apart from how it is sold, since others set it up. */
export const itemSupply = kind(
  1,
  z.strictObject({
    item: recordId,
    /** The first is preferred. */
    suppliers: z
      .array(
        z.strictObject({
          supplier: recordId,
          /** What they call it. */
          code: z.string().max(40),
          /** How much comes at once; thousandths. */
          pack: quantity.min(1),
          /** Thousandths of a minor unit per unit of measure; null where it is not known. */
          price: cost.nullable(),
        }),
      )
      .max(10)
      .refine((all) => new Set(all.map(({ supplier }) => supplier)).size === all.length, {
        message: 'each supplier once',
      }),
    /** How much should be at a place; thousandths. When to buy again stands with the item. */
    pars: z.array(z.strictObject({ place: placeId, par: quantity.min(0) })).max(40),
    /** Grams of one unit of measure; null where it is not known. */
    weight: z.int().min(0).max(9_999_999).nullable(),
    /** How much goes into a crate; thousandths, null where it takes no room to speak of. */
    perCrate: quantity.min(1).nullable(),
  }),
);
