/** The browser runs out of room and throws the whole database away: what was said to be safe is safe. */
import { expect, test, type Page } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import {
  enrol,
  go,
  goOffline,
  openDrawer,
  payExactly,
  sellOne,
  signIn,
  standing,
  tag,
  total,
  useDrawer,
  mirrorOf,
} from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

test('sales that were not sent, and who the device is, are there again', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till, 'Ines');
  await openDrawer(page);
  await expect(standing(page)).toHaveText('All sent');
  await goOffline(page);
  const sold: string[] = [];
  for (let n = 0; n < 2; n += 1) sold.push(await sellOne(page, 'Viola'));
  await salesMirrored(page, 2);
  // The power goes in the middle of a line of the mirror; what is sold later is in it all the same.
  await halfALine(page);
  await page.goto('/counter');
  for (let n = 0; n < 3; n += 1) sold.push(await sellOne(page, 'Viola'));
  await salesMirrored(page, 5);
  await throwAway(page);
  await page.goto(till.origin);
  await expect(page.getByTestId('forgotten')).toHaveText(/10\s+entries are still to be sent/);
  await context.setOffline(false);
  await page.reload();
  await signIn(page, 'Ines');
  await expect(standing(page)).toHaveText('All sent');
  const rows = await select<{ number: string }>(
    till.database,
    'SELECT number FROM books_sales WHERE number LIKE ? ORDER BY number',
    [`${sold[0]!.split('-')[0]!}-%`],
  );
  expect(rows.map(({ number }) => number)).toEqual(sold);
  // It goes on with the next number.
  await useDrawer(page);
  await go(page, '/counter');
  expect(await sellOne(page, 'Viola')).toBe(sold[0]!.replace(/-1$/, '-6'));
  await context.close();
});

test('a code that is entered then makes nobody else of it: what was not sent is sent first', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till, 'Ines');
  await useDrawer(page);
  await goOffline(page);
  await page.goto('/counter');
  // The file is from before it was kept by key as well: with the next sale the whole of it is kept so.
  await page.evaluate(() => localStorage.clear());
  const number = await sellOne(page, 'Lavender');
  await expect
    .poll(() => page.evaluate(() => Object.values(localStorage).join('')))
    .toContain('"kind":"sale.rung"');
  // Its files as well, as a browser was seen to do whose disk was full.
  await throwAway(page, 'indexeddb,file_systems,cache_storage,service_workers');
  await context.setOffline(false);
  await page.goto(till.enrolAddress());
  await signIn(page, 'Ines');
  await expect(standing(page)).toHaveText('All sent');
  const rows = await select(till.database, 'SELECT id FROM books_sales WHERE number = ?', [number]);
  expect(rows).toHaveLength(1);
  await context.close();
});

/** The mirror follows behind the last sale. */
const salesMirrored = (page: Page, count: number): Promise<void> =>
  expect
    .poll(async () => (await mirrorOf(page)).match(/"kind":"sale.rung"/g)?.length ?? 0)
    .toBe(count);

/** Puts the beginning of a line at the end of the mirror, once nothing is being written there. */
async function halfALine(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.locks.request('stall-till-mirror', async () => {
      const folder = await navigator.storage.getDirectory();
      const handle = await folder.getFileHandle('mirror.ndjson');
      const { size } = await handle.getFile();
      const writable = await handle.createWritable({ keepExistingData: true });
      await writable.write({ type: 'write', position: size, data: '{"block":{"upTo":7,"entr' });
      await writable.close();
    });
  });
}

/** As a browser does that has run out of room. */
async function throwAway(page: Page, storageTypes = 'indexeddb'): Promise<void> {
  await page.goto('about:blank');
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Storage.clearDataForOrigin', {
    origin: till.origin,
    storageTypes,
  });
}

test('a browser with no room left gives up what was kept back: the sale ends, and the next is refused in words', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till, 'Ines');
  await openDrawer(page);
  await expect.poll(async () => await reserveOf(page)).toBeGreaterThan(0);
  await sellOne(page, 'Lavender');
  await expect(standing(page)).toHaveText('All sent');

  // There is no room but what was kept back.
  await fullUntil(page, 'one try was made');
  await sellOne(page, 'Lavender');
  await expect(page.getByTestId('no-room')).toContainText('What is said to be rung up is safe');
  expect(await reserveOf(page)).toBe(0);

  await fullUntil(page, 'somebody makes room');
  await tag(page, 'Lavender').click();
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await expect(page.getByText(/Nothing was rung up, and the slip is still here/)).toBeVisible();
  await expect(total(page)).toHaveText('£4.50');

  // The same slip is rung up, once.
  await fullUntil(page, 'now');
  const number = await payExactly(page);
  await expect(standing(page)).toHaveText('All sent');
  const rows = await select(till.database, 'SELECT id FROM books_sales WHERE number = ?', [number]);
  expect(rows).toHaveLength(1);
  await context.close();
});

/** Entries are refused as a browser refuses them that has run out of room. */
async function fullUntil(
  page: Page,
  until: 'one try was made' | 'somebody makes room' | 'now',
): Promise<void> {
  await page.evaluate((when) => {
    const { prototype } = IDBObjectStore as unknown as {
      prototype: { add: IDBObjectStore['add']; realAdd?: IDBObjectStore['add'] };
    };
    const add = (prototype.realAdd ??= prototype.add);
    let tries = 0;
    prototype.add = function (this: IDBObjectStore, value: unknown, key?: IDBValidKey) {
      const isFull = when !== 'now' && this.name === 'entries';
      tries += isFull ? 1 : 0;
      if (isFull && (when === 'somebody makes room' || tries === 1))
        throw new DOMException('no room', 'QuotaExceededError');
      return key === undefined ? add.call(this, value) : add.call(this, value, key);
    };
  }, until);
}

const reserveOf = async (page: Page): Promise<number> =>
  await page.evaluate(async () => {
    const folder = await navigator.storage.getDirectory();
    const file = await folder.getFileHandle('reserve.bin', { create: true });
    return (await file.getFile()).size;
  });
