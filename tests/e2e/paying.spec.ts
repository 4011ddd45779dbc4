/** Taking payment: ways to pay, parts that are safe, sharing out, tips, giving back. */
import { expect, test, type Page } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import {
  go,
  goOffline,
  lastSale,
  openDrawer,
  signIn,
  standing,
  total,
  type,
  useDrawer,
} from '../support/at-the-stall';
import { oneStall } from '../support/one-stall';
import type { RunningTill } from '../support/running-till';

const device = oneStall('apart');
let till: RunningTill;
let desk: Page;
test.beforeAll(async ({ browser }) => {
  till = device.till();
  desk = await device(browser, 'Maren', 'file');
  await openDrawer(desk);
});

const left = (page: Page) => page.getByTestId('left-to-pay');
const stubs = (page: Page) => page.getByTestId('stubs').locator('visible=true');
const wayRow = (page: Page, name: string) =>
  page.getByTestId('ways').locator('[data-way]').filter({ hasText: name });
async function openWay(page: Page, name: string): Promise<void> {
  const row = wayRow(page, name).getByRole('button', { name, exact: false }).first();
  if ((await row.getAttribute('aria-expanded')) !== 'true') await row.click();
}
/** Puts something of this price on the slip and goes to the payment. */
async function owe(page: Page, amount: string): Promise<void> {
  await go(page, '/counter');
  await type(page, `${amount} basket`);
  await expect(total(page)).toContainText(amount);
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await expect(left(page)).toContainText(amount);
}
interface PaymentRow {
  readonly wayName: string;
  readonly clears: number | string;
  readonly charge: number | string;
  readonly tip: number | string;
  readonly reference: string;
  readonly share: number | string | null;
}
async function paymentsOf(
  number: string,
  business = 'Larkmoss Plants',
): Promise<readonly PaymentRow[]> {
  const sql = `SELECT p.* FROM books_sales s JOIN books_payments p
    ON p.business = s.business AND p.slip = s.slip WHERE s.number = ?
      AND s.business = (SELECT business FROM books_businesses WHERE name = ?)
    ORDER BY p.at, p.id`;
  let found: PaymentRow[] = [];
  await expect
    .poll(
      async () => (found = await select<PaymentRow>(till.database, sql, [number, business])).length,
    )
    .toBeGreaterThan(0);
  return found.map((row) => ({
    ...row,
    clears: Number(row.clears),
    charge: Number(row.charge),
    tip: Number(row.tip),
    share: row.share === null ? null : Number(row.share),
  }));
}
const saleNow = async (page: Page): Promise<string> => {
  await expect(lastSale(page)).toBeVisible();
  return ((await lastSale(page).textContent()) ?? '').split(',')[0]!;
};

