import { z } from 'zod';
import { takenBackSchema } from '../../journal/take-back';
import { kind, recordId } from '../kind';
import { partAsPostings } from './before-the-journal';

/**
 * A part that had been taken was given back, before its slip was rung up. It carries the postings of the part
 * with the opposite sign. Versions 1 and 2 carried sums.
 */
export const paymentReversed = kind(
  3,
  z.strictObject({
    payment: recordId,
    slip: recordId,
    reason: z.string().max(200),
    /** The acquirer must be told as well. */
    isCard: z.boolean(),
    takes: takenBackSchema,
  }),
  { 2: partAsPostings },
);
