/** Throws the books of a business away and works them out again from its daybook. */
import { jsonOrNull } from '../../core/formats/json-or-null';
import type { Transaction } from 'sequelize';
import type { Change } from '../../core/books/change';
import { tableNames } from '../../core/books/tables';
import { entrySchema } from '../../core/daybook/entry';
import type { TriedAgain } from '../../core/daybook/sync-messages';
import { becomes } from '../../core/judging/becomes';
import { applyChanges } from '../books/apply-changes';
import { sqlTable } from '../database/book-tables';
import { isOfDatabase, type Database } from '../database/database';
import { select } from '../database/select';
import { isBadData, lockCounter } from './append';
import { judgeKept } from './judge-kept';
import { TRIED_AGAIN_LIST } from './kept';

export interface Rebuilt {
  readonly entries: number;
  /** Entries that this version still cannot apply. */
  readonly kept: number;
}

const BATCH = 500;

/**
 * One transaction, under the lock that appending takes: readers see the old books or the new ones. What was
 * barred, unread or unfit stays out; what can be read now is judged afterwards, like any other.
 * @param onProgress Called with the number of entries done and of all.
 */
export async function rebuild(
  database: Database,
  business: string,
  onProgress: (done: number, all: number) => void = () => undefined,
): Promise<Rebuilt> {
  const entries = await database.transaction(async (transaction) => {
    await lockCounter(database, business, transaction);
    for (const table of tableNames) {
      const clear = `DELETE FROM ${sqlTable(table)} WHERE business = ?`;
      await database.sequelize.query(clear, { replacements: [business], transaction });
    }
    return await applyAll(database, business, onProgress, transaction);
  });
  await judgeKept(database, business, Date.now());
  const [row] = await select<{ n: string }>(
    database,
    `SELECT COUNT(*) AS n FROM daybook_entries WHERE business = ? AND state IN (${TRIED_AGAIN_LIST})`,
    [business],
  );
  return { entries, kept: Number(row?.n ?? 0) };
}

interface StoredRow {
  readonly position: string;
  readonly state: string;
  readonly entry: string;
  readonly held: string;
}

async function applyAll(
  database: Database,
  business: string,
  onProgress: (done: number, all: number) => void,
  transaction: Transaction,
): Promise<number> {
  const [count] = await select<{ n: string }>(
    database,
    'SELECT COUNT(*) AS n FROM daybook_entries WHERE business = ?',
    [business],
    transaction,
  );
  const all = Number(count?.n ?? 0);
  let [done, after] = [0, 0];
  for (;;) {
    const rows = await select<StoredRow>(
      database,
      'SELECT position, state, entry, held FROM daybook_entries WHERE business = ? ' +
        'AND position > ? ORDER BY position LIMIT ?',
      [business, after, BATCH],
      transaction,
    );
    if (rows.length === 0) return done;
    const readable: Readable[] = [];
    for (const row of rows) {
      if (row.state !== 'applied' && row.state !== 'doubted') continue;
      const { position } = row;
      const became = becomesOfStored(row);
      if (became.state === 'applied') readable.push({ position, changes: became.changes });
      else await keepOut(database, business, { position, state: became.state }, transaction);
    }
    await applyBatch(database, business, readable, transaction);
    done += rows.length;
    after = Number(rows.at(-1)!.position);
    onProgress(done, all);
  }
}

interface Readable {
  readonly position: string;
  readonly changes: readonly Change[];
}

type Stored =
  | { readonly state: 'applied'; readonly changes: readonly Change[] }
  | { readonly state: TriedAgain };

/** What becomes of a stored entry by this version. Whether it may be was judged when it arrived. */
function becomesOfStored({ entry, held }: StoredRow): Stored {
  const stored = entrySchema.safeParse(jsonOrNull(entry));
  if (!stored.success) return { state: 'unread' };
  const became = becomes(held === '' ? stored.data : { ...stored.data, held }, { evidence: null });
  if (became.state === 'applied') return became;
  return { state: became.state === 'unread' ? 'unread' : 'unfit' };
}

/** All at once; if the database refuses something of it, one by one, and that one is left out. */
async function applyBatch(
  database: Database,
  business: string,
  entries: readonly Readable[],
  transaction: Transaction,
): Promise<void> {
  const all = entries.flatMap(({ changes }) => changes);
  if (await couldApply(database, business, all, transaction)) return;
  for (const { position, changes } of entries)
    if (!(await couldApply(database, business, changes, transaction)))
      await keepOut(database, business, { position, state: 'unfit' }, transaction);
}

/** @returns False, with nothing applied, if the database refuses the figures. */
async function couldApply(
  { sequelize }: Database,
  business: string,
  changes: readonly Change[],
  transaction: Transaction,
): Promise<boolean> {
  await sequelize.query('SAVEPOINT part', { transaction });
  try {
    await applyChanges(sequelize, business, changes, transaction);
    await sequelize.query('RELEASE SAVEPOINT part', { transaction });
    return true;
  } catch (error) {
    if (isOfDatabase(error) && !isBadData(error)) throw error;
    await sequelize.query('ROLLBACK TO SAVEPOINT part', { transaction });
    return false;
  }
}

/** A version that reads less than the one before: it stays out of the books until one can again. */
async function keepOut(
  { sequelize }: Database,
  business: string,
  { position, state }: { readonly position: string; readonly state: TriedAgain },
  transaction: Transaction,
): Promise<void> {
  await sequelize.query(
    'UPDATE daybook_entries SET state = ?, fault = ? WHERE business = ? AND position = ?',
    {
      replacements: [
        state,
        `found ${state} when the books were worked out again`,
        business,
        position,
      ],
      transaction,
    },
  );
}
