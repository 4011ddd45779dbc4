/** Invoices and credit notes: put once, and their numbers when the server has given them. */
import type { EntryOf } from '../../daybook/kinds';
import { merge, put, type Change } from '../change';
import type { Row } from '../tables';
import { act } from './acts';
import { saidBy } from './said-by';

export const businessInvoicing = (entry: EntryOf<'business.invoicing'>): Change[] => [
  merge('businesses', entry.business, 'invoicing', entry.stamp, { invoicing: entry.body }),
  act(entry, { what: 'set-up', about: 'Invoices', amount: null }),
];

export function invoiceMade(entry: EntryOf<'invoice.made'>): Change[] {
  const { id, device, body } = entry;
  const { of, ...said } = body;
  return [
    put('invoices', {
      ...{ id, ...saidBy(entry), device, ...said },
      ...{ sort: 'invoice', credits: null, sourceIs: of.is, takes: null },
      ...sourceOf(of),
      buyer: entry.private?.data.buyer ?? null,
      note: entry.private?.data.note ?? '',
    }),
    ...(of.is === 'charge'
      ? [merge('charges', of.charge, 'made', entry.stamp, { upTo: of.day })]
      : []),
    ...(of.is === 'sale' || of.is === 'charge'
      ? []
      : [
          act(entry, {
            what: 'invoice.made',
            about: said.lines[0]?.name ?? '',
            amount: said.total,
          }),
        ]),
  ];
}

function sourceOf(
  of: EntryOf<'invoice.made'>['body']['of'],
): Pick<Row<'invoices'>, 'source' | 'sourceNumber'> {
  switch (of.is) {
    case 'sale':
      return { source: of.sale, sourceNumber: of.number };
    case 'order':
      return { source: of.order, sourceNumber: of.number };
    case 'charge':
      return { source: of.charge, sourceNumber: of.day };
    case 'own':
      return { source: null, sourceNumber: '' };
  }
}

export function invoiceCredited(entry: EntryOf<'invoice.credited'>): Change[] {
  const { id, device, body } = entry;
  const { of, invoice, reason, ...said } = body;
  return [
    put('invoices', {
      ...{ id, ...saidBy(entry), device, ...said },
      ...{ sort: 'credit', credits: invoice, sourceIs: of.is, note: reason, foot: '' },
      ...{ due: said.issued, paid: 0, vendor: null, buyer: null },
      source: of.is === 'return' ? of.return : of.is === 'void' ? of.sale : null,
      sourceNumber: of.is === 'own' ? '' : of.number,
      takes: of.is === 'own' ? of.takes : null,
    }),
    act(entry, { what: 'invoice.credited', about: reason.slice(0, 120), amount: said.total }),
  ];
}

/** It was given once: what is said again says the same. */
export const invoiceNumbered = (entry: EntryOf<'invoice.numbered'>): Change[] => {
  const { invoice, seal: _seal, ...said } = entry.body;
  return [merge('invoiceNumbers', invoice, 'set', entry.stamp, said)];
};

export const invoiceAsked = (entry: EntryOf<'invoice.asked'>): Change[] => [
  put('invoiceAsks', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
];

export const businessReminders = (entry: EntryOf<'business.reminders'>): Change[] => [
  merge('businesses', entry.business, 'reminders', entry.stamp, { reminders: entry.body.steps }),
  act(entry, { what: 'set-up', about: 'Reminders', amount: null }),
];

export const reminderAsked = (entry: EntryOf<'reminder.asked'>): Change[] => [
  put('reminders', { id: entry.id, ...saidBy(entry), device: entry.device, ...entry.body }),
];
