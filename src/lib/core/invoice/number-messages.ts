/** What a device and the server say to each other of numbers of invoices. */
import { z } from 'zod';
import { uuid } from '../daybook/entry';

export const numberAskSchema = z.strictObject({ invoice: uuid });
export const invoiceNumberSchema = z.object({
  series: z.string().max(20),
  n: z.int().min(1),
  number: z.string().min(1).max(30),
  seal: z.string().regex(/^[0-9a-f]{64}$/),
});
export type InvoiceNumber = z.infer<typeof invoiceNumberSchema>;
