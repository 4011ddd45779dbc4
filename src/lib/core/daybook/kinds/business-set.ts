import { z } from 'zod';
import { currencyCode, kind, name, note, timeZone } from '../kind';

/** The business itself: how it prices, rounds and heads its receipts. */
export const businessSet = kind(
  1,
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
  }),
);
