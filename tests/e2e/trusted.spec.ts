/** What people see of who and what is trusted: their address, their PIN, a wrong clock, a lost device. */
import { expect, test, type Page } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import {
  enrol,
  go,
  goOffline,
  openDrawer,
  PINS,
  sellOne,
  signIn,
  standing,
  tag,
} from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

const DAY = 24 * 60 * 60_000;

test('receipts of a new business wait for the link in a letter, which holds once', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await page.goto('/sign-up');
  await page.getByLabel('What the stall is called').fill('Fernbank Jams');
  await page.getByLabel('Your first name').fill('Wren');
  await page.getByLabel('E-mail address').fill('wren@fernbank.example');
  await page.getByLabel('Password').fill('moss under the ladder');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('heading', { name: 'Fernbank Jams: the first day' })).toBeVisible();
  await page.goto('/account');
  const held = page.getByLabel('Your address');
  await expect(held).toContainText('no receipts are sent by mail or text');
  const letters = till.mailbox.letters.length;
  await held.getByRole('button', { name: 'Send the letter again' }).click();
  await expect(held.getByRole('status')).toContainText('on its way to wren@fernbank.example');
  await expect.poll(() => till.mailbox.letters.length).toBe(letters + 1);
  const link = /\S+\/verify#[0-9a-f]{64}/.exec(till.mailbox.letters[0]?.text ?? '')?.[0] ?? '';
  await page.goto(link.slice(0, -5));
  await page.getByRole('button', { name: 'Yes, it is mine' }).click();
  await expect(page.getByRole('alert')).toContainText('not the whole link');
  await page.goto('about:blank');
  await page.goto(link);
  await page.getByRole('button', { name: 'Yes, it is mine' }).click();
  await expect(page.getByRole('status')).toContainText('Receipts can be sent now');
  await page.goto('/account');
  await expect(page.getByText('Signed in as wren@fernbank.example')).toBeVisible();
  await expect(held).toHaveCount(0);
  await page.goto(link);
  await page.getByRole('button', { name: 'Yes, it is mine' }).click();
  await expect(page.getByRole('alert')).toContainText('has been used or has run out');
  await context.close();
});

test('whoever is given a right is asked for a longer PIN at the next sign-in', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  const pinsSet = async (): Promise<number> =>
    (await select(till.database, "SELECT seq FROM daybook_entries WHERE kind = 'pin.set'", []))
      .length;
  await enrol(page, till, 'Maren');
  await go(page, '/people');
  await page.getByRole('link', { name: 'Oriel helper' }).click();
  await page.getByLabel('void a sale').check();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page).toHaveURL(/\/people$/);
  await page.getByTitle('Who is selling').click();
  await page.getByRole('button', { name: /^Oriel/ }).click();
  const typed = async (pin: string, does: string): Promise<void> => {
    await page.getByLabel('PIN of Oriel').fill(pin);
    await page.getByRole('button', { name: does }).click();
  };
  await typed('7318', 'Sign in');
  await expect(page.getByRole('heading', { name: 'A longer PIN, Oriel' })).toBeVisible();
  await typed('7318', 'Next');
  await expect(page.getByRole('alert')).toContainText('at least six figures');
  await typed(PINS['Ines']!, 'Next');
  await expect(page.getByRole('alert')).toContainText('Somebody else has this PIN');
  await typed('731846', 'Next');
  await expect(page.getByText('Type it once more.')).toBeVisible();
  await typed('731847', 'Use this PIN');
  await expect(page.getByRole('alert')).toContainText('two different ones');
  await typed('731846', 'Next');
  await expect(page.getByText('Type it once more.')).toBeVisible();
  const before = await pinsSet();
  await typed('731846', 'Use this PIN');
  await expect(page.getByTitle('Who is selling')).toHaveText('Oriel');
  await expect.poll(pinsSet).toBe(before + 1);
  await context.close();

  const other = await browser.newContext({ baseURL: till.origin });
  const second = await other.newPage();
  await second.goto(till.enrolAddress());
  await second.getByRole('button', { name: /^Oriel/ }).click();
  await second.getByLabel('PIN of Oriel').fill('7318');
  await second.getByRole('button', { name: 'Sign in' }).click();
  await expect(second.getByRole('alert')).toContainText('That is not the PIN');
  await second.getByRole('button', { name: 'Back' }).click();
  await signIn(second, 'Oriel', '731846');
  await expect(second.getByTitle('Who is selling')).toHaveText('Oriel');
  await other.close();
});

