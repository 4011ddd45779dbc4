import type { Row } from '../core/books/tables';
import type { EventRows } from '../core/event/takings';
import type { DeviceDatabase } from './database';

/** An event's rows out of this device's books, all of one moment. */
export async function eventRows({ books }: DeviceDatabase, event: string): Promise<EventRows> {
  const [totals, paidIn, items, hours, taxes, ways, tips, stock] = await Promise.all([
    books.eventTotals.get(event),
    books.eventPaidIn.get(event),
    books.eventItems.where('event').equals(event).toArray(),
    books.eventHours.where('event').equals(event).toArray(),
    books.eventTaxes.where('event').equals(event).toArray(),
    books.eventWays.where('event').equals(event).toArray(),
    books.eventTips.where('event').equals(event).toArray(),
    books.stock.where('place').equals(event).toArray(),
  ]);
  return { totals, paidIn, items, hours, taxes, ways, tips, stock };
}

/** Drawers of an event that have not been counted. */
export async function openDrawersOf(
  { books }: DeviceDatabase,
  event: string,
): Promise<Row<'drawers'>[]> {
  const [drawers, reads] = await Promise.all([
    books.drawers.where('event').equals(event).toArray(),
    books.drawerReads.where('event').equals(event).toArray(),
  ]);
  const counted = new Set(reads.map(({ drawer }) => drawer));
  return drawers.filter(({ id }) => !counted.has(id));
}
