/** An invoice or a credit note as it stands on paper, and in the letter that brings it: one model for both. */
import type { DocumentPaper } from '../receipt/document-paper';
import { figureText, moneyText } from '../money/amount-text';
import { quantityWords } from '../money/units';
import { taxName } from '../pricing/tax-name';
import { countryName } from '../customer/country';
import { ibanText } from './iban';
import type { InvoiceLine } from './invoice-figures';
import type { Buyer } from './make-invoice';
import type { Row } from '../books/tables';

export interface InvoiceDocument {
  readonly invoice: Row<'invoices'>;
  /** Empty while the server has not given it. */
  readonly number: string;
  /** Of a credit note: those of the invoice that it is of. */
  readonly vendor: NonNullable<Row<'invoices'>['vendor']>;
  /** Null once they were forgotten. */
  readonly buyer: Buyer | null;
  readonly credits?: { readonly number: string; readonly issued: string } | undefined;
  readonly currency: string;
  readonly locale: string;
}

type InvoicePaper = DocumentPaper & Required<Pick<DocumentPaper, 'sums'>>;

/** What stands in the place of a number that is still to come. */
export const NUMBER_FOLLOWS = '(number follows)';

/** With the year, as a letter has it. @param day ISO date. */
export const dayText = (day: string, locale: string): string =>
  new Intl.DateTimeFormat(locale, {
    ...{ day: 'numeric', month: 'long', year: 'numeric' },
    timeZone: 'UTC',
  }).format(Date.parse(`${day}T00:00:00Z`));

/** Where somebody is written to: as it stands on the invoice, else as it is known of them; empty for nowhere. */
export const mailOf = (
  { buyer }: Pick<Row<'invoices'>, 'buyer'>,
  customer: Pick<Row<'customers'>, 'email'> | undefined,
): string => buyer?.email || (customer?.email ?? '');

/** Whom a document is to, line under line; with the country where that is another than the vendor's. */
export const buyerText = (
  buyer: Buyer | null,
  vendor: { readonly country: string } | null,
  locale: string,
): string =>
  buyer === null
    ? 'somebody who was forgotten'
    : [
        ...[buyer.company, buyer.name, buyer.address],
        buyer.country === vendor?.country ? '' : countryName(buyer.country, locale),
      ]
        .filter((part) => part !== '')
        .join('\n');

export function invoicePaper(document: InvoiceDocument): InvoicePaper {
  const { invoice, number, vendor, buyer, credits, currency, locale } = document;
  const money = (amount: number): string => moneyText(amount, currency, locale);
  const isCredit = invoice.sort === 'credit';
  const isAsked = invoice.sourceIs === 'order' && !isCredit;
  const day = (of: string): string => dayText(of, locale);
  return {
    title: isCredit ? 'Credit note' : isAsked ? 'Payment request' : 'Invoice',
    number: number === '' ? NUMBER_FOLLOWS : number,
    head: [vendor.name, vendor.address, countryName(vendor.country, locale)]
      .concat(vendor.taxNumber === '' ? [] : [`Tax number ${vendor.taxNumber}`])
      .join('\n'),
    facts: [
      ['To', buyerText(buyer, vendor, locale)],
      ...(buyer !== null && buyer.taxNumber !== ''
        ? [['Their tax number', buyer.taxNumber] as const]
        : []),
      ...(buyer?.reference === undefined ? [] : [['Your reference', buyer.reference] as const]),
      ['Day', day(invoice.issued)],
      ...(isCredit ? [] : [['To be paid by', day(invoice.due)] as const]),
      ...(credits === undefined
        ? []
        : [['For invoice', `${credits.number}, ${day(credits.issued)}`] as const]),
      ...(invoice.sourceNumber === ''
        ? []
        : [[SOURCE_WORDS[invoice.sourceIs], sourceText(invoice, day)] as const]),
      ...(invoice.note === '' ? [] : [[isCredit ? 'Why' : 'Note', invoice.note] as const]),
    ],
    columns: [
      { head: '', isFigure: false },
      { head: 'many', isFigure: true },
      { head: 'tax', isFigure: true },
      { head: `${currency}, without tax`, isFigure: true },
    ],
    rows: invoice.lines.map((line) => [
      line.detail === '' ? line.name : `${line.name}, ${line.detail}`,
      manyText(line),
      ratesOf(line, invoice.taxes),
      figureText(line.net, currency, locale),
    ]),
    sums: [
      ['Without tax', money(invoice.lines.reduce((all, { net }) => all + net, 0))],
      ...invoice.taxes.map(
        ({ name, rate, base, amount }) =>
          [`${taxName(name, rate)} of ${money(base)}`, money(amount)] as const,
      ),
      ['In all', money(invoice.total)],
      ...(invoice.paid === 0 ? [] : [['Paid already', money(invoice.paid)] as const]),
      [isCredit ? 'Credited' : 'To pay', money(invoice.total - invoice.paid)],
    ],
    foot: footOf(document),
  };
}

/** Of a standing charge the day that it is for. */
const sourceText = (
  { sourceIs, sourceNumber }: Pick<Row<'invoices'>, 'sourceIs' | 'sourceNumber'>,
  day: (of: string) => string,
): string => (sourceIs === 'charge' ? day(sourceNumber) : sourceNumber);

const SOURCE_WORDS: Readonly<Record<Row<'invoices'>['sourceIs'], string>> = {
  sale: 'Sale',
  order: 'Order',
  own: '',
  charge: 'For',
  return: 'Came back with',
  void: 'Void',
};

/** A price that was lowered is of no goods. */
const manyText = ({ quantity, unit }: InvoiceLine): string =>
  quantity === 0 ? '' : quantityWords(quantity, unit);

const ratesOf = ({ tax }: InvoiceLine, taxes: Row<'invoices'>['taxes']): string =>
  taxes
    .filter(({ id }) => Object.hasOwn(tax, id))
    .map(({ rate }) => `${rate} %`)
    .join(', ');

function footOf({ invoice, number, vendor }: InvoiceDocument): string {
  const isOpen = invoice.sort === 'invoice' && invoice.total > invoice.paid;
  const { iban, bic, holder } = vendor;
  return [
    ...(isOpen && iban !== ''
      ? [
          [
            `Please pay to ${ibanText(iban)}`,
            bic === '' ? '' : `BIC ${bic}`,
            holder,
            number === '' ? '' : `with ${number}`,
          ]
            .filter((part) => part !== '')
            .join(', '),
        ]
      : []),
    ...(invoice.sourceIs === 'order' && invoice.sort === 'invoice'
      ? ['Tax is due with the goods, and stands on their own document.']
      : []),
    ...(invoice.foot === '' ? [] : [invoice.foot]),
  ].join('\n');
}

/** As plain text, for a letter. */
export function invoiceText(document: InvoiceDocument): string {
  const { title, number, head, facts, rows, sums, foot } = invoicePaper(document);
  return [
    `${title} ${number}`,
    '',
    head,
    '',
    ...facts.map(([label, value]) => `${label}: ${value.replaceAll('\n', ', ')}`),
    '',
    ...rows.map(([what = '', many = '', tax = '', net = '']) =>
      [many === '' ? what : `${many} × ${what}`, net, tax === '' ? '' : `plus ${tax}`]
        .filter((part) => part !== '')
        .join('   '),
    ),
    '',
    ...sums.map(([label, value]) => `${label}: ${value}`),
    '',
    foot,
  ].join('\n');
}
