/** Stamps of own entries that were ahead of the server's clock, put to what the server held them to. */
import { changesOf } from '../core/books/changes';
import { stampField, type AnyRow } from '../core/books/table-spec';
import type { Entry } from '../core/daybook/entry';
import { readEntry } from '../core/daybook/read-entry';
import { primaryKey } from './apply-changes';
import type { DeviceDatabase } from './database';

export interface Held {
  readonly id: string;
  readonly stamp: string;
}

/**
 * Notes what the server said in the entries, and in the rows that still have what they set: what others say
 * later is then later here as well. Safe to do again. Within a transaction over all tables.
 */
export async function restamp(
  db: DeviceDatabase,
  entries: readonly Entry[],
  held: readonly Held[],
): Promise<void> {
  const stamps = new Map(held.map(({ id, stamp }) => [id, stamp]));
  const first = entries.find(({ id }) => stamps.has(id));
  if (first === undefined) return;
  await db.entries
    .where('upTo')
    .aboveOrEqual(first.seq)
    .modify((block: { entries: readonly Entry[] }) => {
      block.entries = block.entries.map((entry) => {
        const stamp = stamps.get(entry.id);
        return stamp === undefined ? entry : { ...entry, held: stamp };
      });
    });
  for (const entry of entries) {
    const stamp = stamps.get(entry.id);
    const read = readEntry(entry);
    if (stamp === undefined || !read.ok) continue;
    for (const change of changesOf(read.entry)) {
      if (change.op !== 'merge') continue;
      const table = db.table<AnyRow, unknown>(change.table);
      const field = stampField(change.group);
      const row = await table.get(primaryKey(change));
      if (row?.[field] === entry.stamp) await table.put({ ...row, [field]: stamp });
    }
  }
}
