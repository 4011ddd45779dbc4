import { z } from 'zod';
import { METHODS } from '../../payment/methods';
import { postingSchema, imbalance } from '../../journal/posting';
import { amountFromZero, cost, day, kind, name, recordId, wayId } from '../kind';

/** What had been booked wrongly of a sale, and how it was. */
const fix = z.discriminatedUnion('is', [
  /** A part was paid by another way than was tapped; never to or from a card of the acquirer's. */
  z.strictObject({
    is: z.literal('way'),
    part: recordId,
    way: wayId,
    wayName: name,
    method: z.enum(METHODS),
    /** The drawer that it lies in, where it is cash. */
    drawer: recordId.nullable(),
    reference: z.string().max(80),
  }),
  /** Other change was handed out than the part says. */
  z.strictObject({ is: z.literal('change'), part: recordId, change: amountFromZero }),
  z.strictObject({ is: z.literal('customer'), customer: recordId.nullable() }),
  /** Who sold all of it; nobody is whoever rang it up. */
  z.strictObject({ is: z.literal('seller'), seller: recordId.nullable() }),
  /** A line was of another item that costs as much and is taxed alike. */
  z.strictObject({
    is: z.literal('item'),
    line: z.int().min(0).max(499),
    item: recordId,
    name: z.string().min(1).max(200),
    detail: z.string().max(200),
    unit: z.string().max(20),
    /** What one cost, as it was known then; null for not known. */
    cost: cost.nullable(),
    isStocked: z.boolean(),
    maker: recordId.nullable(),
  }),
  /**
   * It was sold at another event: said at each event of which that moves anything, with one `move` for all. What it was
   * paid with goes along, but for cash that stays in the drawer it went into.
   */
  z.strictObject({
    is: z.literal('event'),
    move: recordId,
    to: recordId,
    /** The drawer of that event that its cash lies in; null where that stays in the drawer it went into. */
    cash: recordId.nullable(),
  }),
]);
export type Fix = z.infer<typeof fix>;

/**
 * The everyday mistakes of a sale that was rung up: it stays as it is, and this says what was wrong, with what that
 * moves on the accounts. Money that was charged on a card is given back, never booked otherwise. Version 2 brought
 * another event.
 */
export const saleCorrected = kind(
  2,
  z.strictObject({
    sale: recordId,
    /** As people call it. */
    saleNumber: z.string().max(20),
    reason: z.string().trim().min(1).max(200),
    /** Of the sale: its figures of that day and hour follow. */
    day,
    hour: z.int().min(0).max(23),
    fix,
    moves: z
      .array(postingSchema)
      .max(6000)
      .superRefine((postings, context) => {
        const message = imbalance(postings);
        if (message !== null) context.addIssue({ code: 'custom', message });
      }),
  }),
  { 1: (body) => body },
);
