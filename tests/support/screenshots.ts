/** A morning at the demo's market, photographed. */
import { mkdirSync } from 'node:fs';
import { chromium, type Browser, type Page } from '@playwright/test';
import {
  countPieces,
  enrol,
  entryLine,
  openDrawer,
  sellOne,
  standing,
  tag,
  type,
  useDrawer,
} from './at-the-stall';
import { bagIn, bankFile } from './bank-file';
import { chromiumOptions } from './chromium';
import { RunningTill } from './running-till';

const FOLDER = 'docs/screenshots';
const DESK = { viewport: { width: 1280, height: 800 } } as const;
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const;

mkdirSync(FOLDER, { recursive: true });
const till = await RunningTill.start();
const browser = await chromium.launch(await chromiumOptions());
try {
  const desk = await open(browser, DESK);
  const phone = await open(browser, PHONE);
  await enrol(desk, till, 'Maren');
  await openDrawer(desk);
  for (const name of ['Lavender', 'Viola', 'Geranium', 'Rosemary']) await sellOne(desk, name);
  for (const line of ['2 hellebore', 'honey', '1.2 narcissus', '3 basil']) {
    await type(desk, line);
    await desk.keyboard.press('F9');
    await desk.waitForTimeout(400);
  }
  await enrol(phone, till, 'Ines');
  await useDrawer(phone);
  await phone.goto('/counter');
  await fillSlip(phone);
  await take(phone, 'counter-phone');
  await phone.goto('/counter/pay');
  await phone.getByRole('button', { name: /^£50/ }).click();
  await phone.getByRole('button', { name: /Next customer/ }).click();
  await phone.goto('/customers');
  await phone
    .getByTestId('customers')
    .getByRole('link', { name: /Corin Wray/ })
    .click();
  await phone.getByTestId('open-items').getByText('overdue').first().waitFor();
  await take(phone, 'customer-phone');
  await phone.goto('/counter');
  await tag(phone, 'Lavender').click();
  await type(phone, '2 hellebore');
  await phone.getByRole('button', { name: 'Set aside' }).click();
  await tag(phone, 'Viola').click();
  await phone.getByRole('button', { name: 'More …' }).click();
  await phone.getByLabel('What to call it').fill('Terrarium bench');
  await phone.getByRole('button', { name: 'Open as a tab' }).click();
  await phone.goto('/waiting');
  await phone.getByTestId('waiting-orders').getByRole('listitem').first().waitFor();
  await take(phone, 'waiting-phone');
  await phone.goto('/stock/lists');
  await phone.getByRole('link', { name: /^Load list L/ }).click();
  await phone.getByTestId('crates').waitFor();
  await take(phone, 'pack-phone');

  await desk.goto('/');
  await take(desk, 'today-desk');
  await desk.goto('/counter');
  await fillSlip(desk);
  await entryLine(desk).fill('3 lav');
  await take(desk, 'counter-desk');
  await desk.goto('/counter/pay');
  await payPart(desk, 'Cheque', '10', '000417');
  await desk.locator('[data-way]').filter({ hasText: 'Card' }).getByRole('button').first().click();
  await take(desk, 'payment-desk');
  await desk.getByRole('button', { name: /^Ask for/ }).click();
  await desk.getByRole('button', { name: 'tap', exact: true }).click();
  await desk.getByTestId('last-sale').waitFor();
  await desk.keyboard.press('Shift+F9');
  await desk.getByTestId('receipt').waitFor();
  await take(desk, 'receipt-desk');
  await desk.goto('/drawer/count');
  await countPieces(desk, { '£20': 4, '£10': 6, '£5': 7, '£1': 16, '50p': 1, '20p': 1, '10p': 1 });
  await take(desk, 'count-desk');
  await standing(desk).getByText('All sent').waitFor();
  await desk.goto('/season');
  await take(desk, 'season-desk');
  await desk.goto('/books');
  await desk.getByRole('link', { name: /Pellow Green market.*trading/ }).click();
  await desk.getByText('agree on every figure').waitFor();
  await take(desk, 'event-desk');
  await desk.goto('/books');
  await desk
    .getByRole('link', { name: /counted/ })
    .first()
    .click();
  await desk.getByRole('link', { name: 'Settle …' }).click();
  await desk.getByTestId('settle-table').waitFor();
  await take(desk, 'settle-desk');
  await desk.goto('/find');
  await desk.getByLabel('Anything by number, name, item or amount').fill('lav');
  await desk.getByTestId('found-older').getByRole('link').first().waitFor();
  await take(desk, 'find-desk');
  await desk.goto('/set-up');
  await take(desk, 'set-up-desk');
  await desk.goto('/items');
  await desk.getByLabel('Name, code, barcode or category').fill('pelargonium');
  await desk.getByRole('link', { name: /^Pelargonium/ }).click();
  await desk.getByRole('heading', { name: 'Variants' }).scrollIntoViewIfNeeded();
  await desk.mouse.wheel(0, 500);
  await take(desk, 'item-desk');
  await desk.goto('/stock');
  await desk.getByRole('cell', { name: /Achillea/ }).waitFor();
  await take(desk, 'stock-desk');
  await desk.goto('/stock/lists');
  await desk.getByRole('link', { name: /^Order O/ }).click();
  await desk.getByTestId('receive-lines').waitFor();
  await take(desk, 'order-desk');
  await desk.goto('/sign-in');
  await desk.getByLabel('E-mail address').fill('maren@larkmoss.example');
  await desk.getByLabel('Password', { exact: true }).fill('moss-lark-kettle-nine');
  await desk.getByRole('button', { name: 'Sign in' }).click();
  await desk.getByRole('button', { name: 'Add a device' }).waitFor();
  await desk.goto('/invoices');
  await desk.getByTestId('invoices').getByText('overdue').first().waitFor();
  await take(desk, 'invoices-desk');
  await desk.goto('/bank');
  await desk.getByTestId('bank-to-come').waitFor();
  const today = new Date().toISOString().slice(0, 10);
  const bag = await desk.getByTestId('bank-to-come').getByRole('row').first().innerText();
  const said = bagIn(bag);
  await desk.getByLabel('File', { exact: true }).setInputFiles(
    bankFile([
      {
        day: today,
        amount: said.amount,
        other: 'Branch counter',
        text: `Cash, bag ${said.number}`,
      },
      { day: today, amount: -4500, other: 'Market office', text: 'Pitch at Quay Street' },
      { day: today, amount: -1899, other: 'Lantern Energy', text: 'Electricity at home' },
    ]),
  );
  await desk.getByTestId('bank-preview').waitFor();
  await take(desk, 'bank-desk');
} finally {
  await browser.close();
  await till.end();
}

async function open(from: Browser, size: typeof DESK | typeof PHONE): Promise<Page> {
  const context = await from.newContext({ ...size, baseURL: till.origin, locale: 'en-GB' });
  return await context.newPage();
}

async function fillSlip(page: Page): Promise<void> {
  for (const name of ['Rosemary', 'Echinacea', 'Lavender', 'Lavender'])
    await tag(page, name).click();
  await type(page, '0.385 crocus');
  await type(page, 'salt-glaze small');
}

async function payPart(page: Page, way: string, amount: string, reference: string): Promise<void> {
  const row = page.locator('[data-way]').filter({ hasText: way });
  await row.getByRole('button').first().click();
  await row.getByLabel('Of what is left').fill(amount);
  await row.getByLabel('Cheque number').fill(reference);
  await row.getByRole('button', { name: /^Take/ }).click();
  await page.getByTestId('stubs').first().waitFor();
}

async function take(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
}
