/** The bank at a desk: statements taken in, lines that find what they are, joined by hand, undone. */
import { writeFile } from 'node:fs/promises';
import { expect, test, type Page } from '@playwright/test';
import { enrol, go } from '../support/at-the-stall';
import { bagIn, bankFile, type FileLine } from '../support/bank-file';
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

const today = new Date().toISOString().slice(0, 10);
const line = (name: string) => page.getByTestId('bank-line').filter({ hasText: name });
const done = () => page.getByTestId('bank-done');
const choose = (file: ReturnType<typeof bankFile>) =>
  page.getByLabel('File', { exact: true }).setInputFiles(file);
let bag: ReturnType<typeof bagIn>;
const common = (): readonly FileLine[] => [
  { day: today, amount: bag.amount, other: 'Branch counter', text: `Cash, bag ${bag.number}` },
  { day: today, amount: -4500, other: 'Market office', text: 'November' },
  { day: today, amount: -1899, other: 'Lantern Energy', text: 'Electricity at home' },
];

test('only whoever signs in as the owner sees the bank', async () => {
  await go(page, '/bank');
  await expect(page.getByText(/The bank is for whoever signs in/)).toBeVisible();
  await page.getByRole('link', { name: 'Sign in' }).click();
  await page.getByLabel('E-mail address').fill('maren@larkmoss.example');
  await page.getByLabel('Password', { exact: true }).fill('moss-lark-kettle-nine');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Events in other calendars' })).toBeVisible();
  await go(page, '/books');
  await page.getByRole('link', { name: 'The bank' }).click();
  await expect(done()).toContainText('Practice acquirer');
  bag = bagIn(
    await page.getByTestId('bank-to-come').getByRole('row', { name: /^Bag / }).innerText(),
  );
  expect(bag.amount).toBeGreaterThan(0);
});

test('a file of another account, in another currency or cut off is refused in words', async () => {
  const good = bankFile(common());
  const saying = (change: (text: string) => string) => ({
    ...good,
    buffer: Buffer.from(change(good.buffer.toString('utf8')), 'latin1'),
  });
  const file = page.getByTestId('bank-file');
  await choose(bankFile(common(), 'xml', 'DE89370400440532013000'));
  await expect(file).toContainText('DE89370400440532013000, which is not set up');
  await choose(saying((text) => text.replaceAll('GBP', 'EUR')));
  await expect(file).toContainText('is in EUR, and the books are kept in GBP');
  await choose(saying((text) => text.slice(0, text.length - 200)));
  await expect(page.getByRole('alert')).toContainText('It may be cut off; fetch it again');
  await choose(saying((text) => text.replace('>45.00<', '>46.00<')));
  await expect(file).toContainText('a line is missing or double');
  await expect(page.getByRole('button', { name: /^Take in \d/ })).toHaveCount(0);
  // As a path: handing over so many bytes takes longer than looking at them.
  const large = test.info().outputPath('large.xml');
  await writeFile(large, Buffer.alloc(20_000_001, 32));
  await page.getByLabel('File', { exact: true }).setInputFiles(large);
  await expect(page.getByRole('alert')).toContainText('Fetch it from the bank month by month');
});

