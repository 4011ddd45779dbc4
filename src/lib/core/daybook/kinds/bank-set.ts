import { z } from 'zod';
import { DAY_ORDERS } from '../../formats/bank-table';
import { kind, name, recordId } from '../kind';

const heading = z.string().max(80);

/** An account at a bank whose statements are taken in. */
export const bankSet = kind(
  2,
  z.strictObject({
    id: recordId,
    name,
    /** IBAN or the bank's own number of it, capitals and figures alone. */
    number: z
      .string()
      .regex(/^[A-Z0-9]{4,34}$/, 'capitals and figures, such as GB33BUKB20201555555555'),
    /** What the columns of its CSV files mean, by their headings; null until somebody has chosen. */
    columns: z
      .strictObject({
        day: heading.min(1),
        order: z.enum(DAY_ORDERS),
        mark: z.enum(['.', ',']),
        amount: heading,
        came: heading,
        went: heading,
        reference: heading,
        text: heading,
        other: heading,
        /** The balance after each line, where the file has one. */
        balance: heading.optional(),
      })
      .refine(({ amount, came, went }) => amount !== '' || (came !== '' && went !== ''), {
        path: ['amount'],
        message: 'a column of amounts, or one of what came and one of what went',
      })
      .nullable(),
    isActive: z.boolean(),
  }),
  { 1: (body) => body },
);
