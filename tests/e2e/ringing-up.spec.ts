/** All that a slip can hold, slips that wait, goods that are set up at the stall. */
import { writeFileSync } from 'node:fs';
import { toBuffer } from 'bwip-js/node';
import { expect, test, type Page } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import {
  entryLine,
  go,
  goOffline,
  lastSale,
  openDrawer,
  payExactly,
  PINS,
  standing,
  tag,
  total,
  type,
  useDrawer,
} from '../support/at-the-stall';
import { oneStall } from '../support/one-stall';

const device = oneStall('apart');
/** The owner's desk, with the drawer open; the tests go on from one another's day. */
let desk: Page;
test.beforeAll(async ({ browser }) => {
  desk = await device(browser, 'Maren', 'file');
  await openDrawer(desk);
});

const lines = (page: Page) => page.getByRole('list', { name: 'Lines' });
const openLine = (page: Page, name: string | RegExp): Promise<void> =>
  lines(page).getByRole('button', { name }).first().click();
const more = (page: Page): Promise<void> => page.getByRole('button', { name: 'More …' }).click();
async function rowOf(number: string): Promise<Record<string, unknown>> {
  const sql = 'SELECT * FROM books_sales WHERE number = ?';
  let found: Record<string, unknown> | undefined;
  await expect
    .poll(
      async () =>
        ([found] = await select<Record<string, unknown>>(device.till().database, sql, [number])),
    )
    .toHaveLength(1);
  return found!;
}
test('a helper changes a price and gives a discount; the slip is rung up once a right is lent', async ({
  browser,
}) => {
  const page = await device(browser, 'Oriel');
  await useDrawer(page);
  await go(page, '/counter');
  await goOffline(page);
  await tag(page, 'Rosemary').click();
  await openLine(page, /Rosemary/);
  await page.getByLabel('Price', { exact: true }).fill('5');
  await page.getByRole('button', { name: 'Set the price' }).click();
  await expect(page.getByRole('alert')).toContainText('Say why the price is another');
  await page.getByLabel('Why another price').fill('snapped stem');
  await page.getByRole('button', { name: 'Set the price' }).click();
  await expect(lines(page)).toContainText('was 6.50: snapped stem');
  await page.getByLabel('Discount, % or amount').fill('20 %');
  await page.getByLabel('Discount, % or amount').press('Enter');
  await expect(total(page)).toHaveText('£4.00');
  await expect(page.getByRole('button', { name: /Take payment/ })).toBeDisabled();
  await expect(page.getByRole('region', { name: 'Lend a right' })).toContainText('Oriel may not');
  await page.getByRole('button', { name: 'Tobin', exact: true }).click();
  await page.getByLabel('PIN of Tobin').fill(PINS['Tobin']!);
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  const number = await payExactly(page);
  await page.context().setOffline(false);
  expect((await rowOf(number))['total']).toBe('400');
  await expect(standing(page)).toHaveText('All sent');
  const kept = await select(
    device.till().database,
    "SELECT id FROM daybook_entries WHERE state <> 'applied'",
    [],
  );
  expect(kept).toEqual([]);
  await go(desk, '/acts');
  await expect(desk.getByText(`${number}: Rosemary, snapped stem`)).toBeVisible();
  await expect(desk.getByText('Oriel, with the right lent by Tobin')).toBeVisible();
});

