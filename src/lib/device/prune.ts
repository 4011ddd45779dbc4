/**
 * Letting go of what is past: documents of events that are no longer recent, entries that the server has.
 * Heads and hashes stay, so the chain goes on; older documents are asked of the server.
 */
import { tables, deviceTables, type Row, type TableName } from '../core/books/tables';
import type { AnyRow } from '../core/books/table-spec';
import { isRecent, recentSince } from '../core/event/recent';
import { isOpenCard } from '../core/payment/card-state';
import { refundState, type CardRefund } from '../core/payment/refund-state';
import type { DeviceDatabase } from './database';

/** @param now Milliseconds since 1970. @returns How many rows went. */
export async function prune(db: DeviceDatabase, now: number): Promise<number> {
  const since = recentSince(now);
  const events = await db.books.events.toArray();
  const past = new Set(
    events.filter((event) => event.setStamp !== '' && !isRecent(event, since)).map(({ id }) => id),
  );
  let gone = 0;
  for (const table of deviceTables) {
    if (tables[table].keep === 'recent') gone += await pruneTable(db, table, past, since);
  }
  gone += await pruneSlips(db);
  gone += await pruneEntries(db, since);
  return gone;
}

async function pruneTable(
  db: DeviceDatabase,
  name: TableName,
  past: ReadonlySet<string>,
  since: string,
): Promise<number> {
  const table = db.table<AnyRow, unknown>(name);
  // What is still to be asked or undone at the acquirer stays, however long that takes.
  const isDone = (row: AnyRow): boolean => {
    if (name === 'cardPayments') return !isOpenCard(row as unknown as Row<'cardPayments'>);
    if (name === 'cardRefunds') return refundState(row as unknown as CardRefund) !== 'to do';
    return true;
  };
  const isIndexed = tables[name].indexes.includes('event');
  let gone = 0;
  if (isIndexed && past.size > 0)
    gone += await table
      .where('event')
      .anyOf([...past])
      .filter(isDone)
      .delete();
  // At no event, or where events are not looked up by: by when it was.
  const isPast = (row: AnyRow): boolean =>
    (past.has(String(row['event'])) ||
      (row['event'] === null && String(row['at']) !== '' && String(row['at']) < since)) &&
    isDone(row);
  return 'at' in tables[name].fields ? gone + (await table.filter(isPast).delete()) : gone;
}

/** Slips that are gone, and their lines. */
async function pruneSlips({ books }: DeviceDatabase): Promise<number> {
  const gone = (await books.slips.where('state').equals('gone').primaryKeys()) as string[];
  const lines = await books.slipLines.where('slip').anyOf(gone).delete();
  return lines + (await books.slips.where('state').equals('gone').delete());
}

/** Blocks of entries that are past as a whole: own ones only once they are sent and in the rows. */
async function pruneEntries(db: DeviceDatabase, since: string): Promise<number> {
  return await db.transaction('rw', [db.meta, db.entries, db.received], async () => {
    const [standing, applied] = await Promise.all([db.read('standing'), db.read('applied')]);
    const safe = Math.min(standing?.sent ?? 0, applied ?? 0);
    const isPast = ({ entries }: { readonly entries: readonly { readonly at: string }[] }) =>
      entries.every(({ at }) => at < since);
    const own = await db.entries.where('upTo').belowOrEqual(safe).filter(isPast).delete();
    return own + (await db.received.filter(isPast).delete());
  });
}
