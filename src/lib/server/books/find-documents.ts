/** Documents beside sales that devices let go of with their event: cash that was moved, and refunds without a sale. */
import {
  cashToFind,
  documentsToFind,
  fittingDocuments,
  refundToFind,
  type FoundDocument,
  type OlderDocument,
} from '../../core/find/documents';
import type { Row } from '../../core/books/tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import type { BookReader } from './read-books';

type Cash = Pick<Row<'cashMoves'>, 'id' | 'at' | 'by' | 'event' | 'bag' | 'what' | 'amount'>;

/** Those that fit what was typed, as a device finds its own: by number, amount, day, person or words. */
export async function findDocuments(
  database: Database,
  books: BookReader,
  business: string,
  typed: string,
): Promise<readonly FoundDocument[]> {
  const [owner] = await books.rows(business, 'businesses', { id: business });
  return await database.snapshot(async (transaction) => {
    const staff = await books.rows(business, 'staff', {}, transaction);
    const events = await books.rows(business, 'events', {}, transaction);
    // A few for each event: fewer than any index of their words would hold.
    const cash = await select<Cash & { readonly amount: string }>(
      database,
      'SELECT id, at, `by`, event, bag, what, amount FROM books_cash_moves WHERE business = ?',
      [business],
      transaction,
    );
    const refunds = await books.rows(business, 'refunds', {}, transaction);
    const person = (id: string | null): string => staff.find((each) => each.id === id)?.name ?? '';
    const event = (id: string | null): string => events.find((each) => each.id === id)?.name ?? '';
    const all = [
      ...cash.map((row) =>
        cashToFind({ ...row, amount: Number(row.amount) }, event(row.event), person(row.by)),
      ),
      ...refunds.map((row) => refundToFind(row, person(row.by))),
    ];
    return fittingDocuments(documentsToFind(all), typed, owner?.currency ?? 'GBP');
  });
}

/** One of them, as its page shows it; null for one that this business has not. */
export async function olderDocument(
  books: BookReader,
  business: string,
  id: string,
): Promise<OlderDocument | null> {
  const [cash] = await books.rows(business, 'cashMoves', { id });
  if (cash !== undefined) {
    const names = await books.rows(business, 'drawers', { event: cash.event });
    return { is: 'cash', row: cash, drawers: names.map((each) => [each.id, each.name]) };
  }
  const [refund] = await books.rows(business, 'refunds', { id });
  if (refund === undefined) return null;
  const { card } = refund.money;
  const [onto] =
    card === undefined ? [] : await books.rows(business, 'cardRefunds', { id: card.refund });
  return { is: 'refund', row: refund, card: onto ?? null };
}
