/** Bad input gets a clear message, and changes and loses nothing. */
import { expect, test, type Page } from '@playwright/test';
import { enrol, entryLine, openDrawer, tag, total, type } from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let page: Page;
test.beforeAll(async ({ browser }) => {
  till = await RunningTill.start();
  page = await browser.newPage({ baseURL: till.origin });
  await enrol(page, till);
  await openDrawer(page);
  await tag(page, 'Lavender').click();
});
test.afterAll(({ browser }) => till.end(browser));
test.afterEach(async () => {
  await page.goto('/counter');
  await expect(total(page)).toHaveText('£4.50');
});

const refused = [
  ['zebra', 'Nothing here is called “zebra”'],
  ['-3 fern', 'A quantity or amount below zero cannot be sold'],
  ['1.5 hosta', 'This is sold in whole pieces'],
  ['0.3855 crocus', 'has too many decimals'],
  ['4.505 ribbon', 'has too many decimals'],
  ['999999999 bow', 'more than one amount can be'],
  ['0 fern', 'The quantity must be above zero'],
] as const;
test('the entry line refuses, says why, and keeps what was typed', async () => {
  for (const [typed, says] of refused) {
    await type(page, typed);
    await expect(page.getByTestId('understood')).toContainText(says);
    await expect(entryLine(page)).toHaveValue(typed);
    await expect(entryLine(page)).toHaveAttribute('aria-invalid', 'true');
  }
});

test('a line refuses a quantity that is none', async () => {
  const line = page.getByRole('list', { name: 'Lines' }).getByRole('button', { name: /Lavender/ });
  await line.click();
  const quantity = page.getByLabel('Quantity of Lavender');
  for (const [typed, says] of [
    ['-2', 'must be above zero'],
    ['0', 'must be above zero'],
    ['two', '“two” is not a quantity'],
    ['1.5', 'sold in whole pieces'],
  ] as const) {
    await quantity.fill(typed);
    await quantity.press('Tab');
    await expect(page.getByRole('alert')).toContainText(says);
    await expect(quantity).toHaveValue(typed);
  }
});

test('cash that is no amount is refused', async () => {
  await page.goto('/counter/pay');
  const handed = page.getByLabel('Handed over');
  for (const [typed, says] of [
    ['-10', 'is below zero'],
    ['ten', 'is not an amount'],
    ['5.005', 'too many decimals'],
  ] as const) {
    await handed.fill(typed);
    await handed.press('Enter');
    await expect(page.getByRole('alert')).toContainText(says);
    await expect(handed).toHaveValue(typed);
    await expect(handed).toBeFocused();
  }
});

test('a count of coins that is none is refused', async () => {
  await page.goto('/drawer/count');
  await page.getByLabel('£5', { exact: true }).fill('3');
  const coins = page.getByLabel('20p', { exact: true });
  for (const typed of ['-1', '1.5', 'x']) {
    await coins.fill(typed);
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    await expect(page.getByRole('alert')).toContainText(
      '20p: type how many there are, a whole number from 0',
    );
    await expect(coins).toHaveValue(typed);
    await expect(page.getByLabel('£5', { exact: true })).toHaveValue('3');
  }
});

test('a code that enrols nothing says so, and the field keeps it', async ({ browser }) => {
  const other = await browser.newPage({ baseURL: till.origin });
  await other.goto('/enrol#WRONG-CODEX');
  await expect(other.getByRole('alert')).toContainText('This code is not known');
  await expect(other.getByLabel('Code')).toHaveValue('WRONG-CODEX');
  await other.goto('/counter');
  await expect(
    other.getByRole('heading', { name: 'This browser is not a till yet' }),
  ).toBeVisible();
  await other.close();
});

test('events and sales that are not there say so', async () => {
  await page.goto('/events/00000000-0000-7000-8000-000000000000');
  await expect(page.getByText('There is no such event on this device')).toBeVisible();
  await page.goto('/sales/nothing');
  await expect(page.getByText('There is no such sale.')).toBeVisible();
});
