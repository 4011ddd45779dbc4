/** Making invoices and credit notes: commands. Minor units and thousandths. */
import type { Row } from '../books/tables';
import type { Draft } from '../daybook/chain';
import { draft, privateDraft, type BodyOf } from '../daybook/kinds';
import { daysAfter, isDate } from '../event/event-days';
import { invoicePostings } from '../journal/invoice';
import type { Posting } from '../journal/posting';
import { takeShareBack } from '../journal/take-back';
import { readAmount, type AmountRefusal } from '../money/amount-text';
import { readQuantity } from '../money/typed';
import { sum } from '../money/units';
import type { SoldSale } from '../sale/return-figures';
import type { OrderNow } from '../order/order-state';
import { isCountry } from '../customer/country';
import { isMail } from '../customer/mail-address';
import {
  creditedFigures,
  figuresOf,
  paidAlready,
  returnedFigures,
  saleFigures,
  type InvoiceFigures,
  type InvoiceLine,
} from './invoice-figures';
import type { Invoicing } from './invoice-number';
import { figuresOfOwn, ownFigures, type OwnLine, type OwnRules, type TypedLine } from './own-lines';

type Made = BodyOf<'invoice.made'>;
export type Buyer = NonNullable<Row<'invoices'>['buyer']>;

export type InvoiceRefusal = { readonly field: string } & (
  | { readonly code: 'invoice/not-set-up' }
  | { readonly code: 'invoice/day-wrong'; readonly typed: string }
  | { readonly code: 'invoice/due-before'; readonly issued: string }
  | { readonly code: 'invoice/no-customer' }
  | { readonly code: 'invoice/no-name' }
  | { readonly code: 'invoice/country-wrong'; readonly typed: string }
  | { readonly code: 'invoice/email-wrong'; readonly typed: string }
  | { readonly code: 'invoice/nothing' }
  | { readonly code: 'invoice/again'; readonly number: string }
  | { readonly code: 'invoice/voided' }
  | { readonly code: 'invoice/line-no-name'; readonly line: number }
  | { readonly code: 'invoice/line-quantity'; readonly line: number; readonly typed: string }
  | {
      readonly code: 'invoice/line-amount';
      readonly line: number;
      readonly refusal: AmountRefusal;
    }
  | { readonly code: 'invoice/more-than-due'; readonly due: number }
  | { readonly code: 'invoice/no-reason' }
  /** More of it would be credited than is left. */
  | { readonly code: 'invoice/credit-more'; readonly left: number }
  /** It has paid for goods of the order by now. */
  | { readonly code: 'invoice/credit-spent'; readonly left: number }
);

export type InvoiceOutcome =
  | { readonly ok: true; readonly drafts: readonly Draft[]; readonly id: string }
  | { readonly ok: false; readonly refusal: InvoiceRefusal };

const refuse = (refusal: InvoiceRefusal): { ok: false; refusal: InvoiceRefusal } => ({
  ok: false,
  refusal,
});

/** What is said on every invoice, whatever it is for. */
export interface InvoiceSaid {
  readonly newId: () => string;
  /** Random text of at least 16 characters, to keep the buyer apart by. */
  readonly salt: string;
  /** Null where nobody has set up how they are headed. */
  readonly invoicing: Invoicing | null;
  /** The local day, ISO 8601. */
  readonly today: string;
  readonly due: string;
  readonly note: string;
  readonly customer: Pick<Row<'customers'>, 'id' | 'isErased'> | undefined;
  readonly buyer: Buyer;
}

/** As a customer stands on an invoice, until somebody says otherwise. */
export const buyerOf = (
  {
    name,
    company,
    address,
    taxNumber,
    email,
  }: Pick<Row<'customers'>, 'name' | 'company' | 'address' | 'taxNumber' | 'email'>,
  country: string,
): Buyer => ({ name, company, address, taxNumber, email, country });

/** When it is to be paid: by what was agreed with the customer, else as the business has it. */
export const dueOn = (
  today: string,
  customer: Pick<Row<'customers'>, 'terms'>,
  invoicing: Invoicing | null,
): string => daysAfter(today, customer.terms > 0 ? customer.terms : (invoicing?.terms ?? 0));

