/** Settling: matching cards, by the number of lines; and the page of an event of 5,000 sales, against one scan of its lines. */
import mysql from 'mysql2/promise';
import {
  BUSINESS,
  deviceId,
  DeviceWriter,
  EVENT,
  personId,
} from '../../src/lib/core/testing/arbitrary-daybook';
import { matchCards, type CardPayment } from '../../src/lib/core/settle/match-cards';
import { settlingOf } from '../../src/lib/core/settle/settling';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import type { RunningTill } from '../support/running-till';
import { enrol, found, NOW } from './founded-till';
import { median, milliseconds, type Figure } from './figures';

const ROUNDS = 7;

export async function settleFigures(till: RunningTill): Promise<Figure[]> {
  return [matching(), await thePage(till)];
}

/** Every tenth line has another reference, so that likeness is asked as well. */
function matching(): Figure {
  const day = (lines: number) => {
    const payments = Array.from({ length: lines }, (_, n): CardPayment => ({
      ...{ id: `p${String(n)}`, reference: `r${String(n)}`, amount: 300 + (n % 97) * 5 },
      last4: String(1000 + (n % 211)),
      at: new Date(NOW + n * 7000).toISOString(),
    }));
    const report = payments.map(({ reference, amount, last4, at }, line) => ({
      ...{ line, amount, last4, at },
      reference: line % 10 === 0 ? `x${String(line)}` : reference,
    }));
    return { payments, report };
  };
  const each = (lines: number): number => {
    const { payments, report } = day(lines);
    const began = performance.now();
    matchCards(payments, report);
    return (performance.now() - began) / lines;
  };
  const [many, few]: [number[], number[]] = [[], []];
  for (let round = 0; round <= ROUNDS; round += 1) {
    const [a, b] = [each(10_000), median(Array.from({ length: 5 }, () => each(1000)))];
    if (round === 0) continue;
    many.push(a);
    few.push(b);
  }
  const us = (value: number): string => `${(value * 1000).toFixed(2)} µs a line`;
  return {
    what: 'matching 10,000 lines of a report',
    is: us(median(many)),
    against: `${us(median(few))} with 1,000`,
    ratio: median(many) / median(few),
    target: { most: 1.5 },
  };
}

const SALES = 5000;
const NUMBER = 61;

async function thePage(till: RunningTill): Promise<Figure> {
  const { database } = till;
  const books = new BookReader(database);
  const connection = await mysql.createConnection(till.databaseUrl);
  try {
    const isFounded = (await books.rows(BUSINESS, 'events', { id: EVENT })).length > 0;
    if (!isFounded) await found(till, new DeviceWriter(1));
    await enrol(till, deviceId(NUMBER));
    const writer = new DeviceWriter(NUMBER);
    const ref = { business: BUSINESS, device: deviceId(NUMBER) };
    for (let done = 0; done < SALES; done += 250) {
      const drafts = Array.from({ length: 250 }, (_, n) =>
        writer.sale(
          [1, 2, 3].map((item) => [item, 1 + ((n + item) % 3)] as const),
          0,
          NOW,
        ),
      ).flat();
      await append(database, ref, writer.append(drafts, NOW, personId(3)));
    }
    const page = async (): Promise<number> => {
      const began = performance.now();
      const rows = await settlingRows(database, books, BUSINESS, EVENT, NOW);
      if (rows === null) throw new Error('there is no such event');
      settlingOf(rows);
      return performance.now() - began;
    };
    const scan = async (): Promise<number> => {
      const began = performance.now();
      await connection.query('SELECT * FROM books_sale_lines WHERE business = ? AND event = ?', [
        BUSINESS,
        EVENT,
      ]);
      return performance.now() - began;
    };
    const [pages, scans]: [number[], number[]] = [[], []];
    for (let round = 0; round <= ROUNDS; round += 1) {
      const [a, b] = [await page(), await scan()];
      if (round === 0) continue;
      pages.push(a);
      scans.push(b);
    }
    return {
      what: 'the settling page of an event with 5,000 sales, on the server',
      is: milliseconds(median(pages)),
      against: `${milliseconds(median(scans))} for one scan of its sale lines`,
      ratio: median(pages) / median(scans),
      target: { most: 2 },
    };
  } finally {
    await connection.end();
  }
}
