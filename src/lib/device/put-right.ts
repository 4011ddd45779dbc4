/**
 * What this device wrote and was not allowed to stands in its own rows alone. It is undone here too: facts
 * go, sums lose what was added, records are as the server has them.
 */
import { changesOf } from '../core/books/changes';
import type { Change } from '../core/books/change';
import { keyOfChange, rowAfter } from '../core/books/change';
import type { AnyRow } from '../core/books/table-spec';
import { isOnDevice } from '../core/books/tables';
import { readEntry } from '../core/daybook/read-entry';
import { recordsAnswerSchema } from '../core/daybook/sync-messages';
import { primaryKey, touchedBy } from './apply-changes';
import { ownEntriesAfter } from './daybook';
import type { DeviceDatabase } from './database';
import type { Transport } from './sync/transport';

const AT_ONCE = 20;

/** @returns False if something is left to be put right, since nobody answered. */
export async function putRight(db: DeviceDatabase, transport: Transport): Promise<boolean> {
  const wrong = (await db.kept.toArray()).filter(
    ({ where, state, isPutRight }) =>
      where === 'server' && state === 'barred' && isPutRight !== true,
  );
  for (const each of wrong.slice(0, AT_ONCE)) {
    const changes = await changesIn(db, each.id);
    const wanted = changes.flatMap((change) =>
      change.op === 'merge' ? [{ table: change.table, id: keyOfChange(change) }] : [],
    );
    const asked =
      wanted.length === 0
        ? null
        : await transport.ask('/api/sync/records', recordsAnswerSchema, { wanted });
    if (asked !== null && asked.came !== 'answer') return false;
    const records = asked?.answer.records ?? [];
    const books = touchedBy(changes).map((table) => db.table(table));
    await db.transaction('rw', [db.meta, db.entries, db.kept, ...books], async () => {
      // Another window may have been faster; adding twice would be wrong.
      const row = await db.kept.get(each.id);
      if (row === undefined || row.isPutRight === true) return;
      for (const change of changes) await undo(db, change, records);
      await sayAgain(db, changes);
      await db.kept.put({ ...row, isPutRight: true });
    });
  }
  return wrong.length <= AT_ONCE;
}

async function changesIn(db: DeviceDatabase, id: string): Promise<readonly Change[]> {
  let changes: readonly Change[] = [];
  await db.entries
    .toCollection()
    .until(() => changes.length > 0)
    .each(({ entries }) => {
      const entry = entries.find((each) => each.id === id);
      const read = entry === undefined ? null : readEntry(entry);
      if (read?.ok === true)
        changes = changesOf(read.entry).filter(({ table }) => isOnDevice(table));
    });
  return changes;
}

interface FoundRecord {
  readonly table: string;
  readonly id: string;
  readonly row: AnyRow | null;
}

async function undo(
  db: DeviceDatabase,
  change: Change,
  records: readonly FoundRecord[],
): Promise<void> {
  const table = db.table<AnyRow, unknown>(change.table);
  const key = primaryKey(change);
  if (change.op === 'put') {
    await table.delete(key);
  } else if (change.op === 'add') {
    const row = await table.get(key);
    const fields = Object.fromEntries(
      Object.entries(change.fields).map(([field, by]) => [field, -by]),
    );
    await table.put(rowAfter(row, { ...change, fields }));
  } else {
    const id = keyOfChange(change);
    const found = records.find((each) => each.table === change.table && each.id === id);
    if (found?.row == null) await table.delete(key);
    else await table.put(found.row);
  }
}

/** What was written here since, and is not with the server yet, still stands. */
async function sayAgain(db: DeviceDatabase, undone: readonly Change[]): Promise<void> {
  const sent = (await db.read('standing'))?.sent ?? 0;
  const rows = new Set(
    undone.filter(({ op }) => op === 'merge').map((each) => `${each.table} ${keyOfChange(each)}`),
  );
  const barred = new Set((await db.kept.toArray()).map(({ id }) => id));
  for (const entry of await ownEntriesAfter(db, sent, Number.MAX_SAFE_INTEGER)) {
    const read = readEntry(entry);
    if (!read.ok || barred.has(entry.id)) continue;
    for (const change of changesOf(read.entry)) {
      if (change.op !== 'merge' || !rows.has(`${change.table} ${keyOfChange(change)}`)) continue;
      const table = db.table<AnyRow, unknown>(change.table);
      await table.put(rowAfter(await table.get(primaryKey(change)), change));
    }
  }
}
