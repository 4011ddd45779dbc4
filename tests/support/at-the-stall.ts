/** What a seller does, in words; the end-to-end tests are written with these. */
import { expect, type Locator, type Page } from '@playwright/test';
import type { RunningTill } from './running-till';

export const FLOAT = { '£10': 2, '£5': 6, '£1': 20, '50p': 10, '20p': 15, '10p': 20 } as const;
export const FLOAT_TOTAL = '£80.00';

/** The demo's made-up PINs. */
export const PINS: Readonly<Record<string, string>> = {
  Maren: '407183',
  Tobin: '582914',
  Ines: '260537',
  Oriel: '7318',
  Dov: '826451',
  Pia: '3950',
};

/** From the list of people: a tap on the name, then the PIN. */
export async function signIn(page: Page, name: string, pin = PINS[name] ?? ''): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await page.getByLabel(`PIN of ${name}`).fill(pin);
  await page.getByRole('button', { name: 'Sign in' }).click();
  // A moment goes by until the PIN has been checked.
  if (pin === PINS[name]) await expect(page.getByLabel(`PIN of ${name}`)).toHaveCount(0);
}

/** Somebody with the right to it lends it, by their PIN. */
export async function lend(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name, exact: true }).click();
  await page.getByLabel(`PIN of ${name}`).fill(PINS[name]!);
  await page.getByRole('button', { name: 'Allow it this once' }).click();
}

/**
 * Goes to another page as the application's own links do: nothing is loaded anew, which takes four times as long. But
 * while something is said at the edge of the screen it is: that would be found where a test looks for the same words.
 */
export async function go(page: Page, path: string): Promise<void> {
  if ((await page.locator('[data-sonner-toast]').count()) > 0) {
    await page.goto(path);
    return;
  }
  await page.evaluate(async (href) => {
    const link = document.createElement('a');
    link.href = href;
    const gone = new Promise((resolve) =>
      navigation.addEventListener('currententrychange', resolve, { once: true }),
    );
    document.body.firstElementChild?.append(link);
    link.click();
    link.remove();
    await gone;
    // Until the page that is left has gone from the screen as well.
    await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
  }, path);
}

/** Makes the page's browser a till, with somebody signed in, and opens Today. */
export async function enrol(page: Page, till: RunningTill, seller = 'Ines'): Promise<void> {
  await page.goto(till.enrolAddress());
  await signIn(page, seller);
  await expect(page.getByRole('heading', { name: 'Pellow Green market' })).toBeVisible();
}

export async function countPieces(
  page: Page,
  counts: Readonly<Record<string, number>>,
): Promise<void> {
  for (const [piece, count] of Object.entries(counts)) {
    await page.getByLabel(piece, { exact: true }).fill(String(count));
  }
}

export async function openDrawer(page: Page): Promise<void> {
  await go(page, '/drawer/open');
  await countPieces(page, FLOAT);
  await page.getByRole('button', { name: `Open with ${FLOAT_TOTAL}` }).click();
  await expect(page.getByTestId('goods')).toBeVisible();
}

/** Uses the drawer that another device has opened, or goes on with it. */
export async function useDrawer(page: Page): Promise<void> {
  await go(page, '/');
  const use = page.getByRole('button', { name: 'Use Drawer 1' });
  const ready = page.getByRole('heading', { name: 'Ready to sell' });
  await expect(use.or(ready).first()).toBeVisible();
  if (await use.isVisible()) await use.click();
  await expect(ready).toBeVisible();
}

export const tag = (page: Page, name: string): Locator =>
  page.getByTestId('goods').getByRole('button', { name: new RegExp(name) });
export const entryLine = (page: Page): Locator => page.getByLabel('Name, code or amount');
export const total = (page: Page): Locator => page.getByTestId('to-pay');
export const lastSale = (page: Page): Locator => page.getByTestId('last-sale');
/** The awning's words; there is one for phones and one for desks, one of them shown. */
export const standing = (page: Page): Locator =>
  page.getByTestId('standing').locator('span:visible');

export async function type(page: Page, text: string): Promise<void> {
  await entryLine(page).fill(text);
  await entryLine(page).press('Enter');
}

/** Taps an item once and takes exact cash; returns the sale's number once it is said to be safe. */
export async function sellOne(page: Page, name: string): Promise<string> {
  await tag(page, name).click();
  return await payExactly(page);
}

/** Takes exact cash for what is on the slip; returns the sale's number once it is said to be safe. */
export async function payExactly(page: Page): Promise<string> {
  // By its number: what is said of the last sale may not be on the screen yet, or be of the one before.
  const number = `-${String((await salesWritten(page)) + 1)},`;
  await page.getByRole('button', { name: /^Exact cash/ }).click();
  await expect(lastSale(page)).toContainText(number);
  const said = (await lastSale(page).textContent()) ?? '';
  return said.split(',')[0]!;
}

/** How many sales this device has rung up. */
async function salesWritten(page: Page): Promise<number> {
  const head = (await kept(page, 'head')) as { sales: number } | undefined;
  return head?.sales ?? 0;
}

/** What the device keeps under a name, beside its rows. */
const kept = async (page: Page, key: string): Promise<unknown> =>
  await page.evaluate(async (name) => {
    const open = indexedDB.open('stall-till');
    const db = await new Promise<IDBDatabase>((resolve) => {
      open.onsuccess = () => resolve(open.result);
    });
    const asked = db.transaction('meta').objectStore('meta').get(name);
    await new Promise((resolve) => {
      asked.onsuccess = resolve;
    });
    db.close();
    return (asked.result as { value: unknown } | undefined)?.value;
  }, key);

/** How many lines the open slip has, as it is on disk. */
export const slipLines = async (page: Page): Promise<number> =>
  ((await kept(page, 'slip')) as { lines: unknown[] } | undefined)?.lines.length ?? 0;

/** Waits until the slip at the counter, which is saved behind the screen, is on disk with so many lines. */
export const slipIsKept = (page: Page, lines = 1): Promise<void> =>
  expect.poll(() => slipLines(page)).toBeGreaterThanOrEqual(lines);

/** The cells of a list's row, found by how it begins. */
export const cells = (page: Page, begins: string): Locator =>
  page.getByRole('row').filter({ hasText: begins }).getByRole('cell');

/** Pulls the network, once the application is kept on the device: a page can be opened again from then on. */
export async function goOffline(page: Page): Promise<void> {
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await page.context().setOffline(true);
}

/** The network is back, and a request gets through: the browser is a moment behind what it is told. */
export async function goOnline(page: Page): Promise<void> {
  await page.context().setOffline(false);
  await expect
    .poll(() =>
      page.evaluate(() =>
        fetch('/healthz', { cache: 'no-store' }).then(
          ({ ok }) => ok,
          () => false,
        ),
      ),
    )
    .toBe(true);
}

/** The settling page of the demo's last market. */
export async function openSettling(page: Page): Promise<void> {
  await go(page, '/books');
  await page
    .getByRole('link', { name: /counted/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Settle …' }).click();
  await expect(page.getByTestId('settle-table')).toBeVisible();
}

/** The file beside the database, as text. One that is written to while it is read cannot be read, and is read again. */
export const mirrorOf = async (page: Page): Promise<string> =>
  await page.evaluate(async () => {
    const folder = await navigator.storage.getDirectory();
    const handle = await folder.getFileHandle('mirror.ndjson');
    for (;;)
      try {
        return await (await handle.getFile()).text();
      } catch (error) {
        if (!(error instanceof DOMException) || error.name !== 'NotReadableError') throw error;
      }
  });
