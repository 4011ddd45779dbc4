import type { EventRows } from '../../core/event/takings';
import type { Database } from '../database/database';
import type { BookReader } from './read-books';

/** An event's rows out of the server's books, all of one moment; null for an unknown event. */
export async function eventRows(
  database: Database,
  books: BookReader,
  business: string,
  event: string,
): Promise<EventRows | null> {
  return await database.snapshot(async (transaction) => {
    const [known] = await books.rows(business, 'events', { id: event }, transaction);
    if (known === undefined) return null;
    const where = { event };
    const [totals] = await books.rows(business, 'eventTotals', where, transaction);
    const [paidIn] = await books.rows(business, 'eventPaidIn', where, transaction);
    return {
      totals,
      paidIn,
      items: await books.rows(business, 'eventItems', where, transaction),
      hours: await books.rows(business, 'eventHours', where, transaction),
      taxes: await books.rows(business, 'eventTaxes', where, transaction),
      ways: await books.rows(business, 'eventWays', where, transaction),
      tips: await books.rows(business, 'eventTips', where, transaction),
      stock: await books.rows(business, 'stock', { place: event }, transaction),
    };
  });
}
