import { z } from 'zod';
import { SUPPLIERS } from '../../books/names';
import { amountFromZero, kind, note, placeId, quantity, recordId } from '../kind';

/** Why goods are gone. Each is a place that they are at from then on: `gone:` and the word, with dashes. */
export const GONE = [
  'lost',
  'broken',
  'sampled',
  'given',
  'used',
  'stolen',
  'out of date',
] as const;
export type Gone = (typeof GONE)[number];

/**
 * Goods went from one place to another. Version 2 says which list it was for, what the goods had cost, and who
 * delivered them.
 */
export const stockMoved = kind(
  2,
  z
    .strictObject({
      reason: z.enum([
        'delivered',
        'loaded',
        'brought back',
        'moved',
        'sent',
        'received',
        'sent back',
        'put right',
        ...GONE,
      ]),
      from: placeId,
      to: placeId,
      goods: z
        .array(
          z.strictObject({
            item: recordId,
            quantity: quantity.min(1),
            /** Minor units: what all of it cost, where money moves with it. */
            amount: amountFromZero.optional(),
          }),
        )
        .min(1)
        .max(5000),
      note,
      /** The list it is done for: goods leave for it, arrive by it, or both at once. */
      list: z.strictObject({ id: recordId, does: z.enum(['send', 'receive', 'move']) }).optional(),
      supplier: recordId.optional(),
    })
    .refine(({ from, to }) => from !== to, {
      path: ['to'],
      message: 'goods go from one place to another',
    })
    .refine(
      ({ from, to, supplier }) => supplier === undefined || from === SUPPLIERS || to === SUPPLIERS,
      { path: ['supplier'], message: 'a supplier only where one delivers or takes back' },
    ),
  { 1: (body) => body },
);
