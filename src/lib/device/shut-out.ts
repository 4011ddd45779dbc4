/**
 * What a device does that has been shut out: it wipes what it knows of the business at once, and
 * keeps only what it had not sent, until the server has put that aside for an owner to look at.
 */
import { deviceTables } from '../core/books/tables';
import type { DeviceDatabase, Meta } from './database';
import { portionAfter } from './sync/portion';
import type { Transport } from './sync/transport';

const KNOWN_TO_PEOPLE: readonly (keyof Meta)[] = ['choices', 'slip', 'pinTries'];

/** All rows, all that was received, all of its own that the server has. Safe to do again. */
export async function wipe(db: DeviceDatabase): Promise<void> {
  await db.transaction('rw', db.tables, async () => {
    await db.write('shutOut', true);
    await clearRows(db);
  });
}

/** All that it knows of the business but its own entries that are not sent. Within a transaction over all. */
export async function clearRows(db: DeviceDatabase): Promise<void> {
  const sent = (await db.read('standing'))?.sent ?? 0;
  for (const table of deviceTables) await db.table(table).clear();
  await Promise.all([db.received.clear(), db.kept.clear()]);
  await db.entries.where('upTo').belowOrEqual(sent).delete();
  for (const key of KNOWN_TO_PEOPLE) await db.meta.delete(key);
}

/**
 * Hands over what was not sent, and forgets it once the server has it.
 * @returns How many entries are still on the device: none, or all if the server did not answer.
 */
export async function handOver(db: DeviceDatabase, transport: Transport): Promise<number> {
  const sent = (await db.read('standing'))?.sent ?? 0;
  let after = sent;
  for (;;) {
    const batch = await portionAfter(db, after, transport.portion);
    const last = batch.at(-1);
    if (last === undefined) break;
    const asked = await transport.handOver(batch);
    // Over a weak network it may get across in smaller portions.
    if (asked.came === 'nothing' && transport.portion.most < batch.length) continue;
    if (asked.came !== 'answer') return await left(db, sent);
    after = last.seq;
  }
  // Only what was handed over: another window may have written since.
  await db.entries.where('upTo').belowOrEqual(after).delete();
  return 0;
}

const left = async (db: DeviceDatabase, sent: number): Promise<number> =>
  Math.max(0, ((await db.read('head'))?.seq ?? 0) - sent);

/** Makes the browser free for another business, once nothing of this one is left on it. */
export async function startAnew(db: DeviceDatabase): Promise<void> {
  if ((await db.entries.count()) > 0) throw new Error('there is still something to hand over');
  await db.transaction('rw', db.tables, async () => {
    for (const table of db.tables) await table.clear();
  });
}
