import { z } from 'zod';
import { kind, name, recordId } from '../kind';

/**
 * Goods as they are laid out at the counter. Version 2 brought tables of one event alone, which
 * stand in the place of the others there, and three sizes of tag.
 */
export const tableSet = kind(
  2,
  z.strictObject({
    id: recordId,
    name,
    sort: z.int().min(0).max(9999),
    goods: z.array(z.strictObject({ item: recordId, width: z.int().min(1).max(2) })).max(500),
    event: recordId.nullable(),
    size: z.enum(['small', 'middle', 'large']),
    isActive: z.boolean(),
  }),
  { 1: (body) => ({ ...body, event: null, size: 'middle' }) },
);
