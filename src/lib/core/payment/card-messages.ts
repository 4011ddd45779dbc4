/** Messages about cards between a device and the server. No card number is ever in one in clear. */
import { z } from 'zod';
import { cardsReported } from '../daybook/kinds/cards-reported';
import { currencyCode, recordId } from '../daybook/kind';
import { cardOnFile } from '../daybook/kinds/customer-card';
import { CONSENT_WAYS } from '../daybook/kinds/customer-consent';

/** A card that the reader read, sealed for the acquirer and opaque to us, or one that is on file. */
export const cardAskSchema = z
  .strictObject({
    payment: recordId,
    amount: z.int().min(1),
    currency: currencyCode,
    sealed: z.string().max(4000),
    /** Whose card on file it is, in place of a sealed one; what the acquirer calls it only the server knows. */
    customer: recordId.nullable().default(null),
    /** False only holds the money, to be taken later. */
    capture: z.boolean().default(true),
    /** An approval code that was given by voice; empty for none. */
    voice: z.string().max(12).default(''),
  })
  .refine(({ sealed, customer }) => (sealed === '') !== (customer === null), {
    path: ['sealed'],
    message: 'either what the reader sealed or the customer whose card is on file',
  });

/** A card that is to be put on file for a customer, who has agreed to it. */
export const cardKeepSchema = z.strictObject({
  customer: recordId,
  sealed: z.string().min(1).max(4000),
  consent: z.enum(CONSENT_WAYS),
});

/** What people tell it by, or why it is not kept. */
export const cardKeptSchema = cardOnFile;

export const cardCancelSchema = z.strictObject({ payment: recordId });

/** What becomes of money that is held stands in the books: `hold.decided`. */
export const cardHoldSchema = z.strictObject({ payment: recordId });

/** The longest reason that is kept, in UTF-16 units: what is longer is cut, so that it can be written down. */
export const LONGEST_REASON = 120;

/** @example clipped('x'.repeat(200)).length // => 120 */
export function clipped(reason: string): string {
  if (reason.length <= LONGEST_REASON) return reason;
  // Not through the middle of a character.
  return `${reason.slice(0, LONGEST_REASON - 1).replace(/[\uD800-\uDBFF]$/, '')}…`;
}

/** How much goes back, and to which card, stands in the books: `return.made`. */
export const cardRefundSchema = z.strictObject({ refund: recordId });

/** What came of it: it is on its way, or the acquirer will not. */
export const refundAnswerSchema = z.object({
  state: z.enum(['refunded', 'refused']),
  amount: z.int().min(0),
  reason: z.string().transform(clipped),
});
export type RefundAnswer = z.infer<typeof refundAnswerSchema>;

/** What the acquirer says of a payment. */
export const cardAnswerSchema = z.object({
  state: z.enum(['captured', 'authorised', 'declined', 'cancelled', 'reversed', 'released']),
  /** Minor units approved: less than was asked for when only part of it was. */
  amount: z.int().min(0),
  approval: z.string().max(12),
  acquirer: z.string().max(64),
  reason: z.string().transform(clipped),
  /** ISO 8601: until when what is held can be taken. */
  expires: z.string().max(30),
});
export type CardAnswer = z.infer<typeof cardAnswerSchema>;

/** What cards are sealed with, and whether it is all practice. */
export const cardKeySchema = z.object({
  key: z.record(z.string(), z.unknown()),
  isPractice: z.boolean(),
});

/** Which day of the acquirer's report is asked for. */
export const reportQuerySchema = z.iso.date();

/** What the acquirer says of a day, as it goes into the daybook. */
export const reportSchema = z.object({
  source: z.string().min(1).max(60),
  lines: z.array(cardsReported.body.shape.lines.element).max(20_000),
});
