/** Quotes, goods that are kept with a deposit, and orders to collect, from the counter to the evening. */
import { expect, test, type Page } from '@playwright/test';
import {
  goOffline,
  goOnline,
  openDrawer,
  payExactly,
  standing,
  tag,
  useDrawer,
} from '../support/at-the-stall';
import { more, putCustomer } from '../support/at-the-slip';
import { openSale } from '../support/at-the-sale';
import { wayRow } from '../support/card-desk';
import { counter, oneStall, toPayment } from '../support/one-stall';

const device = oneStall();

const waiting = (page: Page) => page.getByRole('link', { name: 'Waiting', exact: true }).click();
const order = (page: Page) => page.getByTestId('order');
const stands = (page: Page) => page.getByTestId('stands');

/** Opens what waits for a customer under a number that begins so. */
async function openWaiting(page: Page, name: RegExp): Promise<void> {
  await waiting(page);
  await page.getByTestId('waiting-orders').getByRole('link', { name }).click();
  await expect(order(page)).toBeVisible();
}

test('goods are kept with a deposit, paid off in part, and handed over whole on another till', async ({
  browser,
}) => {
  const one = await device(browser, 'Ines');
  const two = await device(browser, 'Tobin');
  await openDrawer(one);
  await useDrawer(two);
  await counter(one);
  await tag(one, 'Echinacea').click();
  await tag(one, 'Lavender').click();
  await putCustomer(one, 'Corin Wray');
  await more(one).getByRole('button', { name: 'Keep it for them' }).click();
  // Nothing is kept past its day, and a deposit is not more than it comes to.
  await more(one).getByLabel('Kept until, if any').fill('2020-01-15');
  await more(one).getByRole('button', { name: 'Write it down' }).click();
  await expect(more(one).getByRole('alert')).toContainText('is over');
  await more(one).getByLabel('Kept until, if any').fill('2099-01-15');
  await more(one).getByLabel('Deposit').fill('50');
  await more(one).getByRole('button', { name: 'Write it down' }).click();
  await expect(more(one).getByRole('alert')).toContainText('up to the £13.45');
  await more(one).getByLabel('Deposit').fill('5');
  await more(one).getByRole('button', { name: 'Write it down' }).click();
  await expect(one.getByTestId('to-pay')).toHaveText('£5.00');
  const taken = await payExactly(one);

  // An instalment, from the order's page.
  await openWaiting(one, /^Corin Wray K\d+-1/);
  await expect(stands(one)).toContainText('ready');
  await expect(stands(one)).toContainText('paid in part');
  await expect(order(one).getByTestId('money')).toContainText('£8.45');
  await one.getByLabel('They pay in advance').fill('99');
  await one.getByRole('button', { name: 'To the counter' }).click();
  await expect(one.getByRole('alert')).toContainText('Only £8.45 is still to pay');
  await one.getByLabel('They pay in advance').fill('2');
  await one.getByRole('button', { name: 'To the counter' }).click();
  await expect(one.getByTestId('to-pay')).toHaveText('£2.00');
  await payExactly(one);
  await expect(standing(one)).toHaveText('All sent');

  // The other till hands it over: the deposit first, the rest in cash.
  await openWaiting(two, /^Corin Wray K\d+-1/);
  await expect(order(two).getByTestId('money')).toContainText('£6.45');
  await two.getByRole('button', { name: 'Hand over' }).click();
  await expect(two.getByTestId('to-pay')).toHaveText('£13.45');
  await toPayment(two);
  const row = wayRow(two, /^Deposit/);
  await row.getByRole('button', { name: /^Deposit/ }).click();
  await expect(row.getByTestId('held-says')).toContainText('£7.00 is left');
  await row.getByRole('button', { name: 'Take £7.00' }).click();
  await two
    .getByRole('button', { name: /^£6\.45/ })
    .first()
    .click();
  await expect(two.getByTestId('last-sale')).toContainText('£13.45');
  const sold = ((await two.getByTestId('last-sale').textContent()) ?? '').split(',')[0]!;
  await expect(standing(two)).toHaveText('All sent');
  await openSale(two, sold);
  await expect(two.getByTestId('receipt')).toContainText('Deposit');

  // It waits no more; the deposit's page says where it went.
  await waiting(one);
  await one.getByRole('link', { name: 'All of them' }).click();
  await one.getByRole('button', { name: 'All', exact: true }).click();
  await one
    .getByTestId('orders')
    .getByRole('row')
    .filter({ hasText: 'Corin Wray' })
    .filter({ hasText: 'handed over' })
    .getByRole('link')
    .click();
  await expect(stands(one)).toContainText('handed over');
  await expect(one.getByTestId('deposit-moves')).toContainText(taken);
  await expect(one.getByTestId('deposit-moves')).toContainText(sold);
});

