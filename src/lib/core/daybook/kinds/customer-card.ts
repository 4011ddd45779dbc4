import { z } from 'zod';
import { kind, recordId } from '../kind';
import { CONSENT_WAYS } from './customer-consent';

/** A card on file: what the acquirer knows it by, and what people tell it by. Never its number. */
export const cardOnFile = z.strictObject({
  /** The acquirer's name for it; worth nothing without the key of the business. */
  token: z.string().min(1).max(64),
  scheme: z.string().max(20),
  last4: z.string().regex(/^\d{4}$/, 'the last four figures'),
  /** The last month that it holds, `YYYY-MM`. */
  expiry: z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'a month such as 2029-04'),
});
export type CardOnFile = z.infer<typeof cardOnFile>;

/**
 * A customer’s card was put on file, in place of the one before, or taken off it. A card is personal
 * and stands apart; without that part there is none.
 */
export const customerCard = kind(
  1,
  z.strictObject({
    customer: recordId,
    /** How they agreed that it may be kept and charged; null when it is taken off file. */
    consent: z.enum(CONSENT_WAYS).nullable(),
  }),
  {},
  cardOnFile,
);
