/**
 * Where a new device starts, in pages: set-up, sums, what is open, and the documents of recent events.
 *
 * Sums are all in the first page, of one moment with the position that the device goes on from: entries
 * after it are added to them, each once. Records and facts follow page by page and may be newer; merging or
 * putting what the device hears of again gives the same.
 */
import mysql from 'mysql2';
import type { Transaction } from 'sequelize';
import {
  deviceTables,
  tables,
  type DeviceTable,
  type Row,
  type TableName,
} from '../../core/books/tables';
import { clockOf, CLOCK_AT_REST } from '../../core/daybook/clock';
import type { StartPage } from '../../core/daybook/sync-messages';
import { isRecent, recentSince } from '../../core/event/recent';
import { rowFrom, sqlTable } from '../database/book-tables';
import type { Database } from '../database/database';
import { select } from '../database/select';
import { latestPosition, markOf } from './pull';

/** Bytes of rows after which a page ends. */
const PAGE_BYTES = 512 * 1024;
const ROWS_AT_ONCE = 1000;

/** Where a page ended: a table, and the key of the last row of it. */
export interface StartCursor {
  readonly table: DeviceTable;
  readonly after: readonly (string | number)[];
}

/** Pictures have a way of their own (photos.ts); they would outweigh all else. */
const PAGED = deviceTables.filter((table) => tables[table].way !== 'sums' && table !== 'photos');
const SUMS = deviceTables.filter((table) => tables[table].way === 'sums');

interface Reading {
  readonly database: Database;
  readonly business: string;
  readonly transaction: Transaction;
  /** Recent events, and the day since which an event is one. */
  readonly recent: readonly string[];
  readonly since: string;
}

/** @param cursor Null for the first page. @param now Milliseconds since 1970. */
export async function startPage(
  database: Database,
  business: string,
  cursor: StartCursor | null,
  now: number,
): Promise<StartPage> {
  return await database.snapshot(async (transaction) => {
    const since = recentSince(now);
    const recent = await recentEvents(database, business, since, transaction);
    const reading: Reading = { database, business, transaction, recent, since };
    const rows: Record<string, Record<string, unknown>[]> = {};
    if (cursor !== null) return { rows, next: asSent(await fill(reading, rows, cursor)) };
    const begins = await beginning(database, business, transaction);
    for (const table of SUMS) rows[table] = await sumsOf(reading, table);
    return { begins, rows, next: asSent(await fill(reading, rows, null)) };
  });
}

async function beginning(database: Database, business: string, transaction: Transaction) {
  const position = await latestPosition(database, business, transaction);
  const heads = await select<{ device: string; seq: number }>(
    database,
    // The server's own daybooks are among those of which all is known (own-daybook.ts).
    'SELECT device, seq FROM access_devices WHERE business = ? ' +
      'UNION ALL SELECT device, seq FROM daybook_own WHERE business = ?',
    [business, business],
    transaction,
  );
  const [counter] = await select<{ clock: string }>(
    database,
    'SELECT clock FROM daybook_counters WHERE business = ?',
    [business],
    transaction,
  );
  const clock =
    counter === undefined || counter.clock === '' ? CLOCK_AT_REST : clockOf(counter.clock);
  return {
    position,
    mark: await markOf(database, business, position, transaction),
    received: Object.fromEntries(heads.map(({ device, seq }) => [device, seq])),
    clock,
  };
}

async function recentEvents(
  database: Database,
  business: string,
  since: string,
  transaction: Transaction,
): Promise<readonly string[]> {
  const rows = await select<Record<string, unknown>>(
    database,
    `SELECT id, days FROM ${sqlTable('events')} WHERE business = ?`,
    [business],
    transaction,
  );
  return rows
    .map((row) => rowFrom('events', row))
    .filter((event) => isRecent(event, since))
    .map(({ id }) => id);
}

const asSent = (cursor: StartCursor | null): StartPage['next'] =>
  cursor === null ? null : { table: cursor.table, after: [...cursor.after] };

/** A cursor as it came back, or null for one that names no table that is paged. */
export function cursorFrom({ table, after }: NonNullable<StartPage['next']>): StartCursor | null {
  const paged = PAGED.find((each) => each === table);
  return paged === undefined || after.length > tables[paged].key.length
    ? null
    : { table: paged, after };
}

