import { z } from 'zod';
import { worthOf } from '../../money/worth';
import { amount, amountFromZero, kind, note, pieces, recordId } from '../kind';

/**
 * A drawer's final read: what should have been in it, what was, and why they differ. It keeps the
 * figures of that moment and never changes.
 */
export const drawerCounted = kind(
  1,
  z
    .strictObject({
      drawer: recordId,
      /** Counts up per device; people see D3-R2. */
      number: z.int().min(1),
      counts: pieces,
      expected: amount,
      counted: amountFromZero,
      difference: amount,
      reason: note,
    })
    .refine(({ counted, counts }) => worthOf(counts) === counted, {
      path: ['counted'],
      message: 'what was counted must be what the notes and coins add up to',
    })
    .refine(({ counted, expected, difference }) => counted - expected === difference, {
      path: ['difference'],
      message: 'the difference must be counted less expected',
    }),
);
