import { z } from 'zod';
import { currencyCode, kind, name, note, timeZone } from '../kind';

/** The business itself: how it prices, rounds and heads its receipts. Version 2 brought the lock. */
export const businessSet = kind(
  2,
  z.strictObject({
    name,
    currency: currencyCode,
    locale: z.string().max(20),
    timeZone,
    pricesIncludeTax: z.boolean(),
    taxRounding: z.enum(['line', 'sale']),
    /** Cash rounding step in minor units; 1 is none. */
    cashStep: z.int().min(1).max(1000),
    receiptHead: note,
    receiptFoot: note,
    /** Minutes after which an untouched device asks who is there; 0 is never. */
    lockAfter: z.int().min(0).max(240),
  }),
  { 1: (body) => ({ ...body, lockAfter: 0 }) },
);
