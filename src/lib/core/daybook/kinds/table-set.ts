import { z } from 'zod';
import { kind, name, recordId } from '../kind';

/** Goods as they are laid out at the counter. */
export const tableSet = kind(
  1,
  z.strictObject({
    id: recordId,
    name,
    sort: z.int().min(0).max(9999),
    goods: z.array(z.strictObject({ item: recordId, width: z.int().min(1).max(2) })).max(500),
    isActive: z.boolean(),
  }),
);
