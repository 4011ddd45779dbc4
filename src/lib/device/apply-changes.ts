/** Changes on IndexedDB rows, within the transaction that appends or receives their entries. */
import { combine } from '../core/books/combine';
import { keyOfChange, rowAfter, type Change } from '../core/books/change';
import type { AnyRow } from '../core/books/table-spec';
import { isOnDevice, tables, type DeviceTable, type TableName } from '../core/books/tables';
import type { DeviceDatabase } from './database';

/** The tables that changes touch; a transaction must have them. */
export const touchedBy = (changes: readonly Change[]): DeviceTable[] => [
  ...new Set(changes.map(({ table }) => table).filter(isOnDevice)),
];

/** Applies changes: all reads at once, then all writes at once. */
export async function applyChanges(db: DeviceDatabase, changes: readonly Change[]): Promise<void> {
  const byTable = new Map<TableName, Change[]>();
  for (const change of combine(changes.filter(({ table }) => isOnDevice(table)))) {
    const list = byTable.get(change.table);
    if (list === undefined) byTable.set(change.table, [change]);
    else list.push(change);
  }
  await Promise.all([...byTable].map(([table, list]) => applyTo(db, table, list)));
}

async function applyTo(
  db: DeviceDatabase,
  name: TableName,
  changes: readonly Change[],
): Promise<void> {
  const table = db.table<AnyRow, unknown>(name);
  const rows = new Map<string, AnyRow>();
  if (tables[name].way !== 'facts') {
    const keys = new Map(changes.map((change) => [keyOfChange(change), primaryKey(change)]));
    const found = await table.bulkGet([...keys.values()]);
    [...keys.keys()].forEach((key, at) => {
      const row = found[at];
      if (row !== undefined) rows.set(key, row);
    });
  }
  for (const change of changes) {
    const key = keyOfChange(change);
    rows.set(key, rowAfter(rows.get(key), change));
  }
  await table.bulkPut([...rows.values()]);
}

/** The key of the row that a change is of, as IndexedDB has it. */
export function primaryKey(change: Change): unknown {
  const { key } = tables[change.table];
  const values = change.op === 'put' ? change.row : change.key;
  return key.length === 1 ? values[key[0]!] : key.map((field) => values[field]);
}
