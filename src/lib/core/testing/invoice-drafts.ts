/** Invoices, drawn for the property tests: set up, made by hand, of an order and of a sale, numbered, credited. */
import type { Draft } from '../daybook/chain';
import { draft } from '../daybook/kinds';
import {
  creditOwn,
  creditReturn,
  invoiceCharge,
  invoiceOrder,
  invoiceOwn,
  invoiceSale,
  type InvoiceOutcome,
  type InvoiceSaid,
} from '../invoice/make-invoice';
import { FIRST_WORDS } from '../invoice/reminders';
import { numberText, seriesOf, type Invoicing } from '../invoice/invoice-number';
import { emptySlip, putItem } from '../slip/open-slip';
import { heldWay, sell } from './held-drafts';
import { CARD_WAY, customerId, item, pricing, tax } from './made-up-business';
import { orderId } from './order-drafts';
import { cameBack, type Writer } from './put-right-drafts';

export const INVOICE_DOES = [
  ...(['set up', 'own', 'credit', 'order', 'sale', 'back', 'number'] as const),
  ...(['remind', 'charge', 'charged'] as const),
] as const;

export interface InvoiceStep {
  readonly does: 'invoice';
  readonly what: (typeof INVOICE_DOES)[number];
  readonly n: number;
  readonly amount: number;
}

export const INVOICING: Invoicing = {
  vendor: {
    ...{ name: 'Larkmoss Plants', address: '2 Mill Lane\nOtterby', country: 'GB' },
    ...{
      taxNumber: 'GB999000123',
      email: 'hello@larkmoss.example',
      iban: 'GB33BUKB20201555555555',
      bic: '',
      holder: '',
    },
  },
  ...{ series: 'R', isByYear: true, digits: 4, first: 1, terms: 14, foot: '' },
};

const TODAY = '2026-11-22';

export const saidOf = (
  newId: () => string,
  n: number,
  more: Partial<InvoiceSaid> = {},
): InvoiceSaid => ({
  ...{ newId, salt: 'sixteen-characters', invoicing: INVOICING, today: TODAY, due: '2026-12-06' },
  ...{ note: '', customer: { id: customerId(n), isErased: false } },
  buyer: { name: 'Wren', company: '', address: '', taxNumber: '', email: '', country: 'GB' },
  ...more,
});

/** What is personal stands apart, and is not what these tests are about. */
function bare(made: InvoiceOutcome): readonly Draft[] {
  if (!made.ok) throw new Error(made.refusal.code);
  return made.drafts.map(({ private: _apart, ...each }) => each);
}

/** Two lines by hand, one of them not taxed. */
const own = (writer: Writer, n: number, amount: number): readonly Draft[] =>
  bare(
    invoiceOwn({
      ...saidOf(writer.newId, n),
      lines: [
        {
          ...{ name: 'Wreaths for the hall', quantity: '3', taxes: [tax.id] },
          price: (amount / 100).toFixed(2),
        },
        { name: 'The way there', quantity: '', price: '4.99', taxes: [] },
      ],
      ...{ currency: 'GBP', pricesIncludeTax: pricing.pricesIncludeTax },
      ...{ taxRounding: pricing.taxRounding, taxes: [tax] },
    }),
  );

/** A standing charge, made once, and what its card paid or did not. */
function charged(
  { newId }: Writer,
  what: 'charge' | 'charged',
  n: number,
  amount: number,
): readonly Draft[] {
  const charge = newId();
  const customer = customerId(n);
  const lines = [{ name: 'A box', quantity: 1000, price: amount, taxes: [tax.id] }];
  const set = draft('charge.set', charge, null, {
    ...{ id: charge, customer, lines, unit: 'month', every: 1 + (amount % 12) },
    ...{ from: TODAY, notBefore: TODAY, until: null, country: 'GB', isMailed: false },
    ...{ way: CARD_WAY.id, consent: 'written', isActive: amount % 5 > 0 },
  });
  const invoice = newId();
  const made = invoiceCharge({
    ...saidOf(() => invoice, n),
    ...{ charge, day: TODAY, lines, currency: 'GBP', taxes: [tax] },
    ...{ pricesIncludeTax: pricing.pricesIncludeTax, taxRounding: pricing.taxRounding },
  });
  const about = { invoice, charge, customer, payment: newId(), way: CARD_WAY.id };
  return [
    set,
    ...bare(made),
    what === 'charge'
      ? draft('charge.failed', newId(), null, {
          ...{ ...about, amount, why: 'declined', says: 'no', last4: '4242' },
        })
      : draft('charge.paid', newId(), null, {
          ...{ ...about, amount, scheme: 'Visa', last4: '4242', approval: '', acquirer: 'x' },
        }),
    ...(amount % 2 === 0
      ? [draft('charge.again', newId(), null, { invoice, charge, customer })]
      : []),
  ];
}

