/**
 * Numbers of invoices and credit notes: each series counts up by one, under the lock of the business's counter, so that
 * none is given twice and none is left out. What is given stands at once; a device that did not hear of it asks again,
 * and hears the same. The number bears a seal, by which the server knows it again should it ever forget that it gave it.
 */
import type { Transaction } from 'sequelize';
import { numberText, seriesOf, type Invoicing } from '../../core/invoice/invoice-number';
import type { InvoiceNumber } from '../../core/invoice/number-messages';
import type { BookReader } from '../books/read-books';
import { lockCounter } from '../daybook/append';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { makeSecret, sealOf } from './number-seal';

/** @returns Null while the server does not know the invoice, or how invoices are numbered. */
export async function numberInvoice(
  database: Database,
  books: BookReader,
  business: string,
  invoice: string,
): Promise<InvoiceNumber | null> {
  return await database.transaction(async (transaction) => {
    await lockCounter(database, business, transaction);
    const [given] = await select<{ series: string; n: string; number: string }>(
      database,
      'SELECT series, n, number FROM invoice_numbers WHERE business = ? AND invoice = ?',
      [business, invoice],
      transaction,
    );
    if (given !== undefined) {
      const secret = await makeSecret(database, business, transaction);
      const known = { ...given, n: Number(given.n) };
      return { ...known, seal: sealOf(secret, business, { invoice, ...known }) };
    }
    const [row] = await books.rows(business, 'invoices', { id: invoice }, transaction);
    const [own] = await books.rows(business, 'businesses', { id: business }, transaction);
    const invoicing = own?.invoicing ?? null;
    if (row === undefined || invoicing === null) return null;
    return await giveNumber(database, business, invoicing, { ...row, id: invoice }, transaction);
  });
}

/** The next one of its series, to one that has none. Under the lock of the business's counter. */
export async function giveNumber(
  database: Database,
  business: string,
  invoicing: Invoicing,
  { id: invoice, issued }: { readonly id: string; readonly issued: string },
  transaction: Transaction,
): Promise<InvoiceNumber> {
  const secret = await makeSecret(database, business, transaction);
  const series = seriesOf(invoicing, issued);
  const n = await nextIn(database, business, series, invoicing.first, transaction);
  const number = numberText(invoicing, issued, n);
  await database.sequelize.query(
    'INSERT INTO invoice_numbers (business, series, n, invoice, number) VALUES (?, ?, ?, ?, ?)',
    { replacements: [business, series, n, invoice, number], transaction },
  );
  return { series, n, number, seal: sealOf(secret, business, { invoice, series, n, number }) };
}

async function nextIn(
  database: Database,
  business: string,
  series: string,
  first: number,
  transaction: Transaction,
): Promise<number> {
  const [last] = await select<{ n: string | null }>(
    database,
    'SELECT MAX(n) AS n FROM invoice_numbers WHERE business = ? AND series = ?',
    [business, series],
    transaction,
  );
  return last?.n == null ? first : Number(last.n) + 1;
}
