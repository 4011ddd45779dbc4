/** Words about receipts. */
import type { Row } from '../../core/books/tables';
import type { AskReceiptOutcome } from '../../core/receipt/ask-receipt';
import type { PaperWords } from '../../core/receipt/receipt-text';
import { dayWords, timeWords } from './date-words';

/** Day and time of a sale as the event's clock showed them. */
export function paperWords(
  { at, day }: Pick<Row<'sales'>, 'at' | 'day'>,
  { locale, timeZone }: Pick<Row<'businesses'>, 'locale' | 'timeZone'>,
  event: Pick<Row<'events'>, 'timeZone'> | undefined,
): PaperWords {
  const time = timeWords(at, locale, event?.timeZone ?? timeZone);
  return { locale, when: `${dayWords(day, locale)}, ${time}` };
}

type Refusal = Extract<AskReceiptOutcome, { ok: false }>['refusal'];

/** Of what the server mails. */
export const mailedWords = (to: string): string =>
  `It goes to ${to} with its PDF, once there is network.`;

export const receiptRefusalWords = ({ code, typed }: Refusal): string =>
  code === 'receipt/address-wrong'
    ? `“${typed}” is not an e-mail address, such as wren@example.org.`
    : `“${typed}” is neither a telephone number nor an e-mail address, such as wren@example.org.`;
