/** Cash in between, at the stall: paid out with its bill, to the safe, a blind second count, a bag for the bank. */
import { expect, test, type Page } from '@playwright/test';
import { countPieces, enrol, go, openDrawer, PINS, sellOne, signIn } from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

/** A picture of 1 × 1, as a camera would hand one over. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const does = (page: Page, name: string) =>
  page.getByRole('group', { name: 'What happens' }).getByRole('button', { name, exact: true });

test('cash in and out ties up with the count, a bag and the next float', async ({ browser }) => {
  const page = await browser.newPage({ baseURL: till.origin });
  await enrol(page, till, 'Maren');
  await openDrawer(page);
  await sellOne(page, 'Lavender');

  await test.step('a bill is paid from the drawer, with its picture', async () => {
    await go(page, '/drawer');
    await expect(page.getByTestId('should-be')).toHaveText('84.50');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByText('Type how much, such as 12.50.')).toBeVisible();
    await page.getByLabel('Amount').fill('12.50');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByText(/Say what for/)).toBeVisible();
    await page.getByLabel('What for').fill('diesel');
    await page
      .getByLabel('A picture of the bill')
      .setInputFiles({ name: 'bill.png', mimeType: 'image/png', buffer: PICTURE });
    await expect(page.getByAltText('The bill', { exact: true })).toBeVisible();
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByTestId('cash-moves')).toContainText('for travel: diesel');
    await expect(page.getByTestId('should-be')).toHaveText('72.00');
    await page.getByRole('button', { name: 'The bill', exact: true }).click();
    await expect(page.getByAltText('The bill for diesel')).toBeVisible();
  });

  await test.step('some goes to the safe and into a bag, which is opened again', async () => {
    await does(page, 'To the safe').click();
    await page.getByLabel('Amount').fill('20');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByTestId('should-be')).toHaveText('52.00');
    await does(page, 'Into a bag for the bank').click();
    await page.getByLabel('Amount').fill('10');
    await page.getByLabel('Number on the bag').fill('B-12');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByTestId('bags')).toContainText('B-12');
    await expect(page.getByTestId('should-be')).toHaveText('42.00');
    await page.getByTestId('bags').getByRole('button', { name: 'Open it again' }).click();
    await expect(page.getByTestId('bags')).toHaveCount(0);
    await expect(page.getByTestId('should-be')).toHaveText('42.00');
  });

  await test.step('a helper notes what is paid in, and needs the right for what goes out', async () => {
    await go(page, '/who');
    await signIn(page, 'Oriel');
    await go(page, '/drawer');
    await expect(page.getByTestId('should-be')).toHaveCount(0);
    await does(page, 'Paid in').click();
    await page.getByLabel('Amount').fill('5');
    await page.getByLabel('What for').fill('found under the table');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByTestId('cash-moves')).toContainText('found under the table');
    await does(page, 'To the safe').click();
    await page.getByLabel('Amount').fill('7');
    await page.getByRole('button', { name: 'Note it' }).click();
    await expect(page.getByText('may not take cash out')).toBeVisible();
    await page.getByRole('button', { name: 'Maren' }).click();
    await page.getByLabel('PIN of Maren').fill(PINS['Maren']!);
    await page.getByRole('button', { name: 'Allow it this once' }).click();
    await expect(page.getByTestId('cash-moves').getByText('7.00')).toBeVisible();
    await go(page, '/who');
    await signIn(page, 'Maren');
  });

  await test.step('drawers are set to be counted blind, and twice when far off', async () => {
    await go(page, '/set-up');
    const rules = page.getByRole('region', { name: 'Counting drawers' });
    await rules.getByText('Nobody sees what should be').click();
    await rules.getByLabel('Count once more when it is off by more than').fill('two');
    await rules.getByRole('button', { name: 'Save' }).click();
    await expect(rules.getByText('“two” is no amount')).toBeVisible();
    await rules.getByLabel('Count once more when it is off by more than').fill('1');
    await rules.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('Saved. Other devices follow')).toBeVisible();
  });

  await test.step('the count is blind; far off it is counted again, and cash is bagged', async () => {
    // 42.00 + 5.00 − 7.00 should be in it.
    await go(page, '/drawer/count');
    await expect(page.getByTestId('expected')).toHaveCount(0);
    await countPieces(page, { '£20': 1, '£10': 1 });
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    await expect(page.getByTestId('count-again')).toBeVisible();
    await countPieces(page, { '£20': 1, '£10': 1, '£5': 1, '£1': 4, '50p': 1 });
    await page.getByLabel('Stays for the next float').fill('20');
    await page.getByLabel('Goes into a bag for the bank').fill('15');
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    await expect(page.getByText('Type the number that stands on the bag.')).toBeVisible();
    await page.getByLabel('Number on the bag').fill('B-13');
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    const read = page.getByTestId('final-read');
    await expect(read).toContainText('£0.50 short');
    await expect(read.getByRole('row', { name: /Counted first/ })).toContainText('30.00');
    await expect(read.getByRole('row', { name: /In bag B-13/ })).toContainText('15.00');
    await expect(read.getByRole('row', { name: /To the safe/ })).toContainText('4.50');
  });

  await test.step('the next float knows what stayed; the bag waits for the bank', async () => {
    await go(page, '/drawer/open');
    await expect(page.getByText('£20.00 stayed for it')).toBeVisible();
    await go(page, '/drawer');
    await expect(page.getByTestId('bags')).toContainText('B-13');
  });
});
