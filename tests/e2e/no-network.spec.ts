/** No network, no server, dead batteries: nothing is lost, nothing is doubled. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import {
  enrol,
  lastSale,
  openDrawer,
  sellOne,
  slipIsKept,
  signIn,
  standing,
  tag,
  total,
} from '../support/at-the-stall';
import { BrowserProcess } from '../support/browser-process';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let profile: string;
test.beforeAll(async () => {
  till = await RunningTill.start();
  profile = mkdtempSync(join(tmpdir(), 'stall-till-profile-'));
});
test.afterAll(async () => {
  await till.end();
  rmSync(profile, { recursive: true, force: true });
});

/** Sale numbers of a device as MariaDB has them, in order. */
async function numbersOnServer(device: string): Promise<string[]> {
  const sql = 'SELECT number FROM books_sales WHERE number LIKE ? ORDER BY id';
  const rows = await select<{ number: string }>(till.database, sql, [`${device}-%`]);
  return rows.map(({ number }) => number);
}

test('the server is killed, the page reloaded, the browser killed: all is there', async () => {
  let device = await BrowserProcess.start(profile);
  let { page } = device;
  await page.goto(till.origin);
  await page.goto(till.enrolAddress());
  await signIn(page, 'Ines');
  await page.goto(`${till.origin}/drawer/open`);
  await page.getByLabel('£1', { exact: true }).fill('20');
  await page.getByRole('button', { name: 'Open with £20.00' }).click();
  expect(await sellOne(page, 'Lavender')).toBe('D4-1');
  await expect(standing(page)).toHaveText('All sent');
  // The whole application must be on the device before the network goes.
  await page.waitForFunction(async () => {
    const registration = await navigator.serviceWorker.ready;
    return (
      registration.active?.state === 'activated' && navigator.serviceWorker.controller !== null
    );
  });

  // A browser that dies in the seconds after it took an application in may not have it; what is sold is another matter.
  await device.quit();
  device = await BrowserProcess.start(profile);
  ({ page } = device);
  await page.goto(`${till.origin}/counter`);
  await expect(tag(page, 'Geranium')).toBeVisible();

  await till.killServer();
  await page.reload();
  const sold = ['D4-1'];
  for (let n = 0; n < 10; n += 1) sold.push(await sellOne(page, 'Geranium'));
  await expect(standing(page)).toHaveText('No network · selling goes on · 20 to send');

  // Right after a sale is said to be safe, five times over; the last of them with a slip begun.
  for (let kill = 0; kill < 5; kill += 1) {
    sold.push(await sellOne(page, 'Viola'));
    await device.kill();
    device = await BrowserProcess.start(profile);
    ({ page } = device);
    await page.goto(`${till.origin}/counter`);
    await expect(lastSale(page)).toContainText(`${sold.at(-1)!}, £4.20`);
    await expect(total(page)).toHaveText('£0.00');
  }
  expect(sold).toEqual(Array.from({ length: 16 }, (_, i) => `D4-${String(i + 1)}`));
  await tag(page, 'Salvia').click();
  await expect(total(page)).toHaveText('£6.20');
  await slipIsKept(page);
  await device.kill();
  device = await BrowserProcess.start(profile);
  ({ page } = device);
  await page.goto(`${till.origin}/counter`);
  await expect(total(page)).toHaveText('£6.20');

  // Any page opens from the device alone, also one that was never visited.
  await page.goto(`${till.origin}/books`);
  await page
    .getByRole('link', { name: /Pellow Green market/ })
    .first()
    .click();
  await expect(page.getByTestId('event-takings')).toHaveText('£57.50');
  await page.reload();
  await expect(page.getByTestId('event-takings')).toHaveText('£57.50');
  await expect(page.getByTestId('ties-up')).toContainText('No network');

  await till.startServer();
  await expect(standing(page)).toHaveText('All sent');
  expect(await numbersOnServer('D4')).toEqual(sold);
  await expect(page.getByTestId('ties-up')).toHaveText('Device and server agree on every figure.');
  const entries = await select<{ seq: number }>(
    till.database,
    "SELECT e.seq FROM daybook_entries e JOIN access_devices d ON d.device = e.device WHERE d.number = 4 AND d.business = (SELECT business FROM books_businesses WHERE name = 'Larkmoss Plants') ORDER BY e.position",
    [],
  );
  expect(entries.map(({ seq }) => seq)).toEqual(
    Array.from({ length: entries.length }, (_, i) => i + 1),
  );
  await device.kill();
});

test('the server is killed again and again while it is being sent to', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till);
  await openDrawer(page);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  // Reloaded past the service worker, the page finds its way back to it.
  const devtools = await context.newCDPSession(page);
  await Promise.all([
    page.waitForEvent('load'),
    devtools.send('Page.reload', { ignoreCache: true }),
  ]);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  const sold: string[] = [];
  for (let round = 0; round < 4; round += 1) {
    for (let n = 0; n < 3; n += 1) {
      sold.push(await sellOne(page, 'Sedum'));
      if (n === 1) await till.killServer();
    }
    await till.startServer();
  }
  await expect(standing(page)).toHaveText('All sent');
  expect(await numbersOnServer(sold[0]!.split('-')[0]!)).toEqual(sold);
  await context.close();
});

test('a browser becomes a till by itself once a network that carried nothing does', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin, serviceWorkers: 'block' });
  const page = await context.newPage();
  const lost = new Map([
    ['/api/enrol', 1],
    ['/api/sync/start', 1],
  ]);
  await page.route(/\/api\/(enrol|sync\/start)/, async (route) => {
    const { pathname } = new URL(route.request().url());
    const left = lost.get(pathname) ?? 0;
    lost.set(pathname, left - 1);
    await (left > 0 ? route.abort() : route.continue());
  });
  const address = till.enrolAddress();
  await page.goto(address);
  await expect(page.getByRole('alert')).toContainText('It is tried again by itself');
  await expect(page.getByLabel('Code')).toHaveValue(address.split('#')[1]!);
  await signIn(page, 'Ines');
  await expect(page.getByRole('heading', { name: 'Pellow Green market' })).toBeVisible();
  await expect(standing(page)).toHaveText('All sent');
  expect([...lost.values()].every((left) => left < 0)).toBe(true);
  await context.close();
});
