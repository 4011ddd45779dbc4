/** Owners, from the first minute of a business to shutting out a device that was lost. */
import { expect, test, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import {
  enrol,
  go,
  goOffline,
  lastSale,
  openDrawer,
  sellOne,
  standing,
  tag,
} from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

const OWNER = { email: 'maren@larkmoss.example', password: 'moss-lark-kettle-nine' };
let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

const newBrowser = (browser: Browser): Promise<BrowserContext> =>
  browser.newContext({ baseURL: till.origin });

async function signIn(page: Page, { email, password } = OWNER): Promise<void> {
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('a business begins, and sells its first thing', async ({ browser }) => {
  const context = await newBrowser(browser);
  const page = await context.newPage();
  await page.goto('/');
  await page.getByRole('link', { name: 'Begin with your own stall' }).click();
  await page.getByLabel('What the stall is called').fill('Fernbank Jams');
  await page.getByLabel('Your first name').fill('Wren');
  await page.getByLabel('Country').click();
  await page.getByLabel('Country').fill('swi');
  await page.getByRole('option', { name: 'Switzerland' }).click();
  await expect(page.getByTestId('defaults')).toContainText('VAT 8.1 %');
  await expect(page.getByLabel('Currency')).toHaveValue('Swiss Franc (CHF)');
  await page.getByLabel('E-mail address').fill('wren@fernbank.example');
  await page.getByLabel('Password').fill('password123');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('alert')).toContainText('Many people use this password');
  await page.getByLabel('Password').fill('moss under the ladder');
  await page.getByRole('button', { name: 'Begin' }).click();

  await expect(page.getByRole('heading', { name: 'Fernbank Jams: the first day' })).toBeVisible();
  for (const [name, price, count] of [
    ['Damson jam', '6.50', '12'],
    ['Quince jelly', '7', '8'],
  ] as const) {
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByLabel('Price').fill(price);
    await page.getByLabel('How many there are').fill(count);
    await page.getByLabel('Tax').selectOption({ label: 'VAT (8.1 %)' });
    await page.getByRole('button', { name: 'Add it' }).click();
    await expect(page.getByTestId('goods-list')).toContainText(name);
  }
  await page.getByLabel('Market or fair').fill('Lakeside market');
  await page.getByRole('button', { name: 'Add the event' }).click();
  await expect(page.getByTestId('the-event')).toContainText('Lakeside market, today');
  await page.getByRole('button', { name: 'Load it all' }).click();
  await page.getByRole('link', { name: 'Open the drawer' }).click();
  await page.getByLabel(/^CHF\s1$/).fill('20');
  await page.getByRole('button', { name: /^Open with/ }).click();
  await expect(tag(page, 'Damson jam')).toContainText('12 left');
  expect(await sellOne(page, 'Damson jam')).toBe('D1-1');
  await expect(tag(page, 'Damson jam')).toContainText('11 left');
  await expect(standing(page)).toHaveText('All sent');

  await page.goto('/account');
  await expect(page.getByText('Signed in as wren@fernbank.example')).toBeVisible();
  await expect(page.getByText('D1 Desk browser')).toBeVisible();
  await expect(page.getByText('Larkmoss')).toHaveCount(0);
  const rows = await select<{ state: string; n: string }>(
    till.database,
    "SELECT state, COUNT(*) AS n FROM daybook_entries WHERE state <> 'applied' GROUP BY state",
    [],
  );
  expect(rows).toEqual([]);
  await context.close();
});

test('an owner signs in, adds a device by its link, ends a session, and signs out', async ({
  browser,
}) => {
  const context = await newBrowser(browser);
  const page = await context.newPage();
  await page.goto('/account');
  await signIn(page, { ...OWNER, password: 'not it' });
  await expect(page.getByRole('alert')).toHaveText(
    'E-mail address and password do not belong together.',
  );
  await signIn(page);
  await expect(page.getByText(`Signed in as ${OWNER.email}`)).toBeVisible();
  const [cookie] = (await context.cookies()).filter(({ name }) => name.startsWith('__Host-'));
  expect([cookie?.httpOnly, cookie?.secure, cookie?.sameSite]).toEqual([true, true, 'Strict']);

  await page.getByRole('button', { name: 'Add a device' }).click();
  await expect(page.getByRole('img', { name: 'The link as a QR code' })).toBeVisible();
  const link = (await page.getByTestId('enrol-link').textContent()) ?? '';
  // What is shown once stays, though the server is not heard of right after it.
  await page.route('**/api/account', (route) => route.abort('connectionreset'));
  await page.getByRole('button', { name: 'Make an address' }).click();
  await expect(page.getByRole('alert')).toContainText('The server does not answer');
  const address = page.getByLabel(/^The address/);
  await expect(address).toHaveValue(/\/api\/calendar\/[\w-]+\.ics$/);
  await page.unroute('**/api/account');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await expect(page.getByTestId('enrol-link')).toHaveText(link);
  const calendar = await context.request.get(await address.inputValue());
  expect([calendar.status(), (await calendar.text()).slice(0, 15)]).toEqual([
    200,
    'BEGIN:VCALENDAR',
  ]);
  await page.getByRole('button', { name: 'Withdraw it' }).click();
  await expect(page.getByRole('button', { name: 'Make an address' })).toBeVisible();
  const device = await newBrowser(browser);
  const added = await device.newPage();
  await added.goto(link);
  await expect(added.getByRole('button', { name: /^Ines/ })).toBeVisible();
  await device.close();
  const late = await newBrowser(browser);
  const replay = await late.newPage();
  await replay.goto(link);
  await expect(replay.getByRole('alert')).toContainText('has enrolled a device already');
  await late.close();

  const elsewhere = await newBrowser(browser);
  const other = await elsewhere.newPage();
  await other.goto('/sign-in');
  await signIn(other);
  await expect(other).toHaveURL(/\/account$/);
  await page.reload();
  await page.getByRole('button', { name: 'End this session' }).click();
  await expect(page.getByRole('button', { name: 'End this session' })).toHaveCount(0);
  await other.reload();
  await expect(other.getByRole('heading', { name: 'Sign in as an owner' })).toBeVisible();
  await elsewhere.close();

  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in as an owner' })).toBeVisible();
  await context.addCookies([cookie!]);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Sign in as an owner' })).toBeVisible();
  await context.close();
});

test('a passkey: added after a proof, signs in alone, and is worth nothing once removed', async ({
  browser,
}) => {
  const context = await newBrowser(browser);
  const page = await context.newPage();
  const devtools = await context.newCDPSession(page);
  await devtools.send('WebAuthn.enable');
  const { authenticatorId } = await devtools.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await page.goto('/account');
  await signIn(page);
  await expect(page.getByText(`Signed in as ${OWNER.email}`)).toBeVisible();
  await till.database.sequelize.query("UPDATE access_sessions SET proved = '2026-01-01'");
  await page.getByLabel('What to call it').fill('Stall phone');
  await page.getByRole('button', { name: 'Add a passkey' }).click();
  await page.getByLabel('Your password').fill('not it');
  await page.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByRole('alert')).toHaveText('That is not the password.');
  await page.getByLabel('Your password').fill(OWNER.password);
  const letters = till.mailbox.letters.length;
  await page.getByRole('button', { name: 'Confirm' }).click();
  await expect(page.getByTestId('passkeys')).toContainText('Stall phone');
  await expect(page.getByTestId('passkeys')).toContainText('not used yet');
  await expect.poll(() => till.mailbox.letters.length).toBe(letters + 1);
  expect(till.mailbox.letters[0]?.text).toContain('A passkey was added');
  const [kept] = (await devtools.send('WebAuthn.getCredentials', { authenticatorId })).credentials;
  await page.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(page.getByRole('alert')).toContainText('has a passkey for the account already');

  await page.getByRole('button', { name: 'Sign out' }).click();
  // What is sent is kept, to be sent once more by somebody who listened.
  const sent = page.waitForRequest(/passkey\/sign-in$/);
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByText(`Signed in as ${OWNER.email}`)).toBeVisible();
  await expect(page.getByTestId('passkeys')).toContainText('last used');
  const replayed = await context.request.post(`${till.origin}/api/account/passkey/sign-in`, {
    data: (await sent).postDataJSON() as object,
    headers: { origin: till.origin },
  });
  expect([replayed.status(), ((await replayed.json()) as { code: string }).code]).toEqual([
    401,
    'passkey/wrong',
  ]);

  // A copy of the key, from before it was last used, counts from where it was.
  await page.getByRole('button', { name: 'Sign out' }).click();
  await devtools.send('WebAuthn.removeCredential', {
    authenticatorId,
    credentialId: kept!.credentialId,
  });
  await devtools.send('WebAuthn.addCredential', { authenticatorId, credential: kept! });
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('alert')).toContainText('has been copied');

  await signIn(page);
  await page.getByRole('button', { name: 'Remove Stall phone' }).click();
  await expect(page.getByTestId('passkeys')).not.toContainText('Stall phone');
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('alert')).toContainText('Nobody here has that passkey');
  await context.close();
});

