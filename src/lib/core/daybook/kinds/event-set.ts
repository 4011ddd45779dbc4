import { z } from 'zod';
import { colour, day, hourAndMinute, kind, name, note, recordId, timeZone, wayId } from '../kind';

/** Taxes that are charged at an event in the place of others; null charges none. */
const swaps = z.array(z.strictObject({ from: recordId, to: recordId.nullable() })).max(20);
/** Ways to pay that are open at an event, in their order; null opens all, in the vendor's order. */
const ways = z.array(wayId).max(40).nullable();

/**
 * A market day, fair or pop-up at one pitch: where and when. What else somebody sets up about it has a kind
 * of its own, so that two who set up different things at once keep both. Versions 2 and 3 carried taxes and
 * ways; from version 4 on only what was written before, or what an event begins with, does.
 */
export const eventSet = kind(
  4,
  z.strictObject({
    id: recordId,
    name,
    /** What the awning says. */
    short: z.string().trim().min(1).max(24),
    organiser: z.string().max(80),
    place: z.string().max(120),
    pitch: z.string().max(40),
    /** Editions of the same event share this. */
    series: recordId.nullable(),
    days: z
      .array(z.strictObject({ date: day, opens: hourAndMinute, closes: hourAndMinute }))
      .min(1)
      .max(60),
    timeZone,
    /** The awning's two colours. */
    stripe: colour,
    cloth: colour,
    notes: note,
    swaps: swaps.optional(),
    ways: ways.optional(),
  }),
  {
    1: (body) => ({ ...body, swaps: [] }),
    2: (body) => ({ ...body, ways: null }),
    3: (body) => body,
  },
);

/** The taxes that an event charges instead. */
export const eventTaxes = kind(1, z.strictObject({ event: recordId, swaps }));

/** The ways to pay that are open at an event. */
export const eventWays = kind(1, z.strictObject({ event: recordId, ways }));
