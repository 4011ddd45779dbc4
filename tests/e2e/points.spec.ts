/** Points and rewards: brought by what is bought, spent, kept for later, found spent twice, and back with the goods. */
import { expect, test, type Page } from '@playwright/test';
import { back, openSale, returned } from '../support/at-the-sale';
import { more, withCustomer } from '../support/at-the-slip';
import {
  goOffline,
  goOnline,
  lastSale,
  openDrawer,
  standing,
  tag,
  useDrawer,
} from '../support/at-the-stall';
import { wayRow } from '../support/card-desk';
import { counter, oneStall, toPayment } from '../support/one-stall';

const device = oneStall();

const herbs = (page: Page) => page.getByRole('tab', { name: 'Herbs' }).click();
const exact = (page: Page) => page.getByRole('button', { name: /exact/ }).click();
const leftToPay = (page: Page) => page.getByTestId('left-to-pay');
const ask = (page: Page) => page.getByTestId('reward-ask');

async function toPoints(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Set-up', exact: true }).click();
  await page.getByRole('link', { name: 'Points and rewards', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Points and rewards' })).toBeVisible();
}

test('an owner words a reward and says what points are worth; what is wrong is said beside it', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await openDrawer(page);
  await toPoints(page);
  const rule = page.getByRole('form', { name: 'Points' });
  await rule.getByLabel('for each').fill('0');
  await rule.getByRole('button', { name: 'Save' }).click();
  await expect(rule.getByText(/“0” is not an amount above nothing/)).toBeVisible();
  await rule.getByLabel('for each').fill('0.50');
  await rule.getByLabel('One point is worth').fill('0.005');
  await rule.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Saved. Points are given from now on.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a reward' }).click();
  const reward = page.getByRole('form', { name: 'A new reward' });
  await reward.getByLabel('Name').fill('Herb on the house');
  await reward.getByLabel('Once they have spent').fill('8');
  await reward.getByLabel('they get off, at most').fill('3');
  await reward.getByLabel('First day').fill('2027-02-01');
  await reward.getByLabel('Last day').fill('2027-01-01');
  await reward.getByRole('button', { name: 'Save' }).click();
  await expect(reward.getByText('The last day is before the first.')).toBeVisible();
  await reward.getByLabel('First day').fill('');
  await reward.getByLabel('Last day').fill('');
  await reward.getByLabel('Herbs').check();
  await reward.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('reward').filter({ hasText: 'Herb on the house' })).toContainText(
    '£3.00 off for each £8.00 spent · on Herbs',
  );
});

