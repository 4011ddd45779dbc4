/** Packing by two devices, an order that comes in two parts, a count with a late sale; and what is said of bad input. */
import { readFileSync } from 'node:fs';
import { expect, test, type Browser, type Locator, type Page } from '@playwright/test';
import {
  enrol,
  go,
  goOffline,
  openDrawer,
  sellOne,
  standing,
  useDrawer,
} from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let desk: Page;
let phone: Page;

async function device(browser: Browser, name: string, width: number): Promise<Page> {
  const context = await browser.newContext({
    baseURL: till.origin,
    reducedMotion: 'reduce',
    viewport: { width, height: 900 },
  });
  const page = await context.newPage();
  await enrol(page, till, name);
  return page;
}
test.beforeAll(async ({ browser }) => {
  till = await RunningTill.start();
  desk = await device(browser, 'Maren', 1280);
  await openDrawer(desk);
  phone = await device(browser, 'Ines', 390);
  await useDrawer(phone);
});
test.afterAll(({ browser }) => till.end(browser));

const goodsLine = (page: Page): Locator => page.getByLabel(/^Scan or type/);
async function put(page: Page, text: string): Promise<void> {
  await goodsLine(page).fill(text);
  await goodsLine(page).press('Enter');
  await expect(goodsLine(page)).toHaveValue('');
}
const crate = (page: Page, name: string): Locator =>
  page.getByTestId('crates').locator('li').filter({ hasText: name });
const packed = (page: Page, name: string): Locator => crate(page, name).getByTestId('crate-done');
const listState = (page: Page): Locator => page.getByTestId('list-state');
const allSent = async (page: Page): Promise<void> => {
  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
};

test('a load list is packed by two devices, one of them offline, and loaded', async () => {
  await go(desk, '/season');
  await desk
    .getByTestId('next')
    .getByRole('listitem')
    .filter({ hasText: 'Sallow Ford flower show' })
    .getByRole('link', { name: 'Load list' })
    .click();
  await desk.getByRole('button', { name: 'Make the list' }).click();
  await put(desk, '12 lavender');
  await put(desk, '300 rosemary');
  await expect(desk.getByTestId('list-lines')).toContainText('short');
  // As many as there are, typed in place.
  await desk.getByLabel('Wanted of Rosemary, 14 cm pot').fill('2.5');
  await desk.getByLabel('Wanted of Rosemary, 14 cm pot').press('Tab');
  await expect(desk.getByRole('alert')).toContainText('counted in whole things');
  await desk.getByLabel('Wanted of Rosemary, 14 cm pot').fill('6');
  await desk.getByLabel('Wanted of Rosemary, 14 cm pot').press('Tab');
  await expect(desk.getByTestId('list-lines')).not.toContainText('short');
  await desk.getByRole('button', { name: 'Approve' }).click();
  await expect(listState(desk)).toHaveText('approved');
  await expect(standing(desk)).toHaveText('All sent');
  const address = new URL(desk.url()).pathname;

  await go(phone, address);
  await expect(packed(phone, 'Lavender')).toHaveText('0');
  await goOffline(phone);
  for (let n = 1; n <= 3; n += 1) {
    await crate(phone, 'Lavender')
      .getByRole('button', { name: /^One more/ })
      .click();
    await expect(packed(phone, 'Lavender')).toHaveText(String(n));
  }
  await put(desk, '8 lavender');
  // A scanner types the code and Enter.
  await put(desk, '5099999000011');
  await expect(packed(desk, 'Lavender')).toHaveText('9');
  await put(desk, '6 rosemary');
  await allSent(phone);
  await expect(packed(desk, 'Lavender')).toHaveText('12');
  await expect(crate(desk, 'Lavender')).toContainText('packed');

  await desk.getByRole('button', { name: 'Load 18 things' }).dblclick();
  await expect(desk.getByText(/^18 things on the way from [A-Z]/)).toBeVisible();
  await expect(listState(desk)).toHaveText('done');
  await expect(desk.getByTestId('thread')).toContainText('Loaded 18');
  await expect(desk.getByTestId('thread').getByText('Loaded', { exact: true })).toHaveCount(1);
  // On paper, and as a file.
  const saving = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'PDF' }).click();
  const file = readFileSync(await (await saving).path());
  expect(file.subarray(0, 5).toString()).toBe('%PDF-');
  await go(desk, '/season');
  await expect(
    desk.getByTestId('next').getByRole('listitem').filter({ hasText: 'Sallow Ford' }),
  ).toContainText('its drawer is not open yet');
});

