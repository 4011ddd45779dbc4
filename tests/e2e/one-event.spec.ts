/** One event, from float to count, as a new user would. */
import { expect, test } from '@playwright/test';
import {
  cells,
  countPieces,
  enrol,
  go,
  entryLine,
  FLOAT,
  lastSale,
  PINS,
  sellOne,
  signIn,
  slipIsKept,
  tag,
  total,
  type,
} from '../support/at-the-stall';
import { cutOff } from '../support/looks';
import { RunningTill } from '../support/running-till';

// As most people have it: with all that moves.
test.use({ contextOptions: { reducedMotion: 'no-preference' } });

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

test('from the printed address to the final read', async ({ browser }) => {
  const page = await browser.newPage({ baseURL: till.origin });
  await test.step('enrol in one go; today says what is next', async () => {
    await enrol(page, till);
    await expect(page.getByRole('region', { name: 'What comes next' })).toContainText(
      'Open the drawer',
    );
    await expect(
      page.getByRole('list', { name: 'Stages of the event' }).getByText('trading'),
    ).toBeVisible();
  });

  await test.step('open the drawer with a counted float', async () => {
    await page.getByRole('link', { name: 'Open the drawer' }).click();
    await countPieces(page, FLOAT);
    await page.getByRole('button', { name: 'One £10 more' }).click();
    await expect(page.getByTestId('float')).toHaveText('£90.00');
    await page.getByRole('button', { name: 'One £10 fewer' }).click();
    await page.getByRole('button', { name: 'Open with £80.00' }).click();
  });

  await test.step('tap goods and type; the slip adds up, tax included', async () => {
    await tag(page, 'Lavender').click();
    await tag(page, 'Lavender').click();
    await type(page, '3 thyme');
    await entryLine(page).fill('0.385 crocus');
    await expect(page.getByTestId('understood')).toHaveText(
      '0.385 kg × Crocus, loose, by weight — £4.85',
    );
    await entryLine(page).press('Enter');
    await type(page, '2.50 ribbon');
    // 9.00 + 9.60 (no tax) + 4.85 + 2.50; tax in it: R(16.35 / 1.2) = 13.63, 16.35 − 13.63
    await expect(total(page)).toHaveText('£25.95');
    await expect(page.getByTestId('tax')).toHaveText('2.72');
  });

  await test.step('change a quantity, remove with undo', async () => {
    const slip = page.getByRole('list', { name: 'Lines' });
    await slip.getByRole('button', { name: /Thyme/ }).click();
    await page.getByLabel('Quantity of Thyme').fill('1');
    await page.getByLabel('Quantity of Thyme').press('Enter');
    await expect(total(page)).toHaveText('£19.55');
    await page.getByRole('button', { name: 'Remove' }).click();
    await expect(total(page)).toHaveText('£16.35');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(total(page)).toHaveText('£19.55');
    await slipIsKept(page, await slip.getByRole('listitem').count());
  });

  await test.step('the slip outlives a reload', async () => {
    await page.reload();
    await expect(total(page)).toHaveText('£19.55');
  });

  await test.step('take a suggested note; the change is shown with its notes and coins', async () => {
    await page.keyboard.press('F2');
    await expect(page.getByTestId('left-to-pay')).toHaveText('£19.55');
    await page.getByRole('button', { name: /^£50/ }).click();
    await expect(page.getByTestId('change')).toHaveText('£30.45');
    const pieces = page
      .getByRole('list', { name: 'Notes and coins to give' })
      .getByRole('listitem');
    await expect(pieces).toHaveText(['£20', '£10', '2 × 20p', '5p']);
    await page.keyboard.press('Enter');
    await expect(lastSale(page)).toHaveText('D4-1, £19.55');
  });

  await test.step('take exact cash by one key, and a typed amount', async () => {
    await tag(page, 'Geranium').click();
    await page.keyboard.press('F9');
    await expect(lastSale(page)).toHaveText('D4-2, £3.20');
    await tag(page, 'Viola').click();
    await page.keyboard.press('F2');
    await page.getByLabel('Handed over').fill('4');
    await expect(page.getByText('leaves £0.20 to pay')).toBeVisible();
    await page.getByLabel('Handed over').fill('4.50');
    await page.keyboard.press('Control+Enter');
    await expect(page.getByTestId('change')).toHaveText('£0.30');
    await page.getByRole('button', { name: /Next customer/ }).click();
    await expect(lastSale(page)).toHaveText('D4-3, £4.20');
  });

  await test.step('the event’s page: device and MariaDB agree', async () => {
    await go(page, '/');
    await expect(page.getByTestId('takings')).toHaveText('£26.95');
    await page.getByRole('link', { name: 'The event’s page' }).click();
    await expect(page.getByTestId('ties-up')).toHaveText(
      'Device and server agree on every figure.',
    );
    await expect(page.getByTestId('device-takings')).toHaveText('26.95');
    await expect(page.getByTestId('server-takings')).toHaveText('26.95');
    const lavender = cells(page, 'Lavender, 10 cm pot');
    await expect(lavender).toHaveText(['Lavender, 10 cm pot', '2', '46 left', '9.00']);
    await expect(cells(page, 'Crocus, loose')).toHaveText([
      'Crocus, loose, by weight',
      '0.385 kg',
      '6.615 kg',
      '4.85',
    ]);
  });

  await test.step('count the drawer: expected, counted, difference, reason', async () => {
    await go(page, '/drawer/count');
    await expect(page.getByTestId('expected')).toHaveText('106.95');
    // 1.00 short: the float and 26.95 less a pound
    await countPieces(page, {
      '£20': 1,
      '£10': 2,
      '£5': 7,
      '£1': 20,
      '50p': 10,
      '20p': 15,
      '10p': 29,
      '5p': 1,
    });
    await expect(page.getByTestId('counted')).toHaveText('105.95');
    await expect(page.getByTestId('difference')).toHaveText('£1.00 short');
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    await expect(page.getByRole('alert')).toContainText('Say why it is £1.00 short');
    await expect(page.getByLabel('£20', { exact: true })).toHaveValue('1');
    await page.getByLabel('Reason for a difference').fill('dropped a coin in the grass');
    await page.getByRole('button', { name: 'Close the drawer' }).click();
    await expect(page.getByRole('heading', { name: 'Final read D4-R1' })).toBeVisible();
    await expect(page.getByTestId('final-read')).toContainText('£1.00 short');
  });

  await test.step('the stage is counted, and the read stays as it is', async () => {
    await go(page, '/');
    await expect(
      page.getByRole('list', { name: 'Stages of the event' }).locator('.now'),
    ).toContainText('counted');
    await expect(page.getByText('Final read D4-R1')).toBeVisible();
    await go(page, '/drawer/count');
    await expect(page.getByText('This device uses no open drawer')).toBeVisible();
    await go(page, '/counter');
    await expect(page.getByText('This event is not trading')).toBeVisible();
  });

  await test.step('it goes back to trading by somebody who may, who says why', async () => {
    await go(page, '/books');
    await page
      .getByRole('link', { name: /Pellow Green/ })
      .filter({ hasText: 'counted' })
      .click();
    await page.getByRole('button', { name: 'Go back a stage …' }).click();
    const back = page.getByRole('form', { name: 'Go back to an earlier stage' });
    await back.getByLabel('Why').fill('one customer more at the gate');
    await back.getByRole('button', { name: 'Go back' }).click();
    await back.getByRole('button', { name: 'Maren' }).click();
    await back.getByLabel('PIN of Maren').fill(PINS['Maren'] ?? '');
    await back.getByRole('button', { name: 'Allow it this once' }).click();
    await expect(page.getByTestId('went-back')).toContainText('one customer more at the gate');
    await go(page, '/counter');
    await expect(page.getByText('This event is not trading')).toHaveCount(0);
  });
  await page.close();
});

