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
test.afterAll(() => till.end());
test.beforeEach(() => page.goto('/counter'));
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
for (const [typed, says] of refused) {
  test(`the entry line refuses “${typed}”`, async () => {
    await type(page, typed);
    await expect(page.getByTestId('understood')).toContainText(says);
    await expect(entryLine(page)).toHaveValue(typed);
    await expect(entryLine(page)).toHaveAttribute('aria-invalid', 'true');
  });
}

for (const [typed, says] of [
  ['-2', 'must be above zero'],
  ['0', 'must be above zero'],
  ['two', '“two” is not a quantity'],
  ['1.5', 'sold in whole pieces'],
] as const) {
  test(`a line refuses the quantity “${typed}”`, async () => {
    await page
      .getByRole('list', { name: 'Lines' })
      .getByRole('button', { name: /Lavender/ })
      .click();
    await page.getByLabel('Quantity of Lavender').fill(typed);
    await page.getByLabel('Quantity of Lavender').press('Tab');
    await expect(page.getByRole('alert')).toContainText(says);
    await expect(page.getByLabel('Quantity of Lavender')).toHaveValue(typed);
  });
}

for (const [typed, says] of [
  ['-10', 'is below zero'],
  ['ten', 'is not an amount'],
  ['5.005', 'too many decimals'],
] as const) {
  test(`cash of “${typed}” is refused`, async () => {
    await page.goto('/counter/pay');
    await page.getByLabel('Handed over').fill(typed);
    await page.getByLabel('Handed over').press('Enter');
    await expect(page.getByRole('alert')).toContainText(says);
    await expect(page.getByLabel('Handed over')).toHaveValue(typed);
    await expect(page.getByLabel('Handed over')).toBeFocused();
  });
}

for (const typed of ['-1', '1.5', 'x']) {
  test(`a count of “${typed}” coins is refused`, async () => {
    await page.goto('/drawer/count');
    await page.getByLabel('£5', { exact: true }).fill('3');
    await page.getByLabel('20p', { exact: true }).fill(typed);
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    await expect(page.getByRole('alert')).toContainText(
      '20p: type how many there are, a whole number from 0',
    );
    await expect(page.getByLabel('20p', { exact: true })).toHaveValue(typed);
    await expect(page.getByLabel('£5', { exact: true })).toHaveValue('3');
  });
}

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
  await expect(page.getByText('This sale is not on this device')).toBeVisible();
});