/** Puts rows into a page until it is full. @returns Where the next one begins, or null at the end. */
async function fill(
  reading: Reading,
  rows: Record<string, Record<string, unknown>[]>,
  cursor: StartCursor | null,
): Promise<StartCursor | null> {
  let bytes = 0;
  let after = cursor?.after ?? [];
  for (const table of PAGED.slice(cursor === null ? 0 : PAGED.indexOf(cursor.table))) {
    for (;;) {
      const found = await rowsAfter(reading, table, after);
      for (const row of found) {
        (rows[table] ??= []).push(row);
        bytes += JSON.stringify(row).length;
        after = keyIn(table, row);
        if (bytes > PAGE_BYTES) return { table, after };
      }
      if (found.length < ROWS_AT_ONCE) break;
    }
    after = [];
  }
  return null;
}

const keyIn = (table: TableName, row: Row<TableName>): readonly (string | number)[] =>
  tables[table].key.map((field) => (row as unknown as Record<string, string | number>)[field]!);

async function rowsAfter(
  { database, business, transaction, ...reading }: Reading,
  table: TableName,
  after: readonly (string | number)[],
): Promise<Row<TableName>[]> {
  const key = columnsOf(tables[table].key);
  const name = sqlTable(table);
  const isAfter = after.length === 0 ? '' : ` AND (${key}) > (${mysql.escape([...after])})`;
  const of = `business = ${mysql.escape(business)}`;
  // Keys first, each sort by an index of its own: in the order of keys the whole past would be read.
  const keys = wanted(table, reading)
    .map((sort) => `(SELECT ${key} FROM ${name} WHERE ${of}${isAfter} AND ${sort})`)
    .join(' UNION ALL ');
  const found = await select<Record<string, unknown>>(
    database,
    `SELECT * FROM ${name} NATURAL JOIN (SELECT ${key} FROM (${keys}) wanted
        ORDER BY ${key} LIMIT ${String(ROWS_AT_ONCE)}) page
      WHERE ${of} ORDER BY ${key}`,
    [],
    transaction,
  );
  return found.map((row) => rowFrom(table, row));
}

/** Rows that add to something; what is nothing is what a row that is missing says. */
async function sumsOf(
  { database, business, transaction, ...reading }: Reading,
  table: TableName,
): Promise<Row<TableName>[]> {
  const [sort = ALL] = wanted(table, reading);
  const found = await select<Record<string, unknown>>(
    database,
    `SELECT * FROM ${sqlTable(table)} WHERE business = ? AND ${sort}`,
    [business],
    transaction,
  );
  return found.map((row) => rowFrom(table, row));
}

const columnsOf = (fields: readonly string[]): string =>
  fields.map((field) => `\`${field}\``).join(', ');

const ALL = '1 = 1';

/**
 * What of a table a new device is given, as conditions. No row meets two of them, and there is an index
 * for each.
 */
function wanted(
  table: TableName,
  { recent, since }: Pick<Reading, 'recent' | 'since'>,
): readonly string[] {
  if (table === 'stock') return ['`quantity` <> 0'];
  // Of a slip that is gone nobody asks any more.
  if (table === 'slips') return ["`state` <> 'gone'"];
  if (table === 'slipLines')
    return [
      `\`slip\` IN (SELECT s.id FROM books_slips s
        WHERE s.business = books_slip_lines.business AND s.state <> 'gone')`,
    ];
  const spec = tables[table];
  if (spec.keep === 'always') return [ALL];
  const events = recent.length === 0 ? "('')" : `(${mysql.escape([...recent])})`;
  const ofRecent = `\`event\` IN ${events}`;
  const lately = mysql.escape(`${since}T00:00:00.000Z`);
  // Kept by age alone, wherever it was.
  if (table === 'moves') return [`\`at\` >= ${lately}`];
  const ofNone = 'at' in spec.fields ? [`\`event\` IS NULL AND \`at\` >= ${lately}`] : [];
  if (table !== 'cardPayments' && table !== 'cardRefunds') return [ofRecent, ...ofNone];
  // Of the past: nobody has said yet what came of them, or they are still to be undone.
  const past = `(\`event\` NOT IN ${events} OR (\`event\` IS NULL AND \`at\` < ${lately}))`;
  if (table === 'cardRefunds') return [ofRecent, ...ofNone, `\`state\` = '' AND ${past}`];
  return [
    ofRecent,
    ...ofNone,
    `\`state\` IN ('', 'authorised') AND ${past}`,
    `\`isReversed\` = 1 AND \`state\` NOT IN ('', 'authorised', 'declined', 'cancelled', 'reversed') AND ${past}`,
  ];
}
