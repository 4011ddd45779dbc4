import { z } from 'zod';
import { amountFromZero, day, kind, note, placeId, quantity, recordId } from '../kind';
import { openLine } from './slip-line';

/** What was agreed of one line: the goods, their price, and all that it comes to. */
export const orderLine = openLine
  .omit({ listOther: true, discount: true, account: true, until: true, pays: true, ordered: true })
  .extend({
    id: recordId,
    price: amountFromZero,
    quantity: quantity.min(1),
    /** Before and after every discount, on the cash side. */
    gross: amountFromZero,
    discount: amountFromZero,
    /** The part of the discount that comes of a customer's or a group's standing discount. */
    standing: amountFromZero,
    /** With tax. */
    total: amountFromZero,
  });

/**
 * Goods and what they come to were agreed with a customer. That is said once and stays; how far it was handed over is
 * what sales say of its lines.
 */
export const orderSet = kind(
  1,
  z
    .strictObject({
      id: recordId,
      /** As people call it; of an order that was made elsewhere, its number there. */
      number: z.string().trim().min(1).max(40),
      /** Where it was made, if elsewhere: a shop's name; with the number it is that order's and no other's. */
      source: z.string().trim().max(40),
      customer: recordId,
      lines: z.array(orderLine).min(1).max(200),
      /** The group whose standing discount it has; a customer's own has no name here. */
      standingName: z.string().max(80),
    })
    .refine(({ lines }) => new Set(lines.map(({ id }) => id)).size === lines.length, {
      path: ['lines'],
      message: 'each line once',
    })
    .refine(({ lines }) => lines.every((each) => each.discount <= each.gross), {
      path: ['lines'],
      message: 'no more off than a line is',
    })
    .refine(({ lines }) => lines.every((each) => each.total >= each.gross - each.discount), {
      path: ['lines'],
      message: 'a line comes to what is left of it, and its tax',
    }),
);

/** What it is, and until when: a quote that holds until a day, goods that are kept, or an order that is collected. */
export const orderTerms = kind(
  1,
  z.strictObject({
    order: recordId,
    /** Whose it is, as it says itself. */
    customer: recordId,
    sort: z.enum(['quote', 'kept', 'collect']),
    /** What is asked for in advance, at least. Minor units. */
    deposit: amountFromZero,
    /** At which event it is collected; null for any. */
    collectAt: recordId.nullable(),
    /** Where the goods are kept; null for a quote. */
    place: placeId.nullable(),
    /** The last day; empty for any. */
    until: z.union([z.literal(''), day]),
  }),
  {},
  z.strictObject({ note: note.min(1) }),
);

/** How far its goods are: still to be made or bought, ready, or called off. */
export const orderStage = kind(
  1,
  z.strictObject({
    order: recordId,
    stage: z.enum(['waiting', 'ready', 'off']),
    /** Why it was called off. */
    reason: z.string().trim().max(200),
  }),
);

/** What was paid for an order where it was made: it is still to come by that way. */
export const orderPaid = kind(
  1,
  z.strictObject({
    order: recordId,
    way: z.uuid(),
    /** Minor units. */
    amount: amountFromZero.min(1),
    reference: z.string().max(80),
  }),
);
