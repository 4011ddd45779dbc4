import { z } from 'zod';
import { STAMP_PATTERN } from '../clock';
import { amount, kind, name, note, placeId, quantity, recordId } from '../kind';

/** A count of the stock at a place, or of one category there, while selling goes on. */
export const countSet = kind(
  1,
  z.strictObject({
    count: recordId,
    deviceNumber: z.int().min(0).max(9999),
    number: z.int().min(1).max(999_999),
    name,
    place: placeId,
    /** Only goods of this category; empty for all. */
    category: z.string().max(80),
    /** Whoever counts does not see what should be there. */
    isBlind: z.boolean(),
    note,
  }),
);

/** What somebody counted: it adds to what others counted of the same goods elsewhere in the place. */
export const countNoted = kind(
  1,
  z.strictObject({
    count: recordId,
    goods: z
      .array(z.strictObject({ item: recordId, quantity }))
      .min(1)
      .max(5000)
      .refine((goods) => new Set(goods.map(({ item }) => item)).size === goods.length, {
        message: 'each item once',
      }),
  }),
);

/** Differences that somebody accepts: from then on the books say what was counted. */
export const countAccepted = kind(
  1,
  z.strictObject({
    count: recordId,
    place: placeId,
    goods: z
      .array(
        z.strictObject({
          item: recordId,
          counted: quantity,
          /** What should have been there when it was counted. */
          expected: quantity,
          /** The stamp of what was counted last. */
          stamp: z.string().regex(STAMP_PATTERN, 'a stamp of the daybook'),
          /** What the difference cost, minor units: what is missing above nothing, what was found below. */
          lost: amount,
          /** The same at the price it sells for. */
          retail: amount,
        }),
      )
      .min(1)
      .max(5000)
      .refine((goods) => new Set(goods.map(({ item }) => item)).size === goods.length, {
        message: 'each item once',
      }),
    reason: z.string().max(200),
  }),
);

/** The count is over, or was called off. */
export const countEnded = kind(
  1,
  z.strictObject({ count: recordId, how: z.enum(['done', 'off']) }),
);
