import { z } from 'zod';
import { amountFromZero, kind, recordId } from '../kind';

/** What became of money that was to go back to a card because goods came back. */
export const refundResult = kind(
  1,
  z.strictObject({
    refund: recordId,
    /** The payment that it is of. */
    payment: recordId,
    /** Refunded: it is on its way. Refused: the acquirer gives it back no more, and it must go another way. */
    state: z.enum(['refunded', 'refused']),
    amount: amountFromZero,
    /** In the acquirer's words; empty where all is well. */
    reason: z.string().max(120),
  }),
);
