import { z } from 'zod';
import { colour, day, hourAndMinute, kind, name, note, recordId, timeZone, wayId } from '../kind';

/**
 * A market day, fair or pop-up at one pitch. Version 2 brought taxes of its own: a neighbouring
 * county charges another rate; version 3 the ways to pay that are open there.
 */
export const eventSet = kind(
  3,
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
    /** Taxes that are charged here in the place of others; null charges none. */
    swaps: z.array(z.strictObject({ from: recordId, to: recordId.nullable() })).max(20),
    /** Ways to pay that are open here, in their order; null opens all, in the vendor's order. */
    ways: z.array(wayId).max(40).nullable(),
    notes: note,
  }),
  { 1: (body) => ({ ...body, swaps: [] }), 2: (body) => ({ ...body, ways: null }) },
);
