import { z } from 'zod';
import { SUPPLIERS } from '../../books/names';
import { cost, day, kind, name, note, placeId, quantity, recordId } from '../kind';

/** What a list of goods is for. */
export const LIST_USES = ['load', 'unload', 'transfer', 'order', 'back'] as const;
export type ListUse = (typeof LIST_USES)[number];

/**
 * A list of goods that are to go from one place to another: what is taken to an event or comes back from it, goes
 * between places, is ordered, or goes back to a supplier. Its lines, and what was done, are entries of their own.
 */
export const listSet = kind(
  1,
  z
    .strictObject({
      list: recordId,
      use: z.enum(LIST_USES),
      /** Its number on paper: which device made it, and how many of these it had made. */
      deviceNumber: z.int().min(0).max(9999),
      number: z.int().min(1).max(999_999),
      name,
      from: placeId,
      to: placeId,
      /** Who delivers, or takes back; null between places of one's own. */
      supplier: recordId.nullable(),
      /** What it is carried in, for its limits. */
      van: placeId.nullable(),
      /** When it is wanted. */
      day: day.nullable(),
      note,
    })
    .refine(({ from, to }) => from !== to, {
      path: ['to'],
      message: 'a list goes from one place to another',
    })
    .refine(
      ({ from, to, supplier }) => (from === SUPPLIERS || to === SUPPLIERS) === (supplier !== null),
      { path: ['supplier'], message: 'a supplier where goods come from one or go back to one' },
    ),
);

/** One line: how much of an item is wanted; nothing takes it off again. The price is what was agreed for it. */
export const listLine = kind(
  1,
  z.strictObject({
    list: recordId,
    item: recordId,
    wanted: quantity.min(0),
    /** Thousandths of a minor unit per unit of measure; null where none was agreed. */
    price: cost.nullable(),
    note: z.string().max(200),
  }),
);

/** What somebody decided about a list. That it is under way or came in part is worked out from what was done. */
export const LIST_STAGES = ['draft', 'approved', 'done', 'off'] as const;
export const listStage = kind(
  1,
  z.strictObject({ list: recordId, to: z.enum(LIST_STAGES), why: z.string().max(200) }),
);

/** Goods that were put in, or taken out again, on the way to being moved. */
export const listPacked = kind(
  1,
  z.strictObject({
    list: recordId,
    goods: z
      .array(
        z.strictObject({
          item: recordId,
          quantity: quantity.refine((much) => much !== 0, 'not nothing'),
        }),
      )
      .min(1)
      .max(5000),
  }),
);

/**
 * An order is mailed to its supplier by the server, with its PDF, to the address that the supplier has by then. `before` is
 * how often it had been asked for as far as whoever asks could see: of two who ask at once one is answered. Version 1 did
 * not say (null): each who asks is answered.
 */
export const listMailed = kind(
  2,
  z.strictObject({ list: recordId, before: z.int().min(0).max(10_000).nullable() }),
  { 1: (body) => ({ list: (body as { list: string }).list, before: null }) },
);
