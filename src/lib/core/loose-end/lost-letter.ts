import { z } from 'zod';

/** A letter or a message that the server was asked to send and that nobody took. */
export const lostLetterSchema = z
  .object({
    looseEnd: z.string(),
    /** What it was, or by which way a receipt was to go. */
    way: z.enum(['email', 'text', 'invoice', 'reminder', 'order', 'maker']),
    /** The id of the sale, the invoice, the list or the event that it was about. */
    about: z.string(),
    /** When it was asked for, as the server's clock had it; ISO 8601. */
    at: z.string(),
  })
  .readonly();
export type LostLetter = z.infer<typeof lostLetterSchema>;
