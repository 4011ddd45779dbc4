/** What is said of invoices, credit notes and their numbers. */
import type { Row } from '../../core/books/tables';
import type { UblFault } from '../../core/formats/ubl';
import type { InvoiceNow } from '../../core/invoice/invoice-state';
import type { InvoiceRefusal } from '../../core/invoice/make-invoice';
import type { RemindersRefusal } from '../../core/invoice/reminders';
import type { InvoicingRefusal } from '../../core/invoice/set-invoicing';
import { shortDayWords } from './date-words';
import type { MoneyWords } from './money-words';
import { refusalWords } from './refusal-words';

export const STANDS_WORDS: Readonly<Record<InvoiceNow['stands'], string>> = {
  'to pay': 'to pay',
  'in part': 'paid in part',
  overdue: 'overdue',
  paid: 'paid',
  credited: 'credited',
  'credit note': 'credit note',
};

/** As people call one; its number follows from the server. */
export const invoiceNumberWords = (number: string): string =>
  number === '' ? 'Number follows' : number;

export const sortWords = ({ sort, sourceIs }: Pick<Row<'invoices'>, 'sort' | 'sourceIs'>): string =>
  sort === 'credit' ? 'Credit note' : sourceIs === 'order' ? 'Payment request' : 'Invoice';

export function invoiceRefusalWords(refusal: InvoiceRefusal, money: MoneyWords): string {
  switch (refusal.code) {
    case 'invoice/not-set-up':
      return 'Nobody has said yet how invoices are headed and numbered: do that first, under Invoices.';
    case 'invoice/day-wrong':
      return `“${refusal.typed}” is no day there is.`;
    case 'invoice/due-before':
      return `It cannot be due before its own day, ${shortDayWords(refusal.issued, money.locale)}.`;
    case 'invoice/no-customer':
      return 'Say whom it is to: a customer who is known here.';
    case 'invoice/no-name':
      return 'Write the name that it is to.';
    case 'invoice/country-wrong':
      return `“${refusal.typed}” is no country; choose one.`;
    case 'invoice/email-wrong':
      return `“${refusal.typed}” is no mail address; leave it empty or write one such as name@example.org.`;
    case 'invoice/nothing':
      return 'There is nothing on it to ask money for.';
    case 'invoice/again':
      return `${refusal.number} has been put in writing already.`;
    case 'invoice/voided':
      return 'That sale was voided: nothing is owed for it.';
    case 'invoice/line-no-name':
      return `Write what line ${String(refusal.line)} is for.`;
    case 'invoice/line-quantity':
      return `“${refusal.typed}” is no quantity above nothing; write 1, 2.5 …`;
    case 'invoice/line-amount':
      return refusalWords(refusal.refusal, money);
    case 'invoice/more-than-due':
      return `No more than the ${money.text(refusal.due)} that is to pay for it and was not asked for.`;
    case 'invoice/no-reason':
      return 'Say why, in a few words: it stands on the credit note.';
    case 'invoice/credit-more':
      return 'That is more than is left of it to credit.';
    case 'invoice/credit-spent':
      return `Goods of the order were handed over for it: ${money.text(refusal.left)} of it is left at most.`;
  }
}

export function invoicingRefusalWords(refusal: InvoicingRefusal): string {
  switch (refusal.code) {
    case 'invoicing/no-name':
      return 'Write the name that invoices are from, as the law has it.';
    case 'invoicing/no-address':
      return 'Write the address that invoices are from.';
    case 'invoicing/country-wrong':
      return `“${refusal.typed}” is no country; choose one.`;
    case 'invoicing/email-wrong':
      return `“${refusal.typed}” is no mail address.`;
    case 'invoicing/iban-wrong':
      return `The figures of “${refusal.typed}” do not check: look for a slip of the finger.`;
    case 'invoicing/bic-wrong':
      return `“${refusal.typed}” is no BIC; it has 8 or 11 letters and figures.`;
    case 'invoicing/series-wrong':
      return 'Numbers begin with up to ten letters, figures, - or /.';
    case 'invoicing/whole-wrong':
      return `A whole number from ${String(refusal.least)} to ${String(refusal.most)}.`;
  }
}

/** Why there is no file for programs. */
export function ublFaultWords(fault: UblFault): string {
  switch (fault.code) {
    case 'ubl/no-number':
      return 'as UBL once it has its number';
    case 'ubl/forgotten':
      return 'no UBL: whoever it was to has been forgotten';
    case 'ubl/currency':
      return `no UBL: the standard has no amounts with the decimals of ${fault.currency}`;
    case 'ubl/two-taxes':
      return `no UBL: the standard has one tax for each line, and ${fault.line} has more`;
    case 'ubl/no-tax-number':
      return 'no UBL: whoever takes tax has a tax number on it; write yours under How invoices are headed';
  }
}

/** @param step From 0. */
export const reminderWords = (step: number): string =>
  step === 0 ? 'First reminder' : `Reminder ${String(step + 1)}`;

export function remindersRefusalWords(refusal: RemindersRefusal): string {
  switch (refusal.code) {
    case 'reminders/days-wrong':
      return `“${refusal.typed}” is no number of days from 1 to 365.`;
    case 'reminders/not-later':
      return `It comes after the one before it: more than ${String(refusal.before)} days.`;
    case 'reminders/empty':
      return 'Write something, or take this reminder off.';
    case 'reminders/unknown':
      return `${refusal.found} is filled in by nothing; {name}, {number}, {left}, {due}, {days} and {business} are.`;
  }
}