test('customer, group, discount on the whole, service charge and note; facts of the sale afterwards', async () => {
  await go(desk, '/counter');
  await tag(desk, 'Lavender').click();
  await tag(desk, 'Viola').click();
  await expect(total(desk)).toHaveText('£8.70');
  await more(desk);
  await desk.getByRole('button', { name: 'Neighbours, 5 % off' }).click();
  await expect(total(desk)).toHaveText('£8.26');
  await desk.getByPlaceholder('Name, company or phone').fill('hazel');
  await desk.getByRole('button', { name: /Hazel Birk/ }).click();
  // Hers is the larger of the two.
  await expect(total(desk)).toHaveText('£7.83');
  await desk.getByLabel('Off the whole').fill('ten');
  await desk.getByLabel('Off the whole').press('Tab');
  await expect(desk.getByRole('alert')).toContainText('“ten” is not a discount');
  await desk.getByLabel('Off the whole').fill('0.83');
  await desk.getByLabel('Off the whole').press('Tab');
  await expect(total(desk)).toHaveText('£7.00');
  await desk.getByLabel('Service charge').fill('10%');
  await desk.getByLabel('Service charge').press('Tab');
  await expect(total(desk)).toHaveText('£7.70');
  await desk.getByLabel('Note', { exact: true }).fill('for the allotment');
  await desk.getByLabel('Note', { exact: true }).press('Tab');
  await desk.getByRole('button', { name: 'Show it to the customer' }).click();
  await expect(desk.getByTestId('customer-total')).toHaveText('£7.70');
  await expect(desk.getByTestId('for-customer')).toContainText('Service charge');
  // On a desk it stands as it is, unless it is set otherwise for this device.
  await expect(desk.getByTestId('for-customer')).not.toHaveClass(/rotate-180/);
  await desk.getByRole('link', { name: 'Back to the counter' }).click();
  await desk.getByRole('link', { name: 'Set-up' }).click();
  await desk.getByLabel('The page that is shown to customers').selectOption('Turned round');
  await go(desk, '/counter/show');
  await expect(desk.getByTestId('for-customer')).toHaveClass(/rotate-180/);
  await desk.getByRole('button', { name: 'Turn round' }).click();
  await expect(desk.getByTestId('for-customer')).not.toHaveClass(/rotate-180/);
  await desk.getByRole('link', { name: 'Back to the counter' }).click();
  await expect(desk.getByTestId('slip-said')).toContainText('Hazel Birk');
  const number = await payExactly(desk);
  const sale = await rowOf(number);
  expect([sale['total'], sale['service'], sale['note']]).toEqual([
    '770',
    '70',
    'for the allotment',
  ]);
  // Who bought is an id, so that they can be forgotten: no entry of the sale has the name.
  expect(sale['customer']).toMatch(/^[0-9a-f-]{36}$/);
  const named = await select(
    device.till().database,
    "SELECT id FROM daybook_entries WHERE kind <> 'customer.set' AND entry LIKE '%Hazel%'",
    [],
  );
  expect(named).toEqual([]);
  // Another price today touches no figure of what was sold.
  await go(desk, '/items');
  await desk.getByLabel('Name, code, barcode or category').fill('lavender');
  await desk.getByRole('link', { name: /^Lavender/ }).click();
  await desk.getByLabel('Price', { exact: true }).fill('9.99');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByTestId('items')).toBeVisible();
  await go(desk, `/sales/${String(sale['id'])}`);
  await expect(desk.getByText('£7.70').first()).toBeVisible();
});

