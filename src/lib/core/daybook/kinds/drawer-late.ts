import { z } from 'zod';
import { amount, kind, note, recordId } from '../kind';

/**
 * Cash of a drawer that was heard of after its final read: the read stays as it is, and what came late is a
 * difference of the drawer from now on.
 */
export const drawerLate = kind(
  1,
  z.strictObject({
    drawer: recordId,
    /** Minor units more in the drawer than the read knew of; below nothing for less. */
    amount: amount.refine((n) => n !== 0, 'an amount that is not nothing'),
    reason: note.trim().min(1),
  }),
);
