/** The application on the device: all of its parts come, and a new version is taken between sales, never during one. */
import { cpSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { enrol, openDrawer, tag, total } from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start(true);
});
test.afterAll(({ browser }) => till.end(browser));

test('a slip that is open keeps the version it was begun with', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till);
  await openDrawer(page);
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await tag(page, 'Lavender').click();
  await expect(total(page)).toHaveText('£4.50');

  await till.deployNewVersion();
  let loads = 0;
  page.on('load', () => (loads += 1));
  await page.evaluate(async () => {
    const registration = await navigator.serviceWorker.ready;
    await registration.update();
  });
  await expect(page.getByText('It is taken after this sale.')).toBeVisible();
  await page.getByRole('button', { name: /Take payment/ }).click();
  await expect(page.getByTestId('left-to-pay')).toHaveText('£4.50');
  expect(loads).toBe(0);

  await page.getByRole('button', { name: /exact/ }).click();
  await page.getByRole('button', { name: 'Update now' }).click();
  await expect(page.getByText('A new version has been taken')).toBeVisible();
  expect(loads).toBe(1);
  await expect(page.getByTestId('last-sale')).toHaveText('D4-1, £4.50');
  await context.close();
});

test('a part that does not come is asked for again, until all of it opens with no network', async ({
  browser,
}) => {
  const folder = join(till.build, 'client/_app/immutable/assets');
  const away = mkdtempSync(join(tmpdir(), 'stall-till-away-'));
  const parts = readdirSync(folder).filter((name) => name.includes('.wasm'));
  const move = async (from: string, to: string): Promise<void> => {
    for (const part of parts) {
      cpSync(join(from, part), join(to, part));
      rmSync(join(from, part));
    }
    // Which files there are it looks at when it starts.
    await till.killServer();
    await till.startServer();
  };
  await move(folder, away);
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till);
  const kept = () =>
    page.evaluate(async () => {
      const all = await caches.keys();
      const counts = all.map(async (key) => (await (await caches.open(key)).keys()).length);
      return Math.max(0, ...(await Promise.all(counts)));
    });
  const isLookedAfter = () => page.evaluate(() => navigator.serviceWorker.controller !== null);
  let before = -1;
  await expect
    .poll(
      async () => {
        const now = await kept();
        const isStill = now > 0 && now === before;
        before = now;
        return isStill;
      },
      { intervals: [2000] },
    )
    .toBe(true);
  expect(await isLookedAfter()).toBe(false);

  await move(away, folder);
  await expect.poll(isLookedAfter).toBe(true);
  expect(await kept()).toBeGreaterThan(before);
  await context.setOffline(true);
  await page.goto('/season');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await context.close();
  rmSync(away, { recursive: true });
});
