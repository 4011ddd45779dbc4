/** The ledger of the demo's last market: saved, handed over, and what comes later by itself. */
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { readPlainLedger } from '../../src/lib/core/formats/plain-ledger';
import { enrol, openSettling } from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let page: Page;
test.describe.configure({ mode: 'serial' });
test.beforeAll(async ({ browser }) => {
  till = await RunningTill.start();
  page = await browser.newPage({ baseURL: till.origin });
  await enrol(page, till, 'Maren');
});
test.afterAll(({ browser }) => till.end(browser));

async function saved(name: string): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name }).click();
  return readFileSync(await (await download).path(), 'utf8');
}

test('it is read back and balances, by day, by event and by drawer', async () => {
  await openSettling(page);
  await page.getByRole('link', { name: 'Its ledger' }).click();
  await expect(page.getByTestId('ledger')).toContainText('Revenues › Sales');
  for (const by of ['day', 'event', 'shift']) {
    await page.getByLabel('Posted').selectOption(by);
    const transactions = readPlainLedger(await saved('Save as text'));
    expect(transactions.length).toBeGreaterThan(0);
  }
  const csv = await saved('Save as CSV');
  expect(csv.split('\r\n')[0]).toContain('debit');
  expect(csv).toContain('Revenues:Sales');
});

test('a Wi-Fi that answers in the server’s place is told from no network', async () => {
  const body = '<!doctype html><p>Welcome! Accept the terms to go online.</p>';
  await page.route('**/api/ledger?**', (route) =>
    route.fulfill({ contentType: 'text/html', body }),
  );
  await page.getByLabel('Posted').selectOption('day');
  await expect(page.getByText('What answered was not Stall Till')).toBeVisible();
  await expect(page.getByTestId('ledger')).toHaveCount(0);
  await page.unroute('**/api/ledger?**');
  await page.route('**/api/ledger?**', (route) => route.abort('internetdisconnected'));
  await page.getByLabel('Posted').selectOption('event');
  await expect(page.getByText('No network now: a ledger is made of')).toBeVisible();
  await page.unroute('**/api/ledger?**');
  await page.getByLabel('Posted').selectOption('day');
  await expect(page.getByTestId('ledger')).toContainText('Revenues › Sales');
});

test('accounts have the vendor’s own numbers and names', async () => {
  await page.getByRole('button', { name: 'Change the accounts …' }).click();
  await page.getByLabel('Name of Sales').fill('Service');
  await page.getByRole('button', { name: 'Save the accounts' }).click();
  await expect(page.getByRole('alert')).toContainText('“Service” is there twice');
  await page.getByLabel('Name of Sales').fill('Plants and pots');
  await page.getByLabel('Number of Sales').fill('8400');
  await page.getByRole('button', { name: 'Save the accounts' }).click();
  await expect(page.getByTestId('ledger')).toContainText('Revenues › Plants and pots');
  await expect(page.getByTestId('ledger')).toContainText('8400');
});

test('once it is handed over only what comes later is new', async () => {
  await page.getByLabel('Which of it').selectOption('new');
  await expect(page.getByTestId('ledger-handed')).toContainText('Never handed over');
  await page.getByRole('button', { name: 'Note that it was handed over' }).click();
  await expect(page.getByTestId('ledger-handed')).toContainText(
    /by Maren;\s+nothing has come since/,
  );
  await expect(page.getByTestId('ledger')).toContainText('Nothing new to post');
  await page.goBack();
  await page
    .getByTestId('settle-table')
    .getByRole('row', { name: /^Bag .*at the bank/ })
    .getByRole('button')
    .click();
  await page.getByRole('button', { name: 'It has come to the bank …' }).first().click();
  await page.getByRole('button', { name: 'It has come', exact: true }).click();
  await expect(page.getByTestId('came')).toBeVisible();
  await page.getByRole('link', { name: 'Its ledger' }).click();
  await page.getByLabel('Which of it').selectOption('new');
  await expect(page.getByTestId('ledger-handed')).toContainText('1 entry has come since');
  await expect(page.getByTestId('ledger').getByRole('row')).toHaveCount(3);
  await expect(page.getByTestId('ledger')).toContainText('Assets › Bank');
});
