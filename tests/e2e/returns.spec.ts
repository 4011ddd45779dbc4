/** Putting a sale right: goods come back, with no network, in parts, and from two devices at once. */
import { expect, test, type Page } from '@playwright/test';
import {
  go,
  goOffline,
  lastSale,
  openDrawer,
  payExactly,
  PINS,
  sellOne,
  standing,
  tag,
  type,
  useDrawer,
} from '../support/at-the-stall';
import { askFor, CardDesk, hold, wayRow } from '../support/card-desk';
import { back, openSale, returned } from '../support/at-the-sale';
import { oneStall } from '../support/one-stall';

// The drawer that the first opens, the others use.
const device = oneStall();

async function takeBack(page: Page, goods: string, much: string, why: string): Promise<void> {
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByLabel(`How much of ${goods}`).fill(much);
  await back(page).getByLabel('Why').fill(why);
  await back(page)
    .getByRole('button', { name: /^Give back/ })
    .click();
}

test('one of two pots comes back broken with no network; the drawer and the stock follow', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await openDrawer(page);
  await tag(page, 'Lavender').click();
  await tag(page, 'Lavender').click();
  await tag(page, 'Viola').click();
  const number = await payExactly(page);
  await expect(standing(page)).toHaveText('All sent');
  await goOffline(page);
  await openSale(page, number);

  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByLabel('How much of Lavender').fill('3');
  await expect(back(page).getByRole('button', { name: 'Give back', exact: true })).toBeVisible();
  await back(page).getByRole('button', { name: 'Give back', exact: true }).click();
  await expect(back(page).getByRole('alert')).toContainText('Of Lavender only 2 can still come');
  await back(page).getByLabel('How much of Lavender').fill('1');
  await back(page).getByLabel('Where Lavender goes').selectOption('broken');
  await back(page).getByRole('button', { name: 'Give back £4.50' }).click();
  await expect(back(page).getByRole('alert')).toContainText('Say why');
  await back(page).getByLabel('Why').fill('the wind took it');
  await back(page).getByRole('button', { name: 'Give back £4.50' }).dblclick();
  await expect(returned(page)).toHaveCount(1);
  await expect(returned(page)).toContainText('1 × Lavender, broken');
  await expect(returned(page)).toContainText('−4.50');
  // Some of it is back: it cannot be void as well, and one of each is left to come back.
  await expect(page.getByRole('button', { name: 'Void this sale …' })).toHaveCount(0);
  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');

  await takeBack(page, 'Viola', '1', 'the wrong colour');
  await expect(returned(page)).toHaveCount(2);
  await expect(returned(page).last()).toContainText('1 × Viola, back to stock');
  await expect(standing(page)).toHaveText('All sent');
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(page.getByTestId('takings')).toHaveText('£4.50');
  await page.getByRole('link', { name: 'The event’s page' }).click();
  await expect(page.getByTestId('ties-up')).toHaveText('Device and server agree on every figure.');
  // £80.00 of float, £13.20 taken, £8.70 given back.
  await go(page, '/drawer/count');
  await expect(page.getByTestId('expected')).toHaveText('84.50');
  await go(page, '/counter');
  await expect(tag(page, 'Viola')).toContainText('40 left');
  await expect(tag(page, 'Lavender')).toContainText('46 left');

  // A pot that wilted stays with the customer, for less.
  await openSale(page, await sellOne(page, 'Lavender'));
  const less = page.getByRole('region', { name: 'Take something off' });
  await page.getByRole('button', { name: 'Take something off …' }).click();
  await less.getByLabel('Off Lavender').fill('9');
  await less.getByLabel('Why').fill('it wilted');
  await less.getByRole('button', { name: 'Give back', exact: true }).click();
  await expect(less.getByRole('alert')).toContainText('Of what Lavender cost only £4.50 is left');
  await less.getByLabel('Off Lavender').fill('20 %');
  await less.getByRole('button', { name: 'Give back £0.90' }).click();
  await expect(returned(page)).toContainText('£0.90 off Lavender');
  await takeBack(page, 'Lavender', '1', 'it died');
  await expect(returned(page)).toHaveCount(2);
  await expect(returned(page).last()).toContainText('−3.60');
  await expect(standing(page)).toHaveText('All sent');

  // Found by the number of a return, by who sold it, and by the day.
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  const here = page.getByTestId('found-here').getByRole('link');
  for (const typed of [number.replace(/-.*/, '-b2'), 'tobin']) {
    await page.getByLabel('Anything by number, name, item or amount').fill(typed);
    await expect(here.filter({ hasText: number })).toContainText('£8.70 given back');
  }
  await page.getByLabel('Anything by number, name, item or amount').fill('1999-01-01');
  await expect(here).toHaveCount(0);
});

