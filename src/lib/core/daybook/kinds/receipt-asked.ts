import { z } from 'zod';
import { kind, recordId } from '../kind';

/**
 * Somebody wants their receipt sent. It waits with the entry until there is network, and is sent once
 * by the server. The address is personal and stands apart.
 */
export const receiptAsked = kind(
  1,
  z.strictObject({
    sale: recordId,
    way: z.enum(['email']),
    isGift: z.boolean(),
  }),
  {},
  z.strictObject({ to: z.email().max(254) }),
);
