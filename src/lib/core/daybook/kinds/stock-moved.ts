import { z } from 'zod';
import { kind, note, placeId, quantity, recordId } from '../kind';

/** Goods went from one place to another. */
export const stockMoved = kind(
  1,
  z.strictObject({
    reason: z.enum(['delivered', 'loaded', 'brought back', 'moved', 'lost']),
    from: placeId,
    to: placeId,
    goods: z
      .array(z.strictObject({ item: recordId, quantity: quantity.min(1) }))
      .min(1)
      .max(5000),
    note,
  }),
);
