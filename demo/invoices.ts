/** Invoices of the demo: how they are headed, one that is overdue, one that was paid too late to notice, one credited in part, and one of a sale. */
import type { Row } from '../src/lib/core/books/tables';
import type { Draft } from '../src/lib/core/daybook/chain';
import { draft } from '../src/lib/core/daybook/kinds';
import { daysAfter } from '../src/lib/core/event/event-days';
import { localTime } from '../src/lib/core/event/local-time';
import { FIRST_WORDS } from '../src/lib/core/invoice/reminders';
import type { Invoicing } from '../src/lib/core/invoice/invoice-number';
import {
  buyerOf,
  creditOwn,
  invoiceOwn,
  invoiceSale,
  type InvoiceOutcome,
  type InvoiceSaid,
} from '../src/lib/core/invoice/make-invoice';
import { saleDocument } from '../src/lib/server/books/find-sales';
import type { BookReader } from '../src/lib/server/books/read-books';
import { numberInvoice } from '../src/lib/server/invoices/number-invoice';
import type { DemoBusiness } from './business';
import { newId, type DemoDevice } from './demo-device';
import { recordIdOf } from './ids';

/** Nothing of the demo is anybody's. */
const SALT = 'nobody-is-in-here';
const DAY = 86_400_000;

const invoicingOf = ({ invoices: { vendor, series } }: DemoBusiness): Invoicing => ({
  ...{ vendor, series, isByYear: true, digits: 4, first: 1, terms: 14 },
  foot: 'Thank you for buying of a stall.',
});

export const invoicingSetUp = (demo: DemoBusiness): readonly Draft[] => [
  draft('business.invoicing', newId(), null, invoicingOf(demo)),
  draft('business.reminders', newId(), null, { steps: [...FIRST_WORDS] }),
];

interface Desk {
  readonly desk: DemoDevice;
  readonly books: BookReader;
  readonly demo: DemoBusiness;
}

/** Written so many days ago, and numbered. @returns Its id. */
async function made(
  { desk, books, demo }: Desk,
  outcome: InvoiceOutcome,
  at: number,
): Promise<string> {
  if (!outcome.ok) throw new Error(outcome.refusal.code);
  const owner = demo.staff[0]?.id ?? null;
  desk.write(outcome.drafts, at, owner);
  await desk.send();
  const { id: invoice } = outcome;
  const number = await numberInvoice(desk.database, books, demo.id, invoice);
  if (number === null) throw new Error('the demo has an invoice that the server does not know');
  desk.write([draft('invoice.numbered', newId(), null, { invoice, ...number })], at, owner);
  await desk.send();
  return invoice;
}

export async function invoiceMatters(
  desk: DemoDevice,
  books: BookReader,
  demo: DemoBusiness,
  now: number,
): Promise<void> {
  const about = { desk, books, demo };
  const { timeZone, pricesIncludeTax, taxRounding, currency } = demo.business;
  const [customer] = await books.rows(demo.id, 'customers', {
    id: recordIdOf(demo.id, 'customer', demo.invoices.to.who.name),
  });
  if (customer === undefined) throw new Error('the demo has nobody to send an invoice to');
  const said = (at: number, whose: Row<'customers'>): InvoiceSaid => {
    const today = localTime(at, timeZone).day;
    return {
      ...{ newId, salt: SALT, invoicing: invoicingOf(demo), today, due: daysAfter(today, 14) },
      ...{ note: '', customer: whose, buyer: buyerOf(whose, demo.invoices.vendor.country) },
    };
  };
  const { reference } = demo.invoices;
  const byHand = (at: number, lines: DemoBusiness['invoices']['lines']): InvoiceOutcome =>
    invoiceOwn({
      ...said(at, customer),
      buyer: { ...said(at, customer).buyer, reference },
      lines: lines.map(([name, quantity, price]) => ({
        ...{ name, quantity, price },
        taxes: demo.taxes.slice(0, pricesIncludeTax ? 1 : undefined).map(({ id }) => id),
      })),
      ...{ currency, pricesIncludeTax, taxRounding, taxes: demo.taxes },
    });
  const [first, ...rest] = demo.invoices.lines;
  if (first === undefined) return;
  await made(about, byHand(now - 39 * DAY, [first]), now - 39 * DAY);
  const later = await made(about, byHand(now - 6 * DAY, [first, ...rest]), now - 6 * DAY);
  const [invoice] = await books.rows(demo.id, 'invoices', { id: later });
  if (invoice === undefined) return;
  const credit = creditOwn({
    ...{ newId, invoice, credits: [], today: localTime(now - 4 * DAY, timeZone).day },
    ...{ reason: 'One too many was counted', deposit: null, off: new Map([[0, 1000]]) },
  });
  await made(about, credit, now - 4 * DAY);
  await ofLastSale(about, said, now);
}

/** What somebody bought on account at the last market. */
async function ofLastSale(
  about: Desk,
  said: (at: number, whose: Row<'customers'>) => InvoiceSaid,
  now: number,
): Promise<void> {
  const { desk, books, demo } = about;
  const moves = await books.rows(demo.id, 'heldMoves', { kind: 'payment.taken' });
  const slips = moves
    .filter(({ account }) => account.startsWith('customer:'))
    .toSorted((a, b) => (a.at < b.at ? 1 : -1))
    .map(({ doc }) => doc);
  const [sale] = await books.rows(demo.id, 'sales', { slip: slips[0] ?? '' });
  const found =
    sale === undefined ? null : await saleDocument(desk.database, books, demo.id, sale.id);
  const [whose] = await books.rows(demo.id, 'customers', { id: sale?.customer ?? '' });
  if (found === null || whose === undefined || found.voids.length > 0) return;
  const sold = { ...found, before: found.returns };
  await made(
    about,
    invoiceSale({ ...said(now - 2 * DAY, whose), sold, isVoid: false, invoices: [] }),
    now - 2 * DAY,
  );
}
