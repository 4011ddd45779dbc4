import { z } from 'zod';
import {
  amount,
  amountFromZero,
  day,
  kind,
  percent,
  placeId,
  quantity,
  recordId,
  wayId,
} from '../kind';

/** All that a sale brought, so that each sum can take it off, or on again. */
const brought = z.strictObject({
  sale: recordId,
  /** As people call the sale. */
  number: z.string().max(20),
  reason: z.string().trim().min(1).max(200),
  place: placeId,
  day,
  hour: z.int().min(0).max(23),
  units: z.int(),
  /** Minor units: the takings, what cards paid above the cash price with it, and their tax. */
  takings: amount,
  tax: amount,
  /** Of the goods, as the sale counted it: R(cost × quantity) of each line. */
  cost: amount,
  /** What each item, or charge beside the goods, brought. */
  items: z
    .array(
      z.strictObject({
        item: z.string().max(40),
        quantity,
        takings: amount,
        tax: amount,
        /** Whether goods go back to the place. */
        isStocked: z.boolean(),
      }),
    )
    .max(510),
  taxes: z.array(z.strictObject({ tax: recordId, rate: percent, base: amount, amount })).max(100),
  /** The parts that are given back. */
  parts: z
    .array(
      z.strictObject({
        payment: recordId,
        way: wayId,
        drawer: recordId.nullable(),
        seller: recordId.nullable(),
        takings: amount,
        surcharge: amountFromZero,
        tip: amountFromZero,
        /** Handed back, or given back to the card. */
        amount: amountFromZero,
        isCard: z.boolean(),
      }),
    )
    .max(50),
});

/**
 * A sale was made as if it had never been, in the same shift: the goods are back, the money is given
 * back. It carries all that the sale brought, so that each sum can take it off again.
 */
export const saleVoided = kind(1, brought);

/**
 * A sale had been voided twice, by two devices out of touch: one of the voids is taken back, so that the sale
 * is taken off once. `void` is the entry that is taken back; the rest is what it took off.
 */
export const voidUndone = kind(1, brought.extend({ void: recordId }));
