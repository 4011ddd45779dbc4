/** Putting a sale right: exchanged, booked wrongly, given back without a sale, found by whatever there is. */
import { expect, test } from '@playwright/test';
import {
  go,
  goOffline,
  openDrawer,
  payExactly,
  sellOne,
  standing,
  tag,
  useDrawer,
} from '../support/at-the-stall';
import { back, openSale, returned } from '../support/at-the-sale';
import { oneStall } from '../support/one-stall';

// The drawer that the first opens, the others use.
const device = oneStall();

test('a pot is exchanged with no network: it pays on the slip, set aside and taken up, and the rest is paid', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await openDrawer(page);
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  const number = await sellOne(page, 'Lavender');
  await expect(standing(page)).toHaveText('All sent');
  await goOffline(page);
  const bring = async (): Promise<void> => {
    await back(page).getByRole('button', { name: 'Take goods back …' }).click();
    await back(page).getByLabel('How much of Lavender').fill('1');
    await back(page).getByLabel('Given back').selectOption('exchange');
    await back(page).getByLabel('Why').fill('rather a rosemary');
    await back(page).getByRole('button', { name: 'Put it on the slip' }).click();
  };
  await openSale(page, number);
  await bring();
  const brought = page.getByTestId('comes-back');
  await expect(brought).toContainText('1 × Lavender');
  await expect(brought).toContainText('−4.50');
  await expect(page.getByTestId('to-pay')).toHaveText('£4.50');
  await page.getByRole('button', { name: `${number} does not come back` }).click();
  await expect(brought).toHaveCount(0);
  await openSale(page, number);
  await bring();
  await tag(page, 'Rosemary').click();
  await expect(page.getByTestId('to-pay')).toHaveText('£2.00');
  await page.getByRole('button', { name: /^Set aside/ }).click();
  await expect(brought).toHaveCount(0);
  await go(page, '/waiting');
  await expect(page.getByTestId('waiting')).toContainText('Rosemary');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(brought).toContainText(number);

  await page.getByRole('link', { name: 'Find', exact: true }).click();
  await page.getByRole('link', { name: new RegExp(`${number}\\b`) }).click();
  await bring();
  await expect(back(page).getByRole('alert')).toContainText('on the slip already');
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  const rung = await payExactly(page);
  await openSale(page, rung);
  await expect(page.getByTestId('receipt')).toContainText('Goods brought back');
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  await page.getByRole('link', { name: new RegExp(`${number}\\b`) }).click();
  await expect(returned(page)).toContainText('1 × Lavender, back to stock');

  // Worth more than what is taken for it: the rest goes back out of the drawer.
  await openSale(page, rung);
  await back(page).getByRole('button', { name: 'Take goods back …' }).click();
  await back(page).getByLabel('How much of Rosemary').fill('1');
  await back(page).getByLabel('Given back').selectOption('exchange');
  await back(page).getByLabel('Why').fill('rather a viola');
  await back(page).getByRole('button', { name: 'Put it on the slip' }).click();
  await tag(page, 'Viola').click();
  await page.getByRole('button', { name: /^Give back/ }).click();
  await expect(page.getByTestId('left-to-pay')).toHaveText('£2.30');
  await page.getByTestId('exchange').getByRole('button', { name: 'Give back £2.30' }).dblclick();
  await expect(page.getByText(/give back £2\.30/)).toBeVisible();
  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/loose-ends');
  await expect(page.getByRole('article', { name: /sale|return/i })).toHaveCount(0);
});

