/** Accounts that somebody holds: looked up among many on a device, and stated by the server. */
import { chromium, type Page } from '@playwright/test';
import { BUSINESS, customerId, idOf } from '../../src/lib/core/testing/made-up-business';
import { statementOf } from '../../src/lib/core/held/statement';
import { BookReader } from '../../src/lib/server/books/read-books';
import { heldMovesOf } from '../../src/lib/server/books/held-moves';
import { select } from '../../src/lib/server/database/select';
import { chromiumOptions } from '../support/chromium';
import type { RunningTill } from '../support/running-till';
import { bundle, device } from './device';
import { median, milliseconds, type Figure } from './figures';
import type { WithHeld } from './held-harness';

const ROUNDS = 21;
const DOCUMENTS = 2000;

export async function heldFigures(till: RunningTill): Promise<Figure[]> {
  const browser = await chromium.launch(await chromiumOptions());
  try {
    const { bench } = await device(browser, till, await bundle('tests/bench/harness.ts'), 0, 0);
    await bench.addScriptTag({ content: await bundle('tests/bench/held-harness.ts') });
    return [await voucherByNumber(bench), await besideTheName(bench), await statement(till)];
  } finally {
    await browser.close();
  }
}

/** Among few, then among many: it costs the same. */
async function voucherByNumber(page: Page): Promise<Figure> {
  const time = async (from: number, to: number): Promise<number> =>
    median(
      await page.evaluate(
        async (given) => {
          const { heldHarness } = window as unknown as WithHeld;
          for (let at = given.from; at < given.to; at += 5000)
            await heldHarness.fillVouchers(at, Math.min(given.to, at + 5000));
          return await heldHarness.timeVouchers(given.to);
        },
        { from, to },
      ),
    );
  const [few, many] = [1000, 100_000];
  const among = await time(0, few);
  const amongMany = await time(few, many);
  return {
    what: 'a voucher looked up by its number, among 100,000',
    is: milliseconds(amongMany),
    against: `${milliseconds(among)} among 1,000`,
    ratio: amongMany / among,
    target: { most: 1.2 },
  };
}

async function besideTheName(page: Page): Promise<Figure> {
  const { beside, trivial } = await page.evaluate(async (many) => {
    const { heldHarness } = window as unknown as WithHeld;
    for (let at = 0; at < many; at += 5000) await heldHarness.fillCustomers(at, at + 5000);
    return await heldHarness.timeBeside(many);
  }, 20_000);
  return {
    what: 'what a customer has beside their name, painted, among 20,000',
    is: milliseconds(median(beside)),
    against: `${milliseconds(median(trivial))} for a trivial update`,
    ratio: median(beside) / median(trivial),
    target: { most: 1.5 },
  };
}

/** All documents of an account, asked for, named and stated, against one scan of their rows. */
async function statement(till: RunningTill): Promise<Figure> {
  const { database } = till;
  const books = new BookReader(database);
  const account = `customer:${customerId(77)}`;
  await fill(till, account);
  const [stated, scanned]: [number[], number[]] = [[], []];
  for (let round = -3; round < ROUNDS; round += 1) {
    const scan = await timed(() =>
      select(
        database,
        'SELECT m.*, s.number FROM books_held_moves m LEFT JOIN books_sales s ON s.business = m.business AND s.slip = m.doc WHERE m.business = ? AND m.account = ?',
        [BUSINESS, account],
      ),
    );
    const state = await timed(async () => {
      const { moves, balances } = await heldMovesOf(books, BUSINESS, [account]);
      const { lines } = statementOf(moves, balances[0] ?? 0, '', '', (at) => at.slice(0, 10));
      if (lines.length !== DOCUMENTS) throw new Error('documents are missing');
    });
    if (round < 0) continue;
    stated.push(state);
    scanned.push(scan);
  }
  return {
    what: 'a statement of 2,000 documents on the server',
    is: milliseconds(median(stated)),
    against: `${milliseconds(median(scanned))} for one SQL scan of them`,
    ratio: median(stated) / median(scanned),
    target: { most: 2 },
  };
}

async function fill({ database }: RunningTill, account: string): Promise<void> {
  const numbers = Array.from({ length: DOCUMENTS }, (_, n) => n + 1);
  const at = '2026-11-22T10:00:00.000Z';
  await database.sequelize.query(
    'INSERT INTO books_held_moves (business, id, at, account, amount, kind, doc, docIs) VALUES ?'.replace(
      '?',
      numbers.map(() => '(?, ?, ?, ?, ?, ?, ?, ?)').join(', '),
    ),
    {
      replacements: numbers.flatMap((n) => [
        ...[BUSINESS, `bench:${String(n)}`, at, account, 100, 'payment.taken', idOf(90, n), 'slip'],
      ]),
    },
  );
  await database.sequelize.query(
    `INSERT INTO books_sales (business, id, at, slip, number) VALUES ${numbers.map(() => '(?, ?, ?, ?, ?)').join(', ')}`,
    {
      replacements: numbers.flatMap((n) => [
        ...[BUSINESS, idOf(91, n), at, idOf(90, n), `D9-${String(n)}`],
      ]),
    },
  );
}

async function timed(run: () => Promise<unknown>): Promise<number> {
  const began = performance.now();
  await run();
  return performance.now() - began;
}