export function invoiceDrafts(
  writer: Writer,
  { what, n, amount }: InvoiceStep,
  by: string | null,
  now: number,
): readonly Draft[] {
  const { newId } = writer;
  switch (what) {
    case 'set up':
      return [draft('business.invoicing', newId(), null, { ...INVOICING, terms: amount % 365 })];
    case 'own':
      return own(writer, n, amount);
    case 'order': {
      const made = invoiceOrder({
        ...saidOf(newId, n),
        order: { id: orderId(n), number: `K1-${String(n)}` },
        ...{ says: 'In advance', typed: (amount / 100).toFixed(2), currency: 'GBP', most: amount },
      });
      return bare(made);
    }
    case 'sale':
    case 'back': {
      const put = putItem(emptySlip(newId()), item(n, amount), 2000, 'line');
      if (!put.ok) throw new Error(put.refusal.code);
      const sold = sell(writer, put.slip, heldWay('customer'), n, now);
      const before = writer.booksOf(sold, by);
      const [sale] = before.rows('sales');
      if (sale === undefined) throw new Error('no sale to invoice');
      const stands = {
        ...{ sale, lines: before.rows('saleLines'), payments: before.rows('payments'), before: [] },
      };
      const made = bare(
        invoiceSale({ ...saidOf(newId, n), sold: stands, isVoid: false, invoices: [] }),
      );
      if (what === 'sale') return [...sold, ...made];
      const back = cameBack(writer, sold, by, amount % 2 === 0 ? 'off' : 'stock');
      const books = writer.booksOf([...sold, ...made, ...back], by);
      const credit = creditReturn({
        ...{ newId, invoice: books.rows('invoices')[0]!, credits: [], today: TODAY },
        ...{ reason: 'it wilted', sold: stands, back: books.rows('returns')[0]! },
      });
      return [...sold, ...made, ...back, ...bare(credit)];
    }
    case 'credit': {
      const made = own(writer, n, amount);
      const [invoice] = writer.booksOf(made, by).rows('invoices');
      if (invoice === undefined) throw new Error('no invoice to credit');
      const first = bare(
        creditOwn({
          ...{ newId, invoice, credits: [], today: TODAY, reason: 'one too many' },
          deposit: null,
          off: new Map([[0, 1000 + (amount % 1000)]]),
        }),
      );
      return [...made, ...first];
    }
    case 'remind': {
      const made = own(writer, n, amount);
      const [words] = FIRST_WORDS;
      if (words === undefined) throw new Error('no words to remind by');
      const body = { invoice: made[0]!.id, customer: customerId(n), step: amount % 5, ...words };
      return [
        draft('business.reminders', newId(), null, { steps: [...FIRST_WORDS] }),
        ...made,
        draft('reminder.asked', newId(), null, body),
      ];
    }
    case 'charge':
    case 'charged':
      return charged(writer, what, n, amount);
    case 'number': {
      const made = own(writer, n, amount);
      const body = {
        invoice: made[0]!.id,
        ...{ series: seriesOf(INVOICING, TODAY), n: amount },
        number: numberText(INVOICING, TODAY, amount),
        seal: 'a'.repeat(64),
      };
      const asked = { invoice: made[0]!.id, customer: customerId(n) };
      return [
        ...made,
        draft('invoice.numbered', newId(), null, body),
        draft('invoice.asked', newId(), null, asked),
      ];
    }
  }
}