test('an order is handed over in part, and the rest on two tills at once: that is found', async ({
  browser,
}) => {
  const one = await device(browser, 'Tobin');
  const two = await device(browser, 'Ines');
  await useDrawer(one);
  await useDrawer(two);
  await counter(one);
  for (let n = 0; n < 3; n += 1) await tag(one, 'Lavender').click();
  await putCustomer(one, 'Corin Wray');
  await more(one).getByRole('button', { name: 'Order to collect' }).click();
  await more(one).getByRole('checkbox', { name: 'The goods are there' }).uncheck();
  await more(one).getByRole('button', { name: 'Write it down' }).click();
  await openWaiting(one, /^Corin Wray K\d+-/);
  await expect(stands(one)).toContainText('waiting for goods');
  await one.getByRole('button', { name: 'The goods are there' }).click();
  await expect(stands(one)).toContainText('ready');
  await one.getByRole('button', { name: 'Hand over' }).click();
  await one
    .getByRole('button', { name: /Lavender/ })
    .first()
    .click();
  const quantity = one.getByLabel('Quantity of Lavender');
  await quantity.fill('4');
  await quantity.press('Enter');
  await expect(one.getByRole('alert')).toContainText('Only 3 of Lavender are left of the order');
  await quantity.fill('1');
  await quantity.press('Enter');
  await expect(one.getByTestId('to-pay')).toHaveText('£4.50');
  await payExactly(one);
  await expect(standing(one)).toHaveText('All sent');

  for (const page of [one, two]) {
    await openWaiting(page, /^Corin Wray K\d+-/);
    await expect(stands(page)).toContainText('handed over in part');
    await goOffline(page);
    await page.getByRole('button', { name: 'Hand over' }).click();
    await expect(page.getByTestId('to-pay')).toHaveText('£9.00');
    await payExactly(page);
  }
  for (const page of [one, two]) {
    await goOnline(page);
    await expect(standing(page)).toHaveText('All sent');
  }
  await one.getByRole('link', { name: 'Set-up', exact: true }).click();
  await one.getByRole('link', { name: 'Loose ends', exact: true }).click();
  await expect(one.getByRole('article', { name: /^Order K\d+-/ })).toContainText(
    'More of it was handed over than was ordered',
  );
});

