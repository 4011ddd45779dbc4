/** A maker's statement of an event as it is mailed: told in the letter, with its PDF. */
import { settlingOf } from '../../core/settle/settling';
import { makerLetter, makerPaper, type MakerStatement } from '../../core/settle/maker-statement';
import { documentPdf } from '../../paper/document-pdf';
import type { BookReader } from '../books/read-books';
import { settlingRows } from '../books/settling-rows';
import type { Database } from '../database/database';
import { makerWords, type Letter } from '../words/letters';

/**
 * As it stands now, to the address that the maker has now; null where they have none, or the event has not come;
 * `not needed` where nothing of theirs was sold.
 * @param now Milliseconds since 1970.
 */
export async function makerStatementFor(
  database: Database,
  books: BookReader,
  business: string,
  { event, maker }: { readonly event: string; readonly maker: string },
  now: number,
): Promise<(Letter & { readonly to: string }) | 'not needed' | null> {
  const [own] = await books.rows(business, 'businesses', { id: business });
  const [row] = await books.rows(business, 'makers', { id: maker });
  if (own === undefined || row === undefined || row.email === '') return null;
  const rows = await settlingRows(database, books, business, event, now);
  if (rows === null) return null;
  const settled = settlingOf(rows).makers.find((each) => each.maker === maker);
  if (settled === undefined) return 'not needed';
  const units = new Map(rows.items.map(({ id, unit }) => [id, unit]));
  const statement: MakerStatement = {
    ...{ maker: settled, name: row.name, event: rows.event, business: own },
    unit: (item) => units.get(item) ?? '',
  };
  const pdf = Buffer.from(await documentPdf(makerPaper(statement), 'sheet'));
  return {
    ...makerWords(makerLetter(statement), own.name),
    to: row.email,
    attachments: [{ filename: 'statement.pdf', contentType: 'application/pdf', content: pdf }],
  };
}
