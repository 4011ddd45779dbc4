import { z } from 'zod';
import { kind, name, percent, recordId } from '../kind';

/** Somebody whose goods are sold on commission. */
export const makerSet = kind(
  2,
  z.strictObject({
    id: recordId,
    /** What hang tags say, before the class of goods. */
    number: z.int().min(1).max(99_999),
    name,
    /** Percent of what their goods bring that the vendor keeps. */
    commission: percent,
    /** Where statements go; empty for nowhere. Of a trade, so that it is not personal. */
    email: z.union([z.literal(''), z.email().max(120)]),
    isActive: z.boolean(),
  }),
  { 1: (body) => ({ ...body, email: '' }) },
);

/**
 * A maker's statement of an event is mailed by the server, with its PDF, to the address that the maker has by then. `before`
 * is how often it had been asked for as far as whoever asks could see: of two who ask at once one is answered.
 */
export const makerMailed = kind(
  1,
  z.strictObject({ event: recordId, maker: recordId, before: z.int().min(0).max(10_000) }),
);
