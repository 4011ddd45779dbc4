/** A reminder of an invoice as it is mailed: the vendor's words filled in, with the invoice below them. */
import { localTime } from '../../core/event/local-time';
import { fillIn } from '../../core/invoice/reminders';
import { dayText } from '../../core/invoice/invoice-paper';
import { daysOverdue, invoicesNow } from '../../core/invoice/invoice-state';
import { moneyText } from '../../core/money/amount-text';
import { joinedAmong } from '../books/customer-records';
import { heldMovesOf } from '../books/held-moves';
import type { BookReader } from '../books/read-books';
import type { Letter } from '../words/letters';
import { invoiceFor } from './invoice-letter';

/**
 * Null while the invoice has no number; `not needed` once it was paid or credited, or nobody knows any more whom it is to.
 * @param now Milliseconds since 1970.
 */
export async function reminderFor(
  books: BookReader,
  business: string,
  id: string,
  now: number,
): Promise<Letter | 'not needed' | null> {
  const [reminder] = await books.rows(business, 'reminders', { id });
  const [own] = await books.rows(business, 'businesses', { id: business });
  if (reminder === undefined || own === undefined) return null;
  const { customer } = reminder;
  const joined = await joinedAmong(books, business, [customer]);
  const records = [...joined.records(customer)];
  const invoices = await books.rows(business, 'invoices', { customer: records });
  const numbers = await books.rows(business, 'invoiceNumbers', {
    id: invoices.map((each) => each.id),
  });
  const account = joined.account(`customer:${customer}`);
  const { balances, moves } = await heldMovesOf(books, business, [account]);
  const { timeZone, locale, currency } = own;
  const today = localTime(now, timeZone).day;
  const all = invoicesNow({
    ...{ invoices, moves, joined, today },
    numbers: new Map(numbers.map((row) => [row.id, row.number])),
    balances: new Map([[account, balances[0] ?? 0]]),
    dayOf: (at) => localTime(Date.parse(at), timeZone).day,
  });
  const found = all.find(({ invoice }) => invoice.id === reminder.invoice);
  if (found === undefined) return null;
  const { invoice, left, number } = found;
  if (left <= 0 || invoice.buyer === null || invoice.due >= today) return 'not needed';
  const letter = await invoiceFor(books, business, invoice.id);
  if (letter === null) return null;
  const values = {
    ...{ number, name: invoice.buyer.name, business: invoice.vendor?.name ?? own.name },
    left: moneyText(left, currency, locale),
    due: dayText(invoice.due, locale),
    days: String(daysOverdue(invoice.due, today)),
  };
  return {
    ...letter,
    subject: fillIn(reminder.subject, values),
    text: [fillIn(reminder.text, values), '', '— — —', '', letter.text].join('\n'),
  };
}