test('a forgotten password: a link by mail, good once', async ({ browser }) => {
  const context = await newBrowser(browser);
  const page = await context.newPage();
  const owner = { email: 'dov@pinwheel.example', password: 'tail-wind-drum-eleven' };
  await page.goto('/sign-in');
  await signIn(page, owner);
  await expect(page).toHaveURL(/\/account$/);
  const forget = async (email: string): Promise<void> => {
    await page.goto('/forgot');
    await page.getByLabel('E-mail address').fill(email);
    await page.getByRole('button', { name: 'Send me a link' }).click();
    await expect(page.getByRole('status')).toContainText('If there is an account');
  };
  const before = till.mailbox.letters.length;
  await forget('nobody@stall.example');
  await forget(owner.email);
  await expect.poll(() => till.mailbox.letters.length).toBe(before + 1);
  const letter = till.mailbox.letters[0];
  expect(letter?.to).toBe(owner.email);
  const link = /\S+\/reset#[0-9a-f]{64}/.exec(letter?.text ?? '')?.[0] ?? '';
  await page.goto(link);
  await page.getByLabel('New password').fill('1234567890');
  await page.getByRole('button', { name: 'Set the password' }).click();
  await expect(page.getByRole('alert')).toContainText('Many people use this password');
  await page.getByLabel('New password').fill('string of nine kites');
  await page.getByRole('button', { name: 'Set the password' }).click();
  await expect(page.getByRole('status')).toContainText('The new password holds');
  await expect.poll(() => till.mailbox.letters[0]?.subject).toContain('password was changed');

  await page.goto('/account');
  await signIn(page, owner);
  await expect(page.getByRole('alert')).toContainText('do not belong together');
  await signIn(page, { ...owner, password: 'string of nine kites' });
  await expect(page.getByText(`Signed in as ${owner.email}`)).toBeVisible();
  await page.goto('about:blank');
  await page.goto(link);
  await page.getByLabel('New password').fill('string of ten kites');
  await page.getByRole('button', { name: 'Set the password' }).click();
  await expect(page.getByRole('alert')).toContainText('has been used or has run out');
  await context.close();
});

