/** A new device on a network that loses one part of the application: it becomes a till all the same, by itself. */
import { expect, test } from '@playwright/test';
import { enrol, signIn } from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

const PARTS: readonly (readonly [what: string, address: RegExp])[] = [
  ['the script that begins', /\/entry\/start\./],
  ['the application itself', /\/entry\/app\./],
  ['its styles', /\/assets\/.*\.css$/],
  ['what its first page needs', /\/nodes\/0\./],
  ['what looks for a device that was thrown away', /\/workers\/mirror-worker/],
];

for (const [what, address] of PARTS)
  test(`${what} is lost once, and comes again`, async ({ browser }) => {
    const context = await browser.newContext({ baseURL: till.origin });
    const page = await context.newPage();
    let times = 0;
    await context.route(address, async (route) => {
      times += 1;
      await (times === 1 ? route.abort('connectionreset') : route.continue());
    });
    await enrol(page, till);
    expect(times).toBeGreaterThan(1);
    await context.close();
  });

test('a page that does not come while one goes to it says so, and comes once there is network', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin, serviceWorkers: 'block' });
  const page = await context.newPage();
  await enrol(page, till);
  let isLost = true;
  await context.route(/\/_app\/immutable\/|\/healthz/, (route) =>
    isLost ? route.abort('internetdisconnected') : route.continue(),
  );
  await page.evaluate(() => sessionStorage.clear());
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Waiting for the network' })).toBeVisible();
  expect(new URL(page.url()).pathname).toBe('/find');
  isLost = false;
  await expect(page.getByRole('heading', { name: 'Find', exact: true })).toBeVisible();
  // One that comes with nothing of what it needs says so as well.
  isLost = true;
  await page.goto('/find');
  await expect(page.getByRole('status')).toContainText('a part of the till was lost on its way');
  isLost = false;
  await expect(page.getByRole('heading', { name: 'Find', exact: true })).toBeVisible();
  await context.close();
});

test('one that takes long says what is on its way', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  let comes = (): void => undefined;
  const isHere = new Promise<void>((resolve) => (comes = resolve));
  await context.route(/\/entry\/app\./, async (route) => {
    await isHere;
    await route.continue();
  });
  await page.goto(till.enrolAddress());
  const said = page.getByText('The till is on its way over the network.');
  await expect(said).toBeVisible();
  comes();
  await signIn(page, 'Ines');
  await expect(said).toHaveCount(0);
  await context.close();
});

test('what a button needs first may be lost: it says so, and does it at the next press', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin, serviceWorkers: 'block' });
  const page = await context.newPage();
  await enrol(page, till, 'Maren');
  await page.goto('/stock/places');
  const button = page.getByRole('button', { name: 'Labels to print' });
  await expect(button).toBeVisible();
  await context.route(/\/_app\/immutable\//, (route) => route.abort('connectionreset'));
  await button.click();
  const said = page.getByText('a part of the till did not come over the network');
  await expect(said).toBeVisible();
  // What is said stays as long as the pointer is on it, and it may be over the button.
  await page.mouse.move(0, 700);
  await expect(said).toHaveCount(0);
  await context.unroute(/\/_app\/immutable\//);
  const saving = page.waitForEvent('download');
  await button.click();
  expect((await saving).suggestedFilename()).toBe('labels-of-places.pdf');
  await context.close();
});
