import { z } from 'zod';
import { amountFromZero, kind, recordId } from '../kind';

/** What became of a card payment after it was asked for, or after it was taken with no network. */
export const paymentResult = kind(
  1,
  z.strictObject({
    payment: recordId,
    /**
     * Captured: the money is on its way. Declined: nothing was charged. Cancelled: nothing was charged
     * and nothing can be any more. Reversed: what was charged has been given back. Released, expired:
     * what was held is held no more.
     */
    state: z.enum(['captured', 'declined', 'cancelled', 'reversed', 'released', 'expired']),
    amount: amountFromZero,
    approval: z.string().max(12),
    acquirer: z.string().max(64),
    /** In the acquirer's words; empty where all is well. */
    reason: z.string().max(120),
  }),
);
