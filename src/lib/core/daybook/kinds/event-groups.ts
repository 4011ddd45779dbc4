/** What else is set up of an event, each by a kind of its own, so that two who set it up at once keep both. */
import { z } from 'zod';
import { amountFromZero, day, hourAndMinute, kind, percent, quantity, recordId } from '../kind';

/** How the pitch is paid for: an amount, a part of the takings, the larger of both, or both. */
export const FEE_KINDS = ['none', 'fixed', 'percent', 'larger', 'both'] as const;

/** What a cost is for: once, or each kilometre, hour or day of so many. */
export const COST_PER = ['once', 'km', 'hour', 'day'] as const;

/** The fee of the pitch and what else it costs; version 2 brought the least and the most of the fee. */
export const eventCosts = kind(
  2,
  z.strictObject({
    event: recordId,
    fee: z
      .strictObject({
        kind: z.enum(FEE_KINDS),
        fixed: amountFromZero,
        percent,
        /** Of the takings with tax, or without. */
        of: z.enum(['gross', 'net']),
        /** Not below this, and not above that, where it was agreed. Minor units. */
        least: amountFromZero.optional(),
        most: amountFromZero.optional(),
      })
      .refine(({ least = 0, most }) => most === undefined || least <= most, {
        path: ['most'],
        message: 'the most must not be below the least',
      }),
    costs: z
      .array(
        z.strictObject({
          what: z.string().trim().min(1).max(80),
          /** Minor units for one. */
          each: amountFromZero,
          per: z.enum(COST_PER),
          /** How many; thousandths. */
          many: quantity.min(0),
        }),
      )
      .max(30),
  }),
  { 1: (body) => body },
);

/** Prices that hold at the event alone: single ones, and a percentage over a category, rounded to a step. */
export const eventPrices = kind(
  1,
  z.strictObject({
    event: recordId,
    single: z
      .array(z.strictObject({ item: recordId, price: amountFromZero }))
      .max(2000)
      .refine((all) => new Set(all.map(({ item }) => item)).size === all.length, {
        message: 'each item once',
      }),
    over: z
      .array(
        z.strictObject({
          /** Empty for everything. */
          category: z.string().max(80),
          /** What is put on, in percent, or taken off. */
          percent,
          isOff: z.boolean(),
          /** Minor units: prices are multiples of it. */
          step: z.int().min(1).max(1_000_000),
        }),
      )
      .max(60),
  }),
);

/** Who is on duty when, and which devices are there. */
export const eventPeople = kind(
  1,
  z.strictObject({
    event: recordId,
    duty: z
      .array(
        z.strictObject({ person: recordId, date: day, from: hourAndMinute, until: hourAndMinute }),
      )
      .max(400),
    devices: z.array(recordId).max(60),
  }),
);

/** Things to bring that are no goods: a cloth, weights, change. They come back at the next edition. */
export const eventBring = kind(
  1,
  z.strictObject({
    event: recordId,
    things: z
      .array(z.strictObject({ id: recordId, name: z.string().trim().min(1).max(80) }))
      .max(200),
  }),
);

/** One of the things to bring is there, or is not after all. */
export const eventTicked = kind(
  1,
  z.strictObject({ event: recordId, thing: recordId, isDone: z.boolean() }),
);
