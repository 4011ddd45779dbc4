/** What is done from the page of a sale that was found. */
import { expect, type Locator, type Page } from '@playwright/test';

export const back = (page: Page): Locator => page.getByRole('region', { name: 'Take goods back' });
export const returned = (page: Page): Locator => page.getByTestId('returned');

export async function openSale(page: Page, number: string): Promise<void> {
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  // The page before may have links to the same sale.
  await expect(page.getByRole('heading', { name: 'Find', level: 1, exact: true })).toBeVisible();
  await page.getByRole('link', { name: new RegExp(`${number}\\b`) }).click();
  await expect(back(page)).toBeVisible();
}
