import { z } from 'zod';
import { POINTS } from '../../points/promotion-methods';
import { amountFromZero, day, kind, name, recordId } from '../kind';

/** Points, or the reward whose spend is counted. */
export const pointsOrReward = z.union([z.literal(POINTS), recordId]);

/** Whether points are given, for how much, what they are worth, and when they run out. */
export const businessPoints = kind(
  1,
  z.strictObject({
    isOn: z.boolean(),
    /** Each so much spent brings so many points. Minor units. */
    per: amountFromZero.min(1),
    points: z.int().min(1).max(100_000),
    /** What one point is worth: thousandths of a minor unit. */
    worth: z.int().min(1).max(100_000_000),
    /** Parts paid by points and rewards lower the taxes of the sale. */
    lowersTax: z.boolean(),
    /** Days after a customer's points moved last; 0 is for good. */
    lasts: z.int().min(0).max(36_500),
  }),
);

/** What a customer gets who has spent so much. */
export const rewardSet = kind(
  1,
  z
    .strictObject({
      id: recordId,
      name,
      /** Each so much spent, with tax, brings it once. Minor units. */
      spend: amountFromZero.min(1),
      /** What it pays at most; minor units. */
      value: amountFromZero.min(1),
      /** The days on which spending counts and it can be used; empty for any. */
      from: z.union([z.literal(''), day]),
      until: z.union([z.literal(''), day]),
      /** Goods of these categories alone; none are all goods that earn points. */
      categories: z.array(z.string().min(1).max(80)).max(50),
      isActive: z.boolean(),
    })
    .refine(({ from, until }) => from === '' || until === '' || from <= until, {
      path: ['until'],
      message: 'the last day must not be before the first',
    }),
);

/** Points that are given or taken without a sale: brought over from paper, run out, as a kindness. */
export const pointsMoved = kind(
  1,
  z.strictObject({
    customer: recordId,
    of: pointsOrReward,
    /** Points, or minor units of spend; above nothing where they are given. */
    quantity: z
      .int()
      .min(-999_999_999)
      .max(999_999_999)
      .refine((quantity) => quantity !== 0, 'some points'),
    reason: z.string().trim().min(1).max(200),
  }),
);