test('what is entered before the goods are read, and the key behind it, are done once they are', async ({
  browser,
}) => {
  const page = await device(browser, 'Ines');
  await useDrawer(page);
  // As on a slow device: what waits for the first picture waits until all of it has been typed.
  await page.addInitScript(() => {
    const soon = window.setTimeout.bind(window);
    window.setTimeout = ((does: () => void, wait?: number) => {
      const once = (): unknown => ('isTyped' in window ? does() : soon(once, 20));
      return soon(wait === 60 ? once : does, wait);
    }) as typeof window.setTimeout;
  });
  const readGoods = (): Promise<unknown> =>
    page.evaluate(() => Object.assign(window, { isTyped: true }).isTyped);
  await page.goto('/counter');
  await type(page, 'rosemary');
  await type(page, '2 GER9');
  await expect(page.getByTestId('understood')).toHaveText('Reading the goods …');
  await page.keyboard.press('F9');
  // Half of the next is typed by then, and stays.
  await entryLine(page).fill('violas');
  await readGoods();
  await expect(lastSale(page)).toContainText('£12.90');
  await expect(lines(page)).not.toContainText('Rosemary');
  await expect(entryLine(page)).toHaveValue('violas');
  // Nothing is paid for behind what is not understood, and what was for the next slip is not on this one.
  await page.reload();
  await type(page, 'rosemary');
  await type(page, 'zebra');
  await type(page, '2 GER9');
  await page.keyboard.press('F9');
  await type(page, 'viola');
  await readGoods();
  await expect(page.getByText('Not on the slip: “viola”')).toBeVisible();
  await expect(page.getByTestId('understood')).toContainText('Nothing here is called “zebra”');
  await expect(entryLine(page)).toHaveValue('zebra');
  await expect(total(page)).toHaveText('£12.90');
  await entryLine(page).fill('');
  await payExactly(page);
  await page.getByRole('button', { name: 'Enter now' }).click();
  await expect(total(page)).toHaveText('£4.20');
  await expect(page.getByText('Not on the slip')).toHaveCount(0);
  await payExactly(page);
  await page.reload();
  await type(page, 'zebra');
  await entryLine(page).fill('rosemary');
  await readGoods();
  await expect(page.getByText('Nothing here is called “zebra”')).toBeVisible();
  await expect(page.getByText('not on the slip: “zebra”')).toBeVisible();
  await page.getByRole('button', { name: 'Leave off' }).click();
  await expect(page.getByText('not on the slip')).toHaveCount(0);
  await entryLine(page).press('Enter');
  await expect(total(page)).toHaveText('£6.50');
  await payExactly(page);
  // Nor is what was left behind forgotten in silence.
  await page.reload();
  await type(page, '2 GER9');
  await page.getByRole('link', { name: 'Today' }).click();
  await expect(page.getByText('Not on the slip: “2 GER9”')).toBeVisible();
});

test('a sale of an event long past is found on the server, and opened; without network it says so', async () => {
  const [old] = await select<{ id: string; number: string; total: string }>(
    device.till().database,
    `SELECT s.id, s.number, s.total FROM books_sales s JOIN books_businesses b
      ON b.business = s.business AND b.id = s.business AND b.name = 'Larkmoss Plants'
      ORDER BY s.at LIMIT 1`,
    [],
  );
  await go(desk, '/find');
  await desk.getByLabel('Anything by number, name, item or amount').fill(old!.number);
  const older = desk.getByTestId('found-older');
  await older
    .getByRole('link', { name: `${old!.number} ` })
    .first()
    .click();
  await expect(desk.getByText(old!.number).first()).toBeVisible();
  await expect(desk.getByText('There is no such sale')).toHaveCount(0);

  // So is money that was given back then without a sale.
  const [refund] = await select<{ id: string; number: string; reason: string }>(
    device.till().database,
    `SELECT r.id, r.number, r.reason FROM books_refunds r JOIN books_businesses b
      ON b.business = r.business AND b.id = r.business AND b.name = 'Larkmoss Plants'
      ORDER BY r.at LIMIT 1`,
    [],
  );
  await desk.getByRole('link', { name: 'Find' }).first().click();
  await desk.getByLabel('Anything by number, name, item or amount').fill(refund!.number);
  await desk.locator(`[data-testid=found-documents] a[href="/documents/${refund!.id}"]`).click();
  await expect(desk.getByTestId('document')).toContainText(refund!.reason);
  await goOffline(desk);
  await desk.getByRole('link', { name: 'Find' }).first().click();
  await desk.getByLabel('Anything by number, name, item or amount').fill(old!.number);
  await expect(
    desk.getByText('No network. Sales of events more than two weeks past'),
  ).toBeVisible();
  await desk.context().setOffline(false);
});

