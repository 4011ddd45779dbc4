/** Invoices: of what the books have, to whom it is owed, headed as the business is, and each asked for once. */
import type { Row } from '../books/tables';
import type { EntryOf } from '../daybook/kinds';
import { daysAfter } from '../event/event-days';
import {
  creditedFigures,
  paidAlready,
  returnedFigures,
  saleFigures,
  type InvoiceFigures,
} from '../invoice/invoice-figures';
import { creditedOf, leftToCredit, standingOf, takesOf } from '../invoice/make-invoice';
import { standingVoids } from '../loose-end/voided-twice';
import { totalOf } from '../order/agreed';
import { sum } from '../money/units';
import { asCorrected } from '../sale/corrections';
import type { SoldSale } from '../sale/return-figures';
import { taxesOf } from '../pricing/taxes';
import type { Evidence } from './evidence';
import { overspent } from './held';
import type { Doubt } from './verdict';

type Made = EntryOf<'invoice.made'>;
type Body = Made['body'];

export function judgeInvoice(entry: Made, evidence: Evidence): Doubt | null {
  const { body, at, stamp } = entry;
  const { history } = evidence;
  const { customer, issued, vendor, foot, of } = body;
  if (!history.knows('customer.set', customer))
    return { code: 'invoice/customer', found: customer };
  if (!isDayOf(at, issued, evidence)) return { code: 'invoice/day', found: issued };
  const isHeadedSo = history
    .inForce('business.invoicing', evidence.business, stamp)
    .some((then) => isSame(then.vendor, vendor) && then.foot === foot);
  if (!isHeadedSo) return { code: 'invoice/vendor', found: vendor.name };
  switch (of.is) {
    case 'sale':
      return saleFault(body, of, entry.id, evidence);
    case 'order':
      return orderFault(body, of.order, entry.id, evidence);
    case 'own':
    case 'charge':
      return ownFault(entry, evidence);
  }
}

/** A day on which it may have been written: clocks on walls are not all in one zone, and none is ahead of ours. */
const isDayOf = (at: string, day: string, { arrival }: Evidence): boolean => {
  const [own, now] = [at.slice(0, 10), new Date(arrival).toISOString().slice(0, 10)];
  return day >= daysAfter(own, -1) && day <= daysAfter(own, 1) && day <= daysAfter(now, 1);
};

const isSame = (a: object, b: object): boolean => {
  const sorted = (of: object): string => JSON.stringify(Object.entries(of).sort());
  return sorted(a) === sorted(b);
};

/** A sale as it stands in the books. */
function soldIn(sale: Row<'sales'>, { books }: Evidence): SoldSale & { readonly isVoid: boolean } {
  const asRung = {
    sale,
    lines: books.where('saleLines', 'sale', sale.id),
    payments: sale.payments.flatMap((part) => books.row('payments', part) ?? []),
  };
  const voids = standingVoids(books.rows('voids'), books.rows('voidsUndone'));
  return {
    ...asCorrected(asRung, books.rows('corrections')),
    before: books.where('returns', 'sale', sale.id),
    isVoid: voids.some((each) => each.sale === sale.id),
  };
}

function saleFault(
  body: Body,
  { sale: id, number }: Extract<Body['of'], { is: 'sale' }>,
  own: string,
  evidence: Evidence,
): Doubt | null {
  const { books } = evidence;
  const sale = books.row('sales', id);
  if (sale === undefined) return { code: 'invoice/unknown', found: body.customer };
  const sold = soldIn(sale, evidence);
  if (sold.isVoid) return { code: 'invoice/voided', found: sale.number };
  const others = books.rows('invoices').filter((each) => each.id !== own);
  if (standingOf(id, others) !== undefined) return { code: 'invoice/again', found: sale.number };
  const { customer } = sold.sale;
  if (customer !== null && customer !== body.customer)
    return { code: 'invoice/customer', found: body.customer, wanted: customer };
  const figures = saleFigures(sold);
  const isSo = number === sale.number && body.paid === paidAlready(sold, figures);
  return isSo && isAlike(body, figures)
    ? null
    : { code: 'invoice/figures', found: body.total, wanted: figures.total };
}

