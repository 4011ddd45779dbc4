/** Two records of one person: joined, spent together at the counter with no network, and taken apart again. */
import { expect, test, type Page } from '@playwright/test';
import { more } from '../support/at-the-slip';
import { goOffline, lend, openDrawer, payExactly, standing } from '../support/at-the-stall';
import { counter, oneStall } from '../support/one-stall';

const device = oneStall();

async function customers(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Customers', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Customers' })).toBeVisible();
}

async function customer(page: Page, name: string): Promise<void> {
  await customers(page);
  await page.getByLabel('Name, company, e-mail or phone').fill(name);
  await page.getByTestId('customers').getByRole('link', { name }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
}

async function add(page: Page, name: string, phone: string): Promise<void> {
  await customers(page);
  await page.getByRole('link', { name: 'Add a customer' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Phone').fill(phone);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('customers')).toContainText(name);
}

/** Credit, by paying in what nobody owes. */
async function payIn(page: Page, name: string, amount: string): Promise<void> {
  await customer(page, name);
  await page.getByLabel('They pay in').fill(amount);
  await page.getByRole('button', { name: 'To the counter' }).click();
  await expect(page.getByTestId('goods')).toBeVisible();
  await payExactly(page);
}

test('the demo has some, and whoever has the same telephone may be one of them', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await customer(page, 'Hazel Birk');
  await expect(page.getByTestId('records')).toContainText('H. Birk');
  await customers(page);
  await expect(page.getByTestId('customers')).toContainText('S. Marsh');
  await expect(page.getByTestId('customers')).not.toContainText('H. Birk');
  await customer(page, 'Sela Marsh');
  await expect(page.getByTestId('maybe-same')).toContainText('S. Marsh has the same telephone');
});

test('two records are joined, their credit is spent together offline, and they are taken apart', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await openDrawer(page);
  await add(page, 'Rowan Pike', '01632 960701');
  await add(page, 'R. Pike', '01632 960702');
  await payIn(page, 'Rowan Pike', '6.00');
  await payIn(page, 'R. Pike', '5.00');

  await customer(page, 'Rowan Pike');
  await page.getByRole('button', { name: 'Join another record …' }).click();
  await page.getByLabel('The other record').fill('pike');
  await page.getByRole('button', { name: 'R. Pike' }).click();
  const joining = page.getByTestId('joining');
  await expect(joining).toContainText('01632 960701 (and 01632 960702)');
  await expect(joining).toContainText('has £6.00 credit');
  await expect(joining).toContainText('has £5.00 credit');
  // The other way about, and back again.
  await joining.getByRole('button', { name: 'They go by R. Pike' }).click();
  await expect(joining).toContainText('01632 960702 (and 01632 960701)');
  await joining.getByRole('button', { name: 'They go by Rowan Pike' }).click();
  await joining.getByRole('button', { name: 'They are one: Rowan Pike' }).click();
  await expect(page.getByTestId('records')).toContainText('R. Pike');
  await expect(page.getByTestId('holds')).toContainText('£11.00');
  await expect(standing(page)).toHaveText('All sent');

  // A helper on another device finds them by either name, once, and takes what both have.
  const helper = await device(browser, 'Oriel');
  await goOffline(helper);
  await counter(helper);
  await helper.getByRole('button', { name: 'More …' }).click();
  await more(helper).getByRole('textbox', { name: 'Customer' }).fill('R. Pike');
  const found = more(helper).getByTestId('found-customers').getByRole('button');
  await expect(found).toHaveCount(1);
  await expect(found).toContainText('Rowan Pike');
  await found.click();
  await expect(more(helper)).toContainText('has £11.00 credit');

  await page.getByRole('button', { name: 'Take R. Pike apart' }).click();
  await expect(page.getByTestId('records')).toBeHidden();
  await expect(page.getByTestId('holds')).toContainText('£6.00');
  await page.getByRole('link', { name: 'Statement' }).click();
  await page.getByRole('button', { name: 'Their credit' }).click();
  await expect(page.getByTestId('closing')).toHaveText('£6.00');
});

test('a helper joins nobody, unless somebody lends the right to it', async ({ browser }) => {
  const page = await device(browser, 'Oriel');
  await customer(page, 'Sela Marsh');
  await page.getByRole('button', { name: 'Is it one person?' }).click();
  await page.getByRole('button', { name: 'They are one: Sela Marsh' }).click();
  await lend(page, 'Maren');
  await expect(page.getByTestId('records')).toContainText('S. Marsh');
  await expect(page.getByLabel('Note')).toHaveValue('Likes to hear of new sages');
});
