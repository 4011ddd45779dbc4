import { z } from 'zod';
import { kind, recordId } from '../kind';
import { CONSENT_WAYS } from './customer-consent';

/** A card on file, by what people tell it by: never its number, never what the acquirer calls it. */
export const cardOnFile = z.strictObject({
  scheme: z.string().max(20),
  last4: z.string().regex(/^\d{4}$/, 'the last four figures'),
  /** The last month that it holds, `YYYY-MM`. */
  expiry: z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'a month such as 2029-04'),
});
export type CardOnFile = z.infer<typeof cardOnFile>;

/** As it stood apart in version 1: with the acquirer's name for it, which only the server knows now. */
const cardApart = cardOnFile.extend({ token: z.string().max(64).optional() });

/**
 * A customer’s card was put on file, in place of the one before, or taken off it. A card is personal
 * and stands apart; without that part there is none. Version 2 left out what the acquirer calls it.
 */
export const customerCard = kind(
  2,
  z.strictObject({
    customer: recordId,
    /** How they agreed that it may be kept and charged; null when it is taken off file. */
    consent: z.enum(CONSENT_WAYS).nullable(),
  }),
  { 1: (body) => body },
  cardApart,
);