test('variants in any order, extras by their rules, hours, an open price, a hang tag, a label', async () => {
  await go(desk, '/counter');
  await tag(desk, 'Pelargonium').click();
  await desk.getByRole('button', { name: 'white', exact: true }).click();
  await desk.getByRole('button', { name: '2 l', exact: true }).click();
  await desk.getByRole('button', { name: '2 l', exact: true }).click();
  await expect(desk.getByRole('button', { name: 'Choose pot.' })).toBeDisabled();
  await desk.getByRole('button', { name: '1 l', exact: true }).click();
  await desk.getByRole('button', { name: 'Put it on' }).click();
  await expect(lines(desk)).toContainText('1 l, white');
  await expect(total(desk)).toHaveText('£5.95');
  await desk.getByRole('tab', { name: 'Pots & gifts' }).click();
  await tag(desk, 'Terrarium').click();
  await desk.getByRole('button', { name: /^Ericaceous compost/ }).click();
  for (const name of [/^Gift wrap/, /^Care card/, /^Moss dressing/])
    await desk.getByRole('dialog').getByRole('button', { name }).click();
  // Two at most: the first made way.
  await expect(
    desk.getByRole('dialog').getByRole('button', { name: /^Gift wrap/ }),
  ).toHaveAttribute('aria-pressed', 'false');
  await desk.getByRole('button', { name: 'Put it on' }).click();
  await expect(total(desk)).toHaveText('£43.45');
  await tag(desk, 'Hand-thrown pot').click();
  await desk.getByRole('dialog').getByLabel('Price').fill('18');
  await desk.getByRole('button', { name: 'Put it on' }).click();
  await type(desk, '1:20 sharpening');
  await type(desk, '#12 salt pig 345 14.50');
  await expect(lines(desk)).toContainText('salt pig, Odile Brandt');
  // 43.45 + 18 + R(24 × 1.333) + 14.50
  await expect(total(desk)).toHaveText('£107.94');
  const number = await payExactly(desk);
  const sale = await rowOf(number);
  const rows = await select<{ name: string; maker: string | null; tag: string; extras: string }>(
    device.till().database,
    'SELECT name, maker, tag, extras FROM books_sale_lines WHERE sale = ? ORDER BY line',
    [sale['id']],
  );
  expect(rows.map(({ name, maker, tag: on }) => [name, maker !== null, on])).toEqual([
    ['Pelargonium', false, ''],
    ['Terrarium', false, ''],
    ['Hand-thrown pot', true, ''],
    ['Tool sharpening', false, ''],
    ['salt pig, Odile Brandt', true, '345'],
  ]);
  expect(JSON.stringify(rows[1]?.extras)).toContain('Moss dressing');
  // What was chosen most is one tap: more than any other was at the markets before.
  await desk.getByRole('tab', { name: 'Front trestle' }).click();
  for (let more = 0; more < 3; more += 1) {
    await tag(desk, 'Pelargonium').click();
    await desk.getByRole('button', { name: 'white', exact: true }).click();
    await desk.getByRole('button', { name: '1 l', exact: true }).click();
    await desk.getByRole('button', { name: 'Put it on' }).click();
    await expect(lines(desk)).toContainText('1 l, white');
    await payExactly(desk);
  }
  await tag(desk, 'Pelargonium').click();
  await desk.getByRole('button', { name: /The usual/ }).click();
  await expect(lines(desk)).toContainText('1 l, white');
  await payExactly(desk);
});

