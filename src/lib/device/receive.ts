/**
 * Taking in what others wrote. Each entry is applied exactly once: a device's entries arrive in
 * their order, and what was applied of each device is noted in the same transaction.
 */
import { changesOf } from '../core/books/changes';
import { erasedBy } from '../core/customer/erased';
import { CLOCK_AT_REST, follow } from '../core/daybook/clock';
import type { Entry } from '../core/daybook/entry';
import { readEntry, type BodyFault } from '../core/daybook/read-entry';
import { applyChanges, touchedBy } from './apply-changes';
import type { DeviceDatabase, KeptRow, Standing } from './database';
import { erasePrivate } from './erase';

export const NO_STANDING: Standing = { sent: 0, position: 0, received: {}, clock: CLOCK_AT_REST };

/** Entries of others, and the position up to which all are now known. */
export interface Arrival {
  readonly entries: readonly Entry[];
  readonly position: number;
}

/**
 * Applies an arrival, all of it or nothing.
 * @returns How many entries were new.
 */
export async function receive(
  db: DeviceDatabase,
  own: string,
  { entries, position }: Arrival,
): Promise<number> {
  const standing = (await db.read('standing')) ?? NO_STANDING;
  const received = { ...standing.received };
  const late = new Set(standing.late);
  const fresh = entries.filter((entry) => {
    const { id, device, seq } = entry;
    if (device === own) return false;
    // It comes after entries that followed it, so it is told by its id and not by its number.
    if (entry.late === true && seq <= (received[device] ?? 0)) {
      if (late.has(id)) return false;
      late.add(id);
      return true;
    }
    if (seq <= (received[device] ?? 0)) return false;
    received[device] = seq;
    return true;
  });
  const { changes, kept } = sorted(fresh);
  // The server holds stamps that are ahead of it, so whatever comes from it can be followed: what is
  // written here next is later than all that is known here.
  const clock = fresh.reduce((at, { held, stamp }) => follow(at, held ?? stamp), standing.clock);
  const books = touchedBy(changes).map((table) => db.table(table));
  const erased = erasedBy(fresh);
  const touched = [db.meta, db.entries, db.received, db.kept, db.books.payers, ...books];
  await db.transaction('rw', touched, async () => {
    // Own sending may have moved on meanwhile; only what was received is ours to write.
    const current = (await db.read('standing')) ?? NO_STANDING;
    await Promise.all([
      fresh.length === 0 ? undefined : db.received.add({ upTo: position, entries: fresh }),
      db.kept.bulkPut(kept),
      db.write('standing', { ...current, position, received, clock, late: [...late] }),
      applyChanges(db, changes),
    ]);
    if (erased.length > 0) await erasePrivate(db, erased);
  });
  return fresh.length;
}

/** Tries again what an older version had to keep. @returns How many could be applied now. */
export async function applyKept(db: DeviceDatabase): Promise<number> {
  const waiting = (await db.kept.toArray()).flatMap(({ entry }) => (entry === null ? [] : [entry]));
  const { changes, kept } = sorted(waiting);
  const still = new Set(kept.map(({ id }) => id));
  const done = waiting.map(({ id }) => id).filter((id) => !still.has(id));
  if (done.length === 0) return 0;
  const books = touchedBy(changes).map((table) => db.table(table));
  await db.transaction('rw', [db.kept, ...books], async () => {
    await Promise.all([db.kept.bulkDelete(done), applyChanges(db, changes)]);
  });
  return done.length;
}

function sorted(entries: readonly Entry[]) {
  const reads = entries.map((entry) => ({ entry, read: readEntry(entry) }));
  return {
    changes: reads.flatMap(({ read }) => (read.ok ? changesOf(read.entry) : [])),
    kept: reads.flatMap(({ entry, read }) => (read.ok ? [] : [keptRow(entry, read.fault)])),
  };
}

function keptRow(entry: Entry, fault: BodyFault): KeptRow {
  const why = fault.code === 'body/wrong' ? `${fault.where}: ${fault.why}` : fault.kind;
  const { id, stamp } = entry;
  return { id, where: 'here', code: fault.code, message: why, stamp, entry };
}