test('a device that is shut out wipes what it knew; what it had not sent is looked at and taken in', async ({
  browser,
}) => {
  const lost = await newBrowser(browser);
  const phone = await lost.newPage();
  await enrol(phone, till, 'Ines');
  await openDrawer(phone);
  const sent = await sellOne(phone, 'Lavender');
  await expect(standing(phone)).toHaveText('All sent');
  await goOffline(phone);
  const unsent = [await sellOne(phone, 'Geranium'), await sellOne(phone, 'Geranium')];
  const [number = ''] = sent.split('-');

  const context = await newBrowser(browser);
  const owner = await context.newPage();
  await owner.goto('/account');
  await signIn(owner);
  const row = owner.getByRole('listitem').filter({ hasText: `${number} ` });
  const shutOut = async (): Promise<void> => {
    await row.getByRole('button', { name: 'Shut out …' }).click();
    await row.getByRole('button', { name: `Shut ${number} out` }).click();
  };
  // A lost question is said beside the device, and can be asked again.
  await owner.route('**/shut-out', (route) => route.abort('connectionreset'), { times: 1 });
  await shutOut();
  await expect(row.getByRole('alert')).toContainText(`Whether ${number} is shut out is not known`);
  await shutOut();
  await expect(row.getByRole('alert')).toHaveCount(0);
  // Only then does the server turn it away; before that it would still send.
  await expect(row.getByText(/^\d+ entries · shut out$/)).toBeVisible();

  await lost.setOffline(false);
  await expect(phone.getByRole('heading', { name: 'This device has been shut out' })).toBeVisible();
  await expect(phone.getByTestId('left')).toContainText('Nothing is left on it');
  // Neither goods nor people nor sales can be found on it, and a reload brings nothing back.
  const left = await phone.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((resolve) => {
      const opening = indexedDB.open('stall-till');
      opening.onsuccess = () => resolve(opening.result);
    });
    const counts: Record<string, number> = {};
    for (const store of db.objectStoreNames) {
      counts[store] = await new Promise<number>((resolve) => {
        const counting = db.transaction(store).objectStore(store).count();
        counting.onsuccess = () => resolve(counting.result);
      });
    }
    db.close();
    return Object.entries(counts).filter(([store, count]) => count > 0 && store !== 'meta');
  });
  expect(left).toEqual([]);
  await phone.reload();
  await expect(phone.getByRole('heading', { name: 'This device has been shut out' })).toBeVisible();

  const before = await takings();
  await owner.reload();
  await owner.getByRole('button', { name: 'Look at them' }).click();
  const sales = owner.getByTestId('unsent').getByRole('listitem').filter({ hasText: 'A sale' });
  await expect(sales).toContainText(unsent.map(() => '£3.20'));
  expect(await takings()).toBe(before);
  await owner.getByRole('button', { name: 'Take all of it in' }).click();
  await expect(owner.getByText('when it was shut out')).toHaveCount(0);
  expect(await takings()).toBe(before + 2 * 320);

  // The same phone in the owner's hands again: another device, with a number of its own.
  await phone.getByRole('button', { name: 'Enrol it anew' }).click();
  await phone.getByLabel('Code').fill(till.enrolAddress().split('#')[1]!);
  await phone.getByRole('button', { name: 'Enrol this browser' }).click();
  await expect(phone.getByRole('button', { name: /^Ines/ })).toBeVisible();
  await lost.close();
  await context.close();
});