test('set aside in one gesture, seen elsewhere, taken up there, put back, told to the second', async ({
  browser,
}) => {
  const page = await device(browser, 'Ines');
  await useDrawer(page);
  await go(desk, '/counter');
  await type(desk, '2 hosta');
  await desk.keyboard.press('F4');
  await expect(lines(desk)).not.toContainText('Hosta');
  await tag(desk, 'Aster').click();

  await go(page, '/waiting');
  await expect(page.getByTestId('waiting')).toContainText('Hosta');
  await page.getByLabel('Customer, name or goods').fill('zebra');
  await expect(page.getByTestId('waiting')).toContainText('Nothing that waits fits');
  await page.getByLabel('Customer, name or goods').fill('hos');
  await page.getByRole('button', { name: 'Continue' }).click();
  await expect(total(page)).toHaveText('£19.00');
  await expect(standing(page)).toHaveText('All sent');
  // The desk takes it up as well: it is told, and may; its own slip is put aside by itself.
  await go(desk, '/waiting');
  await expect(desk.getByTestId('waiting')).toContainText('taken up by D');
  await desk.getByRole('button', { name: 'Continue' }).click();
  await expect(desk.getByRole('alert')).toContainText('both sales stand');
  await desk.getByRole('button', { name: 'Take it up all the same' }).click();
  await expect(total(desk)).toHaveText('£19.00');
  // Left without paying: the device locks, and the slip is back for everybody.
  await go(desk, '/who');
  await desk.getByRole('button', { name: 'Lock this device' }).click();
  await desk.getByRole('button', { name: /^Maren/ }).click();
  await desk.getByLabel('PIN of Maren').fill(PINS['Maren']!);
  await desk.getByRole('button', { name: 'Sign in' }).click();
  await expect(desk.getByLabel('PIN of Maren')).toHaveCount(0);
  await go(desk, '/waiting');
  await expect(desk.getByTestId('waiting')).toContainText('Aster');
  await expect(desk.getByTestId('waiting')).toContainText('Hosta');
  await go(desk, '/counter');
  await expect(lines(desk)).not.toContainText('Hosta');
  // Rung up elsewhere, it waits no more.
  const number = await payExactly(page);
  expect((await rowOf(number))['total']).toBe('1900');
  await go(desk, '/waiting');
  await expect(desk.getByTestId('waiting')).not.toContainText('Hosta');
});

test('a tab for a bench: both devices add to it offline, and all of it is there', async ({
  browser,
}) => {
  const page = await device(browser, 'Ines');
  await go(desk, '/counter');
  await tag(desk, 'Viola').click();
  await more(desk);
  await desk.getByLabel('What to call it').fill('Terrarium bench');
  await desk.getByRole('button', { name: 'Open as a tab' }).click();
  await expect(desk.getByLabel('What to call it')).toBeHidden();
  await go(page, '/waiting');
  await expect(page.getByTestId('waiting')).toContainText('Terrarium bench');
  await goOffline(page);
  const add = async (where: Page, what: string): Promise<void> => {
    if (!where.url().endsWith('/waiting')) await go(where, '/waiting');
    await where
      .getByRole('listitem')
      .filter({ hasText: 'Terrarium bench' })
      .getByRole('button', { name: 'Continue' })
      .click();
    await type(where, what);
    await expect(lines(where)).toContainText(new RegExp(what, 'i'));
    await where.keyboard.press('F4');
    await expect(lines(where)).not.toContainText('Viola');
  };
  await add(page, 'sedum');
  await add(desk, 'thyme');
  await page.context().setOffline(false);
  for (const where of [page, desk]) {
    await go(where, '/waiting');
    const bench = where
      .getByTestId('waiting')
      .getByRole('listitem')
      .filter({ hasText: 'Terrarium bench' });
    await expect(bench).toContainText('Sedum');
    await expect(bench).toContainText('Thyme');
    await expect(bench).toContainText('Viola');
  }
  // A second tab, with nothing on it yet, takes a line that is for one of the bench alone.
  await go(desk, '/counter');
  await more(desk);
  await desk.getByLabel('What to call it').fill('By the gate');
  await desk.getByRole('button', { name: 'Open as a tab' }).click();
  await expect(desk.getByLabel('What to call it')).toBeHidden();
  await go(desk, '/waiting');
  await desk
    .getByRole('listitem')
    .filter({ hasText: 'Terrarium bench' })
    .getByRole('button', { name: 'Continue' })
    .click();
  await openLine(desk, /Sedum/);
  await desk.getByLabel('For', { exact: true }).fill('Wren');
  await desk.getByLabel('For', { exact: true }).press('Tab');
  await expect(lines(desk)).toContainText('for Wren');
  await desk.getByLabel('Move to').selectOption({ label: 'By the gate' });
  await expect(lines(desk)).not.toContainText('Sedum');
  await desk.keyboard.press('F4');
  await expect(lines(desk)).not.toContainText('Viola');
  await go(desk, '/waiting');
  const gate = desk.getByTestId('waiting').getByRole('listitem').filter({ hasText: 'By the gate' });
  await expect(gate).toContainText('Sedum');
  await expect(
    desk.getByTestId('waiting').getByRole('listitem').filter({ hasText: 'Terrarium bench' }),
  ).not.toContainText('Sedum');
});

