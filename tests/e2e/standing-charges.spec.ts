/** Standing charges: set up, made by the server when due, paid by the card on file or not, halted; the evening knows them. */
import { expect, test, type Page } from '@playwright/test';
import { daysAfter } from '../../src/lib/core/event/event-days';
import { goOffline, goOnline, openDrawer } from '../support/at-the-stall';
import { oneStall } from '../support/one-stall';

const device = oneStall();

const charges = (page: Page) => page.getByTestId('charges');
const made = (page: Page) => page.getByTestId('made').getByRole('listitem');
const form = (page: Page) => page.getByRole('form', { name: 'Standing charge' });

async function toCharges(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Books', exact: true }).click();
  await page.getByRole('link', { name: 'Invoices', exact: true }).click();
  await page.getByRole('link', { name: 'Standing charges', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Standing charges', level: 1 })).toBeVisible();
}

async function toLooseEnds(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Loose ends', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Loose ends' })).toBeVisible();
}

async function choose(page: Page, name: string): Promise<void> {
  const field = form(page).getByLabel('Customer');
  await field.click();
  await field.fill(name);
  await page.getByRole('option', { name: new RegExp(`^${name}`) }).click();
}

/** The first of the form's lines. */
async function line(page: Page, what: string, price: string): Promise<void> {
  const first = form(page).getByRole('group', { name: 'Line 1' });
  await first.getByLabel('What').fill(what);
  await first.getByLabel('Each').fill(price);
}

async function putOnFile(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Put a card on file' }).click();
  await page.getByLabel('Card number').fill('4111 1111 1111 1111');
  await page.getByLabel('Expires').fill('04/39');
  await page.getByLabel('It may be kept').selectOption('written');
  await page.getByRole('button', { name: 'Save the card' }).click();
  await expect(page.getByTestId('card-on-file')).toHaveText('Visa ending 1111, to 04/39');
}

const today = (page: Page): Promise<string> =>
  page.evaluate(() => new Date().toLocaleDateString('en-CA', { timeZone: 'Europe/London' }));

test('a card that is not on file any more is a loose end; with another one it is tried again and pays', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await openDrawer(page);
  await toCharges(page);
  const box = charges(page).getByRole('row').filter({ hasText: 'A box of herbs' });
  await expect(box).toContainText('Bryony Slade');
  await expect(box).toContainText('card did not pay');
  await toLooseEnds(page);
  const end = page.getByRole('article', { name: 'Standing charge of Bryony Slade' });
  await expect(end).toContainText('£18.50 of Bryony Slade’s standing charge is not paid');
  await end.getByRole('link', { name: 'Open it' }).click();
  await expect(page.getByTestId('not-charged')).toContainText('There was no card on file');
  await page.getByTestId('charge').getByRole('link', { name: 'Bryony Slade' }).click();
  await putOnFile(page);
  await page.getByTestId('customer-charges').getByRole('link').click();
  await page.getByRole('button', { name: 'Try the card again' }).click();
  await expect(page.getByTestId('not-charged')).toHaveCount(0);
  await expect(made(page)).toContainText('£18.50 paid by the card ending 1111');
  await expect(made(page)).toContainText(', paid');
  await toLooseEnds(page);
  await expect(end).toHaveCount(0);
  // What the customer's account says of it.
  await toCharges(page);
  await box.getByRole('link').click();
  await page.getByTestId('charge').getByRole('link', { name: 'Bryony Slade' }).click();
  await page
    .getByRole('link', { name: /statement/i })
    .first()
    .click();
  await expect(page.getByText('Card on file charged')).toBeVisible();
});

