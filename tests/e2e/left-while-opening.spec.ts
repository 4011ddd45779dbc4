/** A page that is left before it has made the database must not keep the next one waiting. */
import { chromium, expect, test } from '@playwright/test';
import { chromiumOptions } from '../support/chromium';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(async () => {
  await till.end();
});

test('a page that is left at any moment of its start does not hold up the next one', async () => {
  // Playwright switches sleeping pages off by default; people's browsers have them.
  const browser = await chromium.launch({
    ...(await chromiumOptions()),
    ignoreDefaultArgs: ['--disable-back-forward-cache'],
  });
  try {
    for (let pause = 150; pause <= 550; pause += 50) {
      const context = await browser.newContext();
      const page = await context.newPage();
      await page.goto(till.origin, { waitUntil: 'commit' });
      await page.waitForTimeout(pause);
      await page.goto(`${till.origin}/stock`);
      await expect(page.getByRole('heading', { name: 'not a till yet' })).toBeVisible();
      await context.close();
    }
  } finally {
    await browser.close();
  }
});