test('an event charges another tax, and what was sold before keeps its own', async () => {
  await go(desk, '/counter');
  await tag(desk, 'Rosemary').click();
  await expect(desk.getByTestId('tax')).toHaveText('1.08');
  const number = await payExactly(desk);
  await go(desk, '/');
  await desk.getByRole('link', { name: 'The event’s page' }).click();
  const here = desk.getByRole('region', { name: 'Taxes here' });
  await here.getByRole('combobox').first().selectOption({ label: 'VAT zero, 0 %' });
  await here.getByRole('button', { name: 'Save' }).click();
  await expect(here.getByRole('button', { name: 'Save' })).toHaveCount(0);
  await go(desk, '/counter');
  await tag(desk, 'Rosemary').click();
  await expect(desk.getByTestId('tax')).toHaveText('0.00');
  await payExactly(desk);
  expect((await rowOf(number))['tax']).toBe('108');
});

test('an unknown barcode is added at the stall with no network, and sold on another device', async ({
  browser,
}) => {
  const page = await device(browser, 'Ines');
  await useDrawer(page);
  await go(desk, '/counter');
  await goOffline(desk);
  // A scanner types wherever the screen is, and ends with Enter.
  await desk.locator('body').click({ position: { x: 5, y: 300 } });
  await desk.keyboard.type('4006381333931');
  await expect(desk.getByTestId('understood')).toContainText('is not among the goods yet');
  await desk.keyboard.press('Enter');
  await expect(desk.getByRole('heading', { name: 'Add an item' })).toBeVisible();
  await expect(desk.getByLabel('Barcodes')).toHaveValue('4006381333931');
  await desk.getByLabel('Name', { exact: true }).fill('Garden string');
  await desk.getByLabel('Price', { exact: true }).fill('dear');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByRole('alert').first()).toContainText('“dear” is not an amount');
  await desk.getByLabel('Price', { exact: true }).fill('3.25');
  // Leaving and coming back loses nothing that was typed.
  await desk.goBack();
  await desk.goForward();
  await expect(desk.getByLabel('Name', { exact: true })).toHaveValue('Garden string');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByTestId('goods')).toBeVisible();
  // The goods may only just be read anew.
  await expect(async () => {
    await entryLine(desk).fill('4006381333931');
    await expect(desk.getByTestId('understood')).toContainText('Garden string', { timeout: 1000 });
  }).toPass();
  await entryLine(desk).press('Enter');
  await expect(total(desk)).toHaveText('£3.25');
  await desk.context().setOffline(false);
  await go(page, '/counter');
  await expect(async () => {
    await entryLine(page).fill('4006381333931');
    await expect(page.getByTestId('understood')).toContainText('Garden string', { timeout: 1000 });
  }).toPass();
  await entryLine(page).press('Enter');
  await expect(total(page)).toHaveText('£3.25');
});

test('a barcode is read by the camera, with no network, and out of a picture', async () => {
  const png = await toBuffer({
    bcid: 'ean13',
    text: '5099999000011',
    scale: 4,
    padding: 12,
    backgroundcolor: 'FFFFFF',
  });
  await go(desk, '/counter');
  await desk.getByRole('tab', { name: 'Front trestle' }).click();
  // The reader is kept with the rest of the application.
  await goOffline(desk);
  await desk.evaluate(async (picture) => {
    const image = new Image();
    image.src = `data:image/png;base64,${picture}`;
    await image.decode();
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [640, 480];
    const paint = canvas.getContext('2d')!;
    const draw = (): void => {
      paint.fillStyle = '#fff';
      paint.fillRect(0, 0, 640, 480);
      paint.drawImage(image, 100, 100);
    };
    draw();
    setInterval(draw, 100);
    navigator.mediaDevices.getUserMedia = () => Promise.resolve(canvas.captureStream(10));
  }, png.toString('base64'));
  await desk.getByRole('button', { name: 'Scan with the camera' }).click();
  await expect(lines(desk)).toContainText('Lavender');
  await desk.evaluate(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new Error('no camera'));
  });
  await desk.getByRole('button', { name: 'Scan with the camera' }).click();
  await expect(desk.getByRole('dialog')).toContainText('The camera cannot be used');
  await desk.getByLabel('Read a picture instead').setInputFiles({
    name: 'tulips.png',
    mimeType: 'image/png',
    buffer: await toBuffer({
      bcid: 'ean13',
      text: '5099999000028',
      scale: 4,
      padding: 12,
      backgroundcolor: 'FFFFFF',
    }),
  });
  await expect(lines(desk)).toContainText('Tulip, mixed');
  await desk.context().setOffline(false);
  await payExactly(desk);
});

