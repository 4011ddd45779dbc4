/** Two helpers, one stall: what each sells the other sees, and the last pot can be sold twice. */
import { expect, test } from '@playwright/test';
import {
  cells,
  go,
  goOffline,
  openDrawer,
  sellOne,
  standing,
  tag,
  useDrawer,
} from '../support/at-the-stall';
import { oneStall } from '../support/one-stall';

const device = oneStall();

test('both sell offline at the same time and end with the same figures', async ({ browser }) => {
  const one = await device(browser, 'Ines');
  const two = await device(browser, 'Tobin');

  await openDrawer(one);
  await sellOne(one, 'Lavender');
  await expect(two.getByTestId('takings')).toHaveText('£4.50');
  await useDrawer(two);
  await go(two, '/counter');
  await expect(tag(two, 'Lavender')).toContainText('47 left');
  await expect(tag(two, 'Aster')).toContainText('3 left');
  for (const page of [one, two]) await goOffline(page);
  // There are three asters; two and two are sold.
  const [sold, soldToo] = await Promise.all(
    [one, two].map(async (page) => {
      const numbers: string[] = [];
      for (const name of ['Aster', 'Lavender', 'Aster', 'Viola'])
        numbers.push(await sellOne(page, name));
      return numbers;
    }),
  );
  expect(sold).toEqual(['D4-2', 'D4-3', 'D4-4', 'D4-5']);
  expect(soldToo).toEqual(['D5-1', 'D5-2', 'D5-3', 'D5-4']);
  await expect(tag(one, 'Aster')).toContainText('1 left');
  await expect(standing(one)).toContainText('8 to send');

  for (const page of [one, two]) await page.context().setOffline(false);
  for (const page of [one, two]) {
    await expect(standing(page)).toHaveText('All sent');
    await expect(tag(page, 'Aster')).toContainText('1 below none');
    await expect(tag(page, 'Lavender')).toContainText('45 left');
    await go(page, '/');
    await expect(page.getByTestId('sales')).toContainText('9 sales · 9 things');
    await expect(page.getByTestId('takings')).toHaveText('£44.30');
    await page.getByRole('link', { name: 'The event’s page' }).click();
    await expect(page.getByTestId('ties-up')).toHaveText(
      'Device and server agree on every figure.',
    );
    await expect(cells(page, 'Aster').nth(2)).toHaveText('1 below none');
  }

  // One drawer for both: what should be in it is the float and what both have taken.
  await go(one, '/drawer/count');
  await expect(one.getByTestId('expected')).toHaveText('124.30');
});

test('a device that sends after the count shows up as money that came later', async ({
  browser,
}) => {
  const helper = await device(browser, 'Ines');
  const owner = await device(browser, 'Maren');
  await useDrawer(owner);
  await useDrawer(helper);
  await go(helper, '/counter');
  await goOffline(helper);
  await sellOne(helper, 'Lavender');

  await go(owner, '/drawer/count');
  await expect(owner.getByTestId('expected')).toHaveText('124.30');
  await owner.getByLabel('£10', { exact: true }).fill('12');
  await owner.getByLabel('£2', { exact: true }).fill('2');
  await owner.getByLabel('20p', { exact: true }).fill('1');
  await owner.getByLabel('10p', { exact: true }).fill('1');
  await owner.getByRole('button', { name: 'Close the drawer' }).click();
  await expect(owner.getByTestId('final-read')).toContainText('nothing out');

  await helper.context().setOffline(false);
  await go(owner, '/');
  await expect(owner.getByText('£4.50 more was heard of after the count')).toBeVisible();
  await expect(owner.getByText(/Final read D\d-R1: £124.30 counted/)).toBeVisible();

  // The read stays; what came late is called a difference, by whoever may.
  await owner.getByRole('link', { name: 'a loose end' }).click();
  const late = owner.getByRole('article', { name: 'Late cash' });
  await expect(late).toContainText('£4.50 more should have been in it');
  await late.getByRole('button', { name: 'Call it a difference' }).click();
  await expect(late.getByRole('alert')).toContainText('Say why');
  await late.getByLabel('What came of it').fill('the other phone sold one more');
  await late.getByRole('button', { name: 'Call it a difference' }).click();
  await expect(late).toHaveCount(0);
});
