import { z } from 'zod';
import { worthOf } from '../../money/worth';
import { amount, amountFromZero, kind, note, pieces, recordId } from '../kind';

/**
 * A drawer's final read: what should have been in it, what was, and why they differ. It keeps the
 * figures of that moment and never changes. Version 2 brought what becomes of the cash, and the count before, where
 * it was counted twice.
 */
export const drawerCounted = kind(
  2,
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
      /** What stays for the next float; it is in the safe until then. */
      stays: amountFromZero,
      /** What goes into a bag for the bank; the entry's id is the bag's. All else goes to the safe. */
      bag: z
        .strictObject({ number: z.string().trim().min(1).max(40), amount: amountFromZero.min(1) })
        .nullable(),
      /** What was counted first, where the difference asked for a second count. */
      first: amountFromZero.nullable(),
    })
    .refine(({ counted, counts }) => worthOf(counts) === counted, {
      path: ['counted'],
      message: 'what was counted must be what the notes and coins add up to',
    })
    .refine(({ counted, expected, difference }) => counted - expected === difference, {
      path: ['difference'],
      message: 'the difference must be counted less expected',
    })
    .refine(({ counted, stays, bag }) => stays + (bag?.amount ?? 0) <= counted, {
      path: ['stays'],
      message: 'what stays and what is bagged must not be more than was counted',
    }),
  { 1: (body) => ({ ...body, stays: 0, bag: null, first: null }) },
);
