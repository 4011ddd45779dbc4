/** Sums that were declared anew are worked out from the daybook, so that none starts empty in silence. */
import { changesTo, declaredSums, newSums, type SumsMade } from '../../core/journal/new-sums';
import type { SumName } from '../../core/journal/sums';
import type { KnownEntry } from '../../core/daybook/kinds';
import { becomes, changesIn } from '../../core/judging/becomes';
import { lockCounter } from '../daybook/append';
import { storedEntry } from '../daybook/stored-entry';
import { sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { applyChanges } from './apply-changes';

const BATCH = 500;

/**
 * One transaction for each business, under the lock that appending takes; if it is stopped on the way, it
 * begins again. Barred and kept entries stay out.
 * @param onProgress Called with the number of entries done and of all, of a business.
 * @returns Names of the sums that were worked out.
 */
export async function makeNewSums(
  database: Database,
  onProgress: (done: number, all: number) => void = () => undefined,
  declared: SumsMade = declaredSums(),
): Promise<readonly SumName[]> {
  const rows = await select<{ name: string; digest: string }>(
    database,
    'SELECT name, digest FROM books_sums_made',
    [],
  );
  const names = newSums(
    Object.fromEntries(rows.map(({ name, digest }) => [name, digest])),
    declared,
  );
  if (names.length === 0) return [];
  const businesses = await select<{ business: string }>(
    database,
    'SELECT business FROM daybook_counters',
    [],
  );
  for (const { business } of businesses) await makeFor(database, business, names, onProgress);
  for (const name of names)
    await database.sequelize.query(
      'INSERT INTO books_sums_made (name, digest) VALUES (?, ?) ON DUPLICATE KEY UPDATE digest = VALUES(digest)',
      { replacements: [name, declared[name] ?? ''] },
    );
  return names;
}

async function makeFor(
  database: Database,
  business: string,
  names: readonly SumName[],
  onProgress: (done: number, all: number) => void,
): Promise<void> {
  const wanted = new Set(names);
  const changes = (known: KnownEntry) => changesTo(wanted, known);
  // It was judged when it arrived.
  const grounds = { evidence: null, changes };
  await database.sequelize.transaction(async (transaction) => {
    await lockCounter(database, business, transaction);
    for (const name of names)
      await database.sequelize.query(`DELETE FROM ${sqlTable(name)} WHERE business = ?`, {
        replacements: [business],
        transaction,
      });
    const [count] = await select<{ n: string }>(
      database,
      "SELECT COUNT(*) AS n FROM daybook_entries WHERE business = ? AND state IN ('applied', 'doubted')",
      [business],
      transaction,
    );
    for (let [done, after] = [0, 0]; ;) {
      const found = await select<{ position: string; entry: string; held: string }>(
        database,
        "SELECT position, entry, held FROM daybook_entries WHERE business = ? AND state IN ('applied', 'doubted') " +
          'AND position > ? ORDER BY position LIMIT ?',
        [business, after, BATCH],
        transaction,
      );
      if (found.length === 0) return;
      const added = found.flatMap((row) => changesIn(becomes(storedEntry(row), grounds)));
      await applyChanges(database.sequelize, business, added, transaction);
      done += found.length;
      after = Number(found.at(-1)!.position);
      onProgress(done, Number(count?.n ?? 0));
    }
  });
}
