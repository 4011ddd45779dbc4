/** Every screen in every theme: axe, contrast by computation, touch targets, no faults in the console. */
import AxeBuilder from '@axe-core/playwright';
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
import { lowContrast, smallTargets } from '../support/looks';
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
  ['today', async () => void (await page.goto('/'))],
  ['who', async () => void (await page.goto('/who'))],
  [
    'a PIN, given wrong',
    async () => {
      await page.goto('/who');
      await signIn(page, 'Tobin', '1904');
      await expect(page.getByRole('alert').getByText('That is not the PIN')).toBeVisible();
    },
  ],
  ['people', async () => void (await page.goto('/people'))],
  [
    'a person, with a right to lend',
    async () => {
      await page.goto('/people');
      await page.getByRole('link', { name: 'Oriel helper' }).click();
      await page.getByRole('button', { name: 'Save' }).click();
      await expect(page.getByText('can lend it for this once')).toBeVisible();
    },
  ],
  ['what was changed', async () => void (await page.goto('/acts'))],
  ['the first day', async () => void (await page.goto('/first-day'))],
  ['signing up', async () => void (await page.goto('/sign-up'))],
  [
    'devices and account, with a link and a question',
    async () => {
      await page.goto('/account');
      await page.getByRole('button', { name: 'Add a device' }).click();
      await page.getByRole('button', { name: 'Shut out …' }).first().click();
      await expect(page.getByTestId('enrol-link')).toBeVisible();
    },
  ],
  [
    'counter, with a line open and goods found',
    async () => {
      await page.goto('/counter');
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
      await page.goto('/counter');
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
  ['payment', async () => void (await page.goto('/counter/pay'))],
  ['ways to pay', async () => void (await page.goto('/ways'))],
  [
    'what is for customers, with a file to take in',
    async () => {
      await page.goto('/orders');
      await page.getByText('Orders from elsewhere').click();
      await expect(page.getByTestId('orders')).toContainText('1042');
    },
  ],
  [
    'an order that is kept',
    async () => {
      await page.goto('/orders');
      await page.getByTestId('orders').getByRole('link', { name: 'K1-1' }).click();
      await expect(page.getByTestId('deposit-moves')).toContainText('Paid in');
    },
  ],
  [
    'invoices',
    async () => {
      await page.goto('/invoices');
      await expect(page.getByTestId('invoices')).toContainText('overdue');
    },
  ],
  [
    'an invoice',
    async () => {
      await page.goto('/invoices');
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
      await page.goto('/invoices/new');
      await page.getByRole('textbox', { name: 'What', exact: true }).fill('Wreaths');
      await page.getByLabel(/^Each/).fill('12');
      await expect(page.getByTestId('invoice-sums')).toBeVisible();
    },
  ],
  ['how invoices are headed', async () => void (await page.goto('/invoices/heading'))],
  ['a way to pay', async () => void (await page.goto('/ways/new'))],
  [
    'categories, one wrong',
    async () => {
      await page.goto('/categories');
      await page.getByRole('button', { name: 'Add it' }).click();
    },
  ],
  ['opening a drawer', async () => void (await page.goto('/drawer/open'))],
  ['counting a drawer', async () => void (await page.goto('/drawer/count'))],
  ['books', async () => void (await page.goto('/books'))],
  [
    'an event',
    async () => {
      await page.goto('/books');
      await page
        .getByRole('link', { name: /Pellow Green/ })
        .nth(1)
        .click();
      await expect(page.getByTestId('ties-up')).toHaveText(
        'Device and server agree on every figure.',
      );
    },
  ],
  ['the season', async () => void (await page.goto('/season'))],
  [
    'a new event',
    async () => {
      await page.goto('/events/new');
      await page.getByRole('button', { name: 'Add a day' }).click();
      await page.getByLabel('Closes').first().fill('01:00');
    },
  ],
  [
    'where and when an event is, and the same again',
    async () => {
      await page.goto('/season');
      await page.getByTestId('next').getByRole('link', { name: 'Pellow Green market' }).click();
      await page.getByRole('link', { name: 'Where and when …' }).click();
      await expect(page.getByTestId('next-edition')).toBeVisible();
    },
  ],
  ['stock', async () => void (await page.goto('/stock'))],
  ['find', async () => void (await page.goto('/find'))],
  [
    'a sale',
    async () => {
      await page.goto('/find');
      await page.getByRole('link', { name: /D4-1/ }).click();
    },
  ],
  [
    'goods that come back',
    async () => {
      await page.goto('/find');
      await page.getByRole('link', { name: /D4-1/ }).click();
      await page.getByRole('button', { name: 'Take goods back …' }).click();
      await page.getByRole('button', { name: 'All of it' }).click();
      await page.getByRole('heading', { name: 'What comes back' }).scrollIntoViewIfNeeded();
    },
  ],
  ['set-up', async () => void (await page.goto('/set-up'))],
  [
    'an item with variants, asked which',
    async () => {
      await page.goto('/counter');
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
  ['the customer’s page', async () => void (await page.goto('/counter/show'))],
  ['what is waiting', async () => void (await page.goto('/waiting'))],
  ['goods', async () => void (await page.goto('/items'))],
  [
    'an item, with something wrong',
    async () => {
      await page.goto('/items');
      await page.getByLabel('Name, code, barcode or category').fill('pelargonium');
      await page.getByRole('link', { name: /^Pelargonium/ }).click();
      await page.getByLabel('Price', { exact: true }).fill('dear');
      await page.getByRole('button', { name: 'Add a group' }).click();
    },
  ],
  ['tables', async () => void (await page.goto('/tables'))],
  [
    'a table being laid out',
    async () => {
      await page.goto('/tables');
      await page.getByRole('link', { name: /^Herbs/ }).click();
      await page.getByLabel('Put goods on it').fill('lav');
    },
  ],
  [
    'taxes and makers',
    async () => {
      await page.goto('/taxes');
      await page.getByRole('button', { name: 'Add a tax' }).click();
    },
  ],
  ['the business', async () => void (await page.goto('/business'))],
  ['customers', async () => void (await page.goto('/customers'))],
  [
    'a customer, to be forgotten',
    async () => {
      await page.goto('/customers');
      await page.getByRole('link', { name: /^Hazel Birk/ }).click();
      await page.getByRole('button', { name: 'Forget them …' }).click();
    },
  ],
  ['loose ends', async () => void (await page.goto('/loose-ends'))],
  ['cash in and out', async () => void (await page.goto('/drawer'))],
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
      await page.goto('/devices');
      await page.getByTestId('devices').getByRole('link').first().click();
    },
  ],
  // Last, since a slip that is paid in part stays as it is.
  [
    'payment, with a part taken and a card asked for',
    async () => {
      await page.goto('/counter/pay');
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

const THEMES = [
  ['daylight', 4.5],
  ['full-sun', 7],
  ['night', 4.5],
] as const;

for (const [name, open] of screens) {
  test(`${name}, in all three themes`, async () => {
    await open(page);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeAttached();
    await page.evaluate(() => document.fonts.ready);
    // What axe asks does not change with the colours; those are worked out in each theme.
    const { violations } = await new AxeBuilder({ page })
      .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
      .analyze();
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`)).toEqual([]);
    for (const [theme, least] of THEMES) {
      await page.evaluate((chosen) => (document.documentElement.dataset['theme'] = chosen), theme);
      expect(await lowContrast(page, least), theme).toEqual([]);
      expect(await smallTargets(page), theme).toEqual([]);
    }
  });
}

test('change due, in all three themes, and nothing is wider than a handheld at 200 % text', async () => {
  for (const theme of ['daylight', 'full-sun', 'night']) {
    await page.goto('/counter');
    if (await page.getByRole('button', { name: /Take payment/ }).isDisabled()) {
      await tag(page, 'Viola').click();
      await slipIsKept(page);
    }
    await page.goto('/counter/pay');
    await page.getByRole('button', { name: /^£50/ }).click();
    await page.evaluate((chosen) => (document.documentElement.dataset['theme'] = chosen), theme);
    await expect(page.getByTestId('change')).toBeVisible();
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(violations.map(({ id }) => id)).toEqual([]);
    expect(await lowContrast(page, theme === 'full-sun' ? 7 : 4.5)).toEqual([]);
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
        { intervals: [500] },
      )
      .toBe(true);
    await expect.poll(tooWide, path).toEqual([]);
  }
});