test('what comes back is counted back; the rest has a reason', async () => {
  await desk.getByTestId('next').getByRole('link', { name: 'Sallow Ford flower show' }).click();
  await expect(desk.getByRole('region', { name: 'Its goods' })).toContainText('done');
  const event = /events\/([^/]+)/.exec(desk.url())?.[1] ?? '';
  await go(desk, `/stock/lists/new?use=unload&event=${event}`);
  await desk.getByRole('button', { name: 'Make the list' }).click();
  await desk.getByRole('button', { name: 'Everything that is there' }).click();
  await expect(desk.getByTestId('list-lines')).toContainText('Lavender');
  await desk.getByRole('button', { name: 'Approve' }).click();
  await expect(listState(desk)).toHaveText('approved');
  await put(desk, '10 lavender');
  await put(desk, '6 rosemary');
  await expect(desk.getByRole('region', { name: 'What does not come back' })).toContainText(
    '2 things still at',
  );
  await desk.getByRole('button', { name: 'Unload 16 things' }).click();
  await expect(listState(desk)).toHaveText('done in part');
  await desk.getByLabel('Was').selectOption('broken');
  await desk.getByRole('button', { name: 'Say so' }).click();
  await expect(listState(desk)).toHaveText('done');
  await go(desk, '/stock');
  await desk.getByLabel('Find an item').fill('lavender');
  await desk.getByRole('link', { name: /Lavender/ }).click();
  await expect(desk.getByText(/Gone so far/)).toContainText('3 broken');
  await expect(desk.getByTestId('moves')).toContainText('brought back');
  await desk
    .getByTestId('moves')
    .getByRole('link', { name: /Unload list/ })
    .first()
    .click();
  await expect(listState(desk)).toHaveText('done');
});

test('an order is filled from reorder levels, approved by right, and comes in two parts', async () => {
  await go(phone, '/stock/lists/new?use=order');
  await phone.getByLabel('Supplier').click();
  await phone.getByRole('option', { name: 'Holt & Daughter Bulbs' }).click();
  await phone.getByRole('button', { name: 'Make the list' }).click();
  await phone.getByRole('button', { name: 'Everything that is low' }).click();
  const lines = phone.getByTestId('list-lines');
  await expect(lines).toContainText('Tulip, mixed');
  const wanted = Number(await phone.getByLabel('Wanted of Tulip, mixed').inputValue());
  // In whole packs of twenty.
  expect(wanted % 20).toBe(0);
  expect(wanted).toBeGreaterThan(0);
  // A helper drafts it; approving is for somebody else.
  await phone.getByRole('button', { name: 'Approve' }).click();
  await expect(phone.getByText(/approve orders/)).toBeVisible();
  await phone.getByRole('button', { name: 'Cancel' }).click();
  await expect(standing(phone)).toHaveText('All sent');
  const address = new URL(phone.url()).pathname;

  await go(desk, address);
  await desk.getByRole('button', { name: 'Approve' }).click();
  await expect(listState(desk)).toHaveText('approved');
  const letters = till.mailbox.letters.length;
  await desk.getByRole('button', { name: 'Mail it to Holt & Daughter Bulbs' }).click();
  await expect(desk.getByTestId('thread')).toContainText('Mailed to its supplier');
  await expect(standing(desk)).toHaveText('All sent');
  await expect.poll(() => till.mailbox.letters.length).toBe(letters + 1);
  expect(till.mailbox.letters[0]?.subject).toMatch(/^Order O.* from Larkmoss Plants$/);
  expect(till.mailbox.letters[0]?.text).toContain(`${String(wanted)} × Tulip, mixed`);
  await go(phone, address);
  const came = phone.getByLabel('Came of Tulip, mixed, bag of 10');
  await came.fill(String(wanted - 5));
  await phone.getByLabel(/Number of the delivery note/).fill('8812');
  await phone.getByRole('button', { name: 'Take the delivery in' }).click();
  await expect(listState(phone)).toHaveText('done in part');
  await came.fill('7');
  await phone.getByRole('button', { name: 'Take the delivery in' }).click();
  await expect(phone.getByRole('alert')).toContainText('7 of Tulip, mixed');
  await expect(phone.getByRole('alert')).toContainText('5 still to come');
  await phone.getByRole('button', { name: 'That is what came' }).click();
  await expect(listState(phone)).toHaveText('done');
  await expect(phone.getByTestId('thread')).toContainText('8812');
});

test('a transfer is under way until somebody takes it in; what is missing has a reason', async () => {
  await go(desk, '/stock/lists');
  await desk.getByRole('link', { name: /Transfer T/ }).click();
  await desk.getByRole('button', { name: 'All of it came' }).click();
  await desk.getByLabel('Came of Lavender, 10 cm pot').fill('11');
  await desk.getByRole('button', { name: 'It arrived' }).click();
  await expect(listState(desk)).toHaveText('done in part');
  await desk.getByLabel('What did not arrive').selectOption('broken');
  await desk.getByRole('button', { name: 'Say so' }).click();
  await expect(listState(desk)).toHaveText('done');
});

