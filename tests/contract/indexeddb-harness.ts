/** Runs in Chromium: applies entries to a fresh IndexedDB and gives back its rows. */
import { changesOf } from '../../src/lib/core/books/changes';
import type { Entry } from '../../src/lib/core/daybook/entry';
import { readEntry } from '../../src/lib/core/daybook/read-entry';
import { deviceTables } from '../../src/lib/core/books/tables';
import { applyChanges, touchedBy } from '../../src/lib/device/apply-changes';
import { DeviceDatabase } from '../../src/lib/device/database';

let count = 0;

async function rowsAfter(entries: readonly Entry[]): Promise<Record<string, unknown[]>> {
  const db = new DeviceDatabase(`contract-${(count += 1)}`);
  for (const entry of entries) {
    const read = readEntry(entry);
    if (!read.ok) throw new Error(JSON.stringify(read.fault));
    const changes = changesOf(read.entry);
    const touched = touchedBy(changes).map((table) => db.table(table));
    // Some entries change nothing, and no transaction is of no table.
    if (touched.length > 0) await db.transaction('rw', touched, () => applyChanges(db, changes));
  }
  const rows: Record<string, unknown[]> = {};
  for (const table of deviceTables) rows[table] = await db.table(table).toArray();
  await db.delete();
  return rows;
}

Object.assign(window, { rowsAfter });