/** All that stands on the lines, and what they come to. */
function isAlike(a: InvoiceFigures, b: InvoiceFigures): boolean {
  return (
    a.total === b.total &&
    a.lines.length === b.lines.length &&
    a.lines.every((line, at) => {
      const other = b.lines[at]!;
      return (
        line.net === other.net &&
        line.quantity === other.quantity &&
        line.name === other.name &&
        line.detail === other.detail &&
        line.unit === other.unit &&
        isSame(line.tax, other.tax)
      );
    }) &&
    JSON.stringify(a.taxes.map(figuresOfTax)) === JSON.stringify(b.taxes.map(figuresOfTax))
  );
}
const figuresOfTax = ({ id, rate, base, amount }: InvoiceFigures['taxes'][number]) => [
  ...[id, rate, base, amount],
];

/** In advance for an order that there is and was not called off, and no more than it comes to. */
function orderFault(body: Body, id: string, own: string, { books }: Evidence): Doubt | null {
  const order = books.row('orders', id);
  if (order === undefined || order.stage === 'off') return { code: 'invoice/unknown', found: id };
  if (order.customer !== body.customer)
    return { code: 'invoice/customer', found: body.customer, wanted: order.customer };
  const all = books.rows('invoices').filter((each) => each.id !== own);
  const before = all.filter(({ source, sort }) => source === id && sort === 'invoice');
  const asked = sum(before.map((each) => leftToCredit(each, all)));
  const most = totalOf(order.lines) - asked;
  if (body.taxes.length > 0) return { code: 'invoice/tax', found: order.number };
  return body.total > most ? { code: 'invoice/figures', found: body.total, wanted: most } : null;
}

/** By hand: of taxes that there were then, worked out as they were. */
function ownFault({ body, stamp }: Made, { history, business }: Evidence): Doubt | null {
  for (const { id, rate, name } of body.taxes) {
    const isKnown = history.inForce('tax.set', id, stamp).some((then) => then.rate === rate);
    if (!isKnown) return { code: 'invoice/tax', found: name };
  }
  const rules = history.inForce('business.set', business, stamp);
  const taxes = body.taxes.map(({ id, name, rate }) => {
    const [then] = history.inForce('tax.set', id, stamp);
    return { id, name, rate, on: then?.on ?? [] };
  });
  const there = new Set(taxes.map(({ id }) => id));
  const isRight = rules.some(({ pricesIncludeTax, taxRounding }) => {
    const lines = body.lines.map(({ net, total, tax }) => ({
      net: pricesIncludeTax ? total : net,
      taxes: Object.keys(tax),
    }));
    const wanted = taxesOf(lines, {
      ...{ pricesIncludeTax, taxRounding },
      taxes: taxes.map((tax) => ({ ...tax, on: tax.on.filter((each) => there.has(each)) })),
    });
    return body.lines.every((line, at) => isSame(line.tax, wanted[at]!));
  });
  const wrong = body.lines.find(({ quantity, net }) => quantity <= 0 || net < 0);
  return isRight && wrong === undefined
    ? null
    : { code: 'invoice/figures', found: sum(body.taxes.map(({ amount }) => amount)) };
}

/** Of an invoice that there is, no more than is left of it, and for something that happened. */
export function judgeCredit(entry: EntryOf<'invoice.credited'>, evidence: Evidence): Doubt | null {
  const { body, at } = entry;
  const { books } = evidence;
  const { of, customer } = body;
  const invoice = books.row('invoices', body.invoice);
  if (invoice?.sort !== 'invoice') return { code: 'invoice/unknown', found: body.invoice };
  if (invoice.customer !== customer)
    return { code: 'invoice/customer', found: customer, wanted: invoice.customer };
  if (!isDayOf(at, body.issued, evidence)) return { code: 'invoice/day', found: body.issued };
  const credits = books
    .rows('invoices')
    .filter((each) => each.credits === invoice.id && each.id !== entry.id);
  const left = leftToCredit(invoice, credits);
  if (body.total > left) return { code: 'invoice/credit-more', found: body.total, wanted: left };
  // What was paid in advance may have paid for goods by now.
  if (of.is === 'own' && overspent(of.takes.postings, evidence) !== null)
    return { code: 'invoice/credit-more', found: body.total };
  const wanted = creditFigures(body, invoice, credits, evidence);
  if (wanted === null) return { code: 'invoice/credit-what', found: invoice.id };
  if (of.is !== 'own' && credits.some(({ source }) => source === sourceOf(of)))
    return { code: 'invoice/again', found: of.number };
  return isAlike(body, wanted)
    ? null
    : { code: 'invoice/figures', found: body.total, wanted: wanted.total };
}

