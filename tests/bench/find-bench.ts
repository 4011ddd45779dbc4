/** Find on the server among 200,000 sales, and among 2,000. */
import mysql from 'mysql2/promise';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, personId } from '../../src/lib/core/testing/made-up-business';
import { findSales, saleDocument } from '../../src/lib/server/books/find-sales';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import { select } from '../../src/lib/server/database/select';
import type { RunningTill } from '../support/running-till';
import { columnsOf } from './columns';
import { enrol, found, NOW } from './founded-till';
import { median, milliseconds, type Figure } from './figures';

const ROUNDS = 21;
const FEW = 2000;
const MANY = 200_000;
const NUMBER = 62;
const DEVICE = deviceId(NUMBER);

export async function findFigures(till: RunningTill): Promise<Figure[]> {
  await rungUp(till);
  const few = await timeKinds(till);
  await manyMore(till);
  const many = await timeKinds(till);
  const slowest = [...many.kinds].sort((a, b) => b[1] - a[1])[0]!;
  const growth = [...many.kinds.keys()]
    .map((kind) => [kind, many.kinds.get(kind)! / few.kinds.get(kind)!] as const)
    .sort((a, b) => b[1] - a[1])[0]!;
  return [
    {
      what: `find on the server among 200,000 sales, the slowest way (${slowest[0]})`,
      is: milliseconds(slowest[1]),
      against: `${milliseconds(many.bare)} to open one by its number`,
      ratio: slowest[1] / many.bare,
      target: { most: 3 },
    },
    {
      what: `the same against 2,000, the way that grows most (${growth[0]})`,
      is: milliseconds(many.kinds.get(growth[0])!),
      against: `${milliseconds(few.kinds.get(growth[0])!)} among 2,000`,
      ratio: growth[1],
      target: { most: 1.2 },
    },
  ];
}

/** What is typed, by the way in which it is found. */
const KINDS: Readonly<Record<string, string>> = {
  'a number': `D${String(NUMBER)}-1000`,
  goods: 'thing 2',
  'what nobody sold': 'unheard',
  'an amount': '13.37',
  'a person': 'person 3',
};

async function timeKinds({ database }: RunningTill) {
  const books = new BookReader(database);
  const time = async (run: () => Promise<unknown>): Promise<number> => {
    const began = performance.now();
    await run();
    return performance.now() - began;
  };
  const times = new Map<string, number[]>();
  const bare: number[] = [];
  for (let round = -2; round < ROUNDS; round += 1) {
    const one = await time(() => openOne(database, books));
    if (round >= 0) bare.push(one);
    for (const [kind, typed] of Object.entries(KINDS)) {
      const took = await time(() => findSales(database, books, BUSINESS, typed));
      if (round >= 0) times.set(kind, [...(times.get(kind) ?? []), took]);
    }
  }
  return {
    bare: median(bare),
    kinds: new Map([...times].map(([kind, all]) => [kind, median(all)])),
  };
}

/** One sale with all that belongs to it, by the index of the numbers. */
async function openOne(database: RunningTill['database'], books: BookReader): Promise<void> {
  const number = KINDS['a number']!;
  const [sale] = await books.rows(BUSINESS, 'sales', { number });
  if (sale === undefined) throw new Error(`there is no sale ${number}`);
  await saleDocument(database, books, BUSINESS, sale.id);
}

async function rungUp(till: RunningTill): Promise<void> {
  const books = new BookReader(till.database);
  if ((await books.rows(BUSINESS, 'events', { id: EVENT })).length === 0)
    await found(till, new DeviceWriter(1));
  await enrol(till, NUMBER);
  const writer = new DeviceWriter(NUMBER);
  const ref = { business: BUSINESS, device: DEVICE };
  for (let done = 0; done < FEW; done += 250) {
    const drafts = Array.from({ length: 250 }, (_, n) =>
      writer.sale(
        [1, 2, 3].map((item) => [item, 1 + ((n + item) % 3)] as const),
        0,
        NOW,
      ),
    ).flat();
    const entries = writer.append(drafts, NOW, personId(3));
    const { kept, refused } = await append(till.database, ref, entries);
    if (refused !== null || kept.length > 0)
      throw new Error(JSON.stringify({ refused, kept: kept[0] }));
  }
  // As many goods as a stall has.
  await till.database.sequelize.query(
    "UPDATE books_sale_lines SET name = CONCAT(name, ' of ', MOD(CRC32(sale), 99)) WHERE business = ?",
    { replacements: [BUSINESS] },
  );
  await till.database.sequelize.query(
    'INSERT IGNORE INTO find_names (business, called) SELECT DISTINCT business, called FROM books_sale_lines',
  );
}

/** Copies under numbers and ids of their own, as years of trade would have left them. */
async function manyMore({ database, databaseUrl }: RunningTill): Promise<void> {
  // One of its own, which waits as long as it takes.
  const connection = await mysql.createConnection(databaseUrl);
  const copy = async (
    table: string,
    own: string,
    set: Readonly<Record<string, string>>,
  ): Promise<void> => {
    const columns = await columnsOf(database, table);
    const names = columns.map((name) => `\`${name}\``).join(', ');
    const values = columns.map((name) => set[name] ?? `t.\`${name}\``).join(', ');
    await connection.query(
      `INSERT INTO ${table} (${names}) SELECT ${values} FROM ${table} t
        JOIN seq_1_to_${String(MANY / FEW - 1)} q WHERE t.business = ? AND ${own}`,
      [BUSINESS],
    );
  };
  const other = (field: string): string =>
    `CONCAT(LPAD(HEX(q.seq), 8, '0'), SUBSTR(t.${field}, 9))`;
  await copy(
    'books_sale_lines',
    `t.sale IN (SELECT id FROM books_sales WHERE device = '${DEVICE}' AND number LIKE 'D${String(NUMBER)}-%')`,
    {
      sale: other('sale'),
    },
  );
  await copy('books_sales', `t.device = '${DEVICE}' AND t.number LIKE 'D${String(NUMBER)}-%'`, {
    id: other('id'),
    slip: other('slip'),
    number: "CONCAT('D', 100 + q.seq, '-', SUBSTRING_INDEX(t.number, '-', -1))",
  });
  await connection.query('ANALYZE TABLE books_sales, books_sale_lines');
  await connection.end();
  const [count] = await select<{ sales: string }>(
    database,
    'SELECT COUNT(*) AS sales FROM books_sales WHERE business = ?',
    [BUSINESS],
  );
  if (Number(count?.sales) < MANY) throw new Error('there are fewer sales than were to be made');
}
