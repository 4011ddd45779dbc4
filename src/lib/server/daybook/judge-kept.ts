/**
 * Entries that could not be read when they came, or not worked out, are tried again by each version that starts. What
 * fits now is judged like any other entry, and goes out to the other devices after what they have already.
 */
import type { Transaction } from 'sequelize';
import { entrySchema } from '../../core/daybook/entry';
import { readEntry } from '../../core/daybook/read-entry';
import type { Kept } from '../../core/daybook/sync-messages';
import { applyChanges } from '../books/apply-changes';
import { BookReader } from '../books/read-books';
import { isOfDatabase, type Database } from '../database/database';
import { select } from '../database/select';
import { isBadData, lockCounter } from './append';
import { judgedOne, unfit } from './judged';
import { asFault, TRIED_AGAIN_LIST } from './kept';
import { gatherEvidence, type Gathering } from './gather-evidence';
import { queueBehind } from './queue-behind';
import { storedEntry } from './stored-entry';

const AT_ONCE = 200;
const WAITS = `state IN (${TRIED_AGAIN_LIST})`;

interface KeptRow {
  readonly position: string;
  readonly device: string;
  readonly entry: string;
  readonly held: string;
}

/** Of every business. @returns How many entries could be read now. @param now Milliseconds since 1970. */
export async function judgeAllKept(database: Database, now: number): Promise<number> {
  const businesses = await select<{ business: string }>(
    database,
    'SELECT business FROM daybook_counters',
    [],
  );
  let taken = 0;
  for (const { business } of businesses) taken += await judgeKept(database, business, now);
  return taken;
}

/** @returns How many entries of the business could be read now. */
export async function judgeKept(
  database: Database,
  business: string,
  now: number,
): Promise<number> {
  let [taken, after] = [0, 0];
  for (;;) {
    const rows = await select<KeptRow>(
      database,
      `SELECT position, device, entry, held FROM daybook_entries WHERE business = ? AND ${WAITS} ` +
        'AND position > ? ORDER BY position LIMIT ?',
      [business, after, AT_ONCE],
    );
    for (const row of rows) {
      if (!readEntry(entrySchema.parse(JSON.parse(row.entry))).ok) continue;
      if (await judgeOneApart(database, business, row, now)) taken += 1;
    }
    if (rows.length < AT_ONCE) return taken;
    after = Number(rows.at(-1)!.position);
  }
}

/** In a transaction of its own; what does not fit stays where it is, and is shown as that. */
async function judgeOneApart(
  database: Database,
  business: string,
  row: KeptRow,
  now: number,
): Promise<boolean> {
  try {
    return await database.transaction((transaction) =>
      judgeOne(database, business, row, now, transaction),
    );
  } catch (error) {
    if (isOfDatabase(error) && !isBadData(error)) throw error;
    const { id } = entrySchema.parse(JSON.parse(row.entry));
    const why = error instanceof Error && !isBadData(error) ? error.message : 'figures are refused';
    await doesNotFit(database, business, row.position, unfit(id, why));
    return false;
  }
}

/**
 * It can be read by now, and stays where it is: what could not be understood is told from what does not fit, and why by
 * this version.
 */
async function doesNotFit(
  { sequelize }: Database,
  business: string,
  position: string,
  kept: Kept,
  transaction?: Transaction,
): Promise<void> {
  await sequelize.query(
    `UPDATE daybook_entries SET state = 'unfit', fault = ? WHERE business = ? AND position = ? AND ${WAITS}`,
    {
      replacements: [asFault(kept), business, position],
      ...(transaction === undefined ? {} : { transaction }),
    },
  );
}

/** @returns False if another process was faster, or it fits no better than before. */
async function judgeOne(
  database: Database,
  business: string,
  { position, device, entry: text, held }: KeptRow,
  now: number,
  transaction: Transaction,
): Promise<boolean> {
  const counter = await lockCounter(database, business, transaction);
  const still = await select(
    database,
    `SELECT position FROM daybook_entries WHERE business = ? AND position = ? AND ${WAITS}`,
    [business, position],
    transaction,
  );
  if (still.length === 0) return false;
  const entry = storedEntry({ entry: text, held });
  const read = readEntry(entry);
  if (!read.ok) return false;
  const gathering: Gathering = { database, books: new BookReader(database), business, transaction };
  const evidence = await gatherEvidence(gathering, device, [read.entry], now);
  const judged = await judgedOne(gathering, entry, read, evidence);
  if (judged.state === 'unfit') {
    if (judged.kept !== null)
      await doesNotFit(database, business, position, judged.kept, transaction);
    return false;
  }
  await applyChanges(database.sequelize, business, judged.changes, transaction);
  const next = counter.position + 1;
  await database.sequelize.query(
    'UPDATE daybook_entries SET position = ?, late = 1, state = ?, fault = ? ' +
      'WHERE business = ? AND position = ?',
    { replacements: [next, judged.state, asFault(judged.kept), business, position], transaction },
  );
  await database.sequelize.query('UPDATE daybook_counters SET position = ? WHERE business = ?', {
    replacements: [next, business],
    transaction,
  });
  await queueBehind(database, [judged], now, transaction);
  return true;
}
