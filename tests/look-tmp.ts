import { chromium } from '@playwright/test';
import { chromiumOptions } from './support/chromium';
import { enrol, openDrawer, tag, payExactly } from './support/at-the-stall';
import { wayRow } from './support/card-desk';
import { RunningTill } from './support/running-till';
const till = await RunningTill.start();
const browser = await chromium.launch(await chromiumOptions());
try {
  for (const [name, viewport] of [['phone', { width: 390, height: 844 }]] as const) {
    const context = await browser.newContext({
      baseURL: till.origin,
      viewport,
      hasTouch: name === 'phone',
      isMobile: name === 'phone',
    });
    const page = await context.newPage();
    const shot = async (what: string) => {
      await page.waitForTimeout(600);
      await page.screenshot({ path: `/tmp/l-${what}-${name}.png` });
    };
    await enrol(page, till, 'Maren');
    if (true) await openDrawer(page);
    else {
      await page.goto('/');
      await page.getByRole('button', { name: 'Use Drawer 1' }).click();
    }
    await page.goto('/counter');
    await tag(page, 'Lavender').click();
    await page.getByRole('button', { name: 'More …' }).click();
    const more = page.getByRole('dialog', { name: 'This slip' });
    await more.getByRole('textbox', { name: 'Customer' }).fill('Corin');
    await more.getByTestId('found-customers').getByRole('button').first().click();
    await shot('more');
    await more.getByLabel('Voucher of').fill('25');
    await more
      .getByRole('form', { name: 'Sell a voucher' })
      .getByRole('button', { name: 'Put it on' })
      .click();
    await shot('slip');
    await page.getByRole('button', { name: /^Take payment/ }).click();
    await wayRow(page, /^On account/)
      .getByRole('button')
      .first()
      .click();
    await shot('account');
    await wayRow(page, /^On account/)
      .getByRole('button')
      .first()
      .click();
    await wayRow(page, /^Voucher/)
      .getByRole('button')
      .first()
      .click();
    await shot('voucher');
    await page.goto('/counter');
    const num = await payExactly(page);
    await page.goto('/vouchers');
    await shot('vouchers');
    await page.getByTestId('vouchers').getByRole('link').nth(2).click();
    await shot('one');
    await page.goto('/customers');
    await page.getByTestId('customers').getByRole('link', { name: /Corin/ }).click();
    await shot('customer');
    await page.getByRole('link', { name: 'Statement' }).click();
    await shot('statement');
    await page.goto('/find');
    await page.getByRole('link', { name: new RegExp(num) }).click();
    await shot('sale');
    await page.goto('/ways/new');
    await page.locator('select').first().selectOption('voucher');
    await shot('way');
    await context.close();
  }
} finally {
  await browser.close();
  await till.end();
}