async function takings(): Promise<number> {
  const [row] = await select<{ n: string }>(
    till.database,
    'SELECT COALESCE(SUM(takings), 0) AS n FROM books_event_totals',
    [],
  );
  return Number(row?.n);
}

test('script in every text field is shown as text, on every screen', async ({ browser }) => {
  const EVIL = '"><img src=x onerror="window.hit=1"><script>window.hit=1</script>';
  const context = await newBrowser(browser);
  const page = await context.newPage();
  const dialogs: string[] = [];
  page.on('dialog', (dialog) => {
    dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  await page.goto('/sign-up');
  await page.getByLabel('What the stall is called').fill(EVIL);
  await page.getByLabel('Your first name').fill(EVIL);
  await page.getByLabel('E-mail address').fill('evil@stall.example');
  await page.getByLabel('Password').fill('moss under the ladder');
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByLabel('Name', { exact: true }).fill(EVIL);
  await page.getByLabel('Price').fill('1');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByTestId('goods-list')).toContainText(EVIL);
  await page.getByLabel('Market or fair').fill(EVIL);
  await page.getByLabel('Place').fill(EVIL);
  await page.getByRole('button', { name: 'Add the event' }).click();
  await page.getByRole('button', { name: 'Load it all' }).click();
  await page.getByRole('link', { name: 'Open the drawer' }).click();
  await page.getByLabel(/Name/).first().fill(EVIL);
  await page.getByRole('button', { name: /^Open with/ }).click();
  await page.getByLabel('Name, code or amount').fill(`3 ${EVIL}`);
  await page.getByTestId('goods').getByRole('button').first().click();
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await expect(lastSale(page)).toContainText('D1-1');
  await go(page, '/people');
  await page.getByRole('link', { name: 'img src' }).last().click();
  await page.getByLabel('Name', { exact: true }).fill(`2${EVIL}`);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page).toHaveURL(/\/people$/);
  await go(page, '/customers/new');
  for (const label of ['Name', 'Company', 'Phone', 'Address', 'Note'])
    await page.getByLabel(label, { exact: true }).fill(EVIL.slice(0, 40));
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('customers')).toContainText('img src');
  await go(page, '/items/new');
  for (const label of ['Name', 'What tells it from others', 'Own code', 'Description'])
    await page.getByLabel(label).first().fill(EVIL.slice(0, 40));
  await page.getByLabel('Price', { exact: true }).fill('2');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByTestId('items')).toContainText('img src');
  await go(page, '/counter');
  await page.getByTestId('goods').getByRole('button').first().click();
  await page.getByRole('button', { name: 'More …' }).click();
  await page.getByLabel('Note', { exact: true }).fill(EVIL);
  await page.getByLabel('Note', { exact: true }).press('Tab');
  await page.getByLabel('What to call it').fill(EVIL.slice(0, 40));
  await page.getByRole('button', { name: 'Open as a tab' }).click();
  await page.getByTestId('goods').getByRole('button').first().click();
  for (const path of [
    '/',
    '/who',
    '/counter',
    '/counter/pay',
    '/find',
    '/stock',
    '/books',
    '/set-up',
    '/people',
    '/acts',
    '/first-day',
    '/drawer/count',
    '/account',
    '/counter/show',
    '/waiting',
    '/customers',
    '/items',
    '/tables',
    '/taxes',
    '/business',
    '/devices',
    '/loose-ends',
  ]) {
    await go(page, path);
    await expect(page.locator('main').first()).toBeVisible();
    await page.waitForTimeout(150);
    const hit = await page.evaluate(() => [
      (window as unknown as { hit?: number }).hit ?? 0,
      document.querySelectorAll('img[src="x"]').length,
    ]);
    expect(hit, path).toEqual([0, 0]);
  }
  await go(page, '/find');
  await page.getByRole('link', { name: /D1-1/ }).click();
  await expect(page.locator('main').last()).toContainText('<img src=x');
  expect(dialogs).toEqual([]);
  await context.close();
});

