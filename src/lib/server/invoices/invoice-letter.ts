/** An invoice or a credit note as it is mailed: told in the letter, with its PDF and, where the standard has it, UBL. */
import { invoicePaper, type InvoiceDocument } from '../../core/invoice/invoice-paper';
import { ublOf } from '../../core/formats/ubl';
import { documentPdf } from '../../paper/document-pdf';
import type { BookReader } from '../books/read-books';
import { invoiceWords, type Letter } from '../words/letters';

/** Null while it has not come, or has no number. */
export async function invoiceFor(
  books: BookReader,
  business: string,
  id: string,
): Promise<Letter | null> {
  const [invoice] = await books.rows(business, 'invoices', { id });
  const [own] = await books.rows(business, 'businesses', { id: business });
  if (invoice === undefined || own === undefined) return null;
  const [of] =
    invoice.credits === null
      ? [invoice]
      : await books.rows(business, 'invoices', { id: invoice.credits });
  const numbers = await books.rows(business, 'invoiceNumbers', {
    id: [id, ...(invoice.credits === null ? [] : [invoice.credits])],
  });
  const numberOf = (which: string): string => numbers.find((row) => row.id === which)?.number ?? '';
  const number = numberOf(id);
  if (number === '' || of?.vendor == null) return null;
  const { currency, locale } = own;
  const { vendor, buyer } = of;
  const credits =
    invoice.credits === null ? undefined : { number: numberOf(invoice.credits), issued: of.issued };
  const document: InvoiceDocument = {
    ...{ invoice, number, vendor, buyer, credits, currency, locale },
  };
  const ubl = ublOf({ ...document, business });
  const pdf = await documentPdf(invoicePaper(document), 'sheet');
  return {
    ...invoiceWords(document),
    attachments: [
      { filename: `${number}.pdf`, contentType: 'application/pdf', content: Buffer.from(pdf) },
      ...(ubl.ok
        ? [{ filename: `${number}.xml`, contentType: 'application/xml', content: ubl.xml }]
        : []),
    ],
  };
}
