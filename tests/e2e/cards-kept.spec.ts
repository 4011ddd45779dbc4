/** Cards that are signed for or on file, tips on the reader; and the network pulled in every step. */
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { select } from '../../src/lib/server/database/select';
import { go, goOffline, goOnline, lastSale, PINS, tag, total, type } from '../support/at-the-stall';
import {
  askFor,
  card,
  CardDesk,
  fillKeyed,
  hold,
  sign,
  toPayment,
  wayRow,
} from '../support/card-desk';
import { oneStall } from '../support/one-stall';
import type { RunningTill } from '../support/running-till';

const stall = oneStall('apart');
let till: RunningTill;
let desk: CardDesk;
test.beforeAll(async ({ browser }) => {
  till = stall.till();
  desk = new CardDesk(stall.devices());
  await desk.opened(browser);
});

const says = (page: Page) => page.getByTestId('card-says');
/** The customer of the demo who is known by name, put on the slip. */
async function forHazel(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'More …' }).click();
  await page.getByPlaceholder('Name, company or phone').fill('hazel');
  await page.getByRole('button', { name: /Hazel Birk/ }).click();
  await expect(page.getByPlaceholder('Name, company or phone')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

test('above the limit a card is signed for; unsigned it is undone, and what the reader shows is checked', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  // The demo's limit is 100.00.
  await askFor(page, '100.00');
  await card(page).getByRole('button', { name: 'Shows 1.00 more' }).click();
  await expect(says(page)).toHaveText(
    'Nothing was charged: the reader showed £101.00 and not £100.00.',
  );
  await askFor(page, '100.00');
  await hold(page, 'swipe');
  await expect(lastSale(page)).toContainText('£100.00');

  await askFor(page, '100.01');
  await hold(page, 'swipe');
  await expect(card(page)).toContainText('Sign here for £100.01');
  await card(page).getByRole('button', { name: 'Not signed as on the card' }).click();
  await expect(says(page)).toContainText('undone by itself');
  await expect(page.getByTestId('left-to-pay')).toHaveText('£100.01');
  await askFor(page, '100.01');
  await hold(page, 'insert');
  await card(page).getByRole('button', { name: 'It is signed' }).click();
  await expect(card(page).getByRole('alert')).toContainText('Sign with a finger or a pen');
  await sign(page);
  await card(page).getByRole('button', { name: 'It is signed' }).click();
  await expect(lastSale(page)).toContainText('£100.01');
  await expect
    .poll(async () => (await desk.cardRows(10_001)).map(({ state }) => state))
    .toEqual(['reversed', 'captured']);
  const theirs = await Promise.all(
    (await desk.cardRows(10_001)).map(({ id }) => desk.atAcquirer(id)),
  );
  expect(theirs.map((each) => (each?.amount ?? 0) - (each?.refunded ?? 0))).toEqual([0, 10_001]);

  // What was drawn is with the sale, on another device as well.
  const other = await desk.seller(browser, 'Oriel');
  await go(other, '/find');
  await other.getByRole('link', { name: /£100.01/ }).click();
  await expect(other.getByTestId('receipt')).toContainText('signed for');
  await expect(other.getByTestId('payer').locator('path')).toHaveAttribute('d', /^M\d+ \d+L/);
  const saving = other.waitForEvent('download');
  await other.getByRole('button', { name: 'PDF' }).click();
  const pdf = readFileSync(await (await saving).path());
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  expect(pdf.length).toBeGreaterThan(5000);
});

test('the reader asks for the tip, where the owner has it so', async ({ browser }) => {
  const owner = await desk.seller(browser, 'Maren');
  await go(owner, '/business');
  await owner.getByLabel('Tips that are offered').fill('10 15');
  await owner.getByLabel('The card reader asks for the tip').check();
  await owner.getByRole('button', { name: 'Save' }).click();
  await owner.waitForURL(/set-up/);
  const page = await desk.seller(browser, 'Ines');
  await toPayment(page, '20.00');
  // The office's word for it may still be on its way.
  await expect(page.getByRole('group', { name: 'Tip' })).toBeVisible();
  await askFor(page, '20.00');
  await expect(card(page)).toContainText('asks for a tip on £20.00');
  await card(page).getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(says(page)).toContainText('stopped at the reader');
  await askFor(page, '20.00');
  await card(page).getByRole('button', { name: '15 %, £3.00' }).click();
  await expect(card(page)).toContainText('asks for £23.00');
  await hold(page);
  await expect(lastSale(page)).toContainText('£20.00');
  await expect.poll(async () => (await desk.cardRows(2300))[0]?.state).toBe('captured');
  await go(owner, '/business');
  await owner.getByLabel('Tips that are offered').fill('');
  await owner.getByRole('button', { name: 'Save' }).click();
  await owner.waitForURL(/set-up/);
  // What is not sent when a context closes is lost with its browser.
  await expect
    .poll(async () => {
      const sql = "SELECT name FROM books_businesses WHERE tips LIKE '%isOnReader%'";
      return (await select<{ name: string }>(till.database, sql, [])).map(({ name }) => name);
    })
    .not.toContain('Larkmoss Plants');
});