test('a copy of a device that sells as well is noticed, and the owner sees it', async ({
  browser,
}) => {
  const context = await newBrowser(browser);
  const page = await context.newPage();
  await enrol(page, till, 'Ines');
  await openDrawer(page);
  // The whole database as it is now, as a restored backup of the phone would have it.
  const copy = await context.storageState({ indexedDB: true });
  const sale = await sellOne(page, 'Lavender');
  const [number = ''] = sale.split('-');
  // “All sent” could still be of the moment before the sale.
  const sql = 'SELECT id FROM books_sales WHERE number = ?';
  await expect.poll(async () => (await select(till.database, sql, [sale])).length).toBe(1);

  const restored = await browser.newContext({ baseURL: till.origin, storageState: copy });
  const second = await restored.newPage();
  await second.goto('/counter');
  await sellOne(second, 'Geranium').catch(() => undefined);
  await expect(standing(second)).toHaveText(/copy|refused/i);

  const office = await newBrowser(browser);
  const owner = await office.newPage();
  await owner.goto('/account');
  await signIn(owner);
  const row = owner.getByRole('listitem').filter({ hasText: `${number} ` });
  await expect(row.getByText('A copy of this device has been writing')).toBeVisible();
  for (const each of [context, restored, office]) await each.close();
});