test('a statement is looked at, taken in once, and what is certain is joined', async () => {
  await choose(bankFile(common()));
  const preview = page.getByTestId('bank-preview');
  await expect(preview.getByRole('row', { name: /Branch counter/ })).toContainText(
    `is Bag ${bag.number}`,
  );
  await page.getByRole('button', { name: 'Take in 3 lines' }).click();
  await expect(line('Market office')).toBeVisible();
  await expect(line('Lantern Energy')).toBeVisible();
  await expect(line('Branch counter')).toHaveCount(0);
  await expect(done()).toContainText('Branch counter');
  await expect(page.getByTestId('bank-to-come')).toContainText('Nothing');

  await choose(bankFile(common()));
  await expect(page.getByTestId('bank-file')).toContainText('0 lines are new, 3 there already');
  await expect(page.getByRole('button', { name: /^Take in \d/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Leave it' }).click();
});

test('a cost of an event, and what is none of ours, are said of their lines', async () => {
  const market = line('Market office');
  // Of several events whose pitch costs as much, each is proposed and none taken.
  await expect(market.getByTestId('cost-proposal').first()).toContainText(
    /The pitch of .+, \d+ \w+ \d{4}/,
  );
  await market.getByRole('button', { name: 'A cost of an event …' }).click();
  await market.getByRole('button', { name: 'It was paid for that' }).click();
  await expect(market.getByRole('alert')).toContainText('Choose the event');
  await market.getByLabel('Paid for').selectOption({ index: 1 });
  await market.getByLabel('What for').selectOption('pitch');
  await market.getByRole('button', { name: 'It was paid for that' }).click();
  await expect(market).toHaveCount(0);
  const energy = line('Lantern Energy');
  await energy.getByRole('button', { name: 'None of ours …' }).click();
  await energy.getByRole('button', { name: 'So it is' }).click();
  await expect(energy.getByRole('alert')).toContainText('Say why');
  await energy.getByLabel(/^What −£18\.99/).fill('at home');
  await energy.getByRole('button', { name: 'So it is' }).click();
  await expect(page.getByTestId('bank-none')).toContainText('Every line of the bank has its name');
});

test('a join is undone, with the money that was written for it, and said again in parts', async () => {
  const bagLine = done().getByRole('listitem').filter({ hasText: 'Branch counter' }).first();
  await bagLine.getByRole('button').first().click();
  await bagLine.getByRole('button', { name: /^Undo/ }).click();
  await bagLine.getByRole('button', { name: 'Take them apart' }).click();
  const open = line('Branch counter');
  await expect(open).toBeVisible();
  await expect(page.getByTestId('bank-to-come')).toContainText(`Bag ${bag.number}`);
  await open.getByRole('button', { name: 'Choose what it is …' }).click();
  await open.getByLabel('It is').selectOption({ index: 1 });
  await open.getByLabel('How much of it').fill('1.00');
  await open.getByRole('button', { name: 'Join them' }).click();
  await expect(open).toContainText('left');
  // The rest of it, which is proposed by its reference.
  await open.getByRole('button', { name: 'This is it' }).click();
  await expect(page.getByTestId('bank-none')).toBeVisible();
  await expect(page.getByTestId('bank-to-come')).toContainText('Nothing');
});

test('a CSV has its columns chosen once; what cannot be read of it is named line by line', async () => {
  const csv = (rows: readonly string[]) => ({
    name: 'nov.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['Date,Details,Reference,Paid in,Paid out,Balance', ...rows].join('\r\n')),
  });
  await choose(csv(['28/11/2026,a,,1.00,,', '29/11/2026,b,,1.00,2.00,', '30/11/2026,c']));
  const bad = page.getByTestId('bank-bad');
  await expect(bad).toContainText('2 lines of 3 cannot be read');
  await expect(bad).toContainText('Line 3: Both “Paid in” (1.00) and “Paid out” (2.00)');
  await expect(bad).toContainText('Line 4: This line has 2 cells');
  await expect(page.getByRole('button', { name: /^Take in \d/ })).toHaveCount(0);

  await choose(csv(['03/04/2026,a,,1.00,,']));
  await expect(page.getByTestId('bank-columns')).toContainText('could be either');
  await choose(csv(['28/11/2026,Grüße,X-1,1.00,,', '29/11/2026,b,,,2.50,']));
  await page.getByRole('button', { name: 'Keep these columns for Market account' }).click();
  await expect(
    page.getByRole('button', { name: 'Keep these columns for Market account' }),
  ).toHaveCount(0);
  await page.getByRole('button', { name: 'Take in 2 lines' }).click();
  await expect(line('Grüße')).toContainText('1.00');
  await expect(line('X-1')).toBeVisible();

  await test.step('the same lines in another form are shown, and not taken by themselves', async () => {
    await choose(
      bankFile([{ day: '2026-11-28', amount: 100, other: 'Somebody', text: 'in other words' }]),
    );
    await expect(page.getByTestId('bank-file')).toContainText('the same lines in another form');
    await expect(page.getByRole('button', { name: /^Take in \d/ })).toHaveCount(0);
    await page.getByLabel('They are others').check();
    await expect(page.getByRole('button', { name: 'Take in 1 line' })).toBeVisible();
    await page.getByRole('button', { name: 'Leave it' }).click();
  });
});

test('a transfer whose words name an invoice leads to it', async () => {
  await go(page, '/invoices');
  const invoice = page.getByTestId('invoices').getByRole('link', { name: /-0002$/ });
  const number = (await invoice.innerText()).trim();
  await go(page, '/bank');
  const text = `Terrace, ${number.replace('-', ' ').toLowerCase()}`;
  await choose(bankFile([{ day: today, amount: 12_550, other: 'Mill House', text }]));
  await page.getByRole('button', { name: 'Take in 1 line' }).click();
  const named = line('Mill House').getByTestId('named-invoice');
  await expect(named).toContainText(`Invoice ${number} to Mill House Tearoom, £125.50 to pay`);
  await named.getByRole('link', { name: 'Open the invoice' }).click();
  await expect(page.getByRole('heading', { level: 1, name: `Invoice ${number}` })).toBeVisible();
});
