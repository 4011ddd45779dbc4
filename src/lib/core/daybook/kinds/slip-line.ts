import { z } from 'zod';
import {
  amount,
  amountFromZero,
  cost,
  day,
  heldAccount,
  keptTax,
  kind,
  name,
  percent,
  quantity,
  recordId,
} from '../kind';

const discount = z.union([
  z.strictObject({ percent }),
  z.strictObject({ amount: z.int().min(0).max(99_999_999) }),
]);

/** A line as it stands on an open slip; sums are worked out when it is looked at. */
export const openLine = z.strictObject({
  item: recordId.nullable(),
  name,
  detail: z.string().max(80),
  unit: z.string().max(12),
  decimals: z.int().min(0).max(3),
  price: amount,
  quantity,
  taxes: z.array(recordId).max(10),
  cost: cost.nullable(),
  isStocked: z.boolean(),
  otherPrice: amount.optional(),
  extras: z
    .array(z.strictObject({ name, price: amount }))
    .max(50)
    .optional(),
  listPrice: amount.optional(),
  /** The other side's own price before that, since version 2. */
  listOther: amount.optional(),
  reason: z.string().max(200).optional(),
  discount: discount.optional(),
  note: z.string().max(200).optional(),
  seller: recordId.optional(),
  maker: recordId.optional(),
  tag: z.string().max(40).optional(),
  /** What is paid in on an account, since version 3; of a voucher until when it can be spent. */
  account: heldAccount.optional(),
  until: day.optional(),
  /** Of a voucher for goods of one tax, since version 6: that tax of what it is sold for. */
  kept: keptTax.optional(),
  /** The sale whose debt it pays before older ones, since version 5. */
  pays: recordId.optional(),
  /** The line of an order that it hands over, since version 4. */
  ordered: z
    .strictObject({
      order: recordId,
      line: recordId,
      /** What was agreed to be off, of how much of it, and how much was handed over before. */
      off: amountFromZero,
      of: quantity,
      before: quantity,
    })
    .optional(),
});

/** A line of a kept slip, as it now is; null takes it off. */
export const slipLine = kind(
  6,
  z.strictObject({
    id: recordId,
    slip: recordId,
    /** Who of the group it is for; empty for all of them. */
    person: z.string().max(40),
    line: openLine.nullable(),
  }),
);