function made(
  said: InvoiceSaid,
  of: Made['of'],
  figures: InvoiceFigures,
  paid: number,
): InvoiceOutcome {
  const { newId, invoicing, today, due, customer, buyer } = said;
  if (invoicing === null) return refuse({ code: 'invoice/not-set-up', field: '' });
  if (customer === undefined || customer.isErased)
    return refuse({ code: 'invoice/no-customer', field: '' });
  const name = buyer.name.trim().slice(0, 80);
  if (name === '') return refuse({ code: 'invoice/no-name', field: 'name' });
  const country = buyer.country.trim().toUpperCase();
  if (!isCountry(country))
    return refuse({ code: 'invoice/country-wrong', field: 'country', typed: buyer.country });
  if (buyer.email.trim() !== '' && !isMail(buyer.email.trim()))
    return refuse({ code: 'invoice/email-wrong', field: 'email', typed: buyer.email });
  if (!isDate(due)) return refuse({ code: 'invoice/day-wrong', field: 'due', typed: due });
  if (due < today) return refuse({ code: 'invoice/due-before', field: 'due', issued: today });
  if (figures.lines.length === 0 || figures.total <= 0)
    return refuse({ code: 'invoice/nothing', field: '' });
  const reference = (buyer.reference ?? '').trim().slice(0, 40);
  const id = newId();
  const body: Made = {
    ...{ customer: customer.id, of, issued: today, due, paid },
    ...{ vendor: invoicing.vendor, foot: invoicing.foot },
    ...{ lines: figures.lines, taxes: figures.taxes, total: figures.total },
  };
  const whom = {
    ...{ name, country, company: buyer.company.trim().slice(0, 80) },
    ...{ address: buyer.address.trim().slice(0, 300) },
    taxNumber: buyer.taxNumber.trim().slice(0, 40),
    email: buyer.email.trim(),
    ...(reference === '' ? {} : { reference }),
  };
  return {
    ok: true,
    id,
    drafts: [
      privateDraft('invoice.made', id, body, said.salt, {
        ...{ buyer: whom, note: said.note.trim().slice(0, 500) },
      }),
    ],
  };
}

/** The invoice of this sale or order that stands, if any: one that is not credited whole. */
export function standingOf(
  source: string,
  invoices: readonly Row<'invoices'>[],
): Row<'invoices'> | undefined {
  return invoices.find(
    (each) => each.sort === 'invoice' && each.source === source && leftToCredit(each, invoices) > 0,
  );
}

/** What of an invoice's total was not credited. Minor units. */
export const leftToCredit = (
  { id, total }: Pick<Row<'invoices'>, 'id' | 'total'>,
  invoices: readonly Row<'invoices'>[],
): number => total - sum(invoices.flatMap((each) => (each.credits === id ? each.total : [])));

export interface InvoiceSale extends InvoiceSaid {
  readonly sold: SoldSale;
  readonly isVoid: boolean;
  /** All that there are of this sale, credit notes with them. */
  readonly invoices: readonly Row<'invoices'>[];
}

/** Of a sale as it stands. */
export function invoiceSale(command: InvoiceSale): InvoiceOutcome {
  const { sold, isVoid, invoices } = command;
  const { sale } = sold;
  if (isVoid) return refuse({ code: 'invoice/voided', field: '' });
  if (standingOf(sale.id, invoices) !== undefined)
    return refuse({ code: 'invoice/again', field: '', number: sale.number });
  const figures = saleFigures(sold);
  const of = { is: 'sale', sale: sale.id, number: sale.number } as const;
  return made(command, of, figures, paidAlready(sold, figures));
}

export interface InvoiceOrder extends InvoiceSaid {
  readonly order: Pick<Row<'orders'>, 'id' | 'number'>;
  /** What it is called on it: `In advance for K4-2`. */
  readonly says: string;
  readonly typed: string;
  readonly currency: string;
  /** What is to be paid for it and was not asked for. */
  readonly most: number;
}

