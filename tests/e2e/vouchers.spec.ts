/** Vouchers, credit and what customers owe, from the counter to the evening. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import {
  go,
  goOffline,
  goOnline,
  lend,
  openDrawer,
  payExactly,
  signIn,
  standing,
  tag,
  useDrawer,
} from '../support/at-the-stall';
import { more, withCustomer } from '../support/at-the-slip';
import { back, openSale } from '../support/at-the-sale';
import { wayRow } from '../support/card-desk';
import { counter, oneStall, toPayment } from '../support/one-stall';

const device = oneStall();

async function sellVoucher(page: Page, amount: string, number: string): Promise<void> {
  await page.getByRole('button', { name: 'More …' }).click();
  await more(page).getByLabel('Voucher of').fill(amount);
  await more(page).getByLabel('Number').fill(number);
  await more(page)
    .getByRole('form', { name: 'Sell a voucher' })
    .getByRole('button', { name: 'Put it on' })
    .click();
}

async function spendVoucher(page: Page, number: string): Promise<void> {
  await toPayment(page);
  const row = wayRow(page, /^Voucher/);
  await row.getByRole('button', { name: /^Voucher/ }).click();
  await row.getByLabel('Number').fill(number);
  await expect(row.getByTestId('held-says')).toContainText('is left');
  await row.getByRole('button', { name: /^Take £/ }).click();
}

test('a voucher is sold, spent in part, and with no network on two devices at once: that is found', async ({
  browser,
}) => {
  const one = await device(browser, 'Ines');
  const two = await device(browser, 'Tobin');
  await openDrawer(one);
  await useDrawer(two);
  await counter(one);
  await counter(two);
  await sellVoucher(one, '10', 'shop-card 77');
  await expect(one.getByTestId('to-pay')).toHaveText('£10.00');
  await payExactly(one);
  // The same card cannot be sold twice.
  await sellVoucher(one, '5', 'SHOPCARD77');
  await expect(more(one).getByRole('alert')).toContainText('has been sold already');
  await more(one).getByRole('button', { name: 'Done' }).click();

  await tag(one, 'Lavender').click();
  await spendVoucher(one, 'SHOP card77');
  await expect(one.getByTestId('last-sale')).toContainText('£4.50');
  await expect(standing(one)).toHaveText('All sent');
  // The other device has heard of it.
  await tag(two, 'Lavender').click();
  await toPayment(two);
  const row = wayRow(two, /^Voucher/);
  await row.getByRole('button', { name: /^Voucher/ }).click();
  await row.getByLabel('Number').fill('NOSUCHCARD');
  await expect(row.getByTestId('held-says')).toContainText('No voucher NOSU CHCA RD');
  await row.getByLabel('Number').fill('shopcard77');
  await expect(row.getByTestId('held-says')).toContainText('£5.50 is left');
  for (const page of [one, two]) await goOffline(page);
  await row.getByRole('button', { name: 'Take £4.50' }).click();
  await expect(two.getByTestId('last-sale')).toContainText('£4.50');
  await tag(one, 'Lavender').click();
  await spendVoucher(one, 'SHOPCARD77');
  await expect(one.getByTestId('last-sale')).toContainText('£4.50');
  for (const page of [one, two]) {
    await goOnline(page);
    await expect(standing(page)).toHaveText('All sent');
  }

  await two.getByRole('link', { name: 'Set-up', exact: true }).click();
  await two.getByRole('link', { name: 'Vouchers', exact: true }).click();
  await two.getByRole('link', { name: 'SHOP CARD 77' }).click();
  const voucher = two.getByTestId('voucher');
  await expect(voucher).toContainText('More was spent than there was');
  await expect(voucher).toContainText('−£3.50');
  await expect(two.getByTestId('spent').getByRole('row')).toHaveCount(5);
  // The entry that took more than there was is a loose end.
  await two.getByRole('link', { name: 'Set-up', exact: true }).click();
  await two.getByRole('link', { name: 'Loose ends', exact: true }).click();
  await expect(two.getByText(/more was taken than was left/).first()).toBeVisible();
});

test('a customer buys on account, more than was agreed by right alone, and pays it in', async ({
  browser,
}) => {
  const page = await device(browser, 'Ines');
  await useDrawer(page);
  await counter(page);
  await tag(page, 'Lavender').click();
  await toPayment(page);
  const account = wayRow(page, /^On account/);
  await account.getByRole('button', { name: /^On account/ }).click();
  await expect(account.getByRole('button', { name: 'Take it' })).toBeDisabled();
  // Nothing was agreed with her.
  await account.getByRole('textbox', { name: 'Customer' }).fill('Ottil');
  await account.getByTestId('found-customers').getByRole('button').first().click();
  await expect(account.getByTestId('held-says')).toContainText('They owe nothing');
  await account.getByRole('button', { name: 'Let them owe £4.50' }).click();
  await page
    .getByRole('region', { name: 'Lend a right' })
    .getByRole('button', { name: /^Tobin/ })
    .click();
  await page.getByLabel('PIN of Tobin').fill('582914');
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(page.getByTestId('last-sale')).toContainText('£4.50');

  // What she owes stands beside her name, and is paid in with the next slip.
  await withCustomer(page, 'Ottilie');
  await expect(page.getByTestId('slip-said')).toContainText('Ottilie owes £4.50');
  await page.getByRole('button', { name: 'More …' }).click();
  const paying = more(page).getByRole('form', { name: 'Take a payment' });
  await paying.getByLabel('They pay in').fill('6');
  await paying.getByRole('button', { name: 'Put it on' }).click();
  await expect(page.getByTestId('to-pay')).toHaveText('£6.00');
  await payExactly(page);

  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Customers', exact: true }).click();
  await page
    .getByTestId('customers')
    .getByRole('link', { name: /Ottilie/ })
    .click();
  await expect(page.getByTestId('holds')).toContainText('£0.00');
  await expect(page.getByTestId('holds')).toContainText('£1.50');
  await page.getByRole('link', { name: 'Statement' }).click();
  await expect(page.getByTestId('statement').getByRole('row')).toHaveCount(4);
  await expect(page.getByTestId('closing')).toHaveText('£0.00');
  await page.getByRole('button', { name: 'Their credit' }).click();
  await expect(page.getByTestId('closing')).toHaveText('£1.50');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a table' }).click();
  const file = readFileSync(await (await saved).path(), 'utf8');
  expect(file).toContain('day,what,sale,amount,balance');
  expect(file).toMatch(/Paid in,D\d+-\d+,1\.50,1\.50/);

  // Her credit pays for a part; the money that came in is no takings.
  await counter(page);
  await withCustomer(page, 'Ottilie');
  await tag(page, 'Lavender').click();
  await toPayment(page);
  const credit = wayRow(page, /^Credit/);
  await credit.getByRole('button', { name: /^Credit/ }).click();
  await expect(credit.getByTestId('held-says')).toContainText('£1.50 is left');
  await credit.getByRole('button', { name: 'Take £1.50' }).click();
  await expect(page.getByTestId('left-to-pay')).toHaveText('£3.00');
  await page.getByRole('button', { name: /exact/ }).click();
  await expect(page.getByTestId('last-sale')).toContainText('£4.50');
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/');
  await page.getByRole('link', { name: 'The event’s page' }).click();
  await expect(page.getByTestId('paid-in')).toContainText('£16.00 of it was paid in');
  await expect(page.getByTestId('ties-up')).toHaveText('Device and server agree on every figure.');
});

test('what a customer pays in goes from their page to the counter, and is off what they owe', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await useDrawer(page);
  await go(page, '/customers');
  await page
    .getByTestId('customers')
    .getByRole('link', { name: /Corin Wray/ })
    .click();
  await expect(page.getByTestId('open-items')).toContainText('overdue');
  const owes = async (): Promise<number> =>
    Number(/Owes\s*£([\d.]+)/.exec((await page.getByTestId('holds').textContent()) ?? '')?.[1]);
  const before = await owes();
  await page.getByLabel('They pay in').fill('5');
  await page.getByRole('button', { name: 'To the counter' }).click();
  await expect(page.getByTestId('slip-said')).toContainText('Corin Wray owes');
  await expect(page.getByTestId('to-pay')).toHaveText('£5.00');
  await payExactly(page);
  await page.goBack();
  await expect.poll(owes).toBe(before - 5);
  // His credit pays for some of the rest, to the penny.
  const credit = page.getByRole('button', { name: /^Use £/ });
  const much = Number(/£([\d.]+)/.exec((await credit.textContent()) ?? '')?.[1]);
  await credit.click();
  await expect
    .poll(async () => Math.round((await owes()) * 100))
    .toBe(Math.round((before - 5 - much) * 100));
});

test('goods that come back are kept as credit, which pays for others with no network', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await useDrawer(page);
  await counter(page);
  await withCustomer(page, 'Hazel Birk');
  await tag(page, 'Rosemary').click();
  const number = await payExactly(page);
  await expect(standing(page)).toHaveText('All sent');
  await goOffline(page);
  await openSale(page, number);
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByLabel('How much of Rosemary').fill('1');
  await back(page).getByLabel('Given back').selectOption({ label: 'as credit of Hazel Birk' });
  await back(page).getByLabel('Why').fill('too tall');
  await back(page).getByRole('button', { name: 'Give back £5.85' }).click();
  await expect(page.getByTestId('returned')).toContainText('Rosemary');
  await counter(page);
  await withCustomer(page, 'Hazel Birk');
  await expect(page.getByTestId('slip-said')).toContainText('has £5.85 credit');
  await tag(page, 'Lavender').click();
  await toPayment(page);
  const credit = wayRow(page, /^Credit/);
  await credit.getByRole('button', { name: /^Credit/ }).click();
  await credit.getByRole('button', { name: 'Take £4.05' }).click();
  await expect(page.getByTestId('last-sale')).toContainText('£4.05');
  await goOnline(page);
  await expect(standing(page)).toHaveText('All sent');
});

test('a voucher is blocked and replaced by whoever may; the fresh one is spent', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await useDrawer(page);
  await counter(page);
  await sellVoucher(page, '20', '');
  await expect(page.getByRole('list', { name: 'Lines' })).toContainText(/V\w{3} \w{4} \w{4} \w\w/);
  await payExactly(page);
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Vouchers', exact: true }).click();
  await page.getByTestId('vouchers').getByRole('link', { name: /^V/ }).first().click();
  // Not the heading of the list that it is opened from.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^V\w{3} \w{4} /);
  const old = (await page.getByRole('heading', { level: 1 }).textContent()) ?? '';
  await page.getByRole('button', { name: 'Replace it by a fresh one' }).click();
  await expect(page.getByRole('alert')).toContainText('Say why');
  await page.getByLabel('Why').fill('lost at the fair');
  await page.getByRole('button', { name: 'Replace it by a fresh one' }).click();
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(old);
  await expect(page.getByTestId('voucher')).toContainText('£20.00');
  const fresh = (await page.getByRole('heading', { level: 1 }).textContent()) ?? '';
  await counter(page);
  await tag(page, 'Rosemary').click();
  await toPayment(page);
  const row = wayRow(page, /^Voucher/);
  await row.getByRole('button', { name: /^Voucher/ }).click();
  await row.getByLabel('Number').fill(old);
  await expect(row.getByTestId('held-says')).toContainText('is blocked: lost at the fair');
  await row.getByLabel('Number').fill(fresh.toLowerCase());
  await row.getByRole('button', { name: 'Take £6.50' }).click();
  await expect(page.getByTestId('last-sale')).toContainText('£6.50');
  // Its paper has the code that is scanned.
  await go(page, '/vouchers');
  await page.getByTestId('vouchers').getByRole('link', { name: fresh }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save it with its code as a PDF' }).click();
  expect(readFileSync(await (await saving).path(), 'latin1')).toMatch(/^%PDF-/);
  // It runs out: what is left is owed no more.
  await page.getByLabel('Why').fill('as it was printed');
  await page.getByLabel('Last day; empty is any').fill('2020-01-31');
  await page.getByRole('button', { name: 'Set its last day' }).click();
  await expect(page.getByTestId('voucher')).toContainText('Out of date');
  await page.getByRole('button', { name: 'It ran out: write £13.50 off …' }).click();
  await page.getByRole('button', { name: 'Write £13.50 off', exact: true }).click();
  await expect(page.getByTestId('voucher')).toContainText('Used up');
  await expect(page.getByTestId('spent')).toContainText('Ran out');
  // How long the next ones last, where nobody says otherwise.
  await go(page, '/ways');
  await page
    .getByTestId('ways')
    .getByRole('link', { name: /^Voucher/ })
    .click();
  await page.getByLabel('Usually lasts, in days').fill('365');
  await page.getByRole('button', { name: 'Save' }).click();
  await lend(page, 'Maren');
  await expect(page.getByRole('heading', { name: 'Ways to pay' })).toBeVisible();
  await counter(page);
  await page.getByRole('button', { name: 'More …' }).click();
  await expect(more(page).getByLabel('Last day, if any')).toHaveValue(/^\d{4}-\d\d-\d\d$/);
  await more(page).getByRole('button', { name: 'Done' }).click();
  // A helper may not.
  await go(page, '/who');
  await signIn(page, 'Oriel');
  await go(page, '/vouchers');
  await page.getByTestId('vouchers').getByRole('link', { name: fresh }).click();
  await page.getByLabel('Why').fill('because');
  await page.getByRole('button', { name: 'Block it' }).click();
  await expect(page.getByRole('region', { name: 'Lend a right' })).toBeVisible();
});
