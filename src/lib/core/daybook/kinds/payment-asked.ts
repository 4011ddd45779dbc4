import { z } from 'zod';
import { amountFromZero, kind, recordId, wayId } from '../kind';

/**
 * A card is about to be asked for. Written first, so that whatever dies afterwards, it is known that
 * somebody may have been charged under this reference.
 */
export const paymentAsked = kind(
  1,
  z.strictObject({
    /** The reference at the acquirer, and the id of the `payment.taken` if it comes to one. */
    payment: recordId,
    slip: recordId,
    way: wayId,
    /** Minor units that the card is to be charged, surcharge and tip with it. */
    amount: amountFromZero,
  }),
);
