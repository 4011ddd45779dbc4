import { z } from 'zod';
import { takenBackSchema } from '../../journal/take-back';
import {
  amount,
  amountFromZero,
  day,
  heldAccount,
  kind,
  placeId,
  payWayId,
  quantity,
  recordId,
} from '../kind';
import { GONE } from './stock-moved';

/** Where what comes back is put: to where goods are sold from, or it is gone for good. */
export const backTo = z.enum(['stock', ...GONE]);
/** Of parts that points and rewards paid: their postings with the opposite sign, in part. */
export const promotionsBack = z.array(takenBackSchema).max(50);
export const surchargesBack = z
  .array(z.strictObject({ part: recordId, way: payWayId, amount }))
  .max(50);

/**
 * Some of what a sale had sold came back, and what it came to was given back. It carries the postings of the sale's
 * lines with the opposite sign, in part, and its share of the service charge and of what cards paid above the cash
 * price; what cards paid as a surcharge comes back beside it. Version 2 brought something off the price of goods that
 * stay with the customer, and goods that pay for others; version 3 money that goes on an account; version 4 what points and
 * rewards had paid, which goes back as such.
 */
export const returnMade = kind(
  4,
  z.strictObject({
    sale: recordId,
    /** As people call the sale. */
    saleNumber: z.string().max(20),
    slip: recordId,
    /** Counts up per device, never used again; people see D3-B4. */
    number: z.int().min(1),
    deviceNumber: z.int().min(1),
    reason: z.string().trim().min(1).max(200),
    /** Local day and hour, where it came back. */
    day,
    hour: z.int().min(0).max(23),
    /** Where the goods had been sold from, and where they are put now. */
    soldFrom: placeId,
    place: placeId,
    lines: z
      .array(
        z
          .strictObject({
            /** Which of the sale's, from 0. */
            line: z.int().min(0).max(499),
            /** With the sign of the line's; nothing where only something is taken off its price. */
            quantity,
            /** Put back to where goods are sold from, or gone for good. */
            to: backTo,
            /** Off the line's price afterwards, the goods staying with the customer. */
            off: amountFromZero.min(1).optional(),
          })
          .refine(({ quantity: back, off }) => (back === 0) === (off !== undefined), {
            path: ['quantity'],
            message: 'how much came back, or what is taken off its price',
          }),
      )
      .max(500)
      .refine(
        (lines) => new Set(lines.map(({ line }) => line)).size === lines.length,
        'each line of the sale once',
      ),
    takes: takenBackSchema,
    /** Of parts that cards paid: what was charged for paying so. */
    surcharges: surchargesBack,
    promotions: promotionsBack,
    /** What was given back, by which way. */
    money: z
      .array(
        z.strictObject({
          way: payWayId,
          /** The drawer that cash came out of. */
          drawer: recordId.nullable(),
          amount: amountFromZero,
          /** What cash was given more than was owed, because of the coins there are. */
          rounding: amount,
          /** The payment that it goes back to through the acquirer, and the refund's own id, asked for once. */
          card: z.strictObject({ payment: recordId, refund: recordId }).nullable(),
          /** The slip that it pays for, where it is exchanged: the way is then that of exchanges. */
          exchange: recordId.optional(),
          /** The account that it goes on. */
          account: heldAccount.optional(),
        }),
      )
      .max(20),
  }),
  { 1: (body) => body, 2: (body) => body, 3: (body) => ({ ...body, promotions: [] }) },
);