test('one is set up, each thing that is wrong said beside it, made at once where it is due, and mailed', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await toCharges(page);
  await page.getByRole('link', { name: 'Set one up' }).click();
  const day = await today(page);
  const save = form(page).getByRole('button', { name: 'Set it up' });
  await save.click();
  await expect(form(page).getByText('Say who is charged')).toBeVisible();
  await choose(page, 'Hazel Birk');
  await save.click();
  await expect(form(page).getByText('Write what is charged')).toBeVisible();
  await line(page, 'Seedlings for the plots', '30.00');
  await form(page).getByLabel('Every', { exact: true }).fill('0');
  await save.click();
  await expect(form(page).getByText('“0” is no whole number from 1 to 99.')).toBeVisible();
  await form(page).getByLabel('Every', { exact: true }).fill('2');
  await form(page).getByLabel('First on').fill(daysAfter(day, -1));
  await save.click();
  await expect(form(page).getByText(/It would have been due already: choose/)).toBeVisible();
  await form(page).getByLabel('First on').fill(day);
  await form(page).getByLabel('Until').fill(daysAfter(day, -3));
  await save.click();
  await expect(form(page).getByText(/It cannot end before/)).toBeVisible();
  await form(page).getByLabel('Until').fill('');
  await form(page).getByLabel(/^Paid/).selectOption({ index: 1 });
  await save.click();
  await expect(form(page).getByText('No card of theirs is on file: put one')).toBeVisible();
  await form(page).getByLabel(/^Paid/).selectOption({ index: 0 });
  const letters = device.till().mailbox.letters.length;
  await save.click();
  await expect(page.getByText('It is set up.')).toBeVisible();
  await expect(page.getByTestId('charge')).toContainText('every 2 months');
  await expect(made(page)).toContainText(/R\d{4}-\d{4}/);
  await expect(made(page)).toContainText('to pay');
  await expect.poll(() => device.till().mailbox.letters.length).toBe(letters + 1);
  expect(device.till().mailbox.letters[0]?.subject).toMatch(/^Invoice R\d{4}-\d{4} from Larkmoss/);
  await made(page).getByRole('link').click();
  await expect(page.getByTestId('invoice')).toContainText('Seedlings for the plots');
  await expect(page.getByTestId('stands')).toContainText('£30.00 left');
});

test('one that is set up with no network is made when there is; its card pays; halted it is made no more', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Customers', exact: true }).click();
  await page.getByRole('link', { name: /^Sela Marsh/ }).click();
  await putOnFile(page);
  await page
    .getByRole('region', { name: 'Standing charges' })
    .getByRole('link', { name: 'Set one up' })
    .click();
  await expect(form(page)).toBeVisible();
  await goOffline(page);
  await line(page, 'A sage a week', '4.00');
  await form(page).getByLabel('Every', { exact: true }).fill('1');
  await form(page).getByLabel('Weeks, months or years').selectOption('week');
  await form(page).getByLabel(/^Paid/).selectOption({ index: 1 });
  const save = form(page).getByRole('button', { name: 'Set it up' });
  await save.click();
  await expect(form(page).getByText('Ask them whether their card may be charged')).toBeVisible();
  await form(page).getByLabel('It may be charged each time').selectOption('spoken');
  await save.click();
  await expect(page.getByTestId('charge')).toContainText('every week');
  await expect(page.getByText('No invoice was made of it yet.')).toBeVisible();
  await goOnline(page);
  await expect(made(page)).toContainText('£4.00 paid by the card ending 1111');
  await page.getByRole('button', { name: 'Charge it no more' }).click();
  await expect(page.getByTestId('next')).toContainText('Halted');
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.getByTestId('next')).toContainText('Next');
  await expect(made(page)).toHaveCount(1);
  // A price that changes is that of the next one.
  await line(page, 'A sage a week', '4.50');
  await form(page).getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Invoices that were made stay as they are.')).toBeVisible();
  await expect(made(page)).toHaveCount(1);
  await toCharges(page);
  const row = charges(page).getByRole('row').filter({ hasText: 'A sage a week' });
  await expect(row).toContainText('4.50');
  await expect(row).toContainText('card on file');
});