/** What of an order was neither asked for in writing nor paid in otherwise. Minor units. */
export const stillToAsk = (
  { total, deposit, due, order }: Pick<OrderNow, 'total' | 'deposit' | 'due' | 'order'>,
  invoices: readonly Row<'invoices'>[],
): number => {
  const own = invoices.filter(({ source, sort }) => source === order.id && sort === 'invoice');
  const asked = sum(own.map((each) => leftToCredit(each, invoices)));
  // What is on the deposit may be what was asked for.
  return Math.max(0, Math.min(due, total - Math.max(asked, deposit)));
};

/** Of an order, before it is handed over: so much in advance. */
export function invoiceOrder(command: InvoiceOrder): InvoiceOutcome {
  const { order, says, typed, currency, most } = command;
  const read = readAmount(typed, currency);
  if (!read.ok)
    return refuse({ code: 'invoice/line-amount', field: 'amount', line: 0, refusal: read.refusal });
  if (read.amount > most)
    return refuse({ code: 'invoice/more-than-due', field: 'amount', due: most });
  const line: InvoiceLine = {
    ...{ name: says.slice(0, 200), detail: '', unit: '', quantity: 1000 },
    ...{ net: read.amount, tax: {}, total: read.amount },
  };
  return made(
    command,
    { is: 'order', order: order.id, number: order.number },
    figuresOf([line], []),
    0,
  );
}

export interface InvoiceOwn extends InvoiceSaid, OwnRules {
  readonly lines: readonly TypedLine[];
}

/** By hand: what its lines say is owed from now on. */
export function invoiceOwn(command: InvoiceOwn): InvoiceOutcome {
  const read = ownFigures(command);
  return read.ok ? made(command, { is: 'own' }, read.figures, 0) : read;
}

export interface InvoiceCharge extends InvoiceSaid, OwnRules {
  readonly charge: string;
  /** The day of its schedule that it is for, ISO 8601. */
  readonly day: string;
  readonly lines: readonly OwnLine[];
}

/** Of a standing charge, on a day of it: what its lines come to with the taxes of now. */
export const invoiceCharge = (command: InvoiceCharge): InvoiceOutcome =>
  made(
    command,
    { is: 'charge', charge: command.charge, day: command.day },
    figuresOfOwn(command.lines, command),
    0,
  );

export interface CreditInvoice {
  readonly newId: () => string;
  readonly invoice: Row<'invoices'>;
  /** All that there are of it. */
  readonly credits: readonly Row<'invoices'>[];
  readonly today: string;
  readonly reason: string;
}

function credited(
  { newId, invoice, credits, today, reason }: CreditInvoice,
  of: BodyOf<'invoice.credited'>['of'],
  figures: InvoiceFigures,
): InvoiceOutcome {
  const why = reason.trim().slice(0, 200);
  if (why === '') return refuse({ code: 'invoice/no-reason', field: 'reason' });
  if (figures.lines.length === 0 || figures.total <= 0)
    return refuse({ code: 'invoice/nothing', field: '' });
  const left = leftToCredit(invoice, credits);
  if (figures.total > left) return refuse({ code: 'invoice/credit-more', field: '', left });
  const id = newId();
  return {
    ok: true,
    id,
    drafts: [
      draft('invoice.credited', id, null, {
        ...{ invoice: invoice.id, customer: invoice.customer, of, issued: today, reason: why },
        ...{ lines: figures.lines, taxes: figures.taxes, total: figures.total },
      }),
    ],
  };
}

/** What came back of the sale that it is of. */
export const creditReturn = (
  command: CreditInvoice & {
    readonly sold: Pick<SoldSale, 'sale' | 'lines'>;
    readonly back: Row<'returns'>;
  },
): InvoiceOutcome =>
  command.credits.some(({ source }) => source === command.back.id)
    ? refuse({ code: 'invoice/again', field: '', number: command.back.number })
    : credited(
        command,
        { is: 'return', return: command.back.id, number: command.back.number },
        returnedFigures(command.sold, command.back),
      );

