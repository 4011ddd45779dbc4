import { z } from 'zod';
import { uuid } from '../daybook/entry';
import { lostLetterSchema } from '../loose-end/lost-letter';
import type { EventEnd } from './event-ends';

/** Who was asked to look after a loose end, whatever it is about. */
const handSchema = z
  .object({ looseEnd: z.string(), to: uuid.nullable(), note: z.string() })
  .readonly();
export type Hand = z.infer<typeof handSchema>;

const named = z.looseObject({ looseEnd: z.string(), code: z.string() });
/** Each has its name and what it is; what else it says is the server's own working-out. */
const eventEndSchema = z.custom<EventEnd>((value) => named.safeParse(value).success);

/** What is loose of one event, as the page of all of them shows it. */
const eventLooseEndsSchema = z
  .object({
    event: uuid,
    name: z.string(),
    /** Its last day, ISO date. */
    day: z.string(),
    timeZone: z.string(),
    ends: z.array(eventEndSchema).readonly(),
  })
  .readonly();
export type EventLooseEnds = z.infer<typeof eventLooseEndsSchema>;

/** What the server answers; both sides go by it. */
export const allLooseEndsSchema = z.object({
  events: z.array(eventLooseEndsSchema).readonly(),
  /** How many events have some beyond these. */
  more: z.int(),
  hands: z.array(handSchema).readonly(),
  /** An older server has none. */
  letters: z.array(lostLetterSchema).readonly().default([]),
});
export type AllLooseEnds = z.infer<typeof allLooseEndsSchema>;