test('a quote is sold as it was quoted, goods are ordered elsewhere, and what is called off is credit', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await useDrawer(page);
  await counter(page);
  await tag(page, 'Echinacea').click();
  await putCustomer(page, 'Hazel Birk');
  await more(page).getByRole('button', { name: 'Quote', exact: true }).click();
  await more(page).getByRole('button', { name: 'Write it down' }).click();
  await expect(more(page).getByRole('alert')).toContainText('until when the quote holds');
  await more(page).getByLabel('It holds until').fill('2099-06-30');
  await more(page).getByRole('button', { name: 'Write it down' }).click();
  await expect(more(page)).toBeHidden();
  // Nothing is left on the slip, and she is a tap away when she is back.
  await tag(page, 'Viola').click();
  await putCustomer(page, 'Hazel Birk');
  await more(page)
    .getByTestId('customers-open')
    .getByRole('link', { name: /^Q\d+-/ })
    .first()
    .click();
  await expect(stands(page)).toContainText('quoted');
  // Her ten per cent are in it.
  await expect(order(page).getByTestId('money')).toContainText('£8.05');
  await page.getByRole('button', { name: 'Sell it as it is' }).click();
  // What was on the slip is set aside.
  await expect(page.getByTestId('to-pay')).toHaveText('£8.05');
  // So is this one, and the quote is sold from its page once more: the slip that waited sells it no second time.
  await page.getByRole('button', { name: /^Set aside/ }).click();
  await openWaiting(page, /^Hazel Birk Q\d+-/);
  await page.getByRole('button', { name: 'Sell it as it is' }).click();
  await expect(page.getByTestId('to-pay')).toHaveText('£8.05');
  await payExactly(page);
  await waiting(page);
  await page
    .getByTestId('waiting')
    .getByRole('listitem')
    .filter({ hasText: 'Echinacea' })
    .getByRole('button', { name: 'Continue' })
    .click();
  await expect(page.getByTestId('to-pay')).toHaveText('£8.05');
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await expect(page.getByText(/was handed over meanwhile/)).toBeVisible();
  await page
    .getByRole('list', { name: 'Lines' })
    .getByRole('button', { name: /Echinacea/ })
    .click();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await page.getByRole('button', { name: /^Put back/ }).click();
  await waiting(page);
  await expect(page.getByTestId('waiting')).toContainText('Viola');

  // A file of the web shop: what is wrong is said, what was there is there once.
  await page.getByRole('link', { name: 'All of them' }).click();
  await page.getByText('Orders from elsewhere').click();
  const file = [
    'order,name,email,item,quantity,paid',
    '2001,Rowan Fell,rowan@fell.example,Lavender,2,9.00',
    '2002,Corin Wray,,No such thing,1,',
  ].join('\n');
  const takeIn = async (): Promise<void> => {
    await page
      .getByLabel('A file of orders')
      .setInputFiles({ name: 'orders.csv', mimeType: 'text/csv', buffer: Buffer.from(file) });
  };
  await takeIn();
  await expect(page.getByRole('alert')).toContainText('Say first where');
  await page.getByLabel('Made at').fill('Web shop');
  await page.getByLabel('Paid there by').selectOption({ label: 'Web shop' });
  await takeIn();
  await expect(page.getByText('nothing is called No such thing')).toBeVisible();
  await page.getByRole('button', { name: 'Take 1 in' }).click();
  const row = page.getByTestId('orders').getByRole('row').filter({ hasText: '2001' });
  await expect(row).toContainText('waiting for goods, paid');
  await takeIn();
  await expect(page.getByRole('button', { name: /^Take \d+ in/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Cancel' }).click();

  // Called off: what was paid is kept as credit.
  await row.getByRole('link').click();
  await page.getByRole('button', { name: 'Call it off' }).click();
  await expect(page.getByRole('alert')).toContainText('Say why');
  await page.getByLabel('Why').fill('moved away');
  await page.getByRole('button', { name: 'Call it off' }).click();
  await expect(stands(page)).toContainText('called off');
  // A fee is kept of it, with its tax and a receipt; the rest is theirs.
  await page.getByLabel('Fee that we keep').fill('2');
  await page
    .getByRole('form', { name: 'Keep a fee' })
    .getByRole('button', { name: 'To the counter' })
    .click();
  await expect(page.getByTestId('to-pay')).toHaveText('£2.00');
  await toPayment(page);
  const deposit = wayRow(page, /^Deposit/);
  await deposit.getByRole('button', { name: /^Deposit/ }).click();
  await deposit.getByRole('button', { name: 'Take £2.00' }).click();
  await expect(page.getByTestId('last-sale')).toContainText('£2.00');
  await waiting(page);
  await page.getByRole('link', { name: 'All of them' }).click();
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await row.getByRole('link').click();
  await page.getByRole('button', { name: 'Keep £7.00 as credit' }).click();
  await expect(page.getByRole('button', { name: 'Keep £7.00 as credit' })).toHaveCount(0);
  await order(page).getByRole('link', { name: 'Rowan Fell' }).click();
  await expect(page.getByTestId('holds')).toContainText('£7.00');
  await expect(page.getByTestId('customer-orders')).toContainText('2001');
  await expect(standing(page)).toHaveText('All sent');
});
