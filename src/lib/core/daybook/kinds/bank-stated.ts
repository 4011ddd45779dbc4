import { z } from 'zod';
import { takenBackSchema } from '../../journal/take-back';
import { amount, day, kind, note, recordId } from '../kind';

/** Lines of an account's statement; the same line again is the same line. */
export const bankStated = kind(
  1,
  z.strictObject({
    account: recordId,
    /** The file that it was taken from. */
    source: z.string().trim().min(1).max(60),
    lines: z
      .array(
        z.strictObject({
          /** The same for ever, made of what the bank calls it or of what stands in it. */
          id: z.string().regex(/^[0-9a-f]{32}(-\d{1,4})?$/, 'the name of a line'),
          day,
          /** Minor units that came; below nothing for what went. */
          amount,
          reference: z.string().max(140),
          text: z.string().max(300),
          /** Who is at the other end. */
          other: z.string().max(140),
        }),
      )
      .min(1)
      .max(100),
  }),
);

/**
 * A line of a statement, or a part of it, is this money: what came or was paid out. Said once more of the same two,
 * the last word counts; with nothing, they are taken apart.
 */
export const bankJoined = kind(
  1,
  z.strictObject({
    line: recordId,
    /** The entry of what came or was paid; null for what is none of the events' money. */
    money: recordId.nullable(),
    /** Minor units, with the sign of the line. */
    amount,
    why: note.trim(),
  }),
);

/** What came, or was paid out, was not so: it carries the postings with the opposite sign. */
export const moneyUndone = kind(
  1,
  z.strictObject({ takes: takenBackSchema, why: note.trim().min(1) }),
);
