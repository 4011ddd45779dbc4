/** What else there is of customers: known by a card, and a debt that they choose to pay. */
import { expect, test } from '@playwright/test';
import { openDrawer, payExactly, standing, tag, type, useDrawer } from '../support/at-the-stall';
import { counter, oneStall } from '../support/one-stall';

const device = oneStall();

test('of what a customer owes one sale is chosen, and paid before older ones', async ({
  browser,
}) => {
  const page = await device(browser, 'Tobin');
  await openDrawer(page);
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Customers', exact: true }).click();
  await page.getByRole('link', { name: /^Corin Wray/ }).click();
  // A device that has just begun hears of sums before it hears of what moved them.
  await expect(page.getByTestId('open-items')).toBeVisible();
  await expect(page.getByTestId('open-items')).not.toContainText('what is older');
  const pays = page.getByTestId('open-items').getByRole('button', { name: /^Pay D/ });
  await expect.poll(() => pays.count()).toBeGreaterThan(1);
  const nameOf = async (at: 'first' | 'last'): Promise<string> =>
    ((await pays[at]().getAttribute('aria-label')) ?? '').replace('Pay ', '');
  const [oldest, number] = [await nameOf('first'), await nameOf('last')];
  await page.getByRole('button', { name: `Pay ${number}`, exact: true }).click();
  await expect(page.getByTestId('goods')).toBeVisible();
  await expect(page.getByText(`for ${number}`)).toBeVisible();
  await payExactly(page);
  await page.getByTestId('last-sale').click();
  await expect(page.getByTestId('receipt')).toContainText(`Paid on account, for ${number}`);
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Customers', exact: true }).click();
  await page.getByRole('link', { name: /^Corin Wray/ }).click();
  await expect(page.getByRole('button', { name: `Pay ${oldest}`, exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: `Pay ${number}`, exact: true })).toHaveCount(0);
});

test('a card that is scanned at the counter puts its customer on the slip', async ({ browser }) => {
  const owner = await device(browser, 'Maren');
  await owner.getByRole('link', { name: 'Set-up', exact: true }).click();
  await owner.getByRole('link', { name: 'Customers', exact: true }).click();
  await owner.getByRole('link', { name: /^Hazel Birk/ }).click();
  await owner.getByLabel('Card or tag').fill('GREEN-0117');
  await owner.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(owner.getByText('Hazel Birk is saved.')).toBeVisible();
  // Nobody else has the same.
  await owner.getByRole('link', { name: /^Sela Marsh/ }).click();
  await owner.getByLabel('Card or tag').fill('green-0117');
  await owner.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(owner.getByText('green-0117 is the card of Hazel Birk already.')).toBeVisible();
  await expect(standing(owner)).toHaveText('All sent');

  const page = await device(browser, 'Ines');
  await useDrawer(page);
  await counter(page);
  await type(page, 'green-0117');
  await tag(page, 'Lavender').click();
  await expect(page.getByTestId('slip-said')).toContainText('Hazel Birk');
  // Her standing discount with her.
  await expect(page.getByTestId('to-pay')).toHaveText('£4.05');
});
