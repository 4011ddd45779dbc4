import { z } from 'zod';
import { kind, name, note, recordId } from '../kind';

/** Who goods are bought from: a business, so that none of this is personal. */
export const supplierSet = kind(
  1,
  z.strictObject({
    id: recordId,
    name,
    email: z.string().max(120),
    phone: z.string().max(40),
    /** From order to delivery. */
    days: z.int().min(0).max(365),
    note,
    isActive: z.boolean(),
  }),
);
