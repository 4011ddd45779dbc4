/** The documents behind a row of the settling page, a page at a time. */
import { z } from 'zod';
import { uuid } from '../daybook/entry';

/** What the documents are of: parts that went into a drawer, parts by a way, lines of an item. */
export const BEHIND = ['drawer', 'way', 'item'] as const;
export type Behind = (typeof BEHIND)[number];

const behindDocumentSchema = z
  .object({
    /** The sale that it stands on; null where nothing has been rung up for it. */
    sale: uuid.nullable(),
    /** The sale's number, or what the part is called without one. */
    number: z.string(),
    at: z.string(),
    by: uuid.nullable(),
    /** Minor units of the row: what went into the drawer, what the way took, what the line came to. */
    amount: z.int(),
    /** Thousandths, for lines of an item. */
    quantity: z.int().nullable(),
    /** It was voided or given back, and is not in the row any more. */
    isBack: z.boolean(),
  })
  .readonly();
export type BehindDocument = z.infer<typeof behindDocumentSchema>;

/** What the server answers; both sides go by it. */
export const behindPageSchema = z
  .object({
    documents: z.array(behindDocumentSchema).readonly(),
    /** Where the next page begins; empty where there is none. */
    next: z.string(),
  })
  .readonly();
export type BehindPage = z.infer<typeof behindPageSchema>;

export const BEHIND_AT_ONCE = 40;
