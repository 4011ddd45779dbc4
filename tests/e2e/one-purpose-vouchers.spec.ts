/** Vouchers for goods of one tax: set up, sold with their tax, spent without it, back on them when goods come back. */
import { expect, test, type Page } from '@playwright/test';
import { go, lend, openDrawer, payExactly, standing, tag, type } from '../support/at-the-stall';
import { more } from '../support/at-the-slip';
import { back, openSale, returned } from '../support/at-the-sale';
import { wayRow } from '../support/card-desk';
import { counter, oneStall, toPayment } from '../support/one-stall';

const device = oneStall();

/** The taxes on the receipt of a sale, whose page is opened. */
async function taxesOn(page: Page, number: string): Promise<string> {
  await openSale(page, number);
  return await page.getByTestId('receipt').innerText();
}

const lastNumber = async (page: Page): Promise<string> =>
  /D\d+-\d+/.exec(await page.getByTestId('last-sale').innerText())![0];

async function voucherPage(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Vouchers', exact: true }).click();
  await page.getByRole('link', { name: 'PLAN T500' }).click();
}

test('a voucher for goods of one tax is taxed when it is sold and not when it is spent', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await go(page, '/ways');
  await page
    .getByTestId('ways')
    .getByRole('link', { name: /^Voucher/ })
    .click();
  await page
    .getByLabel('Vouchers are for')
    .selectOption({ label: 'goods with VAT 20 %, taxed when sold' });
  await page.getByRole('button', { name: 'Save' }).click();
  await lend(page, 'Maren');
  await expect(page.getByRole('heading', { name: 'Ways to pay' })).toBeVisible();

  await openDrawer(page);
  await counter(page);
  await page.getByRole('button', { name: 'More …' }).click();
  await expect(more(page).getByTestId('voucher-tax')).toHaveText(
    'Sold with VAT 20 %, for goods with that tax.',
  );
  await more(page).getByLabel('Voucher of').fill('12');
  await more(page).getByLabel('Number').fill('plant500');
  await more(page)
    .getByRole('form', { name: 'Sell a voucher' })
    .getByRole('button', { name: 'Put it on' })
    .click();
  await payExactly(page);
  expect(await taxesOn(page, await lastNumber(page))).toMatch(/VAT 20 %[^\n]*of 10\.00\s+2\.00/);
  await counter(page);

  // Seeds are zero-rated: the voucher is not for them, and pays for the lavender alone.
  await tag(page, 'Lavender').click();
  await type(page, '2 seed');
  await toPayment(page);
  const row = wayRow(page, /^Voucher/);
  await row.getByRole('button', { name: /^Voucher/ }).click();
  await row.getByLabel('Number').fill('PLANT500');
  await row.getByRole('button', { name: 'Take £4.50' }).click();
  await expect(page.getByTestId('left-to-pay')).toContainText('£4.80');
  await row.getByRole('button', { name: /^Voucher/ }).click();
  await row.getByLabel('Number').fill('PLANT500');
  await expect(row.getByTestId('held-says')).toContainText('nothing that is left to pay here');
  await page.getByRole('button', { name: /^£4\.80 exact/ }).click();
  const number = await lastNumber(page);
  await expect(standing(page)).toHaveText('All sent');
  // What the voucher paid lowers the tax to nothing.
  expect(await taxesOn(page, number)).toMatch(/VAT 20 %[^\n]*of 0\.00\s+0\.00/);

  await voucherPage(page);
  await expect(page.getByTestId('voucher')).toContainText('£7.50');
  await expect(page.getByTestId('voucher')).toContainText(
    'It was sold with VAT 20 %, for goods with that tax. £1.25 of what is left is tax',
  );

  // The lavender comes back: on the voucher, and no money is given for it.
  await openSale(page, number);
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByLabel('How much of Lavender').fill('1');
  await back(page).getByLabel('Why').fill('it wilted');
  await expect(back(page).getByTestId('promoted')).toContainText('£4.50');
  // No money is given for it, by whatever way.
  await expect(back(page).getByLabel('Given back')).toHaveCount(0);
  await back(page).getByRole('button', { name: 'Take it back' }).click();
  await expect(returned(page)).toContainText('£4.50 went back as it was paid');
  await voucherPage(page);
  await expect(page.getByTestId('voucher')).toContainText('£12.00');
  await expect(page.getByTestId('voucher')).toContainText('£2.00 of what is left is tax');
  // In the evening the tax is due, and in no takings.
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/season');
  await page.getByTestId('next').getByRole('link', { name: 'Pellow Green market' }).click();
  await page.getByRole('link', { name: 'Settle …' }).click();
  await expect(page.getByTestId('prepaid-tax')).toContainText(
    '£2.00 of it is of vouchers that were sold here with their tax',
  );
  // All of it was sold by one device that heard of everything: nothing is doubted.
  await expect(standing(page)).toHaveText('All sent');
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Loose ends', exact: true }).click();
  await expect(page.getByText(/PLAN T500|tax that goes with/)).toHaveCount(0);
});
