/** A till that the tests of one file share, one after another, and the devices that they use of it. */
import { test, type Browser, type BrowserContext, type Page } from '@playwright/test';
import { newDevice } from './at-the-stall';
import { RunningTill } from './running-till';

type OneStall = ((browser: Browser, seller: string) => Promise<Page>) & {
  /** Where all mail ends up; once the first test has begun. */
  readonly mailbox: () => RunningTill['mailbox'];
};

/**
 * Called once at the head of a file: the drawer that its first test opens, the others use.
 * @returns What enrols a device of its own, with somebody signed in; it is closed when the test is over.
 */
export function oneStall(): OneStall {
  test.describe.configure({ mode: 'serial' });
  let till: RunningTill;
  const contexts: BrowserContext[] = [];
  test.beforeAll(async () => {
    till = await RunningTill.start();
  });
  test.afterEach(async () => {
    for (const context of contexts.splice(0)) await context.close();
  });
  test.afterAll(({ browser }) => till.end(browser));
  return Object.assign(
    (browser: Browser, seller: string) => newDevice(browser, till, contexts, seller),
    { mailbox: () => till.mailbox },
  );
}

export const counter = (page: Page): Promise<void> =>
  page.getByRole('link', { name: 'Counter', exact: true }).click();
export const toPayment = (page: Page): Promise<void> =>
  page.getByRole('button', { name: /^Take payment/ }).click();
