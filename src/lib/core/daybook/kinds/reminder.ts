import { z } from 'zod';
import { kind, recordId } from '../kind';

const subject = z.string().trim().min(1).max(120);
const text = z.string().trim().min(1).max(2000);
/** Since an invoice was due. */
const days = z.int().min(1).max(365);

/** What is written to customers whose invoices are overdue, one letter after another. */
export const businessReminders = kind(
  1,
  z
    .strictObject({ steps: z.array(z.strictObject({ days, subject, text })).max(5) })
    .refine(({ steps }) => steps.every((each, at) => at === 0 || each.days > steps[at - 1]!.days), {
      path: ['steps'],
      message: 'each later than the one before',
    }),
);

/**
 * A customer is reminded of an invoice by mail: once for each step, in the words of then, with what is in braces still to
 * be filled in. Where to stands apart.
 */
export const reminderAsked = kind(
  1,
  z.strictObject({
    invoice: recordId,
    customer: recordId,
    /** From 0. */
    step: z.int().min(0).max(4),
    days,
    subject,
    text,
  }),
  {},
  z.strictObject({ to: z.email().max(254) }),
);
