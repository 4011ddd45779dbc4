/** Messages about cards between a device and the server. No card number is ever in one in clear. */
import { z } from 'zod';
import { currencyCode, recordId } from '../daybook/kind';

/** A card that the reader read: sealed for the acquirer, opaque to us. */
export const cardAskSchema = z.strictObject({
  payment: recordId,
  amount: z.int().min(1),
  currency: currencyCode,
  sealed: z.string().min(1).max(4000),
});

export const cardCancelSchema = z.strictObject({ payment: recordId });

/** What the acquirer says of a payment. */
export const cardAnswerSchema = z.object({
  state: z.enum(['captured', 'authorised', 'declined', 'cancelled', 'reversed', 'released']),
  /** Minor units approved: less than was asked for when only part of it was. */
  amount: z.int().min(0),
  approval: z.string().max(12),
  acquirer: z.string().max(64),
  reason: z.string().max(120),
});
export type CardAnswer = z.infer<typeof cardAnswerSchema>;

/** What cards are sealed with, and whether it is all practice. */
export const cardKeySchema = z.object({
  key: z.record(z.string(), z.unknown()),
  isPractice: z.boolean(),
});
