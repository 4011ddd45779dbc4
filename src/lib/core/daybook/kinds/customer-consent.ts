import { z } from 'zod';
import { kind, recordId } from '../kind';

export const CONSENT_WAYS = ['spoken', 'written', 'online'] as const;
export type ConsentWay = (typeof CONSENT_WAYS)[number];

/** A customer said that their data may be kept, or that it may no longer be. */
export const customerConsent = kind(
  1,
  z.strictObject({ customer: recordId, isGiven: z.boolean(), way: z.enum(CONSENT_WAYS) }),
);
