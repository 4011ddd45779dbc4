import { z } from 'zod';
import { kind, recordId } from '../kind';

export const RECEIPT_WAYS = ['email', 'text'] as const;
export type ReceiptWay = (typeof RECEIPT_WAYS)[number];

/**
 * Somebody wants their receipt sent. It waits with the entry until there is network, and is sent once
 * by the server. The address or telephone number is personal and stands apart. Version 2 brought text
 * messages and whose it is.
 */
export const receiptAsked = kind(
  2,
  z.strictObject({
    sale: recordId,
    way: z.enum(RECEIPT_WAYS),
    isGift: z.boolean(),
    /** Who bought, if that is known: when they are forgotten, so is the address. */
    customer: recordId.nullable(),
  }),
  { 1: (body) => ({ ...body, customer: null }) },
  z.strictObject({ to: z.union([z.email().max(254), z.e164()]) }),
);
