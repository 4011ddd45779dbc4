import { chromium } from '@playwright/test';
import { RunningTill } from './support/running-till';
import { enrol, openDrawer, tag, payExactly } from './support/at-the-stall';
import { chromiumOptions } from './support/chromium';
const till = await RunningTill.start();
const browser = await chromium.launch(await chromiumOptions());
const only = process.argv.slice(2);
const shot = async (page: any, name: string) => {
  await page.waitForTimeout(900);
  await page.screenshot({ path: `/tmp/l-${name}.png` });
};
try {
  const c = await browser.newContext({
    baseURL: till.origin,
    reducedMotion: 'reduce',
    viewport: { width: 1280, height: 800 },
  });
  const page = await c.newPage();
  page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
  page.on('console', (m) => {
    if (m.type() === 'error') console.log('CONSOLE', m.text());
  });
  await enrol(page, till, 'Maren');
  await openDrawer(page).catch(() => {});
  const views: [string, () => Promise<void>][] = [
    [
      'season',
      async () => {
        await page.goto('/season');
      },
    ],
    [
      'stock',
      async () => {
        await page.goto('/stock');
      },
    ],
    [
      'lists',
      async () => {
        await page.goto('/stock/lists');
      },
    ],
    [
      'load',
      async () => {
        await page.goto('/stock/lists');
        await page.getByRole('link', { name: /Load list L/ }).click();
      },
    ],
    [
      'order',
      async () => {
        await page.goto('/stock/lists');
        await page.getByRole('link', { name: /Order O/ }).click();
      },
    ],
    [
      'transfer',
      async () => {
        await page.goto('/stock/lists');
        await page.getByRole('link', { name: /Transfer T/ }).click();
      },
    ],
    [
      'count',
      async () => {
        await page.goto('/stock/counts');
        await page.getByRole('link', { name: /Count of the/ }).click();
      },
    ],
    [
      'item',
      async () => {
        await page.goto('/stock');
        await page.getByLabel('Find an item').fill('lavender');
        await page.getByRole('link', { name: /Lavender/ }).click();
      },
    ],
    [
      'supply',
      async () => {
        await page.goto('/stock');
        await page.getByLabel('Find an item').fill('lavender');
        await page.getByRole('link', { name: /Lavender/ }).click();
        await page.getByRole('link', { name: /par levels/ }).click();
      },
    ],
    [
      'places',
      async () => {
        await page.goto('/stock/places');
      },
    ],
    [
      'neworder',
      async () => {
        await page.goto('/stock/lists/new?use=order');
      },
    ],
  ];
  for (const [name, open] of views) {
    if (only.length && !only.includes(name)) continue;
    await open().catch((e) => console.log(name, e.message.slice(0, 300)));
    await shot(page, name);
    await page.setViewportSize({ width: 390, height: 844 });
    await shot(page, name + '-p');
    await page.setViewportSize({ width: 1280, height: 800 });
  }
} finally {
  await browser.close();
  await till.end();
}