test('a customer gets points, reaches a reward, keeps it once and uses it then', async ({
  browser,
}) => {
  const page = await device(browser, 'Ines');
  await useDrawer(page);
  await counter(page);
  await tag(page, 'Lavender').click();
  await withCustomer(page, 'Corin Wray');
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  // A point for each 0.50.
  await expect(page.getByTestId('told')).toContainText('9 points for this, 9 points now.');
  await herbs(page);
  for (const name of ['Basil', 'Basil', 'Mint']) await tag(page, name).click();
  await withCustomer(page, 'Corin Wray');
  await expect(page.getByTestId('slip-said')).toContainText('9 points for £0.05');
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await expect(page.getByTestId('told')).toContainText(
    'Reward reached: Herb on the house, £3.00 off next time',
  );
  // On one tap somebody is asked whether it is used now.
  await tag(page, 'Thyme').click();
  await withCustomer(page, 'Corin Wray');
  await expect(page.getByTestId('slip-said')).toContainText('reward Herb on the house');
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await expect(ask(page)).toContainText('Corin Wray has reached Herb on the house');
  await ask(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(ask(page)).toBeHidden();
  await exact(page);
  await expect(lastSale(page)).toContainText('£3.20');

  await herbs(page);
  await tag(page, 'Thyme').click();
  await withCustomer(page, 'Corin Wray');
  await toPayment(page);
  await ask(page).getByRole('button', { name: 'Use it now: £3.00 off' }).click();
  await expect(leftToPay(page)).toHaveText('£0.20');
  await expect(ask(page)).toBeHidden();
  // His reward has paid for it: it is not somebody else's slip any more.
  await page.getByRole('link', { name: /^Back to the slip/ }).click();
  await page.getByRole('button', { name: 'More …' }).click();
  await more(page).getByRole('button', { name: 'Remove the customer' }).click();
  await expect(more(page).getByRole('alert')).toContainText('Part of this slip has been paid');
  await more(page).getByRole('button', { name: 'Done' }).click();
  await toPayment(page);
  await exact(page);
  await expect(lastSale(page)).toContainText('£3.20');
  await lastSale(page).click();
  const paper = page.getByTestId('receipt');
  await expect(paper).toContainText('Reward');
  await expect(paper).toContainText('3.00');
  // It is not there again, and what was paid by it counts for nothing.
  await counter(page);
  await herbs(page);
  await tag(page, 'Thyme').click();
  await withCustomer(page, 'Corin Wray');
  await toPayment(page);
  const row = wayRow(page, /^Reward/);
  await row.getByRole('button', { name: /^Reward/ }).click();
  await expect(row.getByTestId('rewards')).toContainText('Herb on the house');
  await expect(row.getByTestId('rewards')).toContainText('to go');
  await expect(row.getByRole('button', { name: /^Use it/ })).toHaveCount(0);
});

test('points that two devices spend with no network are found, and go back with the goods', async ({
  browser,
}) => {
  const one = await device(browser, 'Ines');
  const two = await device(browser, 'Tobin');
  for (const page of [one, two]) {
    await useDrawer(page);
    await counter(page);
    await tag(page, 'Lavender').click();
    await withCustomer(page, 'Ottilie');
  }
  // Given by hand, by whoever may.
  const owner = await device(browser, 'Maren');
  await toPoints(owner);
  await owner.getByRole('link', { name: 'Ottilie' }).click();
  const held = owner.getByTestId('points-held');
  await expect(held).toBeVisible();
  const form = owner.getByRole('form', { name: 'Give or take points' });
  await form.getByLabel('Give points').fill('400');
  await form.getByRole('button', { name: 'Write it down' }).click();
  await expect(owner.getByText('Say why; “from their old card” will do.')).toBeVisible();
  await form.getByLabel('Why').fill('from her paper card');
  await form.getByRole('button', { name: 'Write it down' }).click();
  await expect(owner.getByTestId('points-moved')).toContainText('Given');
  await expect(standing(owner)).toHaveText('All sent');
  for (const page of [one, two]) {
    await expect(page.getByTestId('slip-said')).toContainText(/4\d\d points for £2\.\d\d/);
    await goOffline(page);
    await toPayment(page);
    const row = wayRow(page, /^Points/);
    await row.getByRole('button', { name: /^Points/ }).click();
    await row.getByLabel('Of what is left').fill('9');
    await expect(row.getByTestId('points-say')).toContainText(/pay £2\.\d\d of this at most/);
    await row.getByLabel('Of what is left').fill('');
    await row.getByRole('button', { name: /^Take 4\d\d points for £2/ }).click();
    await expect(leftToPay(page)).toHaveText(/£[12]\.\d\d/);
    await exact(page);
    await expect(lastSale(page)).toContainText('£4.50');
  }
  const number = ((await lastSale(one).textContent()) ?? '').split(',')[0]!;
  for (const page of [one, two]) {
    await goOnline(page);
    await expect(standing(page)).toHaveText('All sent');
  }
  await two.getByRole('link', { name: 'Set-up', exact: true }).click();
  await two.getByRole('link', { name: 'Loose ends', exact: true }).click();
  await expect(two.getByText(/more points were taken than there were/).first()).toBeVisible();
  await expect(held).toContainText('−');

  // What came back of the first: points as points, the rest in cash.
  await openSale(owner, number);
  await back(owner).getByRole('button', { name: 'Take goods back …' }).click();
  await back(owner).getByRole('button', { name: 'All of it' }).click();
  await expect(back(owner).getByTestId('promoted')).toContainText(/£2\.\d\d of it had been paid/);
  await back(owner).getByLabel('Given back').selectOption({ label: 'cash out of Drawer 1' });
  await back(owner).getByLabel('Why').fill('it wilted');
  await back(owner)
    .getByRole('button', { name: /^Give back £/ })
    .click();
  await expect(returned(owner)).toContainText('went back as it was paid');
});
