import { z } from 'zod';
import { kind, note, percent, recordId } from '../kind';
import { serviceCharge } from './business-set';

const discount = z.union([
  z.strictObject({ percent }),
  z.strictObject({ amount: z.int().min(0).max(99_999_999) }),
]);

/**
 * A slip that is kept for later: set aside for a customer who will be back, or a tab that a group
 * runs up. Its lines are entries of their own, so that what two devices add both stays. Setting it
 * again puts it back for everybody.
 */
export const slipSet = kind(
  1,
  z.strictObject({
    id: recordId,
    sort: z.enum(['aside', 'tab']),
    /** What people call it: a customer, a bench, a table. */
    name: z.string().max(80),
    customer: recordId.nullable(),
    group: z.strictObject({ name: z.string().max(80), percent }).nullable(),
    discount: discount.nullable(),
    service: serviceCharge.nullable(),
    note,
  }),
);