test('two devices out of touch take the same pot back: both count, and one is a loose end', async ({
  browser,
}) => {
  const one = await device(browser, 'Tobin');
  const two = await device(browser, 'Maren');
  for (const page of [one, two]) await useDrawer(page);
  await one.getByRole('link', { name: 'Counter', exact: true }).click();
  const number = await sellOne(one, 'Geranium');
  await expect(standing(one)).toHaveText('All sent');
  for (const page of [one, two]) await openSale(page, number);
  for (const page of [one, two]) await goOffline(page);
  for (const page of [one, two]) {
    await takeBack(page, 'Geranium', '1', 'wilted');
    await expect(returned(page)).toHaveCount(1);
  }
  for (const page of [one, two]) await page.context().setOffline(false);
  for (const page of [one, two]) {
    await expect(standing(page)).toHaveText('All sent');
    await expect(returned(page)).toHaveCount(2);
  }
  await go(two, '/loose-ends');
  await expect(two.getByText('more of a line came back than was left of it')).toBeVisible();
});

test('a helper takes nothing back without somebody who may', async ({ browser }) => {
  const page = await device(browser, 'Oriel');
  await useDrawer(page);
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  const number = await sellOne(page, 'Sedum');
  await openSale(page, number);
  await takeBack(page, 'Sedum', '1', 'wilted');
  await page.getByRole('button', { name: 'Tobin' }).click();
  await page.getByLabel('PIN of Tobin').fill(PINS['Tobin'] ?? '');
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(returned(page)).toHaveCount(1);
});

