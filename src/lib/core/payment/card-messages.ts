/** Messages about cards between a device and the server. No card number is ever in one in clear. */
import { z } from 'zod';
import { currencyCode, recordId } from '../daybook/kind';
import { cardOnFile } from '../daybook/kinds/customer-card';

/** A card that the reader read, sealed for the acquirer and opaque to us, or one that is on file. */
export const cardAskSchema = z
  .strictObject({
    payment: recordId,
    amount: z.int().min(1),
    currency: currencyCode,
    sealed: z.string().max(4000),
    /** Of a card on file, in place of a sealed one. */
    token: z.string().max(64).default(''),
    /** False only holds the money, to be taken later. */
    capture: z.boolean().default(true),
    /** An approval code that was given by voice; empty for none. */
    voice: z.string().max(12).default(''),
  })
  .refine(({ sealed, token }) => (sealed === '') !== (token === ''), {
    path: ['sealed'],
    message: 'either what the reader sealed or the token of a card on file',
  });

/** A card that is to be put on file for a customer. */
export const cardKeepSchema = z.strictObject({
  customer: recordId,
  sealed: z.string().min(1).max(4000),
});

/** What the acquirer keeps of it, or why it does not. */
export const cardKeptSchema = cardOnFile;

export const cardCancelSchema = z.strictObject({ payment: recordId });

/** Takes what is held, or less of it. */
export const cardCaptureSchema = z.strictObject({ payment: recordId, amount: z.int().min(1) });

/** What the acquirer says of a payment. */
export const cardAnswerSchema = z.object({
  state: z.enum(['captured', 'authorised', 'declined', 'cancelled', 'reversed', 'released']),
  /** Minor units approved: less than was asked for when only part of it was. */
  amount: z.int().min(0),
  approval: z.string().max(12),
  acquirer: z.string().max(64),
  reason: z.string().max(120),
  /** ISO 8601: until when what is held can be taken. */
  expires: z.string().max(30),
});
export type CardAnswer = z.infer<typeof cardAnswerSchema>;

/** What cards are sealed with, and whether it is all practice. */
export const cardKeySchema = z.object({
  key: z.record(z.string(), z.unknown()),
  isPractice: z.boolean(),
});