test('a device whose clock is three hours off says so, and its sales are in the books', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  // Behind, or ahead where that would be yesterday, at which there is no event of today.
  const hour = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', timeZone: 'Europe/London' });
  const isBehind = Number(hour.format()) >= 4;
  const THREE_HOURS = 3 * 60 * 60_000;
  await page.clock.install({ time: Date.now() + (isBehind ? -THREE_HOURS : THREE_HOURS) });
  await enrol(page, till, 'Ines');
  await expect(page.getByTestId('clock-off')).toContainText(
    `This device’s clock is 3 hours ${isBehind ? 'behind' : 'ahead'}. Set it right`,
  );
  await openDrawer(page);
  await sellOne(page, 'Viola');
  await expect(standing(page)).toHaveText('All sent');
  // Not in the way of a sale; everywhere else it stays.
  await expect(page.getByTestId('clock-off')).toHaveCount(0);
  await page.getByRole('link', { name: 'Set-up' }).click();
  await expect(page.getByTestId('clock-off')).toBeVisible();
  await context.close();
});

test('a device that is told to forgets after a day without network, sends what it had, and is back', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await enrol(page, till, 'Maren');
  await go(page, '/business');
  await page.getByLabel('Forget everything after so many days').fill('1');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page).toHaveURL(/\/set-up$/);
  await expect(standing(page)).toHaveText('All sent');
  await openDrawer(page);
  await expect(standing(page)).toHaveText('All sent');
  await goOffline(page);
  const number = await sellOne(page, 'Lavender');
  await page.clock.setSystemTime(Date.now() + 1.1 * DAY);
  await page.reload();
  await expect(page.getByTestId('forgotten')).toBeVisible();
  expect(await knownHere(page)).toEqual({ items: 0, staff: 0, sales: 0 });
  await expect(page.getByTestId('forgotten')).toContainText('still to be sent');
  await page.clock.setSystemTime(Date.now());
  await context.setOffline(false);
  await page.reload();
  await signIn(page, 'Ines');
  await page.goto('/counter');
  await expect(tag(page, 'Lavender')).toBeVisible();
  await go(page, '/find');
  await page.getByLabel('Anything by number, name, item or amount').fill(number);
  await expect(page.getByRole('link', { name: new RegExp(number) })).toBeVisible();
  await expect(standing(page)).toHaveText('All sent');
  await context.close();
});

/** How much a thief with developer tools finds in the device's database. */
const knownHere = async (page: Page): Promise<Record<string, number>> =>
  await page.evaluate(async () => {
    const open = indexedDB.open('stall-till');
    const db = await new Promise<IDBDatabase>((resolve) => {
      open.onsuccess = () => resolve(open.result);
    });
    const counts: Record<string, number> = {};
    for (const table of ['items', 'staff', 'sales']) {
      const asked = db.transaction(table).objectStore(table).count();
      await new Promise((resolve) => {
        asked.onsuccess = resolve;
      });
      counts[table] = asked.result;
    }
    db.close();
    return counts;
  });

test('a device whose clock is a day off sells at the event that somebody chooses by hand', async ({
  browser,
}) => {
  const context = await browser.newContext({ baseURL: till.origin });
  const page = await context.newPage();
  await page.clock.install({ time: Date.now() - DAY });
  await page.goto(till.enrolAddress());
  await signIn(page, 'Maren');
  await expect(page.getByTitle('Who is selling')).toHaveText('Maren');
  await goOffline(page);
  await expect(page.getByRole('heading', { name: 'No event today' })).toBeVisible();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Pellow Green market' })
    .getByRole('button', { name: 'Sell at this event' })
    .click();
  await expect(page.getByText('This event was chosen by hand')).toBeVisible();
  await openDrawer(page);
  const number = await sellOne(page, 'Lavender');
  expect(number).toMatch(/^D\d+-1$/);
  await page.goto('/');
  await page.getByRole('button', { name: 'As the calendar says' }).click();
  await expect(page.getByRole('heading', { name: 'No event today' })).toBeVisible();

  // What was sold on another day than the event's is named, until somebody says what it was.
  await page.context().setOffline(false);
  await go(page, '/loose-ends');
  const loose = page.getByRole('article', { name: 'Sales on another day' });
  await expect(loose).toContainText('One sale of £4.50 at Pellow Green market is dated');
  // Somebody is asked to look after it; what nobody else has to look after is then out of their sight.
  await loose.getByRole('button', { name: 'Hand it to somebody' }).click();
  await loose.getByLabel('Who looks after it').selectOption('Maren');
  await loose.getByLabel('What is asked of them').fill('look at the phone');
  await loose.getByRole('button', { name: 'Hand it over' }).click();
  await expect(loose.getByTestId('hand')).toHaveText('Maren looks after it: look at the phone');
  const whose = page.getByLabel('Looked after by');
  await whose.selectOption('Tobin');
  await expect(loose).toHaveCount(0);
  await whose.selectOption('Maren');
  await expect(loose).toBeVisible();
  await whose.selectOption('anybody');
  await loose.getByLabel('What came of it').fill('The clock of the phone was a day behind');
  await loose.getByRole('button', { name: 'Settle' }).click();
  await expect(loose).toHaveCount(0);
  await expect(page.getByTestId('settled')).toContainText('a day behind');
  await context.close();
});
