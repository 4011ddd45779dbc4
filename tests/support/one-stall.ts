/** A till that the tests of one file share, one after another, and the devices that they use of it. */
import { test, type Browser, type Page } from '@playwright/test';
import { Devices } from './devices';
import { RunningTill } from './running-till';

interface OneStall {
  (browser: Browser, seller: string, use?: 'test' | 'file'): Promise<Page>;
  /** These are there once the first test, or what comes before all of them, has begun. */
  readonly devices: () => Devices;
  readonly till: () => RunningTill;
}

/**
 * Called once at the head of a file.
 * @param order `one after another`: what one test did, the next go on with, as with a drawer that it opens.
 * @returns What gives a test a device of its own, with somebody signed in; another test may have used it before.
 */
export function oneStall(order: 'one after another' | 'apart' = 'one after another'): OneStall {
  if (order === 'one after another') test.describe.configure({ mode: 'serial' });
  let devices: Devices;
  test.beforeAll(async () => {
    devices = new Devices(await RunningTill.start());
  });
  test.afterEach(() => devices.release());
  test.afterAll(({ browser }) => devices.till.end(browser));
  const take: Devices['take'] = (...args) => devices.take(...args);
  return Object.assign(take, { devices: () => devices, till: () => devices.till });
}

export const counter = (page: Page): Promise<void> =>
  page.getByRole('link', { name: 'Counter', exact: true }).click();
export const toPayment = (page: Page): Promise<void> =>
  page.getByRole('button', { name: /^Take payment/ }).click();
