import { z } from 'zod';
import { amountFromZero, colour, cost, kind, name, quantity, recordId } from '../kind';

/** Something that is sold. */
export const itemSet = kind(
  1,
  z.strictObject({
    id: recordId,
    name,
    /** What tells it from others of the name: pot size, colour, maker. */
    detail: z.string().max(80),
    code: z.string().max(40),
    barcodes: z.array(z.string().min(1).max(40)).max(20),
    category: z.string().max(80),
    colour,
    /** Unit of measure as people write it; empty for things that are counted. */
    unit: z.string().max(12),
    /** Decimals of its quantity, 0 to 3. */
    decimals: z.int().min(0).max(3),
    /** Minor units per unit of measure on the typed side. */
    price: amountFromZero,
    taxes: z.array(recordId).max(10),
    /** Thousandths of a minor unit per unit of measure, or null if it is not known. */
    cost: cost.nullable(),
    /** At or below this many thousandths the tag says that little is left. */
    low: quantity.min(0),
    /** False for services: selling them moves no stock. */
    isStocked: z.boolean(),
    isActive: z.boolean(),
  }),
);
