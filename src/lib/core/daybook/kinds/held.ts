import { z } from 'zod';
import { amountFromZero, day, heldAccount, keptTax, kind } from '../kind';
import { isKeptWith } from '../../held/one-purpose';
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
  2,
  z.strictObject({
    number: z.string().refine(isVoucherNumber, 'a voucher’s number: letters and figures'),
    /** All that was left on it. Minor units. */
    amount: amountFromZero.min(1),
    /** What of it is tax that was paid when it was sold; since version 2. */
    kept: keptTax.optional(),
  }),
  { 1: (body) => body },
);

/**
 * What is owed on one account goes on another: a voucher that was lost is replaced, credit pays what a customer owes.
 * No money comes or goes.
 */
export const heldMoved = kind(
  2,
  z
    .strictObject({
      from: heldAccount,
      to: heldAccount,
      /** Minor units. */
      amount: amountFromZero.min(1),
      /** Of a voucher that is made by it: the last day on which it can be spent; empty for any. */
      until: z.union([z.literal(''), day]),
      /** Of a voucher that is made in the place of one for goods of one tax, since version 2: that tax of it. */
      kept: keptTax.optional(),
      reason,
    })
    .refine(({ kept, to, amount }) => isKeptWith(kept, { account: to, value: amount }), {
      path: ['kept'],
      message: 'the tax that is in what the voucher is made of',
    })
    .refine(({ from, to }) => from !== to, { path: ['to'], message: 'another account' }),
  { 1: (body) => body },
);
