/** A tab that two devices go on with, one of them out of touch. */
import { expect, test } from '@playwright/test';
import {
  go,
  goOffline,
  openDrawer,
  payExactly,
  standing,
  tag,
  total,
} from '../support/at-the-stall';
import { oneStall } from '../support/one-stall';

const device = oneStall();

test('a tab that two devices have in hand is seen with what both put on it before it is paid', async ({
  browser,
}) => {
  const table = await device(browser, 'Ines');
  const bar = await device(browser, 'Tobin');
  await openDrawer(bar);
  await go(table, '/counter');
  await tag(table, 'Lavender').click();
  await table.getByRole('button', { name: 'More …' }).click();
  await table.getByLabel('What to call it').fill('Bench');
  await table.getByRole('button', { name: 'Open as a tab' }).click();
  await expect(table.getByText('Bench is open as a tab.')).toBeVisible();

  // The bar goes on with it; then the table does as well, puts something on and sets it aside again.
  await go(bar, '/waiting');
  await bar.getByRole('button', { name: 'Continue' }).click();
  await expect(total(bar)).toHaveText('£4.50');
  await go(table, '/waiting');
  await expect(table.getByTestId('waiting')).toContainText('taken up by D');
  await goOffline(bar);
  await tag(bar, 'Viola').click();
  await table.getByRole('button', { name: 'Continue' }).click();
  await table.getByRole('button', { name: 'Take it up all the same' }).click();
  await expect(total(table)).toHaveText('£4.50');
  await tag(table, 'Aster').click();
  await table.keyboard.press('F4');
  await expect(table.getByText('Bench is set aside.')).toBeVisible();
  await expect(standing(table)).toHaveText('All sent');

  await bar.context().setOffline(false);
  // Both are on it, before anything is paid.
  await expect(total(bar)).toHaveText('£14.30');
  for (const name of ['Lavender', 'Viola', 'Aster'])
    await expect(bar.getByRole('list', { name: 'Lines' })).toContainText(name);
  // Seen: now it is paid, all of it, and nothing is loose.
  await payExactly(bar);
  await expect(standing(bar)).toHaveText('All sent');
  await go(table, '/waiting');
  await expect(table.getByText('Nothing is waiting')).toBeVisible();
});