test('a card on file: only with consent, replaced, charged, taken off, and no number anywhere', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  await go(page, '/customers');
  await page.getByRole('link', { name: /Hazel Birk/ }).click();
  const put = async (number: string): Promise<void> => {
    await page.getByLabel('Card number').fill(number);
    await page.getByLabel('Expires').fill('04/39');
    await page.getByRole('button', { name: 'Save the card' }).click();
  };
  await page.getByRole('button', { name: 'Put a card on file' }).click();
  await put('4111 1111 1111 1112');
  await expect(page.getByRole('alert')).toContainText('This is no card number');
  await put('4111 1111 1111 1111');
  await expect(page.getByRole('alert')).toContainText('Ask them first');
  await page.getByLabel('It may be kept').selectOption('spoken');
  await goOffline(page);
  await page.getByRole('button', { name: 'Save the card' }).click();
  await expect(page.getByRole('alert')).toContainText('only with it');
  await goOnline(page);
  await page.getByRole('button', { name: 'Save the card' }).click();
  await expect(page.getByTestId('card-on-file')).toHaveText('Visa ending 1111, to 04/39');
  await page.getByRole('button', { name: 'Replace it' }).click();
  await page.getByLabel('It may be kept').selectOption('spoken');
  await put('5555 5555 5555 4444');
  await expect(page.getByTestId('card-on-file')).toHaveText('Mastercard ending 4444, to 04/39');

  // Another device charges it, once it has heard of it.
  const other = await desk.seller(browser, 'Oriel');
  await go(other, '/counter');
  await type(other, '30.00 basket');
  await forHazel(other);
  await other.getByRole('button', { name: /^Take payment/ }).click();
  await wayRow(other, /^Card(?! by)/)
    .getByRole('button')
    .first()
    .click();
  // A way that asks for a reference asks before anybody is charged.
  const telephone = wayRow(other, /^Card by telephone/);
  await telephone.getByRole('button').first().click();
  await telephone.getByTestId('file-card').getByRole('button').click();
  await expect(says(other)).toContainText('asks for its Number of the order');
  await wayRow(other, /^Card(?! by)/)
    .getByRole('button')
    .first()
    .click();
  await goOffline(other);
  await other.getByTestId('file-card').getByRole('button').click();
  await expect(card(other)).toContainText('only with network');
  await expect(card(other).getByRole('button', { name: /^Carry/ })).toHaveCount(0);
  await other.context().setOffline(false);
  await card(other).getByRole('button', { name: 'Ask again' }).click();
  // Her standing discount is ten percent.
  await expect(other.getByTestId('distant')).toContainText('Mastercard ending 4444');
  await other.getByRole('button', { name: /^Next payment/ }).click();
  await expect(lastSale(other)).toContainText('£27.00');
  await expect.poll(async () => (await desk.cardRows(2700))[0]?.last4).toBe('4444');
  const [charged] = await desk.cardRows(2700);
  expect(await desk.atAcquirer(charged!.id)).toMatchObject({ state: 'captured', amount: 2700 });

  await page.getByRole('button', { name: 'Remove the card …' }).click();
  await page.getByRole('button', { name: 'Remove the card' }).click();
  await expect(page.getByRole('button', { name: 'Put a card on file' })).toBeVisible();
  // The acquirer is told, so that a device that has not heard of it is declined.
  await expect
    .poll(() => select(till.database, 'SELECT customer FROM cards_on_file', []))
    .toHaveLength(0);
  for (const number of ['4111111111111111', '5555555555554444'])
    expect(await desk.placesOf(number, page)).toEqual([]);
});

