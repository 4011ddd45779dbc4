import { z } from 'zod';
import { kind, name, percent, recordId } from '../kind';

/** Somebody whose goods are sold on commission. */
export const makerSet = kind(
  2,
  z.strictObject({
    id: recordId,
    /** What hang tags say, before the class of goods. */
    number: z.int().min(1).max(99_999),
    name,
    /** Percent of what their goods bring that the vendor keeps. */
    commission: percent,
    /** Where statements go; empty for nowhere. Of a trade, so that it is not personal. */
    email: z.union([z.literal(''), z.email().max(120)]),
    isActive: z.boolean(),
  }),
  { 1: (body) => ({ ...body, email: '' }) },
);
