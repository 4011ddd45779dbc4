/** Customers added and forgotten, devices that are given something, loose ends that are settled. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import type { CustomerFile } from '../../src/lib/core/customer/export-customer';
import { go, goOffline, lend, mirrorOf, standing } from '../support/at-the-stall';
import { oneStall } from '../support/one-stall';

const device = oneStall('apart');

test('a customer is added with no network, handed their data, and forgotten everywhere', async ({
  browser,
}) => {
  const seller = await device(browser, 'Oriel');
  const owner = await device(browser, 'Maren');

  await go(seller, '/customers');
  await expect(seller.getByTestId('customers')).toContainText('Hazel Birk, Sluice Allotments');
  await goOffline(seller);
  await seller.getByRole('link', { name: 'Add a customer' }).click();
  // The list has a field for e-mail as well, until the form is there.
  await seller.getByLabel('E-mail', { exact: true }).fill('linden@');
  await seller.getByRole('button', { name: 'Save' }).click();
  await expect(seller.getByRole('alert')).toContainText('Give the customer a name');
  await seller.getByLabel('Name', { exact: true }).fill('Linden Marsh');
  await seller.getByRole('button', { name: 'Save' }).click();
  await expect(seller.getByRole('alert')).toContainText('“linden@” is not an e-mail address');
  await seller.getByLabel('E-mail').fill('linden@marsh.example');
  await seller.getByLabel('Agreed to be kept').selectOption({ label: 'said so' });
  // More than a helper may give anybody: an owner lends the right to it.
  await seller.getByLabel('Standing discount').fill('12');
  await seller.getByRole('button', { name: 'Save' }).click();
  await lend(seller, 'Maren');
  await expect(seller.getByTestId('customers')).toContainText('Linden Marsh');
  await seller.context().setOffline(false);
  await expect(standing(seller)).toHaveText('All sent');

  await go(owner, '/customers');
  // A file of customers: what it will do is said first, and a line that is wrong is left out.
  await owner.getByText('As a file').click();
  const cards = ['BEGIN:VCARD', 'VERSION:4.0', 'FN:Alma Reed', 'TEL:01632 960555', 'END:VCARD'];
  await owner.getByLabel('A file of customers').setInputFiles({
    ...{ name: 'friends.vcf', mimeType: 'text/vcard' },
    buffer: Buffer.from(cards.join('\r\n')),
  });
  await owner.getByRole('button', { name: 'Take 1 in' }).click();
  await expect(owner.getByTestId('customers')).toContainText('Alma Reed');
  const saved = owner.waitForEvent('download');
  await owner.getByRole('button', { name: 'Save as a table' }).click();
  const table = readFileSync(await (await saved).path(), 'utf8');
  expect(table).toContain('Alma Reed');
  await owner.getByLabel('A file of customers').setInputFiles({
    ...{ name: 'customers.csv', mimeType: 'text/csv' },
    buffer: Buffer.from(table.replace('01632 960555', '01632 960556')),
  });
  await expect(owner.getByRole('button', { name: 'Take 1 in' })).toBeVisible();
  await owner.getByRole('button', { name: 'Take 1 in' }).click();
  await expect(owner.getByTestId('customers')).toContainText('01632 960556');

  await owner.getByLabel('Name, company, e-mail or phone').fill('linden');
  await owner.getByRole('link', { name: /Linden Marsh/ }).click();
  await expect(owner.getByTestId('consents')).toContainText('Yes, said so');
  const saveAll = async (): Promise<CustomerFile> => {
    const saving = owner.waitForEvent('download');
    await owner.getByRole('button', { name: 'Save all of it as a file' }).click();
    return JSON.parse(readFileSync(await (await saving).path(), 'utf8')) as CustomerFile;
  };
  // What it let go of is the server's: without it the file says that it is not whole, and so does the page.
  await owner.context().setOffline(true);
  expect((await saveAll()).isWhole).toBe(false);
  await expect(owner.getByRole('alert')).toContainText('what is long past may be missing');
  await owner.context().setOffline(false);
  const file = await saveAll();
  await expect(owner.getByRole('alert')).toHaveCount(0);
  expect(file.isWhole).toBe(true);
  expect(file.customer).toMatchObject({ email: 'linden@marsh.example', discount: '12' });
  expect(file.consents).toHaveLength(1);
  await owner.getByRole('button', { name: 'Forget them …' }).click();
  await owner.getByRole('button', { name: 'Forget Linden Marsh' }).click();
  await expect(owner.getByTestId('customers')).not.toContainText('Linden');
  await expect(standing(owner)).toHaveText('All sent');

  await go(seller, '/customers');
  await expect(seller.getByTestId('customers')).not.toContainText('Linden');
  for (const page of [seller, owner])
    await expect.poll(async () => (await everythingOn(page)).includes('linden@marsh')).toBe(false);
});

/** All of the device's database, and of the file beside it, as text. */
const everythingOn = async (page: Page): Promise<string> =>
  (await mirrorOf(page)) +
  (await page.evaluate(async () => {
    const open = indexedDB.open('stall-till');
    await new Promise((done) => (open.onsuccess = done));
    const stores = Array.from(open.result.objectStoreNames);
    const transaction = open.result.transaction(stores);
    const all = await Promise.all(
      stores.map(
        (store) =>
          new Promise((done) => {
            const asked = transaction.objectStore(store).getAll();
            asked.onsuccess = () => done(asked.result);
          }),
      ),
    );
    open.result.close();
    return JSON.stringify(all) + JSON.stringify(localStorage);
  }));

