/** Every screen in every theme: axe, contrast by computation, touch targets, no faults in the console. */
import { expect, test, type Page } from '@playwright/test';
import {
  enrol,
  go,
  openDrawer,
  openSettling,
  sellOne,
  signIn,
  slipIsKept,
  tag,
} from '../support/at-the-stall';
import { cutOff, lowContrast, smallTargets, violations } from '../support/looks';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let page: Page;
const faults: string[] = [];
test.beforeAll(async ({ browser }) => {
  till = await RunningTill.start();
  // A colour on its way from one to another is not what anybody reads.
  const context = await browser.newContext({ baseURL: till.origin, reducedMotion: 'reduce' });
  page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('E-mail address').fill('maren@larkmoss.example');
  await page.getByLabel('Password', { exact: true }).fill('moss-lark-kettle-nine');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Devices', exact: true })).toBeVisible();
  page.on('console', (message) => {
    if (message.type() === 'error' || message.type() === 'warning') faults.push(message.text());
  });
  page.on('pageerror', (error) => faults.push(error.message));
  await enrol(page, till);
  await openDrawer(page);
  await sellOne(page, 'Lavender');
  await tag(page, 'Viola').click();
});
test.afterAll(({ browser }) => till.end(browser));
test.afterEach(() => expect(faults.splice(0)).toEqual([]));

