/** An order to a supplier as it is mailed: told in the letter, with its PDF. */
import { linesNow } from '../../core/stock/list-state';
import { listPaper, orderLetter, type ListDocument } from '../../core/stock/list-paper';
import { documentPdf } from '../../paper/document-pdf';
import type { BookReader } from '../books/read-books';
import { orderWords, type Letter } from '../words/letters';

/**
 * As it stands now, to the address that the supplier has now; null where they have none, or it has not come;
 * `not needed` once it was called off.
 */
export async function orderFor(
  books: BookReader,
  business: string,
  id: string,
): Promise<(Letter & { readonly to: string }) | 'not needed' | null> {
  const [list] = await books.rows(business, 'lists', { id });
  const [own] = await books.rows(business, 'businesses', { id: business });
  if (list === undefined || own === undefined || list.supplier === null) return null;
  if (list.stage === 'off') return 'not needed';
  const suppliers = await books.rows(business, 'suppliers', { id: list.supplier });
  const to = suppliers[0]?.email ?? '';
  if (to === '') return null;
  const lines = linesNow(
    await books.rows(business, 'listLines', { list: id }),
    await books.rows(business, 'listSums', { list: id }),
  );
  const goods = lines.map(({ item }) => item);
  const byId = <T extends { readonly id: string }>(rows: readonly T[]): ReadonlyMap<string, T> =>
    new Map(rows.map((row) => [row.id, row]));
  const document: ListDocument = {
    ...{ list, lines, business: own },
    items: byId(await books.rows(business, 'items', { id: goods })),
    supplies: byId(await books.rows(business, 'supplies', { id: goods })),
    named: {
      places: await books.rows(business, 'places', { id: [list.from, list.to] }),
      events: await books.rows(business, 'events', { id: [list.from, list.to] }),
      suppliers,
    },
  };
  const paper = listPaper(document);
  const pdf = Buffer.from(await documentPdf(paper, 'sheet'));
  return {
    ...orderWords(orderLetter(document), own.name),
    to,
    attachments: [
      { filename: `${paper.number}.pdf`, contentType: 'application/pdf', content: pdf },
    ],
  };
}
