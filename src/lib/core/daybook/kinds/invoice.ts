import { z } from 'zod';
import { takenBackSchema } from '../../journal/take-back';
import { sum } from '../../money/units';
import {
  amount,
  amountFromZero,
  day,
  kind,
  name,
  note,
  percent,
  quantity,
  recordId,
} from '../kind';

/** ISO 3166-1, two letters. */
const country = z.string().regex(/^[A-Z]{2}$/, 'a country in two letters, such as GB');
/** As a name and an address are written on a letter, line under line. */
const address = z.string().max(300);
const taxNumber = z.string().max(40);
const email = z.union([z.literal(''), z.email().max(254)]);

/** Whoever invoices are from, as they stand on them. */
const vendor = z.strictObject({
  name,
  address,
  country,
  taxNumber,
  email,
  /** Where money is to go: an account (ISO 13616), its bank (ISO 9362), and whose it is; empty where it is not said. */
  iban: z.union([z.literal(''), z.string().regex(/^[A-Z]{2}\d{2}[A-Z0-9]{8,30}$/, 'an IBAN')]),
  bic: z.union([z.literal(''), z.string().regex(/^[A-Z0-9]{8}([A-Z0-9]{3})?$/, 'a BIC')]),
  holder: z.string().max(80),
});

/** How invoices are headed and numbered. */
export const businessInvoicing = kind(
  1,
  z.strictObject({
    vendor,
    /** What numbers begin with, and whether they begin again each year, with the year before them. */
    series: z.string().regex(/^[A-Za-z0-9/-]{0,10}$/, 'letters, figures, - and /'),
    isByYear: z.boolean(),
    digits: z.int().min(1).max(8),
    /** The first number of a series of which there is none yet. */
    first: z.int().min(1).max(9_999_999),
    /** Days to pay where nothing was agreed with the customer. */
    terms: z.int().min(0).max(365),
    /** At the foot of each. */
    foot: note,
  }),
);

const line = z
  .strictObject({
    name: z.string().trim().min(1).max(200),
    detail: z.string().max(80),
    unit: z.string().max(12),
    quantity,
    /** Without tax. */
    net: amount,
    /** Minor units by tax id. */
    tax: z.record(recordId, amount),
    /** With tax. */
    total: amount,
  })
  .refine(({ net, tax, total }) => net + sum(Object.values(tax)) === total, {
    path: ['total'],
    message: 'a line comes to its net and its taxes',
  });

const tax = z.strictObject({ id: recordId, name, rate: percent, base: amount, amount });

/** What it comes to. */
const figures = {
  lines: z.array(line).min(1).max(600),
  taxes: z.array(tax).max(50),
  total: amountFromZero,
};

interface Figures {
  readonly lines: readonly z.infer<typeof line>[];
  readonly taxes: readonly z.infer<typeof tax>[];
  readonly total: number;
}

const addsUp = ({ lines, taxes, total }: Figures): boolean =>
  sum(lines.map((each) => each.total)) === total &&
  new Set(taxes.map(({ id }) => id)).size === taxes.length &&
  lines.every((each) => Object.keys(each.tax).every((id) => taxes.some((of) => of.id === id))) &&
  taxes.every(({ id, base, amount: of }) => {
    const own = lines.filter((each) => Object.hasOwn(each.tax, id));
    return (
      sum(own.map((each) => each.tax[id] ?? 0)) === of && sum(own.map(({ net }) => net)) === base
    );
  });
const ADDS_UP = { path: ['total'], message: 'lines, taxes and total must add up' };

/** What it asks money for: a sale, an order that is paid for before it is handed over, what its lines say, or a standing charge. */
const asked = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('sale'), sale: recordId, number: z.string().max(20) }),
  z.strictObject({ is: z.literal('order'), order: recordId, number: z.string().max(40) }),
  z.strictObject({ is: z.literal('own') }),
  /** A standing charge, and the day of it; only the server makes these. */
  z.strictObject({ is: z.literal('charge'), charge: recordId, day }),
]);

/** Whom it is to, as they were then. */
const buyer = z.strictObject({
  name,
  company: z.string().max(80),
  address,
  country,
  taxNumber,
  email,
  /** By which they know it: the number of their order, or whoever it is for. */
  reference: z.string().max(40).optional(),
});

/**
 * A customer is asked for money, in writing, and nothing of it changes afterwards: what was wrong is credited. Its
 * number follows, from the server. What a sale had moved it does not move again. Version 2 brought the buyer's reference,
 * version 3 standing charges.
 */
export const invoiceMade = kind(
  3,
  z
    .strictObject({
      customer: recordId,
      of: asked,
      /** Local days. */
      issued: day,
      due: day,
      vendor,
      foot: note,
      ...figures,
      /** What of it was paid already. */
      paid: amountFromZero,
    })
    .refine(addsUp, ADDS_UP)
    .refine(({ issued, due }) => issued <= due, {
      path: ['due'],
      message: 'it is not due before its day',
    })
    .refine(({ paid, total }) => paid <= total, {
      path: ['paid'],
      message: 'no more was paid than it comes to',
    })
    .refine(({ of, paid }) => of.is === 'sale' || paid === 0, {
      path: ['paid'],
      message: 'only of a sale something was paid already',
    }),
  { 1: (body) => body, 2: (body) => body },
  // What is noted for them may be personal, like whom it is to.
  z.strictObject({ buyer, note }),
);

/** What an invoice had asked for is asked for no more, all of it or a part: a document with a number of its own. */
export const invoiceCredited = kind(
  1,
  z
    .strictObject({
      invoice: recordId,
      customer: recordId,
      /** What it is for: what came back of the sale, its void, or what the invoice itself had moved. */
      of: z.discriminatedUnion('is', [
        z.strictObject({ is: z.literal('return'), return: recordId, number: z.string().max(20) }),
        z.strictObject({ is: z.literal('void'), sale: recordId, number: z.string().max(20) }),
        z.strictObject({ is: z.literal('own'), takes: takenBackSchema }),
      ]),
      issued: day,
      reason: z.string().trim().min(1).max(200),
      ...figures,
    })
    .refine(addsUp, ADDS_UP),
);

/** The number that the server gave an invoice or a credit note. */
export const invoiceNumbered = kind(
  1,
  z.strictObject({
    invoice: recordId,
    /** Numbers of a series follow each other without a gap. */
    series: z.string().max(20),
    n: z.int().min(1).max(99_999_999),
    /** As people read it. */
    number: z.string().min(1).max(30),
    /** By which the server knows that it gave this number to this invoice (HMAC-SHA-256, hexadecimal). */
    seal: z.string().regex(/^[0-9a-f]{64}$/, 'a seal of the server'),
  }),
);

/** It is to be sent by mail; where to stands apart. */
export const invoiceAsked = kind(
  1,
  z.strictObject({ invoice: recordId, customer: recordId }),
  {},
  z.strictObject({ to: z.email().max(254) }),
);
