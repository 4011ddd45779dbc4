import { z } from 'zod';
import { amountFromZero, day, heldAccount, kind } from '../kind';
import { isVoucherNumber } from '../../held/voucher-number';

const reason = z.string().trim().min(1).max(200);

/** A voucher is blocked, or let be spent again, or lasts until another day. */
export const voucherSet = kind(
  1,
  z.strictObject({
    number: z.string().refine(isVoucherNumber, 'a voucher’s number: letters and figures'),
    isBlocked: z.boolean(),
    /** The last day on which it can be spent; empty for any. */
    until: z.union([z.literal(''), day]),
    reason,
  }),
);

/** A voucher ran out, and what was left on it is owed no more. */
export const voucherLapsed = kind(
  1,
  z.strictObject({
    number: z.string().refine(isVoucherNumber, 'a voucher’s number: letters and figures'),
    /** All that was left on it. Minor units. */
    amount: amountFromZero.min(1),
  }),
);

/**
 * What is owed on one account goes on another: a voucher that was lost is replaced, credit pays what a customer owes.
 * No money comes or goes.
 */
export const heldMoved = kind(
  1,
  z
    .strictObject({
      from: heldAccount,
      to: heldAccount,
      /** Minor units. */
      amount: amountFromZero.min(1),
      /** Of a voucher that is made by it: the last day on which it can be spent; empty for any. */
      until: z.union([z.literal(''), day]),
      reason,
    })
    .refine(({ from, to }) => from !== to, { path: ['to'], message: 'another account' }),
);
