/** People at one device: PINs, rights, lending, the lock. All of it with no network. */
import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import {
  countPieces,
  enrol,
  go,
  goOffline,
  openDrawer,
  PINS,
  sellOne,
  signIn,
  slipIsKept,
  standing,
  tag,
  total,
  useDrawer,
} from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let context: BrowserContext;
let page: Page;
test.beforeAll(async ({ browser }) => {
  till = await RunningTill.start();
  context = await browser.newContext({ baseURL: till.origin });
  page = await context.newPage();
  await enrol(page, till, 'Maren');
  await openDrawer(page);
});
test.afterAll(({ browser }) => till.end(browser));

/** By the awning, as at the stall. */
async function changeTo(name: string, pin = PINS[name] ?? ''): Promise<void> {
  await page.getByTitle('Who is selling').click();
  await signIn(page, name, pin);
  await expect(page.getByTitle('Who is selling')).toHaveText(name);
}

test('change of person is two taps and a PIN, with no network, and sales say who', async () => {
  await goOffline(page);
  await tag(page, 'Viola').click();
  await changeTo('Oriel');
  await expect(page.getByTitle('Who is selling')).toHaveText('Oriel');
  await page.goto('/counter');
  await expect(total(page)).not.toHaveText('£0.00');
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await sellOne(page, 'Lavender');
  await changeTo('Maren');
  await go(page, '/people');
  await page.getByRole('link', { name: 'Oriel helper' }).click();
  await expect(page.getByTestId('rang-up')).toContainText('2 sales today');
});

test('wrong PINs cost more and more time, also after a reload, and only for that person', async () => {
  const says = page.getByRole('alert');
  // Time stands still where it is told to, so that none of the waiting is over sooner than it is looked at.
  await page.addInitScript(() => {
    const now = Date.now.bind(Date);
    Date.now = () => Number(localStorage.getItem('stands at') ?? now());
  });
  const standAt = (later: number): Promise<void> =>
    page.evaluate((by) => localStorage.setItem('stands at', String(Date.now() + by)), later);
  await page.goto('/who');
  await standAt(0);
  for (const pin of ['1904', '1905']) {
    await signIn(page, 'Tobin', pin);
    await expect(says).toHaveText('That is not the PIN. Try again.');
    await page.getByRole('button', { name: 'Back' }).click();
  }
  await signIn(page, 'Tobin', '1906');
  await expect(says).toHaveText(/^That is not the PIN\. Try again in \d seconds\.$/);
  await context.setOffline(false);
  await page.reload();
  // The right one, but too early: it is not even looked at.
  await page.getByRole('button', { name: /^Tobin/ }).click();
  await page.getByLabel('PIN of Tobin').fill(PINS['Tobin']!);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(says).toHaveText(/^Too many wrong ones\. Try again in/);
  await expect(page.getByTitle('Who is selling')).toHaveText('Maren');
  await page.getByRole('button', { name: 'Back' }).click();
  await signIn(page, 'Ines');
  await expect(page.getByTitle('Who is selling')).toHaveText('Ines');
  await changeTo('Maren');
  await standAt(6000);
  await changeTo('Tobin');
  await expect(page.getByTitle('Who is selling')).toHaveText('Tobin');
  await page.evaluate(() => localStorage.removeItem('stands at'));
});

test('who is asked for a PIN is asked until it is on a slow disk that they sell', async ({
  browser,
}) => {
  const slow = await browser.newContext({ baseURL: till.origin });
  const page = await slow.newPage();
  await enrol(page, till, 'Oriel');
  await page.addInitScript(() => {
    type Put = (this: IDBObjectStore, value: unknown, key?: IDBValidKey) => IDBRequest<IDBValidKey>;
    const put = Reflect.get(IDBObjectStore.prototype, 'put') as Put;
    IDBObjectStore.prototype.put = function (value: unknown, key?: IDBValidKey) {
      const request = put.call(this, value, key);
      if (!JSON.stringify([value, key]).includes('"choices"')) return request;
      const until = Date.now() + 3000;
      // What is still asked for keeps it from being on the disk.
      const ask = (): void => {
        if (Date.now() < until) this.count().addEventListener('success', ask);
      };
      request.addEventListener('success', ask);
      return request;
    };
  });
  await page.goto('/who');
  await signIn(page, 'Maren');
  await go(page, '/people');
  await expect(page.getByTitle('Who is selling')).toHaveText('Maren');
  await slow.close();
});

