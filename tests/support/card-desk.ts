/** Cards at the stall, and what the books and the acquirer have of them. */
import { expect, type Browser, type Locator, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { select } from '../../src/lib/server/database/select';
import { go, openDrawer, total, type, useDrawer } from './at-the-stall';
import type { Devices } from './devices';
import { placesIn } from './places-in';
import type { RunningTill } from './running-till';

export const card = (page: Page): Locator => page.getByTestId('card');
export const wayRow = (page: Page, name: RegExp): Locator =>
  page
    .getByTestId('ways')
    .locator('[data-way]')
    .filter({ has: page.getByRole('button', { name }) });
const row = (page: Page): Locator => wayRow(page, /^Card(?! by)/);

/** Puts an unlisted thing on the slip and goes to the payment. */
export async function toPayment(page: Page, amount: string): Promise<void> {
  await go(page, '/counter');
  await type(page, `${amount} basket`);
  await expect(total(page)).toContainText(amount);
  await page.getByRole('button', { name: /^Take payment/ }).click();
}

/** Has the reader ask for a card for the whole of it. */
export async function askFor(page: Page, amount: string, asked = amount): Promise<void> {
  if (!page.url().endsWith('/counter/pay')) await toPayment(page, amount);
  if ((await row(page).getByRole('button').first().getAttribute('aria-expanded')) !== 'true')
    await row(page).getByRole('button').first().click();
  await row(page)
    .getByRole('button', { name: `Ask for £${asked}` })
    .click();
  await expect(card(page)).toContainText('asks for');
}

export const hold = (page: Page, how = 'tap'): Promise<void> =>
  card(page).getByRole('button', { name: how, exact: true }).click();

/** Fills a card in that is typed for somebody at a distance; `more` is typed beside it or in its place. */
export async function fillKeyed(
  keyed: Locator,
  order: string,
  more: Readonly<Record<string, string>> = {},
): Promise<void> {
  const figures = {
    'Card number': '4111111111111111',
    'Number of the order': order,
    Expires: '04/39',
    'Name on the card': 'Hazel Birk',
    Street: '3 Sluice Lane',
    Town: 'Tarnbrook',
    Postcode: 'LA2 9ZZ',
    ...more,
  };
  for (const [label, text] of Object.entries(figures))
    await keyed.getByLabel(label, { exact: false }).fill(text);
}

/** Draws something like a name. */
export async function sign(page: Page): Promise<void> {
  const pad = page.getByTestId('sign-pad');
  await pad.scrollIntoViewIfNeeded();
  const box = await pad.boundingBox();
  if (box === null) throw new Error('there is nothing to sign on');
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.6);
  await page.mouse.down();
  for (let at = 0; at <= 20; at += 1) {
    const x = box.x + box.width * (0.2 + at * 0.03);
    const y = box.y + box.height * (0.5 + 0.3 * Math.sin(at));
    await page.mouse.move(x, y);
  }
  await page.mouse.up();
}

export interface CardRow {
  readonly id: string;
  readonly amount: string;
  readonly takenState: string;
  readonly state: string;
  readonly reason: string;
  readonly last4: string;
}

export interface AtAcquirer {
  readonly state: string;
  readonly amount: number;
  readonly refunded: number;
}

export class CardDesk {
  constructor(readonly devices: Devices) {}

  get till(): RunningTill {
    return this.devices.till;
  }

  /** A drawer is open, and the server knows. */
  async opened(browser: Browser): Promise<void> {
    const drawers = (): Promise<unknown[]> =>
      select(this.till.database, 'SELECT id FROM books_drawers', []);
    // Those of past editions.
    const before = await drawers();
    const page = await this.devices.take(browser, 'Maren');
    await openDrawer(page);
    await expect.poll(drawers).toHaveLength(before.length + 1);
    await this.devices.release();
  }

  /** Somebody at a device of their own, with that drawer. */
  async seller(browser: Browser, who: string): Promise<Page> {
    const page = await this.devices.take(browser, who);
    await useDrawer(page);
    return page;
  }

  /** What the server's books have of cards that were asked for this much, in minor units. */
  async cardRows(amount: number): Promise<readonly CardRow[]> {
    // Not those of the demo's past editions, which may come to as much.
    const since = new Date(Date.now() - 86_400_000).toISOString();
    const sql = 'SELECT * FROM books_card_payments WHERE amount = ? AND at > ? ORDER BY askedStamp';
    return await select<CardRow>(this.till.database, sql, [amount, since]);
  }

  /** What the acquirer has of a payment, asked for at its own door. */
  async atAcquirer(payment: string): Promise<AtAcquirer | null> {
    const [found] = await select<{ business: string }>(
      this.till.database,
      'SELECT business FROM books_card_payments WHERE id = ?',
      [payment],
    );
    const { url, apiKey } = this.till.acquirer;
    const response = await fetch(`${url}/payments?reference=${found?.business ?? ''}:${payment}`, {
      headers: { authorization: `Bearer ${apiKey}` },
    });
    return response.status === 404 ? null : ((await response.json()) as AtAcquirer);
  }

  /**
   * Where a card's number stands: in any table, in what the server said, in what this browser keeps.
   * @param number Figures without blanks; blanks between groups are found as well.
   */
  async placesOf(number: string, page: Page): Promise<string[]> {
    const written = [number, number.replace(/(.{4})(?=.)/g, '$1 ')];
    const places: string[] = [];
    for (const each of written) places.push(...(await placesIn(this.till.database, each)));
    const texts = {
      log: readFileSync(this.till.logFile, 'utf8'),
      browser: await keptBy(page),
      acquirer: readFileSync(this.till.acquirerFile, 'utf8'),
    };
    for (const [place, text] of Object.entries(texts))
      if (written.some((each) => text.includes(each))) places.push(place);
    return places;
  }

  /** @param what With `of`, such as `POST /payments`, where others are asked for meanwhile: one of them would use it up. */
  async fault(what: object): Promise<void> {
    const { url, apiKey } = this.till.acquirer;
    await fetch(`${url}/faults`, {
      method: 'POST',
      headers: { authorization: `Bearer ${apiKey}` },
      body: JSON.stringify({ of: '', ...what }),
    });
  }
}

/** All that the browser keeps: its database and both stores. */
export const keptBy = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const open = indexedDB.open('stall-till');
    const db = await new Promise<IDBDatabase>((resolve) => {
      open.onsuccess = () => resolve(open.result);
    });
    const all = [JSON.stringify(localStorage), JSON.stringify(sessionStorage)];
    for (const name of db.objectStoreNames) {
      const rows = db.transaction(name).objectStore(name).getAll();
      await new Promise((resolve) => {
        rows.onsuccess = resolve;
      });
      all.push(JSON.stringify(rows.result));
    }
    db.close();
    return all.join('\n');
  });
