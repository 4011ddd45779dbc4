import { z } from 'zod';
import { TIP_SHARES } from '../../settle/share-tips';
import { sum } from '../../money/units';
import { amountFromZero, kind, recordId } from '../kind';

/** What is owed when an event is settled, and to whom. */
export const PAID_FOR = ['tips', 'maker', 'commission', 'wages', 'pitch', 'cost'] as const;

/** Somebody was paid what an event owes them, from the safe, the bank or the owner's pocket. */
export const paidOut = kind(
  1,
  z
    .strictObject({
      for: z.enum(PAID_FOR),
      /** The person or maker; null for the pitch and other costs. */
      whom: recordId.nullable(),
      amount: amountFromZero.min(1),
      from: z.enum(['safe', 'bank', 'owner']),
      what: z.string().trim().max(120),
    })
    .refine((body) => (body.whom === null) === (body.for === 'pitch' || body.for === 'cost'), {
      path: ['whom'],
      message: 'who was paid, where it is a person',
    }),
);

const share = z.strictObject({ person: recordId, amount: amountFromZero.min(1) });

/** Tips of an event belong to others than those who took them from now on. */
export const tipsShared = kind(
  1,
  z
    .strictObject({
      how: z.enum(TIP_SHARES),
      /** Whose they were: nobody is whoever was not signed in. */
      taken: z
        .array(
          z.strictObject({
            seller: z.union([recordId, z.literal('nobody')]),
            amount: amountFromZero.min(1),
          }),
        )
        .max(100),
      shares: z.array(share).max(100),
    })
    .refine(
      ({ taken, shares }) =>
        sum(taken.map((each) => each.amount)) === sum(shares.map((each) => each.amount)),
      { path: ['shares'], message: 'the shares must come to what was taken' },
    ),
);

/** Money came to the bank, as a statement or somebody who has looked says. */
export const moneyCame = kind(
  2,
  z
    .strictObject({
      /** The bank's own day, ISO date. */
      day: z.iso.date(),
      /** What came. */
      amount: amountFromZero.min(1),
      /** What was kept of it on the way. */
      fees: amountFromZero,
      /** What it was owed by: ways to pay, bags. */
      from: z
        .array(
          z.strictObject({
            account: z
              .string()
              .max(60)
              .regex(/^(?:owed:|bag:)[a-z0-9-]+$/, 'a way to pay or a bag'),
            amount: amountFromZero.min(1),
          }),
        )
        .min(1)
        .max(50),
      /** Payments that it is the money of, where each is known: cheques, transfers. */
      payments: z.array(recordId).max(200),
      what: z.string().trim().max(120),
    })
    .refine(({ amount, fees, from }) => sum(from.map((each) => each.amount)) === amount + fees, {
      path: ['from'],
      message: 'what came and the fees must be what was owed',
    }),
  { 1: (body) => ({ ...body, payments: [] }) },
);
