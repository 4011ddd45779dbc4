import { z } from 'zod';
import { kind, name, percent, recordId } from '../kind';

export const taxSet = kind(
  1,
  z.strictObject({
    id: recordId,
    name,
    rate: percent,
    level: z.enum(['country', 'region', 'local']),
    /** Taxes that this one is charged on top of. */
    on: z.array(recordId).max(10),
    /** Place in the set-up order. */
    sort: z.int().min(0).max(9999),
    isActive: z.boolean(),
  }),
);