test('money goes back to the card that paid, once, though the answer is lost and the network is gone', async ({
  browser,
}) => {
  const desk = new CardDesk(device.devices());
  const page = await desk.seller(browser, 'Tobin');
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  await tag(page, 'Salvia').click();
  await tag(page, 'Salvia').click();
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await page.waitForURL('**/counter/pay');
  await askFor(page, '12.40');
  await hold(page);
  await expect(lastSale(page)).toContainText('£12.40');
  const number = ((await lastSale(page).textContent()) ?? '').split(',')[0]!;
  await expect(standing(page)).toHaveText('All sent');
  const [paid] = await desk.cardRows(1240);
  const refunded = async (): Promise<number | undefined> =>
    (await desk.atAcquirer(paid!.id))?.refunded;

  await goOffline(page);
  await openSale(page, number);
  await takeBack(page, 'Salvia', '1', 'the wrong colour');
  await expect(returned(page).getByTestId('refund')).toContainText(
    '£6.20 goes to the card as soon as there is network',
  );
  expect(await refunded()).toBe(0);
  // It is done at the acquirer, and the answer never arrives.
  await desk.fault({ of: 'POST /refund', dropAfter: 1 });
  await page.context().setOffline(false);
  await expect(returned(page).getByTestId('refund')).toContainText('is on its way to the card');
  await expect(standing(page)).toHaveText('All sent');
  expect(await refunded()).toBe(620);

  // The rest, by a tap that is a double one: to the same card, and that is all of it.
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByRole('button', { name: 'All of it' }).click();
  await back(page).getByLabel('Why').fill('and that one too');
  await back(page).getByRole('button', { name: 'Give back £6.20' }).dblclick();
  await expect(returned(page)).toHaveCount(2);
  await expect(back(page)).toHaveCount(0);
  await expect.poll(refunded).toBe(1240);
  await expect(returned(page).getByTestId('refund').last()).toContainText('is on its way');

  // Paid by card and in cash: the card gets back what it paid, and the rest comes out of the drawer.
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  await tag(page, 'Salvia').click();
  await tag(page, 'Salvia').click();
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await page.waitForURL('**/counter/pay');
  const row = wayRow(page, /^Card(?! by)/);
  await row.getByRole('button').first().click();
  await row.getByLabel('Of what is left').fill('8');
  await askFor(page, '8.00');
  await hold(page);
  await expect(page.getByTestId('left-to-pay')).toContainText('4.40');
  await page.keyboard.press('F9');
  await expect(lastSale(page)).toContainText('£12.40');
  const second = ((await lastSale(page).textContent()) ?? '').split(',')[0]!;
  expect(second).not.toBe(number);
  await openSale(page, second);
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByRole('button', { name: 'All of it' }).click();
  await back(page).getByLabel('Given back').selectOption({ label: 'to Card 4471, up to £8.00' });
  await back(page).getByLabel('Why').fill('both of them');
  await back(page).getByRole('button', { name: 'Give back £12.40' }).click();
  await expect(back(page).getByRole('alert')).toContainText('Only £8.00 can still go back');
  await back(page).getByLabel('The rest, £4.40').selectOption({ label: 'cash out of Drawer 1' });
  await back(page).getByRole('button', { name: 'Give back £12.40' }).click();
  await expect(page.getByText('give back £4.40 beside it')).toBeVisible();
  const [other] = await desk.cardRows(800);
  await expect.poll(async () => (await desk.atAcquirer(other!.id))?.refunded).toBe(800);
});

test('a gift receipt that is scanned takes goods back and shows no prices', async ({ browser }) => {
  const page = await device(browser, 'Maren');
  await useDrawer(page);
  await go(page, '/counter');
  const number = await sellOne(page, 'Lavender');
  await openSale(page, number);
  const receipt = page.getByTestId('receipt');
  const whole = await receipt.getByText(new RegExp(`^${number} [0-9a-f]{10}$`)).textContent();
  await page.getByRole('button', { name: 'Gift receipt' }).click();
  await expect(receipt).not.toContainText('4.50');
  const code = receipt.getByText(new RegExp(`^${number} [0-9a-f]{10}$`));
  await expect(code).not.toHaveText(whole!);
  const gift = (await code.textContent())!;

  // As a scanner types it, on any screen.
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(page.getByRole('heading', { name: 'Pellow Green market' })).toBeVisible();
  await page.keyboard.type(gift);
  await page.keyboard.press('Enter');
  await expect(page.getByText('no prices are shown')).toBeVisible();
  await expect(page.getByRole('main')).not.toContainText('4.50');
  await takeBack(page, 'Lavender', '1', 'they have one');
  await expect(returned(page)).toContainText('Lavender');
  await expect(returned(page)).not.toContainText('4.50');
  await page.getByRole('link', { name: 'Show the whole sale' }).click();
  await expect(returned(page)).toContainText('4.50');

  // Of a long sale a few lines at a time; what was chosen stays.
  await go(page, '/counter');
  for (let n = 11; n < 25; n += 1) await type(page, `1.${String(n)}`);
  await openSale(page, await payExactly(page));
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  const quantities = back(page).getByPlaceholder('0');
  await expect(quantities).toHaveCount(12);
  await expect(back(page)).toContainText('12 of 14 lines are shown');
  await quantities.nth(1).fill('1');
  await back(page).getByLabel('Which of 14 lines').fill('zebra');
  await expect(quantities).toHaveCount(1);
  await expect(quantities).toHaveValue('1');
  await back(page).getByRole('button', { name: 'All of it' }).click();
  await expect(quantities).toHaveCount(14);
  // 1.11 to 1.24.
  await expect(back(page).getByRole('button', { name: 'Give back £16.45' })).toBeVisible();
});
