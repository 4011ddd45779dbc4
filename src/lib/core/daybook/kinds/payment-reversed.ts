import { z } from 'zod';
import { amountFromZero, kind, recordId, wayId } from '../kind';

/**
 * A part that had been taken was given back, before its slip was rung up. It carries all that the
 * part brought, so that each sum can take it off again.
 */
export const paymentReversed = kind(
  2,
  z.strictObject({
    payment: recordId,
    slip: recordId,
    way: wayId,
    drawer: recordId.nullable(),
    /** Minor units of what was owed, which are owed again. */
    clears: amountFromZero,
    /** What the till counted as takings of the way. */
    takings: amountFromZero,
    surcharge: amountFromZero,
    tip: amountFromZero,
    /** Whose the tip was, null for nobody; missing before version 2, where it was whoever wrote this. */
    seller: recordId.nullable().optional(),
    /** Handed back: what had been kept of it, tip and surcharge included. */
    amount: amountFromZero,
    reason: z.string().max(200),
    /** The acquirer must be told as well. */
    isCard: z.boolean(),
  }),
);
