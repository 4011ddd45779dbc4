/** Invoices and credit notes, and the numbers that the server gave them (core/invoice). */
import type { BodyOf, PrivateOf } from '../../daybook/kinds';
import { facts, id, json, records, text, textOrNull, whole, word } from '../table-spec';
import { saidBy } from './said-by';

type Made = BodyOf<'invoice.made'>;

export const invoiceTables = {
  invoices: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      sort: word<'invoice' | 'credit'>(7),
      customer: id(),
      /** Of a credit note: the invoice that it is of. */
      credits: textOrNull(40),
      /** The sale, the order, the standing charge or the return that it is for; null for what stands on it alone. */
      sourceIs: word<'sale' | 'order' | 'own' | 'charge' | 'return' | 'void'>(6),
      source: textOrNull(40),
      sourceNumber: text(40),
      issued: text(10),
      due: text(10),
      vendor: json<Made['vendor'] | null>(null),
      foot: text(500),
      /** Of a credit note why; of an invoice empty once its customer was forgotten. */
      note: text(500),
      lines: json<Made['lines']>([]),
      taxes: json<Made['taxes']>([]),
      total: whole(),
      paid: whole(),
      /** Whom it is to; null once they were forgotten. */
      buyer: json<PrivateOf<'invoice.made'>['buyer'] | null>(null),
      /** Of a credit note: what of the invoice it takes back. */
      takes: json<Extract<BodyOf<'invoice.credited'>['of'], { is: 'own' }>['takes'] | null>(null),
    },
    { indexes: ['customer', 'source', 'credits'] },
  ),
  /** By invoice. */
  invoiceNumbers: records({ set: { series: text(20), n: whole(), number: text(30) } }),
  /** Letters that remind customers of invoices, as they were worded. */
  reminders: facts(
    ['id'],
    {
      id: id(),
      ...saidBy,
      invoice: id(),
      customer: id(),
      step: whole(),
      days: whole(),
      subject: text(120),
      text: text(2000),
    },
    { indexes: ['invoice'] },
  ),
  /** Invoices that are to be sent. */
  invoiceAsks: facts(
    ['id'],
    { id: id(), ...saidBy, invoice: id(), customer: id() },
    { keep: 'server' },
  ),
} as const;