const screens: readonly (readonly [string, (page: Page) => Promise<void>])[] = [
  ['today', () => go(page, '/')],
  ['who', () => go(page, '/who')],
  [
    'a PIN, given wrong',
    async () => {
      await go(page, '/who');
      await signIn(page, 'Tobin', '1904');
      await expect(page.getByRole('alert').getByText('That is not the PIN')).toBeVisible();
    },
  ],
  ['people', () => go(page, '/people')],
  [
    'a person, with a right to lend',
    async () => {
      await go(page, '/people');
      await page.getByRole('link', { name: 'Oriel helper' }).click();
      await page.getByRole('button', { name: 'Save' }).click();
      await expect(page.getByText('can lend it for this once')).toBeVisible();
    },
  ],
  ['what was changed', () => go(page, '/acts')],
  ['the first day', () => go(page, '/first-day')],
  ['signing up', () => go(page, '/sign-up')],
  [
    'devices and account, with a link and a question',
    async () => {
      await go(page, '/account');
      await page.getByRole('button', { name: 'Add a device' }).click();
      await page.getByRole('button', { name: 'Shut out …' }).first().click();
      await expect(page.getByTestId('enrol-link')).toBeVisible();
    },
  ],
  [
    'counter, with a line open and goods found',
    async () => {
      await go(page, '/counter');
      await page
        .getByRole('list', { name: 'Lines' })
        .getByRole('button', { name: /Viola/ })
        .click();
      await page.getByLabel('Name, code or amount').fill('lav');
    },
  ],
  [
    'herbs, one sold out, a refusal',
    async () => {
      await go(page, '/counter');
      await page.getByRole('tab', { name: 'Herbs' }).click();
      await expect(tag(page, 'Chives')).toContainText('none left');
      await page.getByLabel('Name, code or amount').fill('zebra');
    },
  ],
  [
    'the list of keys',
    async () => {
      await page.goto('/counter');
      await page.getByLabel('Name, code or amount').press('?');
      await expect(page.getByRole('dialog')).toBeVisible();
    },
  ],
  ['payment', () => go(page, '/counter/pay')],
  ['ways to pay', () => go(page, '/ways')],
  [
    'what is for customers, with a file to take in',
    async () => {
      await go(page, '/orders');
      await page.getByText('Orders from elsewhere').click();
      await expect(page.getByTestId('orders')).toContainText('1042');
    },
  ],
  [
    'an order that is kept',
    async () => {
      await go(page, '/orders');
      await page.getByTestId('orders').getByRole('link', { name: 'K1-1' }).click();
      await expect(page.getByTestId('deposit-moves')).toContainText('Paid in');
    },
  ],
  [
    'invoices',
    async () => {
      await go(page, '/invoices');
      await expect(page.getByTestId('invoices')).toContainText('overdue');
    },
  ],
  [
    'an invoice',
    async () => {
      await go(page, '/invoices');
      await page
        .getByTestId('invoices')
        .getByRole('link', { name: /-0002$/ })
        .click();
      await expect(page.getByTestId('credits')).toBeVisible();
    },
  ],
  [
    'a new invoice',
    async () => {
      await go(page, '/invoices/new');
      await page.getByRole('textbox', { name: 'What', exact: true }).fill('Wreaths');
      await page.getByLabel(/^Each/).fill('12');
      await expect(page.getByTestId('invoice-sums')).toBeVisible();
    },
  ],
  ['how invoices are headed', () => go(page, '/invoices/heading')],
  ['a way to pay', () => go(page, '/ways/new')],
  [
    'categories, one wrong',
    async () => {
      await go(page, '/categories');
      await page.getByRole('button', { name: 'Add it' }).click();
    },
  ],
  ['opening a drawer', () => go(page, '/drawer/open')],
  ['counting a drawer', () => go(page, '/drawer/count')],
  ['books', () => go(page, '/books')],
  [
    'an event',
    async () => {
      await go(page, '/books');
      await page
        .getByRole('link', { name: /Pellow Green/ })
        .nth(1)
        .click();
      await expect(page.getByTestId('ties-up')).toHaveText(
        'Device and server agree on every figure.',
      );
    },
  ],
  ['the season', () => go(page, '/season')],
  [
    'a new event',
    async () => {
      await go(page, '/events/new');
      await page.getByRole('button', { name: 'Add a day' }).click();
      await page.getByLabel('Closes').first().fill('01:00');
    },
  ],
  [
    'where and when an event is, and the same again',
    async () => {
      await go(page, '/season');
      await page.getByTestId('next').getByRole('link', { name: 'Pellow Green market' }).click();
      await page.getByRole('link', { name: 'Where and when …' }).click();
      await expect(page.getByTestId('next-edition')).toBeVisible();
    },
  ],
  ['stock', () => go(page, '/stock')],
  ['find', () => go(page, '/find')],
  [
    'a sale',
    async () => {
      await go(page, '/find');
      await page.getByRole('link', { name: /D4-1/ }).click();
    },
  ],
  [
    'goods that come back',
    async () => {
      await go(page, '/find');
      await page.getByRole('link', { name: /D4-1/ }).click();
      await page.getByRole('button', { name: 'Take goods back …' }).click();
      await page.getByRole('button', { name: 'All of it' }).click();
      await page.getByRole('heading', { name: 'What comes back' }).scrollIntoViewIfNeeded();
    },
  ],
  ['set-up', () => go(page, '/set-up')],
  [
    'an item with variants, asked which',
    async () => {
      await go(page, '/counter');
      await tag(page, 'Pelargonium').click();
      await expect(page.getByRole('dialog')).toBeVisible();
    },
  ],
  [
    'what is said of the slip, and emptying it',
    async () => {
      await page.goto('/counter');
      await page.getByRole('button', { name: 'More …' }).click();
      await page.getByPlaceholder('Name, company or phone').fill('hazel');
      await page.getByRole('button', { name: 'Empty the slip …' }).click();
      await expect(page.getByRole('button', { name: /Hazel Birk/ })).toBeVisible();
    },
  ],
  ['the customer’s page', () => go(page, '/counter/show')],
  ['what is waiting', () => go(page, '/waiting')],
  ['goods', () => go(page, '/items')],
  [
    'an item, with something wrong',
    async () => {
      await go(page, '/items');
      await page.getByLabel('Name, code, barcode or category').fill('pelargonium');
      await page.getByRole('link', { name: /^Pelargonium/ }).click();
      await page.getByLabel('Price', { exact: true }).fill('dear');
      await page.getByRole('button', { name: 'Add a group' }).click();
    },
  ],
  ['tables', () => go(page, '/tables')],
  [
    'a table being laid out',
    async () => {
      await go(page, '/tables');
      await page.getByRole('link', { name: /^Herbs/ }).click();
      await page.getByLabel('Put goods on it').fill('lav');
    },
  ],
  [
    'taxes and makers',
    async () => {
      await go(page, '/taxes');
      await page.getByRole('button', { name: 'Add a tax' }).click();
    },
  ],
  ['the business', () => go(page, '/business')],
  ['customers', () => go(page, '/customers')],
  [
    'a customer, to be forgotten',
    async () => {
      await go(page, '/customers');
      await page.getByRole('link', { name: /^Hazel Birk/ }).click();
      await page.getByRole('button', { name: 'Forget them …' }).click();
    },
  ],
  ['loose ends', () => go(page, '/loose-ends')],
  ['cash in and out', () => go(page, '/drawer')],
  [
    'settling an event, with a row open',
    async () => {
      await openSettling(page);
      await page
        .getByTestId('settle-table')
        .getByRole('button', { name: /^Goods gone/ })
        .click();
      await expect(page.getByTestId('settle-stock')).toBeVisible();
      await page
        .getByTestId('end')
        .first()
        .getByRole('button', { name: /^Accept/ })
        .click();
    },
  ],
  [
    'a device',
    async () => {
      await go(page, '/devices');
      await page.getByTestId('devices').getByRole('link').first().click();
    },
  ],
  // Last, since a slip that is paid in part stays as it is.
  [
    'payment, with a part taken and a card asked for',
    async () => {
      await go(page, '/counter/pay');
      const cheque = page.locator('[data-way]').filter({ hasText: 'Cheque' });
      if (await page.getByTestId('stubs').first().isHidden()) {
        await cheque.getByRole('button').first().click();
        await cheque.getByLabel('Of what is left').fill('1');
        await cheque.getByLabel('Cheque number').fill('000417');
        await cheque.getByRole('button', { name: /^Take £1.00/ }).click();
      }
      const card = page.locator('[data-way]').filter({ hasText: 'Card' });
      await card.getByRole('button').first().click();
      await card.getByRole('button', { name: /^Ask for/ }).click();
      await expect(page.getByRole('group', { name: 'Practice reader' })).toBeVisible();
    },
  ],
];