test('an owner names a device and gives it a drawer; a right taken away meanwhile is a loose end', async ({
  browser,
}) => {
  const owner = await device(browser, 'Maren');
  const helper = await device(browser, 'Tobin');
  await expect(standing(helper)).toHaveText('All sent');

  const may = async (isAllowed: boolean): Promise<void> => {
    await go(owner, '/people');
    await owner.getByRole('link', { name: /^Tobin/ }).click();
    await owner.getByLabel('change goods, prices and people').setChecked(isAllowed);
    await owner.getByRole('button', { name: 'Save' }).click();
    await expect(owner.getByRole('heading', { name: 'People' })).toBeVisible();
    await expect(standing(owner)).toHaveText('All sent');
  };
  await may(true);
  await go(owner, '/devices');
  await owner
    .getByRole('link', { name: /^D\d+ Desk browser$/ })
    .last()
    .click();
  await owner.getByLabel('Name', { exact: true }).fill('Tobin’s handheld');
  await owner.getByRole('button', { name: 'Save' }).click();
  await expect(owner.getByTestId('devices')).toContainText('Tobin’s handheld');

  await go(helper, '/set-up');
  await expect(helper.getByRole('link', { name: 'Tobin’s handheld' })).toBeVisible();
  await go(helper, '/people/new');
  await goOffline(helper);
  await may(false);
  await helper.getByLabel('Name', { exact: true }).fill('Bryony');
  await helper.getByRole('button', { name: 'Save' }).click();
  await expect(helper.getByRole('link', { name: /^Bryony/ })).toBeVisible();
  await helper.context().setOffline(false);
  await expect(standing(helper)).toHaveText('All sent');

  // Of the events nothing comes: that is said, and it is asked for again.
  await owner.route('**/api/loose-ends', (route) => route.abort());
  await go(owner, '/loose-ends');
  const notShown = owner.getByText('What is left open of the events is not shown');
  await expect(notShown).toBeVisible();
  await owner.unroute('**/api/loose-ends');
  await owner.getByRole('button', { name: 'Ask for it again' }).click();
  await expect(notShown).toHaveCount(0);
  const card = owner.getByRole('article', { name: 'A person set up' });
  await expect(card).toContainText('Bryony');
  await expect(card).toContainText('Tobin');
  await expect(card).toContainText('Tobin’s handheld');
  await card.getByRole('button', { name: 'Leave it out' }).click();
  await expect(card.getByRole('alert')).toContainText('Say why');
  await card.getByLabel('Why it is settled so').fill('Bryony starts next month');
  await card.getByRole('button', { name: 'Leave it out' }).click();
  await expect(card).toHaveCount(0);
  await expect(owner.getByTestId('settled')).toContainText('left out: Bryony starts next month');
  // The device that had set her up shows again what holds.
  await go(helper, '/people');
  await expect(helper.getByRole('heading', { name: 'No longer here' })).toBeVisible();
});

