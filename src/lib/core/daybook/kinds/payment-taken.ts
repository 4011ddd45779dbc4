import { z } from 'zod';
import { MOST_POINTS, MOST_STROKES, SIGNATURE_BOX } from '../../payment/signature';
import { headOfMethod } from '../../held/held-account';
import { PAID_BY } from '../../payment/methods';
import {
  amount,
  amountFromZero,
  heldAccount,
  keptTax,
  kind,
  name,
  payWayId,
  percent,
  recordId,
} from '../kind';
import { isPromotion, POINTS } from '../../points/promotion-methods';
import { pointsOrReward } from './points';

/** What a card left behind: never its number, never a security code. */
const card = z.strictObject({
  /** Visa, Mastercard …, as the reader or the number says. */
  scheme: z.string().max(20),
  last4: z.string().regex(/^\d{4}$/, 'the last four figures'),
  entry: z.enum(['tap', 'insert', 'swipe', 'keyed', 'file']),
  /**
   * Captured: the money is on its way. Authorised: held, to be taken later. Deferred: taken with no
   * network, nobody has been asked yet.
   */
  state: z.enum(['captured', 'authorised', 'deferred']),
  /** The approval code; empty where nobody has been asked. */
  approval: z.string().max(12),
  /** What the acquirer calls the payment; empty where nobody has been asked. */
  acquirer: z.string().max(64),
  /** What the reader gives of a card with no network: sealed for the acquirer, opaque to all others. */
  sealed: z.string().max(4000),
  /** Until when what is held can be taken, ISO 8601; empty for what is not held. */
  expires: z.string().max(30),
  /** An approval code that was given by voice, for what nobody has been asked yet. */
  voice: z.string().max(12),
  /** Carried although it is beyond the limits: somebody with the right to it took the risk on. */
  isOverLimit: z.boolean(),
  /** The customer signed for it; what they drew is personal and stands apart. */
  isSigned: z.boolean(),
});

/** The account that it was paid from. */
const held = z.strictObject({
  account: heldAccount,
  /**
   * What was left on it afterwards, as far as the device knew: of what is kept for whoever holds it; of what a customer
   * owes, what they owe now. Minor units.
   */
  after: amount,
  /** More is owed than was agreed with the customer: somebody with the right to it let them. */
  isOverLimit: z.boolean(),
  /** By a voucher for goods of one tax: what it lowers that tax of the sale by. Minor units. */
  lowers: keptTax.optional(),
});

/** What was taken for it of a customer's points, or of what they had spent towards a reward. */
const promotion = z.strictObject({
  of: pointsOrReward,
  /** Points; of a reward minor units of spend. */
  taken: z.int().min(1).max(999_999_999),
  /** What is left of them, as far as the device knew. */
  after: z.int().min(-999_999_999).max(999_999_999),
  /** What each tax of the sale is lowered by, and its base. Minor units. */
  lowers: z
    .array(z.strictObject({ id: recordId, rate: percent, amount, base: amount }))
    .max(50)
    .refine((taxes) => new Set(taxes.map(({ id }) => id)).size === taxes.length, 'each tax once'),
});

/** Strokes, each of them x and y in turn (core/payment/signature.ts). */
const signature = z
  .array(
    z
      .array(z.int().min(0).max(SIGNATURE_BOX.width))
      .min(2)
      .max(MOST_POINTS * 2),
  )
  .min(1)
  .max(MOST_STROKES);

/**
 * A part of a payment was taken; it is safe from then on, whatever becomes of the slip. Version 2
 * brought ways to pay beside cash, the card side, tips, references and shares; version 3 the signature and whose
 * cheque it is; version 4 goods that came back and pay for others; version 5 what was paid from an account; version 6
 * points and rewards; version 7 what a voucher lowers a tax by.
 */
export const paymentTaken = kind(
  7,
  z
    .strictObject({
      slip: recordId,
      way: payWayId,
      /** What the way was called then. */
      wayName: name,
      method: z.enum(PAID_BY),
      side: z.enum(['cash', 'card']),
      /** The drawer that holds it; null for what is no cash. */
      drawer: recordId.nullable(),
      /** Minor units of what was owed, on the cash side. */
      clears: amountFromZero,
      /** Handed over or charged, without surcharge and tip. */
      charge: amountFromZero,
      surcharge: amountFromZero,
      /** On top, apart from what was owed. */
      tip: amountFromZero,
      change: amountFromZero,
      /** Kept difference from cash rounding. */
      rounding: amount,
      reference: z.string().max(80),
      customer: recordId.nullable(),
      /** Which of the people who share the slip out: 1, 2 …; null where it is not shared out. */
      share: z.int().min(1).max(1000).nullable(),
      card: card.nullable(),
      /** Only there where no money came in. */
      held: held.optional(),
      /** Only there where points or a reward paid. */
      promotion: promotion.optional(),
    })
    .refine(({ method, held: from }) => (headOfMethod(method) !== null) === (from !== undefined), {
      path: ['held'],
      message: 'the account it was paid from, by a way that is paid so and by no other',
    })
    .refine(({ method, promotion: by }) => isPromotion(method) === (by !== undefined), {
      path: ['promotion'],
      message: 'what was taken for it, by points or a reward and by nothing else',
    })
    .refine(
      ({ held: from, clears }) =>
        from?.lowers === undefined ||
        (from.account.startsWith('voucher:') &&
          from.lowers.amount + from.lowers.base <= clears + 1),
      {
        path: ['held'],
        message: 'a voucher lowers a tax of what it clears, and nothing else does',
      },
    )
    .refine(
      ({ promotion: by, method, customer, drawer, side }) =>
        by === undefined ||
        ((method === 'points') === (by.of === POINTS) &&
          customer !== null &&
          drawer === null &&
          side === 'cash'),
      { path: ['promotion'], message: 'a customer’s own, on the cash side: points, or a reward' },
    )
    .refine(
      ({ held: from, promotion: by, surcharge, tip, change, rounding, charge, clears }) =>
        (from === undefined && by === undefined) ||
        (surcharge === 0 && tip === 0 && change === 0 && rounding === 0 && charge === clears),
      { path: ['held'], message: 'an account is charged what it clears, and nothing beside it' },
    )
    .refine(
      ({ side, charge, change, clears, rounding }) =>
        side === 'card' ? change === 0 && rounding === 0 : charge - change === clears + rounding,
      {
        path: ['change'],
        message: 'what was handed over less change must be what it cleared and the rounding',
      },
    ),
  {
    1: (body) => ({
      ...body,
      wayName: 'Cash',
      method: 'cash',
      side: 'cash',
      tip: 0,
      reference: '',
      customer: null,
      share: null,
      card: null,
    }),
    2: ({ card: paidBy, ...body }) => ({
      ...body,
      card: paidBy === null ? null : { ...(paidBy as object), isSigned: false },
    }),
    3: (body) => body,
    4: (body) => body,
    5: (body) => body,
    6: (body) => body,
  },
  z.strictObject({
    signature: signature.optional(),
    /** Whose cheque it is. */
    payer: z.string().min(1).max(80).optional(),
  }),
);