test('two windows of one device ring a slip up once', async ({ browser }) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const one = await context.newPage();
  await one.goto(till.enrolAddress('pinwheel'));
  await signIn(one, 'Pia');
  await one.getByRole('link', { name: 'Open the drawer' }).click();
  await one.getByLabel('$1', { exact: true }).fill('30');
  await one.getByRole('button', { name: 'Open with $30.00' }).click();
  await tag(one, 'Windsock').click();
  const two = await context.newPage();
  await two.goto('/counter/pay');
  // On top: R(19.99 × 6.25 %) = 1.25 and R(19.99 × 1.75 %) = 0.35
  await expect(two.getByTestId('left-to-pay')).toHaveText('$21.59');
  await one.keyboard.press('F2');
  await expect(one.getByTestId('left-to-pay')).toHaveText('$21.59');
  await Promise.all(
    [one, two].map((page) =>
      page
        .getByRole('button', { name: /exact/ })
        .evaluate((button) => (button as HTMLElement).click()),
    ),
  );
  for (const page of [one, two]) {
    await expect(page).toHaveURL(/\/counter$/);
    await expect(lastSale(page)).toHaveText(/^D\d-1, /);
    await expect(total(page)).toHaveText('$0.00');
  }
  await one.goto('/');
  await expect(one.getByTestId('sales')).toContainText('1 sale ·');
  await context.close();
});