test('an owner sets up a way to pay with a surcharge; the event opens it and its order', async () => {
  await go(desk, '/ways');
  await desk.getByRole('link', { name: 'Add a way to pay' }).click();
  await desk.getByLabel('Name', { exact: true }).fill('Cheque');
  await desk.getByLabel('Surcharge, percent').fill('1.8');
  // Left and come back to: what was typed is still there.
  await go(desk, '/counter');
  await go(desk, '/ways/new');
  await expect(desk.getByLabel('Surcharge, percent')).toHaveValue('1.8');
  await desk.getByLabel('Fixed fee').fill('ten');
  // Enter in a field sends the form.
  await desk.getByLabel('Fixed fee').press('Enter');
  await expect(desk.getByRole('alert')).toContainText(
    'There is a way to pay called Cheque already',
  );
  await desk.getByLabel('Name', { exact: true }).fill('Terminal');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('alert')).toContainText('“ten” is not an amount');
  await desk.getByLabel('Fixed fee').fill('');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByTestId('ways')).toContainText('1.8 % on top');
  await desk.getByRole('button', { name: 'Move Terminal up' }).click();
  await expect(desk.getByTestId('ways').getByRole('listitem').nth(-2)).toContainText('Terminal');

  await go(desk, '/');
  await desk.getByRole('link', { name: 'The event’s page' }).click();
  const here = desk.getByRole('region', { name: 'Ways to pay here' });
  await here.getByRole('checkbox', { name: 'Bank transfer' }).uncheck();
  await here.getByRole('button', { name: 'Save' }).click();
  // It is there as long as something is not saved.
  await expect(here.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await expect(here.getByRole('checkbox', { name: 'Bank transfer, not here' })).toBeVisible();
  // An event that takes no cash has none at the counter either.
  await here.getByRole('checkbox', { name: 'Cash' }).uncheck();
  await here.getByRole('button', { name: 'Save' }).click();
  await expect(here.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await expect(here.getByRole('checkbox', { name: 'Cash, not here' })).toBeVisible();
  await owe(desk, '26.40');
  await desk.keyboard.press('F9');
  await expect(left(desk)).toHaveText('£26.40');
  await desk.keyboard.press('Escape');
  await expect(desk.getByRole('button', { name: /^Exact cash/ })).toBeDisabled();
  await go(desk, '/');
  await desk.getByRole('link', { name: 'The event’s page' }).click();
  await here.getByRole('checkbox', { name: 'Cash, not here' }).click();
  await here.getByRole('button', { name: 'Save' }).click();
  await expect(here.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await expect(here.getByRole('checkbox', { name: 'Cash, not here' })).toHaveCount(0);
  await go(desk, '/counter/pay');
  await expect(wayRow(desk, 'Terminal')).toContainText('26.88');
  await expect(wayRow(desk, 'Bank transfer')).toHaveCount(0);
  await desk.keyboard.press('F9');
  await expect(lastSale(desk)).toContainText('26.40');
});

test('three parts with no network: each is safe, the browser is killed between, one goes back', async ({
  browser,
}) => {
  let page = await device(browser, 'Maren');
  await useDrawer(page);
  await go(page, '/counter');
  await expect(page.getByTestId('goods')).toBeVisible();
  await goOffline(page);
  await type(page, '26.40 basket');
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await openWay(page, 'Terminal');
  const terminal = wayRow(page, 'Terminal');
  await terminal.getByLabel('Of what is left').fill('30');
  await expect(terminal).toContainText('More than the £26.40 that is left');
  await terminal.getByLabel('Of what is left').fill('15');
  await expect(terminal).toContainText('leaves £11.40 to pay · £0.27 surcharge');
  await terminal.getByRole('button', { name: /Take £15.27/ }).click();
  await expect(left(page)).toHaveText('£11.40');
  await expect(stubs(page)).toContainText('15.27');

  await openWay(page, 'Cheque');
  const cheque = wayRow(page, 'Cheque');
  await cheque.getByLabel('Of what is left').fill('5');
  await cheque.getByRole('button', { name: /Take £5.00/ }).click();
  await expect(cheque.getByRole('alert')).toContainText('Cheque asks for its Cheque number');
  await cheque.getByLabel('Cheque number').fill('000417');
  await cheque.getByLabel('Bank').fill('Tarn Bank');
  await cheque.getByLabel('Whose cheque').fill('Wren Alder');
  await cheque.getByRole('button', { name: /Take £5.00/ }).click();
  await expect(left(page)).toHaveText('£6.40');

  // The page is gone from one moment to the next; what was taken is there.
  await page.close();
  page = await page.context().newPage();
  await page.goto('/counter');
  await expect(page.getByTestId('part-paid')).toContainText('£20.00 of £26.40 has been taken');
  await expect(page.getByRole('button', { name: /^Set aside/ })).toBeDisabled();
  await type(page, '1.00 card');
  await expect(page.getByText('Part of this slip has been paid').first()).toBeVisible();
  await expect(total(page)).toHaveText('£6.40');
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await stubs(page)
    .locator('.paper')
    .nth(1)
    .getByRole('button', { name: 'Give it back …' })
    .click();
  await page.getByRole('button', { name: 'Give back £5.00' }).click();
  await expect(left(page)).toHaveText('£11.40');

  await page.getByLabel('Handed over').fill('20');
  await page.getByLabel('Handed over').press('Enter');
  await expect(page.getByTestId('change')).toHaveText('£8.60');
  await page.getByRole('button', { name: /Next customer/ }).click();
  const number = await saleNow(page);
  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
  const parts = await paymentsOf(number);
  expect(parts.map(({ wayName, clears, charge }) => [wayName, clears, charge])).toEqual([
    ['Terminal', 1500, 1500],
    ['Cheque', 500, 500],
    ['Cash', 1140, 2000],
  ]);
  const [cheques] = await select<{ name: string; reference: string }>(
    till.database,
    'SELECT o.name, p.reference FROM books_payers o JOIN books_payments p ON p.id = o.id',
    [],
  );
  expect(cheques).toMatchObject({ name: 'Wren Alder', reference: '000417, Tarn Bank' });
  const [reversal] = await select<{ amount: string; reason: string }>(
    till.database,
    'SELECT amount, reason FROM books_reversals',
    [],
  );
  expect([Number(reversal?.amount), reversal?.reason]).toEqual([
    500,
    'given back before the slip was rung up',
  ]);
});

test('a slip is shared out between three, by line and by amount; each pays their own way', async () => {
  await owe(desk, '10.00');
  await desk.getByRole('button', { name: 'Share out' }).click();
  await desk.getByRole('button', { name: 'by amount' }).click();
  await desk.getByLabel('Person 1').fill('4');
  await desk.getByLabel('Person 2').fill('5');
  await desk.getByRole('button', { name: 'Use these shares' }).click();
  await expect(desk.getByRole('alert')).toContainText('That leaves £1.00 that nobody pays');
  await desk.getByRole('button', { name: 'equally' }).click();
  await desk.getByRole('button', { name: 'One more' }).click();
  await expect(desk.getByTestId('shares-will-be')).toHaveText('£3.34 · £3.33 · £3.33');
  await desk.getByRole('button', { name: 'Use these shares' }).click();
  await expect(left(desk)).toHaveText('£3.34');
  // More is handed over than the share: change, and the others still owe theirs.
  await desk.getByLabel('Handed over').fill('5');
  await desk.getByLabel('Handed over').press('Enter');
  await expect(desk.getByTestId('change')).toHaveText('£1.66');
  await desk.getByRole('button', { name: /Go on with the payment/ }).click();
  await expect(left(desk)).toHaveText('£3.33');
  await expect(desk.getByRole('button', { name: 'Share out' })).toHaveCount(0);
  await desk.getByRole('group', { name: 'Shares' }).getByRole('button', { name: '3:' }).click();
  await openWay(desk, 'Town tokens');
  await wayRow(desk, 'Town tokens').getByRole('button', { name: 'Take £3.33' }).click();
  await expect(desk.getByRole('heading', { name: /Share 2 of 3/ })).toBeVisible();
  await desk.keyboard.press('F9');
  const parts = await paymentsOf(await saleNow(desk));
  expect(parts.map(({ share, clears, wayName }) => [share, clears, wayName])).toEqual([
    [1, 334, 'Cash'],
    [3, 333, 'Town tokens'],
    [2, 333, 'Cash'],
  ]);
});

test('two prices and tips: the card price is charged, the customer gives a tip, a helper may not waive', async ({
  browser,
}) => {
  const own = await browser.newContext({ baseURL: till.origin });
  const page = await own.newPage();
  await page.goto(till.enrolAddress('pinwheel'));
  await signIn(page, 'Pia');
  await go(page, '/drawer/open');
  await page.getByLabel('$10', { exact: true }).fill('4');
  await page.getByRole('button', { name: /Open with \$40/ }).click();
  await expect(page.getByTestId('goods')).toBeVisible();
  await type(page, 'soc');
  await expect(total(page)).toHaveText('$21.59');
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await page.getByRole('link', { name: 'Show customer' }).click();
  await page.getByRole('button', { name: /15 %/ }).click();
  await expect(page.getByRole('button', { name: /15 %/ })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('link', { name: 'Back to the counter' }).click();
  await page.getByRole('button', { name: /^Take payment/ }).click();
  // 19.99 at 3.5 % more is 20.69; with both taxes on top 22.34. The tip is 15 % of 19.99.
  await expect(wayRow(page, 'Card, on the fair')).toContainText('25.34');
  await page.getByRole('button', { name: 'Cash price for cards too' }).click();
  await expect(page.getByRole('region', { name: 'Lend a right' })).toBeVisible();
  await page.getByRole('button', { name: 'Cash price for cards too' }).click();
  await openWay(page, 'Card, on the fair');
  await wayRow(page, 'Card, on the fair').getByLabel('Terminal slip').fill('T-88');
  await wayRow(page, 'Card, on the fair').getByRole('button', { name: 'Take $25.34' }).click();
  const number = await saleNow(page);
  await expect(standing(page)).toHaveText('All sent');
  const [part] = await paymentsOf(number, 'Pinwheel & Tail');
  expect([part?.clears, part?.charge, part?.tip, part?.reference]).toEqual([
    2159,
    2234,
    300,
    'T-88',
  ]);
  await go(page, '/');
  await page.getByRole('link', { name: 'The event’s page' }).click();
  await expect(page.getByTestId('event-takings')).toHaveText('$22.34');
  await expect(page.getByTestId('tips-by-seller')).toContainText('Pia $3.00');
  await expect(page.getByTestId('ties-up')).toHaveText('Device and server agree on every figure.');
  await own.close();
});

test('a receipt: the last one by a key, a gift receipt without prices, by e-mail once there is network', async () => {
  await owe(desk, '12.50');
  await desk.keyboard.press('F9');
  const number = await saleNow(desk);
  await goOffline(desk);
  await desk.keyboard.press('Shift+F9');
  const receipt = desk.getByTestId('receipt');
  await expect(receipt).toContainText(`Sale ${number}`);
  await expect(receipt).toContainText('£12.50');
  await expect(receipt.getByRole('img')).toHaveAttribute('aria-label', new RegExp(`${number} `));
  await expect(desk.getByTestId('paper').locator('img')).toHaveAttribute('src', /^data:image\/svg/);
  const [file] = await Promise.all([
    desk.waitForEvent('download'),
    desk.getByRole('button', { name: 'ESC/POS file' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe(`${number}.escpos`);
  await desk.getByLabel('Send it to').fill('wren@');
  await desk.getByRole('button', { name: 'Send it' }).click();
  await expect(desk.getByRole('alert')).toContainText('“wren@” is not an e-mail address');
  await desk.getByRole('button', { name: 'Gift receipt' }).click();
  await expect(receipt).not.toContainText('12.50');
  await desk.getByLabel('Send it to').fill('wren@green.example');
  await desk.getByRole('button', { name: 'Send it' }).click();
  await expect(desk.getByText('now or as soon as there is network')).toBeVisible();
  await desk.context().setOffline(false);
  const came = () => till.mailbox.letters.filter(({ to }) => to === 'wren@green.example');
  await expect.poll(() => came().length).toBe(1);
  expect(came()[0]?.subject).toBe(`Receipt ${number} from Larkmoss Plants`);
  expect(came()[0]?.text).toContain('Gift receipt');
  expect(came()[0]?.text).not.toContain('12.50');
  // Another entry goes; the letter does not go again.
  await owe(desk, '1.00');
  await desk.keyboard.press('F9');
  await saleNow(desk);
  await expect(standing(desk)).toHaveText('All sent');
  expect(came()).toHaveLength(1);
});

test('a printer for practice: each sale prints, cash opens the drawer; a void gives all of it back', async () => {
  await go(desk, '/set-up');
  await desk.getByLabel('Receipt printer').selectOption('practice');
  await desk.getByLabel('Print the receipt of each sale').check();
  // Within one window: the roll hangs on it.
  const follow = (name: string): Promise<void> =>
    desk.getByRole('link', { name, exact: true }).first().click();
  await follow('Counter');
  await type(desk, '8.00 basket');
  await desk.keyboard.press('F9');
  await expect(lastSale(desk)).toContainText('£8.00');
  const number = await saleNow(desk);
  await follow('Set-up');
  await follow('Look at the roll');
  const roll = desk.getByTestId('roll');
  await expect(roll.getByRole('img', { name: `Receipt ${number}, as printed` })).toBeVisible();
  await expect(roll).toContainText('The drawer opens');

  await go(desk, '/');
  await desk.getByRole('link', { name: 'The event’s page' }).click();
  await expect(desk.getByTestId('ties-up')).toHaveText('Device and server agree on every figure.');
  const before = (await desk.getByTestId('device-takings').textContent()) ?? '';
  await go(desk, '/find');
  await desk.getByRole('link', { name: new RegExp(`^${number} `) }).click();
  await desk.getByRole('button', { name: 'Void this sale …' }).click();
  await desk.getByRole('button', { name: 'Void it, give back £8.00 Cash' }).click();
  await expect(desk.getByRole('alert')).toContainText('Say why');
  await desk.getByLabel('Why').fill('rang up twice');
  await desk.getByRole('button', { name: 'Void it, give back £8.00 Cash' }).click();
  await expect(desk.getByTestId('voided')).toContainText('Maren: rang up twice');
  await go(desk, '/');
  await desk.getByRole('link', { name: 'The event’s page' }).click();
  await expect(desk.getByTestId('device-takings')).toHaveText(
    (Number(before.replace(/,/g, '')) - 8).toFixed(2),
  );
  await expect(desk.getByTestId('ties-up')).toHaveText('Device and server agree on every figure.');
});
