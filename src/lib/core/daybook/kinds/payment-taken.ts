import { z } from 'zod';
import { amount, amountFromZero, kind, recordId } from '../kind';

/** A part of a payment was taken; it is safe from then on, whatever becomes of the slip. */
export const paymentTaken = kind(
  1,
  z
    .strictObject({
      slip: recordId,
      way: z.enum(['cash']),
      drawer: recordId,
      /** Minor units of what was owed. */
      clears: amountFromZero,
      /** Handed over, without surcharge. */
      charge: amountFromZero,
      surcharge: amountFromZero,
      change: amountFromZero,
      /** Kept difference from cash rounding. */
      rounding: amount,
    })
    .refine(({ charge, change, clears, rounding }) => charge - change === clears + rounding, {
      path: ['change'],
      message: 'what was handed over less change must be what it cleared and the rounding',
    }),
);
