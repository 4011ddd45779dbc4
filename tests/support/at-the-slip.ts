/** What can be said of the slip at the counter; the end-to-end tests are written with these. */
import type { Locator, Page } from '@playwright/test';

export const more = (page: Page): Locator => page.getByRole('dialog', { name: 'This slip' });

/** Puts a customer on the slip; what can be said of it stays open. */
export async function putCustomer(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'More …' }).click();
  await more(page).getByRole('textbox', { name: 'Customer' }).fill(name.slice(0, 5));
  await more(page).getByTestId('found-customers').getByRole('button', { name }).click();
}

/** Puts a customer on the slip, and goes on. */
export async function withCustomer(page: Page, name: string): Promise<void> {
  await putCustomer(page, name);
  await more(page).getByRole('button', { name: 'Done' }).click();
}
