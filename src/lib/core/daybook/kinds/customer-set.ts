import { z } from 'zod';
import { amountFromZero, kind, note, percent, recordId } from '../kind';

/** Who a customer is: personal, and so in the private part, which can be dropped. */
export const customerWho = z.strictObject({
  name: z.string().trim().min(1).max(80),
  email: z.union([z.literal(''), z.email().max(254)]),
  phone: z.string().max(40),
  company: z.string().max(80),
  address: z.string().max(300),
  taxNumber: z.string().max(40),
  note,
  /** The code of a card or tag that they are known by; missing in what was written before there were any. */
  code: z.string().max(40).optional(),
});
export type CustomerWho = z.infer<typeof customerWho>;

/** A customer who is known by name, and what has been agreed with them. Version 2 brought the code of their card. */
export const customerSet = kind(
  2,
  z.strictObject({
    id: recordId,
    /** Percent off every line, always. */
    discount: percent,
    /** Days in which an invoice is to be paid. */
    terms: z.int().min(0).max(365),
    /** Minor units that may be owed at a time; null is no limit. */
    creditLimit: amountFromZero.nullable(),
    isActive: z.boolean(),
  }),
  { 1: (body) => body },
  customerWho,
);