type CreditOf = EntryOf<'invoice.credited'>['body']['of'];
const sourceOf = (of: Exclude<CreditOf, { is: 'own' }>): string =>
  of.is === 'return' ? of.return : of.sale;

/** What the books say that it comes to; null where nothing of the kind happened. */
function creditFigures(
  { of, lines }: EntryOf<'invoice.credited'>['body'],
  invoice: Row<'invoices'>,
  credits: readonly Row<'invoices'>[],
  evidence: Evidence,
): InvoiceFigures | null {
  if (of.is === 'own') {
    if (invoice.sourceIs === 'sale' || of.takes.of !== invoice.id) return null;
    const at = [...new Set(of.takes.postings.map(({ line = -1 }) => line))].sort((a, b) => a - b);
    const off = new Map(at.map((line, n) => [line, lines[n]?.quantity ?? 0]));
    const gone = creditedOf(credits);
    const isLeft = [...off].every(([line, quantity]) => {
      const there = (invoice.lines[line]?.quantity ?? 0) - (gone.get(line) ?? 0);
      return quantity > 0 && quantity <= there;
    });
    if (!isLeft) return null;
    const postings = takesOf(invoice, credits, off);
    return postings.length === of.takes.postings.length &&
      postings.every((posting, n) => isSame(posting, of.takes.postings[n]!))
      ? creditedFigures(invoice, postings, off)
      : null;
  }
  const sale = invoice.source === null ? undefined : evidence.books.row('sales', invoice.source);
  if (sale === undefined) return null;
  const { isVoid, ...sold } = soldIn(sale, evidence);
  if (of.is === 'void') return isVoid && of.sale === sale.id ? saleFigures(sold) : null;
  const back = sold.before.find((each) => (each as Row<'returns'>).id === of.return);
  return back === undefined ? null : returnedFigures(sold, back as Row<'returns'>);
}

/**
 * The number that the server gave. One that it does not know it gave before it was set back to an earlier day, if it
 * bears its seal: then it stands, unless somebody else has it by now.
 */
export function judgeNumbered(
  { id, body }: EntryOf<'invoice.numbered'>,
  { books, invoiceNumbers: given, sealed }: Evidence,
): Doubt | null {
  const { invoice, series, n, number } = body;
  if (books.row('invoices', invoice) === undefined)
    return { code: 'invoice/unknown', found: invoice };
  const own = given.find((each) => each.invoice === invoice);
  if (own !== undefined)
    return own.series === series && own.n === n && own.number === number
      ? null
      : { code: 'invoice/number', found: number, wanted: own.number };
  const isTaken = given.some((each) => each.series === series && each.n === n);
  return isTaken || !sealed.has(id) ? { code: 'invoice/number', found: number } : null;
}

export const judgeInvoiceAsked = (
  { body }: EntryOf<'invoice.asked'>,
  { books }: Evidence,
): Doubt | null => {
  const invoice = books.row('invoices', body.invoice);
  return invoice?.customer === body.customer
    ? null
    : { code: 'invoice/unknown', found: body.invoice };
};

/** Once for each step, in the vendor's words, and not before its day. */
export function judgeReminder(
  { id, body, stamp }: EntryOf<'reminder.asked'>,
  { books, history, business, arrival }: Evidence,
): Doubt | null {
  const { invoice: of, customer, step, days, subject, text } = body;
  const invoice = books.row('invoices', of);
  if (invoice?.customer !== customer || invoice.sort !== 'invoice')
    return { code: 'invoice/unknown', found: of };
  const isWordedSo = history
    .inForce('business.reminders', business, stamp)
    .some(({ steps }) => isSame({ days, subject, text }, steps[step] ?? {}));
  if (!isWordedSo) return { code: 'reminder/words', found: subject };
  const now = new Date(arrival).toISOString().slice(0, 10);
  if (daysAfter(invoice.due, days) > daysAfter(now, 1))
    return { code: 'reminder/early', found: invoice.due };
  const before = books.where('reminders', 'invoice', of).filter((each) => each.id !== id);
  return before.some((each) => each.step >= step)
    ? { code: 'reminder/again', found: step + 1 }
    : null;
}