test('what was booked wrongly is put right, and the drawer, the ways and the stock follow', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await useDrawer(page);
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  const number = await sellOne(page, 'Lavender');
  await expect(standing(page)).toHaveText('All sent');
  const expected = async (): Promise<number> => {
    await go(page, '/drawer/count');
    await expect(page.getByTestId('expected')).toHaveText(/\d/);
    return Number(await page.getByTestId('expected').textContent());
  };
  const before = await expected();
  await goOffline(page);
  await openSale(page, number);
  const wrong = page.getByRole('region', { name: 'Booked wrongly' });
  await page.getByRole('button', { name: 'Booked wrongly …' }).click();
  await wrong.getByRole('button', { name: 'Put it right' }).click();
  await expect(wrong.getByRole('alert')).toHaveText('Choose how it was paid.');
  await wrong.getByLabel('In truth paid by').selectOption('Town tokens');
  await wrong.getByRole('button', { name: 'Put it right' }).click();
  await expect(wrong.getByRole('alert')).toContainText('Say why');
  await wrong.getByLabel('Why').fill('tapped the wrong button');
  await wrong.getByRole('button', { name: 'Put it right' }).dblclick();
  await expect(page.getByTestId('corrected')).toHaveCount(1);
  await expect(page.getByTestId('corrected')).toContainText('Paid by Town tokens');
  await expect(page.getByTestId('receipt')).toContainText('Town tokens');
  await expect.poll(expected).toBe(before - 4.5);

  // It is found by what a scanner reads of its receipt, wherever one is; another's is refused.
  await openSale(page, number);
  const code = await page
    .getByTestId('receipt')
    .getByText(new RegExp(`${number} [0-9a-f]{10}`))
    .textContent();
  await go(page, '/stock');
  await expect(page.getByRole('heading', { name: 'Stock', exact: true })).toBeVisible();
  await page.keyboard.type(code!.trim());
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('corrected')).toBeVisible();
  await go(page, '/counter');
  await page.getByLabel('Name, code or amount').fill(`${number} 0123456789`);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('This is no receipt of');

  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/loose-ends');
  await expect(page.getByRole('article', { name: /put right/ })).toHaveCount(0);

  // Other documents are found as well; arrows go through them, Enter opens.
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  const field = page.getByLabel('Anything by number, name, item or amount');
  await field.fill('lavend');
  await page
    .getByRole('group', { name: 'Only these' })
    .getByRole('button', { name: /^Goods 1/ })
    .click();
  await expect(page.getByTestId('found-here')).toHaveCount(0);
  await expect(page.getByTestId('found-documents').getByRole('link')).toHaveCount(1);
  await field.focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Lavender/ })).toBeVisible();

  // What was moved has a page of its own, with no network and with it.
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  await field.fill('lavend');
  await page
    .getByRole('group', { name: 'Only these' })
    .getByRole('button', { name: /^Goods moved/ })
    .click();
  await page.getByTestId('found-documents').getByRole('link').first().click();
  await expect(page.getByRole('heading', { name: 'Goods moved' })).toBeVisible();
  await expect(page.getByTestId('document')).toContainText('Lavender');
});

