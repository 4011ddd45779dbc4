/** Throws the books of a business away and works them out again from its daybook. */
import type { Sequelize, Transaction } from 'sequelize';
import type { Change } from '../../core/books/change';
import { changesOf } from '../../core/books/changes';
import { tableNames } from '../../core/books/tables';
import { entrySchema } from '../../core/daybook/entry';
import { readEntry } from '../../core/daybook/read-entry';
import { applyChanges } from '../books/apply-changes';
import { sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';

export interface Rebuilt {
  readonly entries: number;
  /** Entries that this version still cannot apply. */
  readonly kept: number;
}

const BATCH = 500;

/**
 * One transaction, under the lock that appending takes: readers see the old books or the new ones.
 * Entries that were kept are tried again; a newer version may know their kind.
 * @param onProgress Called with the number of entries done and of all.
 */
export async function rebuild(
  database: Database,
  business: string,
  onProgress: (done: number, all: number) => void = () => undefined,
): Promise<Rebuilt> {
  const { sequelize } = database;
  return await database.transaction(async (transaction) => {
    const lock = 'SELECT position FROM daybook_counters WHERE business = ? FOR UPDATE';
    await select(database, lock, [business], transaction);
    for (const table of tableNames) {
      const clear = `DELETE FROM ${sqlTable(table)} WHERE business = ?`;
      await sequelize.query(clear, { replacements: [business], transaction });
    }
    const [count] = await select<{ n: string }>(
      database,
      'SELECT COUNT(*) AS n FROM daybook_entries WHERE business = ?',
      [business],
      transaction,
    );
    const all = Number(count?.n ?? 0);
    let [done, kept, after] = [0, 0, 0];
    while (done < all) {
      const rows = await select<{ position: string; state: string; entry: string }>(
        database,
        'SELECT position, state, entry FROM daybook_entries WHERE business = ? AND position > ? ' +
          'ORDER BY position LIMIT ?',
        [business, after, BATCH],
        transaction,
      );
      if (rows.length === 0) break;
      const changes: Change[] = [];
      const turned: Turned[] = [];
      for (const { position, state, entry } of rows) {
        if (state === 'barred') continue;
        const read = readEntry(entrySchema.parse(JSON.parse(entry)));
        if (read.ok) changes.push(...changesOf(read.entry));
        else kept += 1;
        if (read.ok !== (state !== 'kept')) turned.push({ position, isApplied: read.ok });
      }
      await applyChanges(sequelize, business, changes, transaction);
      for (const each of turned) await mark(sequelize, business, each, transaction);
      done += rows.length;
      after = Number(rows.at(-1)!.position);
      onProgress(done, all);
    }
    return { entries: done, kept };
  });
}

interface Turned {
  readonly position: string;
  readonly isApplied: boolean;
}

async function mark(
  sequelize: Sequelize,
  business: string,
  { position, isApplied }: Turned,
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    'UPDATE daybook_entries SET state = ?, fault = ? WHERE business = ? AND position = ?',
    {
      replacements: isApplied
        ? ['applied', '', business, position]
        : ['kept', 'found unreadable when the books were worked out again', business, position],
      transaction,
    },
  );
}
