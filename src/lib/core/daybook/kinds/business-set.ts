import { z } from 'zod';
import {
  amountFromZero,
  currencyCode,
  kind,
  name,
  note,
  percent,
  recordId,
  timeZone,
} from '../kind';

/** A discount that is given to everybody of a group, by one tap. */
const group = z.strictObject({ id: recordId, name, percent });

/** What is added to every slip unless it is taken off: percent or an amount, with its own taxes. */
export const serviceCharge = z.union([
  z.strictObject({ percent, taxes: z.array(recordId).max(10) }),
  z.strictObject({ amount: amountFromZero, taxes: z.array(recordId).max(10) }),
]);

/** What is asked when somebody may give a tip; null where nothing is asked. */
const tips = z.strictObject({
  /** Offered on one tap each. */
  percents: z.array(percent).max(6),
  /** Of what they are percent: the total with tax, or without. */
  of: z.enum(['total', 'net']),
  /** The card reader asks for it, on its own display, before it asks for a card. */
  isOnReader: z.boolean(),
});

/** What devices may take of cards with no network; null where they may take none. Minor units. */
const carry = z.strictObject({
  perPayment: amountFromZero,
  /** Together, on one device at one event. */
  perDevice: amountFromZero,
  /** The oldest that is carried must not be older when another is taken. */
  hours: z.int().min(1).max(720),
});

/** Minutes after which an untouched device asks who is there; 0 is never. */
const lockAfter = z.int().min(0).max(240);

/** How drawers are counted, and what may be given back without a sale. Version 2 brought the latter. */
export const businessCash = kind(
  2,
  z.strictObject({
    /** Nobody sees what should be in a drawer until it has been counted. */
    isBlind: z.boolean(),
    /** A difference of more than this is counted once more, minor units; null: never. */
    recountAbove: amountFromZero.nullable(),
    /** What one person gives back on a day without a sale at most, minor units; null: any amount. */
    refundMost: amountFromZero.nullable(),
  }),
  { 1: (body) => ({ ...body, refundMost: null }) },
);

/**
 * The business itself: how it prices, rounds and heads its receipts. Version 2 brought the lock,
 * version 3 two prices, group discounts and the service charge, version 4 tips and cards with no network,
 * version 5 the signature and tips on the reader, version 6 after how long a device forgets. From version 7 on
 * the lock is set up apart; only what was written before carries it, or what a business begins with.
 */
export const businessSet = kind(
  7,
  z.strictObject({
    name,
    currency: currencyCode,
    locale: z.string().max(20),
    timeZone,
    pricesIncludeTax: z.boolean(),
    taxRounding: z.enum(['line', 'sale']),
    /** Cash rounding step in minor units; 1 is none. */
    cashStep: z.int().min(1).max(1000),
    /** Which of the two prices is typed in; the other follows by the uplift. */
    typedSide: z.enum(['cash', 'card']),
    /** Percent by which the card price is above the cash price; 0 is one price for all. */
    uplift: percent,
    groups: z.array(group).max(20),
    service: serviceCharge.nullable(),
    tips: tips.nullable(),
    carry: carry.nullable(),
    /** Cards that are charged more than this at the reader are signed for, minor units; null: none is. */
    signAbove: amountFromZero.nullable(),
    receiptHead: note,
    receiptFoot: note,
    lockAfter: lockAfter.optional(),
    /** Days without network after which a device forgets all it knows; 0 is never. */
    forgetAfter: z.int().min(0).max(365),
  }),
  {
    1: (body) => ({ ...body, lockAfter: 0 }),
    2: (body) => ({ ...body, typedSide: 'cash', uplift: '0', groups: [], service: null }),
    3: (body) => ({ ...body, tips: null, carry: null }),
    4: ({ tips, ...body }) => ({
      ...body,
      tips: tips === null ? null : { ...(tips as object), isOnReader: false },
      signAbove: null,
    }),
    5: (body) => ({ ...body, forgetAfter: 0 }),
    6: (body) => body,
  },
);

/** After how long a device asks who is there. */
export const businessLock = kind(1, z.strictObject({ lockAfter }));
