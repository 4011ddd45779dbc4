/** Entries per second into MariaDB: pushed over HTTP, against raw multi-row inserts of the same rows. */
import mysql from 'mysql2/promise';
import { select } from '../../src/lib/server/database/select';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { deviceId, personId } from '../../src/lib/core/testing/made-up-business';
import type { Entry } from '../../src/lib/core/daybook/entry';
import type { RunningTill } from '../support/running-till';
import { columnsOf } from './columns';
import { median, type Figure } from './figures';
import { enrol, found, NOW } from './founded-till';

/** Columns of JSON that can hold nothing: they read as null, which the column does not take. */
const JSON_OR_NULL: readonly string[] = [
  ...['card', 'held', 'ordered', 'promotion', 'earned', 'kept'],
  ...['invoicing', 'vendor', 'buyer', 'takes'],
];

const BATCH = 200;
const BATCHES = 8;
const ROUNDS = 4;
/** A server that takes pushes has taken some before: its code is compiled by then. */
const ROUNDS_BEFORE = 4;
/** The tables in which each entry leaves rows of its own. */
const FACTS = [
  'daybook_entries',
  'books_sales',
  'books_sale_lines',
  'books_payments',
  'books_moves',
];

export async function serverFigures(till: RunningTill): Promise<Figure[]> {
  const pushed: number[] = [];
  const raw: number[] = [];
  const connection = await mysql.createConnection(till.databaseUrl);
  try {
    await found(till, new DeviceWriter(1));
    for (let round = 0; round < ROUNDS_BEFORE + ROUNDS; round += 1) {
      const push = await pushRate(till, 2 + round);
      const bare = await rawRate(till, connection, 2 + round);
      if (round < ROUNDS_BEFORE) continue;
      pushed.push(push);
      raw.push(bare);
    }
  } finally {
    await connection.end();
  }
  const rate = (value: number): string => `${value.toFixed(0)} entries/s`;
  return [
    {
      what: 'push of sales over HTTP into MariaDB',
      is: rate(median(pushed)),
      against: `${rate(median(raw))} as raw multi-row inserts`,
      ratio: median(pushed) / median(raw),
      target: { least: 0.4 },
    },
  ];
}

const HELPER = personId(3);

function salesOf(number: number): Entry[][] {
  const writer = new DeviceWriter(number);
  return Array.from({ length: BATCHES }, (_, batch) =>
    Array.from({ length: BATCH / 2 }, (_, n) => {
      const goods = [1, 2, 3].map((item) => [item, 1 + ((n + batch) % 3)] as const);
      return writer.append(writer.sale(goods, 0, NOW), NOW, HELPER);
    }).flat(),
  );
}

async function pushRate(till: RunningTill, number: number): Promise<number> {
  const token = await enrol(till, number);
  const bodies = salesOf(number).map((entries) => JSON.stringify({ entries }));
  const from = performance.now();
  for (const body of bodies) {
    const response = await fetch(`${till.origin}/api/sync/push`, {
      method: 'POST',
      headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json' },
      body,
    });
    const answer = (await response.json()) as { refused: unknown; kept: unknown[] };
    if (!response.ok || answer.kept.length > 0) throw new Error(JSON.stringify(answer));
  }
  return (BATCH * BATCHES * 1000) / (performance.now() - from);
}

/** The rows that the push has just made, inserted again into empty copies of their tables. */
async function rawRate(
  till: RunningTill,
  connection: mysql.Connection,
  number: number,
): Promise<number> {
  const sets: { table: string; columns: readonly string[]; rows: unknown[][] }[] = [];
  for (const table of FACTS) {
    await connection.query(`DROP TABLE IF EXISTS bench_${table}`);
    await connection.query(`CREATE TABLE bench_${table} LIKE ${table}`);
    const own =
      table === 'books_sale_lines'
        ? `sale IN (SELECT id FROM books_sales WHERE device = ?)`
        : 'device = ?';
    const found = await select<Record<string, unknown>>(
      till.database,
      `SELECT * FROM ${table} WHERE ${own}`,
      [deviceId(number)],
    );
    const plain = (value: unknown): unknown =>
      typeof value === 'object' && value !== null ? JSON.stringify(value) : value;
    const asKept = ([column, value]: [string, unknown]): unknown =>
      JSON_OR_NULL.includes(column) && value === null ? 'null' : plain(value);
    const columns = await columnsOf(till.database, table);
    const rows = found.map((row) => columns.map((column) => asKept([column, row[column]])));
    sets.push({ table, columns, rows });
  }
  const from = performance.now();
  for (let batch = 0; batch < BATCHES; batch += 1) {
    await connection.beginTransaction();
    for (const { table, columns, rows } of sets) {
      const size = Math.ceil(rows.length / BATCHES);
      const part = rows.slice(batch * size, (batch + 1) * size);
      const into = `INSERT INTO bench_${table} (${columns.map((name) => `\`${name}\``).join(', ')})`;
      if (part.length > 0) await connection.query(`${into} VALUES ?`, [part]);
    }
    await connection.commit();
  }
  const took = performance.now() - from;
  for (const { table } of sets) await connection.query(`DROP TABLE bench_${table}`);
  return (BATCH * BATCHES * 1000) / took;
}
