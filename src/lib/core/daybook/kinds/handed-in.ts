import { z } from 'zod';
import { amountFromZero, day, kind, recordId, wayId } from '../kind';

/** Cheques, tokens and the like were handed in: to the bank, to whoever redeems them. Until then nothing can come. */
export const handedIn = kind(
  1,
  z.strictObject({
    way: wayId,
    day,
    /** What was handed in, as it was counted; minor units. */
    amount: amountFromZero.min(1),
    /** Payments that it is of, where each is known. */
    payments: z.array(recordId).max(200),
    /** What stands on the paying-in slip; who took them. */
    what: z.string().trim().min(1).max(60),
  }),
);
