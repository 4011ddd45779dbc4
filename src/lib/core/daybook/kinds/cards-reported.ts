import { z } from 'zod';
import { amount, amountFromZero, day, kind, note, recordId } from '../kind';

/** What a line of the acquirer's report is about. */
export const REPORT_SORTS = ['payment', 'refund', 'chargeback', 'decline'] as const;

/** Lines of what the acquirer says it took, gave back and paid out; the same line again is the same line. */
export const cardsReported = kind(
  1,
  z.strictObject({
    /** Whose report it is: the acquirer's own name, or the file's. */
    source: z.string().trim().min(1).max(60),
    day,
    lines: z
      .array(
        z.strictObject({
          /** What the acquirer calls the line; the same for ever. */
          id: z.string().trim().min(1).max(80),
          sort: z.enum(REPORT_SORTS),
          /** Of the payment, as we had called it; empty where it says none. */
          reference: z.string().max(80),
          /** Minor units that come to us; below nothing for what is taken back. */
          amount,
          /** What it cost, minor units. */
          fee: amountFromZero,
          scheme: z.string().max(20),
          last4: z.string().regex(/^(?:\d{4})?$/, 'the last four figures, or nothing'),
          at: z.iso.datetime({ offset: true }),
          /** Which payout it is in; empty where it is in none yet. */
          payout: z.string().max(60),
          payoutDay: z.union([day, z.literal('')]),
        }),
      )
      .min(1)
      .max(200),
  }),
);

/** Somebody joins a line of the report to a payment by hand, or says that it is none of ours. */
export const cardsJoined = kind(
  1,
  z.strictObject({ line: recordId, payment: recordId.nullable(), why: note.trim().min(1) }),
);