/** All that is left of the sale that it is of, which was voided. */
export const creditVoid = (command: CreditInvoice & { readonly sold: SoldSale }): InvoiceOutcome =>
  credited(
    command,
    { is: 'void', sale: command.sold.sale.id, number: command.sold.sale.number },
    saleFigures(command.sold),
  );

/** How much of each line is credited; thousandths, by where it stands. */
export type ComesOff = ReadonlyMap<number, number>;

/** As it is typed, line by line; nothing typed, or 0, is none of that line. */
export function readOff(
  typed: readonly string[],
):
  | { readonly ok: true; readonly off: ComesOff }
  | { readonly ok: false; readonly refusal: InvoiceRefusal } {
  const off = new Map<number, number>();
  for (const [at, text] of typed.entries()) {
    if (text.trim() === '' || text.trim() === '0') continue;
    const quantity = readQuantity(text);
    if (quantity === null || quantity <= 0)
      return refuse({
        ...{ code: 'invoice/line-quantity', field: `lines.${String(at)}` },
        ...{ line: at + 1, typed: text },
      });
    off.set(at, quantity);
  }
  return { ok: true, off };
}

/** Of what the invoice itself had moved: so much of each of these lines. */
export function creditOwn(
  command: CreditInvoice & {
    readonly off: ComesOff;
    /** What is left of what was paid in advance; null where it is of no order. Minor units. */
    readonly deposit: number | null;
  },
): InvoiceOutcome {
  const { invoice, credits, off, deposit } = command;
  const before = creditedOf(credits);
  for (const [at, quantity] of off) {
    const left = (invoice.lines[at]?.quantity ?? 0) - (before.get(at) ?? 0);
    if (quantity <= 0 || quantity > left)
      return refuse({ code: 'invoice/credit-more', field: `lines.${String(at)}`, left });
  }
  const postings = takesOf(invoice, credits, off);
  const figures = creditedFigures(invoice, postings, off);
  if (deposit !== null && figures.total > deposit)
    return refuse({ code: 'invoice/credit-spent', field: '', left: deposit });
  return credited(command, { is: 'own', takes: { of: invoice.id, postings } }, figures);
}

/** How much of each line was credited before; thousandths. */
export function creditedOf(credits: readonly Pick<Row<'invoices'>, 'takes' | 'lines'>[]): ComesOff {
  const gone = new Map<number, number>();
  for (const { takes, lines } of credits) {
    const at = [...new Set((takes?.postings ?? []).flatMap(({ line = -1 }) => line))].sort(
      (a, b) => a - b,
    );
    at.forEach((line, n) => gone.set(line, (gone.get(line) ?? 0) + (lines[n]?.quantity ?? 0)));
  }
  return gone;
}

/** Shares of what it moved, in all, less what was credited before. */
export function takesOf(
  invoice: Row<'invoices'>,
  credits: readonly Row<'invoices'>[],
  off: ComesOff,
): Posting[] {
  const moved = movedBy(invoice);
  const before = credits.flatMap(({ takes }) => takes?.postings ?? []);
  const gone = creditedOf(credits);
  return [...off].flatMap(([at, quantity]) => {
    const isOf = (posting: Posting): boolean => posting.line === at;
    const inAll = { quantity: (gone.get(at) ?? 0) + quantity, of: invoice.lines[at]!.quantity };
    return takeShareBack(moved.filter(isOf), () => inAll, before.filter(isOf));
  });
}

/** What its row says that it moved. */
const movedBy = ({ customer, source, sourceIs, lines, taxes }: Row<'invoices'>): Posting[] =>
  invoicePostings({
    body: {
      ...{ customer, lines, taxes },
      of:
        sourceIs === 'order' && source !== null
          ? { is: 'order', order: source, number: '' }
          : // A standing charge moves what its lines say, like one by hand.
            sourceIs === 'sale' && source !== null
            ? { is: 'sale', sale: source, number: '' }
            : { is: 'own' },
    },
  });
