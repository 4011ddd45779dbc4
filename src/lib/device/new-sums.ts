/** Sums that were declared anew are worked out from the entries this device has, before anything is shown. */
import {
  changesTo,
  declaredSums,
  FIRST_SUMS,
  newSums,
  type SumsMade,
} from '../core/journal/new-sums';
import { isOnDevice } from '../core/books/tables';
import type { SumName } from '../core/journal/sums';
import type { Entry } from '../core/daybook/entry';
import type { KnownEntry } from '../core/daybook/kinds';
import { becomes, changesIn } from '../core/judging/becomes';
import { applyChanges } from './apply-changes';
import type { DeviceDatabase } from './database';

const BATCH = 50;

/**
 * All of it or nothing. What the device wrote and was not allowed to stays out, and so does what is not applied yet.
 * @param onProgress Blocks of entries done, and all.
 * @returns Names of the sums that were worked out.
 */
export async function makeNewSums(
  db: DeviceDatabase,
  onProgress: (done: number, all: number) => void = () => undefined,
  declared: SumsMade = declaredSums(),
): Promise<readonly SumName[]> {
  const made = await db.read('sums');
  const names = newSums(made ?? FIRST_SUMS, declared).filter(isOnDevice);
  if (names.length === 0) {
    if (made === undefined) await db.write('sums', declared);
    return [];
  }
  const tables = names.map((name) => db.table(name));
  await db.transaction('rw', [db.meta, db.entries, db.received, db.kept, ...tables], async () => {
    // Another window may have been faster.
    const still = newSums((await db.read('sums')) ?? FIRST_SUMS, declared).filter(isOnDevice);
    if (still.length === 0) return;
    for (const table of tables) await table.clear();
    const applied = (await db.read('applied')) ?? 0;
    const wrong = new Set(
      (await db.kept.toArray()).filter(({ state }) => state === 'barred').map(({ id }) => id),
    );
    const all = (await db.entries.count()) + (await db.received.count());
    let done = 0;
    for (const store of [db.entries, db.received] as const) {
      for (let offset = 0; ; offset += BATCH) {
        const blocks: readonly { readonly entries: readonly Entry[] }[] = await store
          .offset(offset)
          .limit(BATCH)
          .toArray();
        if (blocks.length === 0) break;
        const entries = blocks
          .flatMap((block) => block.entries)
          .filter(({ id, seq }) => !wrong.has(id) && (store === db.received || seq <= applied));
        await applyChanges(db, changesOf(new Set(names), entries));
        done += blocks.length;
        onProgress(done, all);
      }
    }
    await db.write('sums', declared);
  });
  return names;
}

const changesOf = (names: ReadonlySet<SumName>, entries: readonly Entry[]) => {
  const changes = (known: KnownEntry) => changesTo(names, known);
  return entries.flatMap((entry) => changesIn(becomes(entry, { evidence: null, changes })));
};