test('a count is compared with what was there at that moment; a late sale explains itself', async () => {
  const row = (page: Page): Locator =>
    page.getByTestId('counted').getByRole('row').filter({ hasText: 'Geranium' });
  await go(phone, '/counter');
  await expect(phone.getByTestId('goods')).toBeVisible();
  await goOffline(phone);
  await sellOne(phone, 'Geranium');
  await go(desk, '/stock/counts/new');
  await desk.getByRole('button', { name: 'Begin' }).click();
  await put(desk, '35 geranium');
  await expect(row(desk)).toContainText('1 missing');
  await desk.getByRole('button', { name: 'Accept all of it' }).click();
  await expect(desk.getByRole('alert')).toContainText('Say what the differences come from');
  await allSent(phone);
  await expect(row(desk)).toContainText('ties up');
  await desk.getByRole('button', { name: 'Accept what ties up' }).click();
  await expect(row(desk)).toContainText('accepted');
  await desk.getByRole('button', { name: 'The count is over' }).click();
  await expect(desk.getByTestId('count-state')).toHaveText('over');
});

test('a place, a supplier and how an item is bought say what is wrong beside the field', async () => {
  await go(desk, '/stock/places/new');
  await desk.getByLabel('Name', { exact: true }).fill('Van');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('alert')).toHaveText(
    'There is a Van already; call this one something else.',
  );
  await desk.getByLabel('Name', { exact: true }).fill('Top shelf');
  await desk.getByRole('combobox', { name: 'It is' }).selectOption('area');
  await desk.getByLabel('Code on its label').fill('PLACE-VAN');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('alert')).toHaveText('PLACE-VAN is the code of another place.');
  await desk.getByLabel('Code on its label').fill('SHELF-9');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByTestId('places')).toContainText('Top shelf');
  const saving = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'Labels to print' }).click();
  expect(
    readFileSync(await (await saving).path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');

  await go(desk, '/stock');
  await desk.getByLabel('Find an item').fill('lavender');
  const exporting = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'Save as a file' }).click();
  const file = await exporting;
  expect(file.suggestedFilename()).toBe('stock.csv');
  expect(readFileSync(await file.path(), 'utf8')).toMatch(
    /^Item,Code,.*\r\n"Lavender, 10 cm pot",LAV10,/,
  );
  await desk.getByRole('link', { name: /Lavender/ }).click();
  await desk.getByRole('link', { name: /par levels/ }).click();
  // Each event, then the base.
  const par = desk.getByLabel('Up to').nth(1);
  await par.fill('40');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('alert')).toContainText('It is bought again at 400');
  await par.fill('500');
  await desk.getByLabel('In packs of').first().fill('0');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('alert')).toContainText('“0” is no pack');
  await desk.getByLabel('In packs of').first().fill('24');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByText('in packs of 24').first()).toBeVisible();
});

test('lists, counts and suppliers are taken in from files, line by line', async () => {
  const take = (label: RegExp | string, text: string): Promise<void> =>
    desk
      .getByLabel(label)
      .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await go(desk, '/stock/lists/new?use=order');
  await desk.getByLabel('Supplier').click();
  await desk.getByRole('option', { name: 'Ferris Young Plants' }).click();
  await desk.getByRole('button', { name: 'Make the list' }).click();
  await desk.getByText('From a file').click();
  await take(/A CSV file with/, 'code,wanted,price\r\nLAV10,24,1.65\r\nNOPE,1,\r\nSAL1,1.5,\r\n');
  await expect(desk.getByTestId('planned')).toContainText('nothing is called NOPE');
  await expect(desk.getByTestId('planned')).toContainText('more decimals');
  await desk.getByRole('button', { name: 'Take 1 in' }).click();
  await expect(desk.getByLabel('Wanted of Lavender, 10 cm pot')).toHaveValue('24');
  await expect(desk.getByLabel('Price of Lavender, 10 cm pot')).toHaveValue('1.65');

  await go(desk, '/stock/counts');
  await desk.getByRole('link', { name: /Count of the nursery/ }).click();
  await desk.getByText('As a file').click();
  await take(/A CSV file with/, 'item,counted\r\n"Tulip, black, bag of 10",0\r\n');
  await desk.getByRole('button', { name: 'Take 1 in' }).click();
  await expect(
    desk.getByTestId('counted').getByRole('row').filter({ hasText: 'Tulip, black' }),
  ).toContainText('missing');

  await go(desk, '/stock/suppliers');
  const saving = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'Save it as a file' }).click();
  const saved = readFileSync(await (await saving).path(), 'utf8');
  await take('Take it in from a file', saved);
  await expect(desk.getByRole('button', { name: '0 changed' })).toBeVisible();
  await take('Take it in from a file', 'code,supplier\r\nLAV10,Nobody\r\n');
  await expect(desk.getByTestId('planned')).toContainText('supplier: there is no Nobody');
});
