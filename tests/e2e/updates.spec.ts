/** A new version is taken between sales, never during one. */
import { expect, test } from '@playwright/test';
import { enrol, openDrawer, tag, total } from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start(true);
});
test.afterAll(() => till.end());

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