test('the counter keeps up with a queue by touch on a phone', async ({ browser }) => {
  const context = await browser.newContext({
    baseURL: till.origin,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const page = await context.newPage();
  await page.goto(till.enrolAddress('pinwheel'));
  await page.getByRole('button', { name: /^Dov/ }).tap();
  for (const digit of PINS['Dov'] ?? '') {
    await page.getByRole('button', { name: digit, exact: true }).tap();
  }
  await page.getByRole('button', { name: 'Sign in' }).tap();
  await expect(page.getByTitle('Who is selling')).toHaveText('Dov');
  await page.goto('/drawer/open');
  await page.getByRole('button', { name: 'One $1 more' }).tap();
  await page.getByRole('button', { name: 'Open with $1.00' }).tap();
  const numbers: string[] = [];
  for (const name of ['Pinwheel', 'Windsock', 'Box kite']) numbers.push(await sellOne(page, name));
  const [device = ''] = numbers[0]!.split('-');
  expect(numbers).toEqual([1, 2, 3].map((n) => `${device}-${String(n)}`));

  // Folded, the slip shows what was tapped last and the line above it, wherever they stand.
  const lines = page.getByRole('list', { name: 'Lines' }).getByRole('listitem');
  for (const name of ['Pinwheel', 'Windsock', 'Box kite', 'Windsock']) await tag(page, name).tap();
  await expect(lines).toHaveText([/^\s*1\s*Pinwheel/, /^\s*2\s*Windsock/]);
  // Two prices and what is left, with more goods than fit: all of each tag is to be read.
  await expect(tag(page, 'Box kite')).toContainText('left');
  expect(await cutOff(page)).toEqual([]);
  await page.getByRole('button', { name: 'Pull the slip up' }).tap();
  await expect(lines).toHaveCount(3);
  await lines.nth(1).getByRole('button').tap();
  await page.getByRole('button', { name: 'Remove' }).tap();
  await page.getByRole('button', { name: 'Lower the slip' }).tap();
  await page.getByRole('button', { name: 'Undo' }).tap();
  await expect(lines).toHaveText([/Pinwheel/, /^\s*2\s*Windsock[^−]*$/]);
  await page.getByRole('button', { name: 'Exact cash' }).tap();
  await expect(lastSale(page)).toHaveText(new RegExp(`^${device}-4, `));

  await page.getByRole('tab', { name: 'Tails & line' }).tap();
  await tag(page, 'Winder').tap();
  await page.getByRole('button', { name: 'Take payment' }).tap();
  await page.getByRole('button', { name: /^\$10 / }).tap();
  await expect(page.getByTestId('change')).toBeVisible();
  await page.getByRole('button', { name: 'Next customer' }).tap();
  await expect(lastSale(page)).toHaveText(new RegExp(`^${device}-5, `));
  await context.close();
});