test('the network is pulled in every step, and in the end till, books and acquirer have the same', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  const pull = (): Promise<void> => goOffline(page);
  const mend = (): Promise<void> => page.context().setOffline(false);
  await go(page, '/counter');
  await expect(page.getByTestId('goods')).toBeVisible();

  // While the reader waits for a card.
  await askFor(page, '40.01');
  await pull();
  await hold(page);
  await expect(card(page)).toContainText('Nobody answers');
  await mend();
  await card(page).getByRole('button', { name: 'Ask again' }).click();
  await expect(lastSale(page)).toContainText('£40.01');

  // While the acquirer is asked, which goes on without us.
  await askFor(page, '40.02');
  await page.route('**/api/cards/payments', async (route) => {
    await route.fetch();
    await pull();
    await route.abort('internetdisconnected');
  });
  await hold(page);
  await expect(card(page)).toContainText('Nobody answers');
  await page.unroute('**/api/cards/payments');
  await card(page).getByRole('button', { name: 'Carry £40.02' }).click();
  await expect(lastSale(page)).toContainText('£40.02');
  await mend();
  await expect.poll(async () => (await desk.cardRows(4002))[0]?.state).toBe('captured');

  // While it is signed for.
  await askFor(page, '140.03');
  await hold(page, 'swipe');
  await expect(card(page)).toContainText('Sign here');
  await pull();
  await sign(page);
  await card(page).getByRole('button', { name: 'It is signed' }).click();
  await expect(lastSale(page)).toContainText('£140.03');

  // Between two parts, the second in cash; then the receipt is asked for.
  await mend();
  await toPayment(page, '40.04');
  const row = wayRow(page, /^Card(?! by)/);
  await row.getByRole('button').first().click();
  await row.getByLabel('Of what is left').fill('20');
  await row.getByRole('button', { name: 'Ask for £20.00' }).click();
  await hold(page);
  await expect(page.getByTestId('left-to-pay')).toHaveText('£20.04');
  await pull();
  await page.getByRole('button', { name: /^£20.04 exact/ }).click();
  await expect(lastSale(page)).toContainText('£40.04');
  await go(page, '/find');
  await page.getByRole('link', { name: /£40.04/ }).click();
  await page.getByLabel('Send it to').fill('07700 900123');
  await page.getByRole('button', { name: 'Send it', exact: true }).click();
  await expect(page.getByText(/goes as a text message to \+447700900123/)).toBeVisible();
  expect(till.texts.messages).toHaveLength(0);

  // In the review of a card that is typed in: it cannot be carried, and leaves nothing behind.
  await toPayment(page, '40.05');
  const keyed = wayRow(page, /^Card by telephone/);
  await keyed.getByRole('button').first().click();
  await mend();
  await fillKeyed(keyed, 'order 90', { 'Security code': '123' });
  await keyed.getByLabel('How').selectOption('later');
  await keyed.getByRole('button', { name: 'Review' }).click();
  await pull();
  await keyed.getByRole('button', { name: 'Hold £40.05' }).click();
  await expect(card(page)).toContainText('approval code given by voice');
  await mend();
  await card(page).getByRole('button', { name: 'Ask again' }).click();
  await page.getByRole('button', { name: /^Next payment/ }).click();
  await expect(lastSale(page)).toContainText('£40.05');

  // What is held is to be taken, with no network: it is written down, and done when there is one.
  await go(page, '/waiting');
  const held = page.getByTestId('held').getByRole('listitem');
  await expect(held).toContainText('40.05');
  await pull();
  await held.getByRole('button', { name: 'Take it' }).click();
  await expect(held.getByRole('status')).toContainText('£40.05 is taken as soon as');
  await mend();
  await expect(page.getByTestId('held')).toHaveCount(0);

  // A part by card is given back with no network, and a whole sale made void.
  await toPayment(page, '40.06');
  await row.getByRole('button').first().click();
  await row.getByLabel('Of what is left').fill('30');
  await row.getByRole('button', { name: 'Ask for £30.00' }).click();
  await hold(page);
  await expect(page.getByTestId('left-to-pay')).toHaveText('£10.06');
  await pull();
  await page.getByRole('button', { name: 'Give it back …' }).first().click();
  await page.getByRole('button', { name: 'Give back £30.00' }).first().click();
  await expect(page.getByTestId('left-to-pay')).toHaveText('£40.06');
  await page.getByRole('button', { name: /^£40.06 exact/ }).click();
  await go(page, '/find');
  await page.getByRole('link', { name: /£40.01/ }).click();
  await page.getByRole('button', { name: 'Void this sale …' }).click();
  await page.getByLabel('Why').fill('wrong customer');
  await page.getByRole('button', { name: /^Void it/ }).click();
  await page.getByRole('button', { name: 'Tobin' }).click();
  await page.getByLabel('PIN of Tobin').fill(PINS['Tobin'] ?? '');
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(page.getByTestId('voided')).toContainText('wrong customer');

  // The browser dies with all of that unsent, and comes back with the network.
  await page.close();
  await mend();
  const again = await page.context().newPage();
  await again.goto('/counter');
  await expect(tag(again, 'Lavender')).toBeVisible();
  await expect(total(again)).toHaveCount(1);
  const wanted = [
    [4001, 'reversed', 0],
    [4002, 'captured', 4002],
    [14_003, 'captured', 14_003],
    [2000, 'captured', 2000],
    [4005, 'captured', 4005],
    [3000, 'reversed', 0],
  ] as const;
  for (const [amount, state, charged] of wanted) {
    await expect
      .poll(async () => (await desk.cardRows(amount)).map((each) => each.state))
      .toEqual([state]);
    const theirs = await desk.atAcquirer((await desk.cardRows(amount))[0]!.id);
    expect(theirs).toMatchObject({ state });
    expect((theirs?.amount ?? 0) - (theirs?.refunded ?? 0)).toBe(charged);
  }
  await expect.poll(() => till.texts.messages.length).toBe(1);
  expect(till.texts.messages[0]?.text).toContain('£40.04, Card, Cash.');
  await go(again, '/loose-ends');
  await expect(again.getByRole('heading', { name: 'Loose ends' })).toBeVisible();
  // But for the one that the demo's last market has left over.
  const cardEnds = again.getByRole('article', { name: 'A card payment' });
  await expect(cardEnds).toHaveCount(1);
  await expect(cardEnds).toContainText('not enough on the account');
});
