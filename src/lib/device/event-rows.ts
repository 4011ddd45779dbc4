import type { Row } from '../core/books/tables';
import type { EventRows } from '../core/event/takings';
import { asCorrected, partsAsPaid } from '../core/sale/corrections';
import type { DeviceDatabase } from './database';
import { underKey } from './under-key';

/** An event's rows out of this device's books, all of one moment. */
export async function eventRows({ books }: DeviceDatabase, event: string): Promise<EventRows> {
  const [totals, paidIn, items, hours, taxes, ways, tips, stock] = await Promise.all([
    books.eventTotals.get(event),
    books.eventPaidIn.get(event),
    underKey(books.eventItems, event).toArray(),
    books.eventHours.where('event').equals(event).toArray(),
    books.eventTaxes.where('event').equals(event).toArray(),
    books.eventWays.where('event').equals(event).toArray(),
    books.eventTips.where('event').equals(event).toArray(),
    underKey(books.stock, event).toArray(),
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

/** What was paid for what was sold at an event, as it was paid in truth, wherever it was rung up. */
export async function partsAt(
  { books }: DeviceDatabase,
  event: string,
): Promise<readonly Row<'payments'>[]> {
  const rows = await books.payments.where('event').equals(event).toArray();
  const said = await books.corrections.where('event').equals(event).toArray();
  const of = [...new Set(said.flatMap(({ sale, fix }) => (fix.is === 'event' ? sale : [])))];
  if (of.length === 0) return partsAsPaid(rows, said);
  const sales = (await books.sales.bulkGet(of)).flatMap((sale) => sale ?? []);
  const corrections = await books.corrections.where('sale').anyOf(of).toArray();
  const now = await Promise.all(
    sales.map(async (sale) => {
      const parts = await books.payments.bulkGet([...sale.payments]);
      const payments = parts.flatMap((part) => part ?? []);
      return asCorrected({ sale, lines: [], payments }, corrections).payments;
    }),
  );
  const moved = now.flat();
  const ids = new Set(moved.map(({ id }) => id));
  return [
    ...partsAsPaid(
      rows.filter(({ id }) => !ids.has(id)),
      said,
    ),
    ...moved.filter((part) => part.event === event),
  ];
}
