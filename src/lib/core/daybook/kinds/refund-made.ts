import { z } from 'zod';
import { sum } from '../../money/units';
import {
  amount,
  amountFromZero,
  cost,
  day,
  heldAccount,
  kind,
  name,
  percent,
  placeId,
  quantity,
  recordId,
  wayId,
} from '../kind';
import { backTo } from './return-made';

/**
 * Goods came back, or money was given back, of a sale that is not at hand: sold elsewhere, long ago, or on a receipt
 * that nobody knows here. What it was is taken from what the goods are now. Version 2 brought money that goes on an
 * account; version 3 a card that is there.
 */
export const refundMade = kind(
  3,
  z
    .strictObject({
      /** Counts up per device with the returns, never used again; people see D3-B4. */
      number: z.int().min(1),
      deviceNumber: z.int().min(1),
      /** As it stands on a paper receipt; empty where there is none. It is looked for when this arrives. */
      saleNumber: z.string().max(20),
      reason: z.string().trim().min(1).max(200),
      /** Local day and hour, and where goods are put. */
      day,
      hour: z.int().min(0).max(23),
      place: placeId,
      lines: z
        .array(
          z.strictObject({
            /** Null for an amount that is of no goods. */
            item: recordId.nullable(),
            name: z.string().min(1).max(200),
            detail: z.string().max(200),
            unit: z.string().max(20),
            quantity: quantity.min(1),
            net: amountFromZero,
            tax: z.record(recordId, amount),
            total: amountFromZero,
            cost: cost.nullable(),
            isStocked: z.boolean(),
            maker: recordId.nullable(),
            to: backTo,
          }),
        )
        .min(1)
        .max(50),
      taxes: z
        .array(z.strictObject({ id: recordId, name, rate: percent, base: amount, amount }))
        .max(20),
      money: z.strictObject({
        way: wayId,
        /** The drawer that cash came out of. */
        drawer: recordId.nullable(),
        amount: amountFromZero,
        /** What cash was given more than was owed, because of the coins there are. */
        rounding: amount,
        reference: z.string().max(80),
        /** The account that it goes on. */
        account: heldAccount.optional(),
        /** The card that it goes onto through the acquirer, as the reader read it: it had paid for nothing here. */
        card: z
          .strictObject({
            /** The refund's own id, asked for once. */
            refund: recordId,
            scheme: z.string().max(20),
            last4: z.string().regex(/^\d{4}$/, 'the last four figures'),
            entry: z.enum(['tap', 'insert', 'swipe']),
            /** Sealed for the acquirer, opaque to all others. */
            sealed: z.string().min(1).max(4000),
          })
          .optional(),
      }),
    })
    .refine(
      ({ lines, money }) => sum(lines.map(({ total }) => total)) === money.amount - money.rounding,
      { path: ['money'], message: 'what the lines come to, and what cash was rounded by' },
    )
    .refine(
      ({ money: { card, drawer, account } }) =>
        card === undefined || (drawer === null && account === undefined),
      { path: ['money', 'card'], message: 'onto a card, out of a drawer or on an account: one' },
    ),
  { 1: (body) => body, 2: (body) => body },
);