test('goods from a file: what will happen is said line by line, and a table is laid out of them', async () => {
  const file = test.info().outputPath('goods.csv');
  writeFileSync(
    file,
    [
      'Name,Price,Code,Barcodes',
      '"Fern, ""royal""",7.50,ROY,',
      'Quaking grass,3.20,QUA,',
      'Lavender,9.99,LAV10,',
      'Wrong price,dear,,',
      'Bad barcode,1,,5012345678901',
    ].join('\r\n'),
  );
  await go(desk, '/items');
  await desk.getByLabel('Take goods in from a file').setInputFiles(file);
  const says = desk.getByRole('group', { name: 'What will happen' });
  await expect(says).toContainText('2 new');
  await expect(says).toContainText('2 wrong');
  await expect(desk.getByTestId('planned')).toContainText('price: “dear” is not an amount');
  await expect(desk.getByTestId('planned')).toContainText('5012345678901 has a wrong check digit');
  await desk.getByRole('button', { name: /^Take \d in$/ }).click();
  await desk.getByLabel('Name, code, barcode or category').fill('royal');
  await expect(desk.getByTestId('items')).toContainText('Fern, "royal"');
  // The file that is saved reads as the same.
  const saving = desk.waitForEvent('download');
  await desk.getByRole('button', { name: 'Save all goods as a file' }).click();
  await desk.getByLabel('Take goods in from a file').setInputFiles(await (await saving).path());
  await expect(says).toContainText('0 new');
  await expect(says).toContainText('0 changed');
  await expect(says).toContainText('0 wrong');

  await go(desk, '/tables/new');
  await desk.getByLabel('Name', { exact: true }).fill('New arrivals');
  for (const name of ['royal', 'quaking']) {
    await desk.getByLabel('Put goods on it').fill(name);
    await desk
      .getByRole('listitem')
      .getByRole('button')
      .filter({ hasText: new RegExp(name, 'i') })
      .first()
      .click();
  }
  const laid = desk.getByTestId('laid-out').getByRole('listitem');
  await expect(laid.first()).toContainText('Fern');
  await desk.getByRole('button', { name: 'Move Quaking grass up' }).click();
  await expect(laid.first()).toContainText('Quaking');
  // The same by dragging, with the mouse.
  const [from, to] = await Promise.all([
    desk.getByLabel('Drag Fern, "royal"').boundingBox(),
    desk.getByLabel('Drag Quaking grass').boundingBox(),
  ]);
  await desk.mouse.move(from!.x + 20, from!.y + 20);
  await desk.mouse.down();
  await desk.mouse.move(from!.x + 20, to!.y + 30, { steps: 8 });
  await desk.mouse.move(from!.x + 20, to!.y - 4, { steps: 8 });
  await desk.waitForTimeout(400);
  await desk.mouse.up();
  await expect(laid.first()).toContainText('Fern');
  await desk.getByRole('button', { name: 'Save' }).click();
  await expect(desk.getByTestId('tables')).toContainText('New arrivals');
  await go(desk, '/counter');
  await desk.getByRole('tab', { name: 'New arrivals' }).click();
  await expect(tag(desk, 'Quaking grass')).toBeVisible();
});
