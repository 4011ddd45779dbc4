/**
 * What a new device of a business with many years is given, against one of a few months: bytes as they
 * travel, and the time that the server takes for all pages. Both have the same goods and the same event
 * that is on; what differs is what lies behind them.
 */
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import { BUSINESS, deviceId, EVENT, personId } from '../../src/lib/core/testing/made-up-business';
import type { TableName } from '../../src/lib/core/books/tables';
import { goods } from '../../src/lib/core/testing/founded';
import { append } from '../../src/lib/server/daybook/append';
import { cursorFrom, startPage } from '../../src/lib/server/daybook/start';
import { sqlTable } from '../../src/lib/server/database/book-tables';
import { compressed } from '../../src/lib/server/http/compressed';
import { answer } from '../../src/lib/server/http/answers';
import { testDatabase } from '../support/test-database';
import { found, NOW, type Bench } from './founded-till';
import { columnsOf } from './columns';
import { median, milliseconds, type Figure } from './figures';

const [FEW, MANY] = [2000, 200_000];
const SALES_AN_EVENT = 500;
const GOODS = 200;
const ROUNDS = 7;
/** The first device of a business is number 1. */
const WRITER = 1;

/** In a database of its own, so that many years do not weigh on what else is measured. */
export async function startFigures(): Promise<Figure[]> {
  const till = await testDatabase();
  try {
    return await figures(till);
  } finally {
    await till.end();
  }
}

async function figures(till: Bench): Promise<Figure[]> {
  await tradeToday(till);
  await tradeInThePast(till, 0, FEW);
  const few = await measure(till);
  await tradeInThePast(till, FEW, MANY);
  const many = await measure(till);
  const sized = (bytes: number): string => `${(bytes / 1024).toFixed(0)} kB`;
  const target = { most: 1.5 };
  return [
    {
      what: 'start of a new device at 200,000 past sales: bytes',
      is: sized(many.bytes),
      against: `${sized(few.bytes)} at 2,000`,
      ratio: many.bytes / few.bytes,
      target,
    },
    {
      what: 'the same: time',
      is: milliseconds(many.took),
      against: `${milliseconds(few.took)} at 2,000`,
      ratio: many.took / few.took,
      target,
    },
  ];
}

/** Goods, and the sales of the event that is on. */
async function tradeToday(till: Bench): Promise<void> {
  const writer = new DeviceWriter(WRITER);
  const ref = { business: BUSINESS, device: deviceId(WRITER) };
  await found(till, writer);
  const more = Array.from({ length: GOODS }, (_, n) => goods(writer, 5 + n));
  await append(till.database, ref, writer.append(more, NOW, personId(1)));
  for (let n = 0; n < SALES_AN_EVENT; n += 1) {
    const sale = writer.append(writer.sale([[1 + (n % 4), 2]], 0, NOW), NOW, personId(3));
    const { kept, refused } = await append(till.database, ref, sale);
    if (refused !== null || kept.length > 0) throw new Error(JSON.stringify({ refused, kept }));
  }
}

/** Rows as past trading leaves them, made of today's: entries would be the same rows, hours later. */
async function tradeInThePast({ database }: Bench, from: number, to: number): Promise<void> {
  const old = (n: string) => `CONCAT('past-sale-', LPAD(${n}, 26, '0'))`;
  const eventOf = `CONCAT('past-event-', LPAD(FLOOR(seq / ${String(SALES_AN_EVENT)}), 25, '0'))`;
  const copy = async (
    table: TableName,
    where: string,
    set: Readonly<Record<string, string>>,
    step = 1,
  ): Promise<void> => {
    const columns = await columnsOf(database, sqlTable(table));
    const names = columns.map((name) => `\`${name}\``).join(', ');
    const values = columns.map((name) => set[name] ?? `t.\`${name}\``).join(', ');
    const span = `seq_${String(from)}_to_${String(to - 1)}_step_${String(step)}`;
    await database.sequelize.query(
      `INSERT INTO ${sqlTable(table)} (${names}) SELECT ${values} FROM ${span}
        JOIN (SELECT * FROM ${sqlTable(table)} WHERE business = '${BUSINESS}' AND ${where} LIMIT 1) t`,
    );
  };
  const [at, day] = ["'2025-05-01T10:00:00.000Z'", "'2025-05-01'"];
  const [id, event] = [old('seq'), eventOf];
  const days = `'[{"date":"2025-05-01","opens":"09:00","closes":"16:00"}]'`;
  const ofToday = `event = '${EVENT}'`;
  await copy('events', `id = '${EVENT}'`, { id: event, days }, SALES_AN_EVENT);
  await copy('eventTotals', ofToday, { event }, SALES_AN_EVENT);
  await copy('drawers', ofToday, { id: event, event, at }, SALES_AN_EVENT);
  await copy('drawerSums', '1 = 1', { drawer: event }, SALES_AN_EVENT);
  await copy('eventItems', ofToday, { event, item: id }, 10);
  await copy('eventHours', ofToday, { event, hour: 'seq % 24' }, SALES_AN_EVENT / 10);
  await copy('sales', ofToday, { id, event, at, day });
  await copy('saleLines', ofToday, { sale: id, event });
  await copy('payments', ofToday, { id, event, at });
  await copy('movements', ofToday, { id, event, at });
  // Cards that were taken, slips that were set aside and are gone, and what an owner looks through.
  await database.sequelize.query(
    `INSERT INTO books_card_payments (business, id, event, slip, state, amount, resultAmount)
      SELECT '${BUSINESS}', ${id}, ${event}, ${id}, 'captured', 1234, 1234
        FROM seq_${String(from)}_to_${String(to - 1)}`,
  );
  await database.sequelize.query(
    `INSERT INTO books_slips (business, id, event, state) SELECT '${BUSINESS}', ${id}, ${event}, 'gone'
      FROM seq_${String(from)}_to_${String(to - 1)}_step_5`,
  );
  await database.sequelize.query(
    `INSERT INTO books_acts (business, id, event, device, at, what, about)
      SELECT '${BUSINESS}', ${id}, ${event}, '${deviceId(WRITER)}', ${at}, 'discount', 'Lavender'
        FROM seq_${String(from)}_to_${String(to - 1)}_step_10`,
  );
  await database.sequelize.query(
    'ANALYZE TABLE books_sales, books_sale_lines, books_payments, books_card_payments, books_movements',
  );
}

async function measure({ database }: Bench): Promise<{ bytes: number; took: number }> {
  const asked = new Request('http://localhost/', { headers: { 'accept-encoding': 'gzip' } });
  const times: number[] = [];
  let bytes = 0;
  for (let round = 0; round <= ROUNDS; round += 1) {
    bytes = 0;
    const from = performance.now();
    let page = await startPage(database, BUSINESS, null, NOW);
    for (;;) {
      bytes += (await (await compressed(asked, answer(page))).arrayBuffer()).byteLength;
      if (page.next === null) break;
      page = await startPage(database, BUSINESS, cursorFrom(page.next), NOW);
    }
    if (round > 0) times.push(performance.now() - from);
  }
  return { bytes, took: median(times) };
}