test('a page that is read piece by piece is shown whole: nothing slides from under a finger', async ({
  browser,
}) => {
  const page = await device(browser, 'Maren');
  await page.setViewportSize({ width: 390, height: 844 });
  await go(page, '/customers');
  await page.addInitScript(() => {
    // Others may use the machine: the pieces are waited for long.
    const later = window.setTimeout.bind(window);
    window.setTimeout = ((call: () => void, millis = 0) =>
      later(call, millis >= 2000 ? millis * 40 : millis)) as typeof window.setTimeout;
  });
  // Also what the server has to say, which keeps what this device has let go of.
  let asked = 0;
  await page.route('**/api/held?*', async (route) => {
    asked += 1;
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page
    .getByTestId('customers')
    .getByRole('link', { name: /Corin Wray/ })
    .click();
  await page.waitForURL(/customers\/[0-9a-f-]{36}$/);
  await page.reload();
  const places = (): Promise<string[]> =>
    page.evaluate(async () => {
      const looks = async (): Promise<void> => {
        while (document.querySelector('main[aria-busy=false] h1') === null)
          await new Promise((resolve) => requestAnimationFrame(resolve));
      };
      await looks();
      return [...document.querySelectorAll('main h1, main section, main form')].map(
        (part) =>
          `${(part.textContent ?? '').trim().slice(0, 20)} at ${String(Math.round(part.getBoundingClientRect().top))}`,
      );
    });
  const first = await places();
  await expect(page.getByTestId('open-items').getByText('overdue').first()).toBeVisible();
  await expect(standing(page)).toHaveText('All sent');
  expect(await places()).toEqual(first);
  expect(first.length).toBeGreaterThan(5);
  expect(asked).toBeGreaterThan(0);
});

test('who goes elsewhere while something is being saved is left there', async ({ browser }) => {
  const page = await device(browser, 'Maren');
  await go(page, '/customers/new');
  await page.getByLabel('Name', { exact: true }).fill('Linnet Moor');
  const release = await diskIsBusy(page);
  await page.getByRole('button', { name: 'Save' }).click();
  await go(page, '/find');
  await release();
  await expect(page.getByText('Linnet Moor is saved.')).toBeVisible();
  await expect(page).toHaveURL(/\/find$/);

  // The same where it is no form that leads on.
  await page.goto('/customers');
  await page.getByRole('link', { name: /Linnet Moor/ }).click();
  await page.getByRole('button', { name: 'Forget them …' }).click();
  const releaseAgain = await diskIsBusy(page);
  await page.getByRole('button', { name: 'Forget Linnet Moor' }).click();
  await go(page, '/find');
  await releaseAgain();
  await expect(page.getByText(/^Forgotten\./)).toBeVisible();
  await expect(page).toHaveURL(/\/find$/);
  await expect(page.getByLabel('Anything by number, name, item or amount')).toBeVisible();
});

/** Nothing is written until what this returns is called. */
async function diskIsBusy(page: Page): Promise<() => Promise<unknown>> {
  const busy = await page.evaluateHandle(async () => {
    const open = indexedDB.open('stall-till');
    const db = await new Promise<IDBDatabase>((resolve) => {
      open.onsuccess = () => resolve(open.result);
    });
    const store = db.transaction('entries', 'readwrite').objectStore('entries');
    const state = { isOver: false };
    await new Promise<void>((resolve) => {
      const again = (): void => {
        resolve();
        if (state.isOver) db.close();
        else store.count().onsuccess = again;
      };
      again();
    });
    return state;
  });
  return () => busy.evaluate((state) => (state.isOver = true));
}
