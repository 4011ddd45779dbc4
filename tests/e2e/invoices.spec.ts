/** Invoices: written by hand and of a sale, numbered when there is network, mailed, paid, credited, and what came back. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { back, openSale, returned } from '../support/at-the-sale';
import { putCustomer, more } from '../support/at-the-slip';
import {
  goOffline,
  goOnline,
  lastSale,
  openDrawer,
  payExactly,
  standing,
  tag,
  useDrawer,
} from '../support/at-the-stall';
import { wayRow } from '../support/card-desk';
import { counter, oneStall, toPayment } from '../support/one-stall';

const device = oneStall();

const stands = (page: Page) => page.getByTestId('stands');
const number = (page: Page) => page.getByTestId('invoice-number');
const list = (page: Page) => page.getByTestId('invoices');

async function toInvoices(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Books', exact: true }).click();
  await page.getByRole('link', { name: 'Invoices', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Invoices', level: 1 })).toBeVisible();
}

test('an owner says how invoices are headed; what is wrong is said beside it', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await openDrawer(page);
  await toInvoices(page);
  // One is overdue since the autumn, and one of a sale is still to come.
  await expect(page.getByTestId('ages')).toContainText('1–30 days 54.00');
  await page.getByRole('link', { name: 'How invoices are headed' }).click();
  const form = page.getByRole('form', { name: 'How invoices are headed' });
  await form.getByLabel('Account (IBAN)').fill('GB33 BUKB 2020 1555 5555 56');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText(/The figures of “GB33 .*” do not check/)).toBeVisible();
  await form.getByLabel('Account (IBAN)').fill('GB33 BUKB 2020 1555 5555 55');
  await form.getByLabel('Days to pay').fill('30');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Invoices are headed so from now on.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Invoices', level: 1 })).toBeVisible();
});

test('whoever is overdue is reminded in the vendor’s words, once', async ({ browser }) => {
  const page = await device(browser, 'Maren');
  await toInvoices(page);
  await page.getByRole('link', { name: 'How invoices are headed' }).click();
  const form = page.getByRole('form', { name: 'Reminders' });
  const first = form.getByRole('group', { name: 'Reminder 1' });
  await first.getByLabel('Words').fill('Dear {nmae}');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(first.getByText('{nmae} is filled in by nothing', { exact: false })).toBeVisible();
  await first.getByLabel('Words').fill('Dear {name}, {left} of {number} is late.');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Reminders are worded so from now on.')).toBeVisible();
  await toInvoices(page);
  const due = page.getByTestId('remind');
  await expect(due).toContainText(/First reminder of R\d{4}-0001 to Wilma Thorne/);
  const letters = device.till().mailbox.letters.length;
  await due.getByRole('button', { name: 'Send it' }).click();
  await expect(due).toHaveCount(0);
  await expect.poll(() => device.till().mailbox.letters.length).toBe(letters + 1);
  expect(device.till().mailbox.letters[0]?.text).toContain('Dear Wilma Thorne, £54.00 of R');
  await list(page)
    .getByRole('link', { name: /-0001$/ })
    .click();
  await expect(page.getByTestId('reminded')).toContainText('First reminder');
  // On the customer's page each is one debt, whatever lines it has.
  await page.getByRole('link', { name: 'Wilma Thorne' }).click();
  const open = page.getByTestId('open-items').getByRole('row');
  await expect(open.filter({ hasText: '-0001' })).toContainText('overdue');
  await expect(open.filter({ hasText: '-0002' })).toHaveCount(1);
  await expect(open.filter({ hasText: '-0002' })).toContainText('125.50');
});

test('one is written by hand, has the next number, is mailed with its files, and credited in part', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await useDrawer(page);
  await toInvoices(page);
  await page.getByRole('link', { name: 'Write an invoice' }).click();
  await expect(page.getByRole('heading', { name: 'Invoice', level: 1 })).toBeVisible();
  await page.getByRole('button', { name: 'Make the invoice' }).click();
  await expect(page.getByText(/^Say whom it is to/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Customer' }).click();
  await page.getByRole('option', { name: /^Hazel Birk/ }).click();
  await expect(page.getByLabel('Company')).toHaveValue('Sluice Allotments');
  await page.getByLabel('To be paid by').fill('2020-01-01');
  await page.getByRole('textbox', { name: 'What', exact: true }).fill('Hedge for the plots');
  await page.getByRole('textbox', { name: 'Many', exact: true }).fill('20');
  await page.getByLabel('Each, tax in it').fill('3.60');
  await page.getByRole('button', { name: 'Make the invoice' }).click();
  await expect(page.getByText(/^It cannot be due before its own day/)).toBeVisible();
  await page.getByLabel('To be paid by').fill('2030-01-31');
  await page.getByLabel('Their reference').fill('Plot 9 / 2030');
  await expect(page.getByTestId('invoice-sums')).toContainText('£72.00');
  await page.getByRole('button', { name: 'Make the invoice' }).click();
  await expect(number(page)).toHaveText(/^Invoice R\d{4}-0007$/);
  await expect(stands(page)).toHaveText('to pay, £72.00 left');
  await expect(page.getByTestId('invoice')).toContainText('Plot 9 / 2030');

  const pdf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a PDF' }).click();
  const paper = readFileSync(await (await pdf).path());
  expect(paper.subarray(0, 5).toString()).toBe('%PDF-');
  const ubl = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as UBL' }).click();
  const xml = readFileSync(await (await ubl).path(), 'utf8');
  expect(xml).toMatch(/<cbc:PayableAmount currencyID="GBP">72\.00</);
  expect(xml).toContain('<cbc:RegistrationName>Sluice Allotments</cbc:RegistrationName>');
  expect(xml).toContain('<cbc:BuyerReference>Plot 9 / 2030</cbc:BuyerReference>');

  const letters = device.till().mailbox.letters.length;
  await page.getByRole('button', { name: 'Mail it', exact: true }).click();
  await expect(page.getByText('It is mailed as soon as there is network.')).toBeVisible();
  await expect.poll(() => device.till().mailbox.letters.length).toBe(letters + 1);
  expect(device.till().mailbox.letters[0]?.text).toContain('To pay: £72.00');
  expect(device.till().mailbox.letters[0]?.subject).toMatch(/^Invoice R\d{4}-0007 from Larkmoss/);

  const credit = page.getByRole('form', { name: 'Credit note' });
  await credit.getByLabel('How many of Hedge for the plots').fill('21');
  await credit.getByLabel('Why').fill('Five had died');
  await credit.getByRole('button', { name: 'Make the credit note' }).click();
  await expect(credit.getByText('That is more than is left of it to credit.')).toBeVisible();
  await credit.getByLabel('How many of Hedge for the plots').fill('5');
  await credit.getByRole('button', { name: 'Make the credit note' }).click();
  await expect(page.getByTestId('credits')).toContainText(/R\d{4}-0008\s*Five had died\s*18\.00/);
  await expect(stands(page)).toHaveText('to pay, £54.00 left');

  // It is paid at the counter, in any way, and is done with.
  await page.getByRole('button', { name: 'Take a payment' }).click();
  await expect(page.getByTestId('to-pay')).toHaveText('£54.00');
  await expect(page.getByText(/for R\d{4}-0007/)).toBeVisible();
  await payExactly(page);
  await toInvoices(page);
  const row = list(page).getByRole('row').filter({ hasText: '-0007' });
  await expect(row).toContainText('paid');
});

test('of a sale on account; with no network its number follows, and what came back is credited', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await useDrawer(page);
  await counter(page);
  await tag(page, 'Lavender').click();
  await tag(page, 'Lavender').click();
  await putCustomer(page, 'Corin Wray');
  await more(page).getByRole('button', { name: 'Done' }).click();
  await toPayment(page);
  const account = wayRow(page, /^On account/);
  await account.getByRole('button', { name: /^On account/ }).click();
  await account.getByRole('button', { name: /^They owe £9\.00/ }).click();
  await expect(lastSale(page)).toContainText('£9.00');
  const sale = ((await lastSale(page).textContent()) ?? '').split(',')[0]!;
  await expect(standing(page)).toHaveText('All sent');

  await goOffline(page);
  await lastSale(page).click();
  await page.getByRole('link', { name: 'Make an invoice' }).click();
  await expect(page.getByRole('heading', { name: `Invoice of sale ${sale}` })).toBeVisible();
  await expect(page.getByTestId('invoice-sums')).toContainText('£9.00');
  await page.getByRole('button', { name: 'Make the invoice' }).click();
  await expect(number(page)).toHaveText('Invoice Number follows');
  await expect(page.getByText('as UBL once it has its number')).toBeVisible();
  await goOnline(page);
  await expect(number(page)).toHaveText(/^Invoice R\d{4}-0009$/);
  await expect(stands(page)).toHaveText('to pay, £9.00 left');

  await openSale(page, sale);
  await expect(page.getByRole('link', { name: 'Make an invoice' })).toHaveCount(0);
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page)
    .getByLabel(/^How much of Lavender/)
    .first()
    .fill('1');
  const how = back(page).getByLabel('Given back');
  const asPaid = how.locator('option', { hasText: 'as it was paid' });
  await how.selectOption((await asPaid.getAttribute('value')) ?? '');
  await back(page).getByLabel('Why').fill('it wilted');
  await back(page)
    .getByRole('button', { name: /^Give back £4\.50/ })
    .click();
  await expect(returned(page)).toBeVisible();
  await page.getByRole('link', { name: /^R\d{4}-0009$/ }).click();
  await expect(stands(page)).toHaveText(/£4\.50 left$/);
  await page.getByRole('form', { name: 'Credit note' }).getByLabel('Why').fill('It wilted');
  await page.getByRole('button', { name: 'Make the credit note' }).click();
  await expect(page.getByTestId('credits')).toContainText(/R\d{4}-0010/);
  await expect(page.getByText(/An invoice is not changed/)).toBeVisible();
  await expect(stands(page)).toHaveText('to pay, £4.50 left');

  // Another device has all of it, and finds it.
  const other = await device(browser, 'Maren');
  await toInvoices(other);
  await expect(list(other).getByRole('row').filter({ hasText: '-0010' })).toContainText(
    'Credit note',
  );
  await other.getByRole('link', { name: 'Find', exact: true }).click();
  await other.getByPlaceholder(/^D4-17/).fill('0009');
  await expect(other.getByRole('link', { name: /-0009/ })).toBeVisible();
});
