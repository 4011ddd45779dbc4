import { z } from 'zod';
import { kind, name, placeId, recordId } from '../kind';

/** What kinds of place of one's own there are, beside events: an area is a shelf or a crate in another place. */
export const PLACE_SORTS = ['base', 'van', 'store', 'area'] as const;
export type PlaceSort = (typeof PLACE_SORTS)[number];

/** A place of one's own where goods are. The base is there from the beginning, and can be named. */
export const placeSet = kind(
  1,
  z
    .strictObject({
      id: z.union([z.literal('base'), recordId]),
      name,
      sort: z.enum(PLACE_SORTS),
      /** The place that an area is in; null for all others. */
      within: placeId.nullable(),
      /** What its label says to a scanner; empty where it has none. */
      code: z.string().max(40),
      position: z.int().min(0).max(9999),
      /** What it can carry: grams, and crates in thousandths; null where there is no limit. */
      mostWeight: z.int().min(0).max(99_999_999).nullable(),
      mostCrates: z.int().min(0).max(99_999_999).nullable(),
      isActive: z.boolean(),
    })
    .refine(({ sort, within }) => (sort === 'area') === (within !== null), {
      path: ['within'],
      message: 'an area is within another place, and nothing else is',
    })
    .refine(({ id, within }) => id !== within, {
      path: ['within'],
      message: 'a place is not inside itself',
    })
    .refine(({ id, sort }) => (id === 'base') === (sort === 'base'), {
      path: ['sort'],
      message: 'there is one base',
    }),
);