test('a helper changes a colleague only with a right that somebody lends, and it says so', async () => {
  await changeTo('Oriel');
  await go(page, '/people');
  await page.getByRole('link', { name: 'Ines helper' }).click();
  await page.getByLabel('Discount that needs no right').fill('10');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Oriel may not change goods, prices')).toBeVisible();
  // Tobin runs the stall but may not change the set-up, so he has nothing to lend.
  await expect(page.getByRole('button', { name: 'Tobin', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Maren', exact: true }).click();
  await page.getByLabel('PIN of Maren').fill('1111');
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(page.getByRole('alert').first()).toContainText('That is not the PIN');
  await page.getByLabel('PIN of Maren').fill(PINS['Maren']!);
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(page).toHaveURL(/\/people$/);
  await go(page, '/acts');
  await expect(page.getByRole('listitem').first()).toContainText('Person set up: Ines');
  await expect(page.getByRole('listitem').first()).toContainText(
    'Oriel, with the right lent by Maren',
  );
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/set-up');
  await expect(page.getByText('This device knows of none')).toBeVisible();
});

test('somebody new gets a PIN that nobody else has, and another device knows them', async ({
  browser,
}) => {
  await changeTo('Maren');
  await go(page, '/people/new');
  await page.getByLabel('Name', { exact: true }).fill('ines');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('alert')).toContainText('There is a ines already');
  await page.getByLabel('Name', { exact: true }).fill('Jory');
  for (const [pin, says] of [
    ['4444', 'do not repeat or count'],
    [PINS['Ines']!, 'Somebody else has this PIN'],
    ['12', 'four to eight figures'],
  ] as const) {
    await page.getByLabel(/^PIN/).fill(pin);
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('alert')).toContainText(says);
  }
  await page.getByLabel(/^PIN/).fill('80917');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('link', { name: /^Jory/ })).toBeVisible();
  await expect(standing(page)).toHaveText('All sent');

  const other = await browser.newContext({ baseURL: till.origin });
  const second = await other.newPage();
  await second.goto(till.enrolAddress());
  await signIn(second, 'Jory', '80917');
  await expect(second.getByTitle('Who is selling')).toHaveText('Jory');
  await other.close();
});

test('an untouched device locks, the slip stays, and a reload does not open it', async () => {
  await changeTo('Maren');
  await go(page, '/set-up');
  await page.getByLabel(/^Ask again who is there/).selectOption('2');
  await expect(page.getByText('Other devices follow')).toBeVisible();
  await page.goto('/counter');
  await tag(page, 'Geranium').click();
  const before = await total(page).textContent();
  await slipIsKept(page);
  await page.clock.install();
  await page.goto('/counter');
  await expect(total(page)).toHaveText(before!);
  await page.clock.fastForward('02:30');
  await expect(page.getByRole('heading', { name: 'Who is selling?' })).toBeVisible();
  await expect(page.getByText('The slip at the counter stays')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Who is selling?' })).toBeVisible();
  await expect(tag(page, 'Geranium')).toHaveCount(0);
  await signIn(page, 'Ines');
  await expect(total(page)).toHaveText(before!);
});

test('who may not see what should be in the drawer counts it blind', async ({ browser }) => {
  const other = await browser.newContext({ baseURL: till.origin });
  const device = await other.newPage();
  await enrol(device, till, 'Oriel');
  await useDrawer(device);
  await device.goto('/drawer/count');
  await expect(device.getByTestId('expected')).toHaveCount(0);
  await countPieces(device, { '£10': 3 });
  await expect(device.getByText('counted so far')).toBeVisible();
  await device.getByRole('button', { name: 'Show what should be in it' }).click();
  await device.getByRole('button', { name: 'Tobin', exact: true }).click();
  await device.getByLabel('PIN of Tobin').fill(PINS['Tobin']!);
  await device.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(device.getByTestId('expected')).toHaveText(/^\d/);
  await device.reload();
  await expect(device.getByTestId('expected')).toHaveCount(0);
  await countPieces(device, { '£10': 3 });
  await device.getByRole('button', { name: 'Close the drawer' }).click();
  await expect(device.getByTestId('final-read')).toContainText(
    'counted without seeing what should be in it',
  );
  await other.close();
});
