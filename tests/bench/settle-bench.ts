/** Settling: matching cards, by the number of lines; and the page of an event of 5,000 sales, against one scan of its lines. */
import mysql from 'mysql2/promise';
import { DeviceWriter } from '../../src/lib/core/testing/arbitrary-daybook';
import {
  BUSINESS,
  deviceId,
  EVENT,
  itemId,
  personId,
} from '../../src/lib/core/testing/made-up-business';
import { matchCards, type CardPayment } from '../../src/lib/core/settle/match-cards';
import { proposeBank, type BankLine } from '../../src/lib/core/bank/match-bank';
import type { OpenMoney } from '../../src/lib/core/bank/open-money';
import { settlingOf } from '../../src/lib/core/settle/settling';
import { behindRow } from '../../src/lib/server/books/behind-row';
import { saleDocument } from '../../src/lib/server/books/find-sales';
import { settlingRows } from '../../src/lib/server/books/settling-rows';
import { BookReader } from '../../src/lib/server/books/read-books';
import { append } from '../../src/lib/server/daybook/append';
import type { RunningTill } from '../support/running-till';
import { enrol, found, NOW } from './founded-till';
import { median, milliseconds, type Figure } from './figures';

const ROUNDS = 7;

export async function settleFigures(till: RunningTill): Promise<Figure[]> {
  return [matching(), bankMatching(), ...(await thePage(till))];
}

/** What a line costs among 10,000, against one among 1,000. @param each Milliseconds a line. */
function perLine(what: string, each: (lines: number) => number): Figure {
  const [many, few]: [number[], number[]] = [[], []];
  for (let round = 0; round <= ROUNDS; round += 1) {
    const [a, b] = [each(10_000), median(Array.from({ length: 5 }, () => each(1000)))];
    if (round === 0) continue;
    many.push(a);
    few.push(b);
  }
  const us = (value: number): string => `${(value * 1000).toFixed(2)} µs a line`;
  return {
    what,
    is: us(median(many)),
    against: `${us(median(few))} with 1,000`,
    ratio: median(many) / median(few),
    target: { most: 1.5 },
  };
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
  return perLine('matching 10,000 lines of a report', each);
}

/** Against three hundred sums that are still to come; half of the lines have a reference of theirs. */
function bankMatching(): Figure {
  const open = Array.from({ length: 300 }, (_, n): OpenMoney => ({
    ...{ key: `bag ${String(n)}`, is: 'bag', what: `B-${String(1000 + n)}` },
    ...{ references: [`B-${String(1000 + n)}`], amount: 5000 + n * 5, day: '2026-11-22' },
    ...{ events: [EVENT], parts: [], money: null },
  }));
  const each = (many: number): number => {
    const lines = Array.from({ length: many }, (_, n): BankLine => {
      const amount = 5000 + (n % 300) * 5;
      const text = n % 2 === 0 ? `Cash paid in, bag B-${String(1000 + (n % 300))}` : 'Counter';
      return {
        ...{ id: `l${String(n)}`, day: '2026-11-24', amount, left: amount },
        ...{ reference: '', text, other: 'Branch' },
      };
    });
    const began = performance.now();
    proposeBank(lines, open);
    return (performance.now() - began) / many;
  };
  return perLine('matching 10,000 lines of a bank’s statement', each);
}

const SALES = 5000;
const NUMBER = 61;

async function thePage(till: RunningTill): Promise<Figure[]> {
  const { database } = till;
  const books = new BookReader(database);
  const connection = await mysql.createConnection(till.databaseUrl);
  try {
    const isFounded = (await books.rows(BUSINESS, 'events', { id: EVENT })).length > 0;
    if (!isFounded) await found(till, new DeviceWriter(1));
    await enrol(till, NUMBER);
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
      const { kept, refused } = await append(
        database,
        ref,
        writer.append(drafts, NOW, personId(3)),
      );
      // A sale that is doubted is a loose end: not what an evening looks like.
      if (refused !== null || kept.length > 0)
        throw new Error(JSON.stringify({ refused, kept: kept[0] }));
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
    const figure: Figure = {
      what: 'the settling page of an event with 5,000 sales, on the server',
      is: milliseconds(median(pages)),
      against: `${milliseconds(median(scans))} for one scan of its sale lines`,
      ratio: median(pages) / median(scans),
      target: { most: 2 },
    };
    return [figure, await behindIt(till)];
  } finally {
    await connection.end();
  }
}

/** The first page of the sales of one item, against one of those sales. */
async function behindIt({ database }: RunningTill): Promise<Figure> {
  const books = new BookReader(database);
  const asked = { business: BUSINESS, event: EVENT, of: 'item', id: itemId(1), after: '' } as const;
  const [first] = (await behindRow(database, asked)).documents;
  if (first?.sale == null) throw new Error('nothing is behind the item');
  const { sale } = first;
  const time = async (run: () => Promise<unknown>): Promise<number> => {
    const began = performance.now();
    await run();
    return performance.now() - began;
  };
  const [rows, singles]: [number[], number[]] = [[], []];
  for (let round = 0; round <= 4 * ROUNDS; round += 1) {
    const a = await time(() => behindRow(database, asked));
    const b = await time(() => saleDocument(database, books, BUSINESS, sale));
    if (round < 3) continue;
    rows.push(a);
    singles.push(b);
  }
  return {
    what: 'the documents behind a row of that page, on the server',
    is: milliseconds(median(rows)),
    against: `${milliseconds(median(singles))} for one of them`,
    ratio: median(rows) / median(singles),
    target: { most: 1.5 },
  };
}