const [DESK, PHONE] = [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
];
const THEMES = [
  ['daylight', 4.5],
  ['full-sun', 7],
  ['night', 4.5],
] as const;

const wear = (theme: string): Promise<unknown> =>
  page.evaluate((chosen) => (document.documentElement.dataset['theme'] = chosen), theme);

for (const [name, open] of screens) {
  test(`${name}, in all three themes`, async () => {
    await open(page);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeAttached();
    await page.evaluate(() => document.fonts.ready);
    // Neither what axe asks nor sizes change with the colours; those are worked out in each theme.
    expect(await violations(page)).toEqual([]);
    expect(await smallTargets(page)).toEqual([]);
    for (const [theme, least] of THEMES) {
      await wear(theme);
      expect(await lowContrast(page, least), theme).toEqual([]);
    }
    await wear('daylight');
    expect(await cutOff(page)).toEqual([]);
    await page.setViewportSize(PHONE);
    expect(await cutOff(page), 'on a phone').toEqual([]);
    await page.setViewportSize(DESK);
  });
}

test('change due, in all three themes, and nothing is wider than a handheld at 200 % text', async () => {
  for (const [theme, least] of THEMES) {
    await go(page, '/counter');
    if (await page.getByRole('button', { name: /Take payment/ }).isDisabled()) {
      await tag(page, 'Viola').click();
      await slipIsKept(page);
    }
    await go(page, '/counter/pay');
    await page.getByRole('button', { name: /^£50/ }).click();
    await wear(theme);
    await expect(page.getByTestId('change')).toBeVisible();
    expect(await violations(page)).toEqual([]);
    expect(await lowContrast(page, least), theme).toEqual([]);
  }
  await page.setViewportSize({ width: 360, height: 640 });
  await page.addInitScript(() => {
    document.addEventListener(
      'DOMContentLoaded',
      () => (document.documentElement.style.fontSize = '200%'),
    );
  });
  await page.goto('/counter');
  for (const path of [
    '/',
    '/counter',
    '/counter/pay',
    '/drawer/open',
    '/books',
    '/season',
    '/events/new',
    '/stock',
    '/find',
    '/set-up',
    '/waiting',
    '/items',
    '/items/new',
    '/tables',
    '/taxes',
    '/business',
    '/customers',
    '/customers/new',
    '/loose-ends',
    '/drawer',
    '/ledger',
    '/invoices',
    '/invoices/new',
    '/invoices/heading',
    '/devices',
  ]) {
    await go(page, path);
    const tooWide = () =>
      page.evaluate(() =>
        [...document.querySelectorAll('body *')]
          .filter((element) => element.getBoundingClientRect().right > innerWidth + 1)
          .filter(
            (element) =>
              element.closest('.overflow-x-auto, table, .sr-only, svg, [data-sonner-toaster]') ===
              null,
          )
          .map(
            (element) => `${element.tagName} ${(element.getAttribute('class') ?? '').slice(0, 60)}`,
          ),
      );
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    // Rows come after the page, and charts follow their frame: until nothing more comes.
    let before = '';
    await expect
      .poll(
        async () => {
          const now = await page.locator('body').innerText();
          const isStill = now === before;
          before = now;
          return isStill;
        },
        { intervals: [250] },
      )
      .toBe(true);
    await expect.poll(tooWide, path).toEqual([]);
  }
});
