/** Reminding customers of invoices that are overdue, in steps that the vendor words: which is next, and commands. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft, type BodyOf } from '../daybook/kinds';
import { daysAfter } from '../event/event-days';
import { isMail } from '../customer/mail-address';
import type { InvoiceNow } from './invoice-state';

export type ReminderStep = BodyOf<'business.reminders'>['steps'][number];

/** What of a step's words is filled in, by its name in braces. */
export const FILLED_IN = ['name', 'number', 'left', 'due', 'days', 'business'] as const;
export type Filled = Readonly<Record<(typeof FILLED_IN)[number], string>>;

/** @example fillIn('{number} was due', …) // => 'R2026-0007 was due' */
export const fillIn = (words: string, values: Filled): string =>
  words.replaceAll(/\{(\w+)\}/g, (whole, name: string) =>
    name in values ? values[name as keyof Filled] : whole,
  );

/** What stands in braces and is filled in by nothing. */
export const unknownIn = (words: string): string | null =>
  [...words.matchAll(/\{([^}]*)\}/g)].find(
    ([, name]) => !FILLED_IN.some((each) => each === name),
  )?.[0] ?? null;

/** What most begin with. */
export const FIRST_WORDS: readonly ReminderStep[] = [
  {
    days: 7,
    subject: 'Invoice {number}',
    text: 'Dear {name},\n\nyou may have missed that {left} of invoice {number} was due on {due}. If you have paid by now, leave this letter.\n\n{business}',
  },
  {
    days: 21,
    subject: 'Reminder: invoice {number}',
    text: 'Dear {name},\n\n{left} of invoice {number} has been due for {days} days. Please pay it within a week, or tell us what is wrong.\n\n{business}',
  },
];

export interface NextReminder {
  readonly step: number;
  readonly words: ReminderStep;
}

/**
 * The reminder that an invoice is to have now, or null: the one after the last that was sent, once its days have gone
 * since the invoice was due, and since the one before as many as lie between the two.
 * @param sent Of this invoice. @param today ISO date.
 */
export function nextReminder(
  { invoice, left, number }: Pick<InvoiceNow, 'invoice' | 'left' | 'number'>,
  sent: readonly Pick<Row<'reminders'>, 'step' | 'at'>[],
  steps: readonly ReminderStep[],
  today: string,
): NextReminder | null {
  if (invoice.sort !== 'invoice' || left <= 0 || number === '') return null;
  const last = sent.toSorted((a, b) => b.step - a.step)[0];
  const step = last === undefined ? 0 : last.step + 1;
  const words = steps[step];
  if (words === undefined || daysAfter(invoice.due, words.days) > today) return null;
  const since = last === undefined ? 0 : words.days - (steps[last.step]?.days ?? 0);
  return last !== undefined && daysAfter(last.at.slice(0, 10), since) > today
    ? null
    : { step, words };
}

export interface ReminderTo {
  readonly invoice: Pick<Row<'invoices'>, 'id' | 'customer'>;
  readonly next: NextReminder;
  readonly to: string;
}

/** One letter each. Whoever has no mail address is left out. */
export const remind = (
  newId: () => string,
  newSalt: () => string,
  all: readonly ReminderTo[],
): readonly Draft[] =>
  all
    .filter(({ to }) => isMail(to.trim()))
    .map(({ invoice, next: { step, words }, to }) =>
      privateDraft(
        'reminder.asked',
        newId(),
        { invoice: invoice.id, customer: invoice.customer, step, ...words },
        newSalt(),
        { to: to.trim() },
      ),
    );

/** A step as its form holds it. */
export interface TypedStep {
  readonly days: string;
  readonly subject: string;
  readonly text: string;
}

export type RemindersRefusal = { readonly field: string } & (
  | { readonly code: 'reminders/days-wrong'; readonly typed: string }
  | { readonly code: 'reminders/not-later'; readonly before: number }
  | { readonly code: 'reminders/empty' }
  | { readonly code: 'reminders/unknown'; readonly found: string }
);

/** Steps of which nothing is typed are none. */
export function setReminders(
  newId: () => string,
  typed: readonly TypedStep[],
):
  | { readonly ok: true; readonly drafts: readonly Draft[] }
  | { readonly ok: false; readonly refusal: RemindersRefusal } {
  const steps: ReminderStep[] = [];
  for (const [at, each] of typed.entries()) {
    const [subject, text] = [each.subject.trim().slice(0, 120), each.text.trim().slice(0, 2000)];
    if (subject === '' && text === '') continue;
    const field = (of: string): string => `steps.${String(at)}.${of}`;
    const refuse = (refusal: RemindersRefusal) => ({ ok: false as const, refusal });
    const days = /^\s*\d{1,3}\s*$/.test(each.days) ? Number(each.days) : Number.NaN;
    if (!(days >= 1 && days <= 365))
      return refuse({ code: 'reminders/days-wrong', field: field('days'), typed: each.days });
    const before = steps.at(-1)?.days ?? 0;
    if (days <= before)
      return refuse({ code: 'reminders/not-later', field: field('days'), before });
    for (const [of, words] of [
      ['subject', subject],
      ['text', text],
    ] as const) {
      if (words === '') return refuse({ code: 'reminders/empty', field: field(of) });
      const found = unknownIn(words);
      if (found !== null) return refuse({ code: 'reminders/unknown', field: field(of), found });
    }
    steps.push({ days, subject, text });
  }
  return { ok: true, drafts: [draft('business.reminders', newId(), null, { steps })] };
}
