/**
 * Devices of one till, which its tests use one after another: making a browser a till takes longer than most tests.
 * Each test has windows of its own.
 */
import { expect, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { enrol, go, PINS, signIn, slipLines } from './at-the-stall';
import type { RunningTill } from './running-till';

interface Device {
  readonly context: BrowserContext;
  /** By a test, or by all of the file. */
  use: 'none' | 'test' | 'file';
}

export class Devices {
  readonly #devices: Device[] = [];

  constructor(readonly till: RunningTill) {}

  /**
   * @param use How long it is needed: for a test, or for all that come after it in the file as well.
   * @returns A window of a device that nobody else uses, with somebody signed in, on Today.
   */
  async take(browser: Browser, seller: string, use: 'test' | 'file' = 'test'): Promise<Page> {
    for (const device of this.#devices.filter((each) => each.use === 'none')) {
      device.use = use;
      const page = await device.context.newPage();
      await page.goto('/');
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
      // What one test left on the slip is not for the next.
      if ((await slipLines(page)) === 0) {
        await isSignedIn(page, seller);
        return page;
      }
      await this.#drop(device);
    }
    const context = await browser.newContext({ baseURL: this.till.origin });
    this.#devices.push({ context, use });
    const page = await context.newPage();
    await enrol(page, this.till, seller);
    return page;
  }

  /** A test is over: its windows are closed, and the network is there again. */
  async release(): Promise<void> {
    for (const device of this.#devices.filter(({ use }) => use === 'test')) {
      for (const page of device.context.pages()) await page.close();
      await device.context.setOffline(false);
      device.use = 'none';
    }
  }

  async #drop(device: Device): Promise<void> {
    this.#devices.splice(this.#devices.indexOf(device), 1);
    await device.context.close();
  }
}

async function isSignedIn(page: Page, seller: string): Promise<void> {
  const who = page.getByTitle('Who is selling');
  const asked = page.getByRole('button', { name: new RegExp(`^${seller}`) });
  await expect(who.or(asked).first()).toBeVisible();
  if (await who.isVisible()) {
    if ((await who.textContent())?.trim() === seller) return;
    await who.click();
  }
  await signIn(page, seller, PINS[seller]);
  await go(page, '/');
  await expect(who).toHaveText(seller);
}