test('a sale that was rung up at the wrong event is of the other one, and back again', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await useDrawer(page);
  await page.getByRole('link', { name: 'Counter', exact: true }).click();
  const number = await sellOne(page, 'Viola');
  await expect(standing(page)).toHaveText('All sent');
  await goOffline(page);
  await openSale(page, number);
  const wrong = page.getByRole('region', { name: 'Booked wrongly' });
  const at = wrong.getByLabel('In truth sold at');
  const say = async (event: { readonly index: number }, why: string): Promise<void> => {
    await page.getByRole('button', { name: 'Booked wrongly …' }).click();
    await wrong.getByLabel('What it was').selectOption({ label: 'It was sold at another event' });
    await at.selectOption(event);
    await wrong.getByLabel('Why').fill(why);
    await wrong.getByRole('button', { name: 'Put it right' }).dblclick();
  };
  await page.getByRole('button', { name: 'Booked wrongly …' }).click();
  await wrong.getByLabel('What it was').selectOption({ label: 'It was sold at another event' });
  await wrong.getByRole('button', { name: 'Put it right' }).click();
  await expect(wrong.getByRole('alert')).toHaveText('Choose where it was sold.');
  await at.selectOption({ index: 1 });
  await expect(wrong.getByLabel('Its cash lies')).toContainText('where it was taken');
  await wrong.getByRole('button', { name: 'Put it right' }).click();
  await expect(wrong.getByRole('alert')).toContainText('Say why');
  await wrong.getByRole('button', { name: 'Cancel' }).click();
  await say({ index: 1 }, 'the phone was still at the market');
  const corrected = page.getByTestId('corrected');
  await expect(corrected).toHaveCount(1);
  await expect(corrected).toContainText('Sold at');
  // What paid for it is elsewhere: it is not voided here any more.
  await expect(page.getByRole('region', { name: 'Void' })).toHaveCount(0);

  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/loose-ends');
  await expect(page.getByRole('article', { name: /put right/ })).toHaveCount(0);
  const settle = async (): Promise<void> => {
    await go(page, '/');
    await page.getByRole('link', { name: 'The event’s page' }).click();
    await page.getByRole('link', { name: 'Settle …' }).click();
    await expect(page.getByTestId('settle-table')).toBeVisible();
  };
  await settle();
  await expect(page.getByTestId('elsewhere')).toContainText(
    'was taken here for sales of other events',
  );
  await openSale(page, number);
  // Today's is the nearest.
  await say({ index: 1 }, 'it was the market after all');
  await expect(corrected).toHaveCount(2);
  await expect(page.getByRole('region', { name: 'Void' })).toBeVisible();
  await expect(standing(page)).toHaveText('All sent');
  await settle();
  await expect(page.getByTestId('elsewhere')).toHaveCount(0);
});

test('a sale that this device does not know is given back for with no network, and held against it later', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await useDrawer(page);
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  await goOffline(page);
  const elsewhere = await device(browser, 'Tobin');
  await useDrawer(elsewhere);
  await elsewhere.getByRole('link', { name: 'Counter', exact: true }).click();
  const number = await sellOne(elsewhere, 'Geranium');
  await expect(standing(elsewhere)).toHaveText('All sent');

  await page.getByLabel('Anything by number, name, item or amount').fill(number);
  await expect(
    page.getByText('No network. Sales of events more than two weeks past'),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Give back without a sale …' }).click();
  await expect(page.getByLabel('Number on the receipt, if there is one')).toHaveValue(number);
  await page.getByRole('button', { name: 'Give back', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Choose goods, or type an amount');
  await page.getByLabel('Goods that come back').fill('gera');
  await page.getByRole('button', { name: /^Geranium/ }).click();
  await page.getByLabel('How many').fill('2');
  await page.getByLabel('Why').fill('a receipt of the other till');
  await page.getByRole('button', { name: 'Give back £6.40' }).dblclick();
  await expect(page.getByTestId('document')).toContainText('a receipt of the other till');
  await expect(page.getByTestId('document')).toContainText(number);

  // Twice what that sale came to: it counts, and somebody has to look.
  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
  await go(page, '/loose-ends');
  await expect(
    page.getByRole('article', { name: 'Money given back without a sale' }),
  ).toContainText('more than what is left of the sale');

  // Or it is kept for a customer: no money goes.
  await go(page, '/refund');
  await page.getByRole('button', { name: 'Only an amount' }).click();
  await page.getByLabel('Amount').fill('3');
  await page.getByLabel('Given back').selectOption('credit');
  await page.getByLabel('Why').fill('a torn bag');
  await page.getByRole('button', { name: 'Keep £3.00 as credit' }).click();
  await expect(page.getByRole('alert')).toContainText('Choose whose credit');
  await page.getByLabel('Customer', { exact: true }).fill('corin');
  await page.getByRole('button', { name: /^Corin Wray/ }).click();
  await page.getByRole('button', { name: 'Keep £3.00 as credit' }).click();
  await expect(page.getByTestId('document')).toContainText('a torn bag');
});
