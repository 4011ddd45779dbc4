/** Cards at the practice reader: approved, declined, nobody answers, no network, killed in between. */
import { expect, test } from '@playwright/test';
import { go, goOffline, lastSale, PINS, standing, total, type } from '../support/at-the-stall';
import { askFor, card, CardDesk, fillKeyed, hold, keptBy } from '../support/card-desk';
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

test('a card is declined with its reason, then approved; till, server and acquirer have the same', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  await askFor(page, '12.34');
  await card(page)
    .getByLabel('Practice:')
    .selectOption({ label: 'the bank declines: not enough money' });
  await hold(page, 'insert');
  await expect(page.getByTestId('card-says')).toHaveText('Nothing was charged: not enough money.');
  await expect(page.getByTestId('left-to-pay')).toHaveText('£12.34');
  await askFor(page, '12.34');
  await card(page).getByRole('button', { name: 'Wrong PIN' }).click();
  await expect(page.getByTestId('card-says')).toContainText('the PIN was wrong too often');
  await askFor(page, '12.34');
  await card(page).getByLabel('Practice:').selectOption({ label: 'only 5.00 is left on the card' });
  await hold(page);
  await expect(page.getByTestId('card-says')).toContainText('Only £5.00 was approved');
  await askFor(page, '12.34');
  await card(page).getByLabel('Practice:').selectOption({ label: 'the bank approves' });
  await hold(page);
  await expect(lastSale(page)).toContainText('£12.34');
  // The one that was good for a part is undone by itself.
  await expect
    .poll(async () =>
      (await desk.cardRows(1234)).map(({ takenState, state }) => `${takenState} ${state}`),
    )
    .toEqual([' declined', ' cancelled', ' reversed', 'captured captured']);
  const rows = await desk.cardRows(1234);
  const theirs = await Promise.all(rows.map(({ id }) => desk.atAcquirer(id)));
  expect(theirs.map((each) => each && [each.state, each.amount - each.refunded])).toEqual([
    ['declined', 0],
    null,
    ['reversed', 0],
    ['captured', 1234],
  ]);
  expect(await desk.placesOf('4000000000004471', page)).toEqual([]);
});

test('nobody answers: asked again under the same reference, it is charged once', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  // It is done at the acquirer, and the answer never arrives.
  await askFor(page, '23.45');
  await desk.fault({ of: 'POST /payments', dropAfter: 1 });
  await hold(page);
  await expect(card(page)).toContainText('Nobody answers');
  const [asked] = await desk.cardRows(2345);
  await card(page).getByRole('button', { name: 'Ask again' }).click();
  await expect(lastSale(page)).toContainText('£23.45');
  await expect(standing(page)).toHaveText('All sent');
  const [mine, ...others] = await desk.cardRows(2345);
  expect(others).toEqual([]);
  expect(mine?.id).toBe(asked?.id ?? mine?.id);
  expect(await desk.atAcquirer(mine!.id)).toMatchObject({
    state: 'captured',
    amount: 2345,
    refunded: 0,
  });

  // The server is killed between asking the acquirer and hearing the answer.
  await askFor(page, '34.56');
  await desk.fault({ hold: true });
  await hold(page);
  await expect(card(page)).toContainText('Asking whether the card is good');
  await till.killServer();
  await expect(card(page)).toContainText('Nobody answers');
  await desk.fault({ hold: false });
  await till.startServer();
  await card(page).getByRole('button', { name: 'Ask again' }).click();
  await expect(lastSale(page)).toContainText('£34.56');
  await expect.poll(async () => (await desk.cardRows(3456)).length).toBe(1);
  const [once] = await desk.cardRows(3456);
  expect(await desk.atAcquirer(once!.id)).toMatchObject({
    state: 'captured',
    amount: 3456,
    refunded: 0,
  });

  // The first of the two is voided: the acquirer gives it back, once.
  await go(page, '/find');
  await page.getByLabel('Anything by number, name, item or amount').fill('23.45');
  await page.getByRole('link', { name: /£23.45/ }).click();
  await page.getByRole('button', { name: 'Void this sale …' }).click();
  await page.getByLabel('Why').fill('wrong customer');
  await page.getByRole('button', { name: /^Void it/ }).click();
  // A helper has not the right to it: a lead lends it.
  await page.getByRole('button', { name: 'Tobin' }).click();
  await page.getByLabel('PIN of Tobin').fill(PINS['Tobin'] ?? '');
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(page.getByTestId('voided')).toContainText('wrong customer');
  await expect.poll(async () => (await desk.atAcquirer(mine!.id))?.state).toBe('reversed');
  // The device has told the server so, before it goes.
  await expect.poll(async () => (await desk.cardRows(2345))[0]?.state).toBe('reversed');
});

test('the browser dies while the card is asked for: what was charged is undone by itself', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  await askFor(page, '45.67');
  await expect.poll(async () => (await desk.cardRows(4567)).length).toBe(1);
  await desk.fault({ hold: true });
  await hold(page);
  await expect(card(page)).toContainText('Asking whether the card is good');
  await page.close();
  await desk.fault({ hold: false });
  const again = await page.context().newPage();
  await again.goto('/counter');
  await expect(total(again)).toHaveText('£45.67');
  await expect
    .poll(async () => (await desk.cardRows(4567))[0]?.state)
    .toMatch(/cancelled|reversed/);
  const theirs = await desk.atAcquirer((await desk.cardRows(4567))[0]!.id);
  expect((theirs?.amount ?? 0) - (theirs?.refunded ?? 0)).toBe(0);
});

test('the seller goes to another page over a card: it is left, and what was charged is undone', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  await askFor(page, '47.11');
  await desk.fault({ of: 'POST /payments', dropAfter: 1 });
  await hold(page);
  await expect(card(page)).toContainText('Nobody answers');
  await page.getByRole('link', { name: 'Today' }).first().click();
  await expect(page.getByText('The card was left.')).toBeVisible();
  // The page stays open, and its window does the errand.
  await expect.poll(async () => (await desk.cardRows(4711))[0]?.state).toBe('reversed');

  // While the answer is on its way: it comes, and is not taken as a part.
  await go(page, '/counter');
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await page.waitForURL('**/counter/pay');
  await askFor(page, '47.11');
  await desk.fault({ hold: true });
  await hold(page);
  await expect(card(page)).toContainText('Asking whether the card is good');
  await page.getByRole('link', { name: 'Today' }).first().click();
  await desk.fault({ hold: false });
  await expect
    .poll(async () => (await desk.cardRows(4711)).map(({ state }) => state))
    .toEqual(['reversed', 'reversed']);
  await go(page, '/counter');
  await expect(total(page)).toHaveText('£47.11');
});

test('with no network cards are carried up to the limit, sent once in order, and a decline is a loose end', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  await go(page, '/counter');
  await expect(page.getByTestId('goods')).toBeVisible();
  await goOffline(page);
  const carryOne = async (amount: string, outcome: string): Promise<void> => {
    await askFor(page, amount);
    await card(page).getByLabel('Practice:').selectOption({ label: outcome });
    await hold(page);
    await expect(card(page)).toContainText('Nobody answers');
  };
  await carryOne('56.01', 'the bank approves');
  await card(page).getByRole('button', { name: 'Carry £56.01' }).click();
  await expect(lastSale(page)).toContainText('£56.01');
  await carryOne('56.02', 'the bank declines: reported lost');
  await expect(card(page)).toContainText('This device carries 1 card so far: £56.01 of at most £');
  await card(page).getByRole('button', { name: 'Carry £56.02' }).click();
  await expect(lastSale(page)).toContainText('£56.02');
  // More than one card may be carried for: a helper must be lent the right.
  await carryOne('61.00', 'the bank approves');
  await expect(card(page)).toContainText('more than the £60.00 that one card may be carried for');
  await card(page).getByRole('button', { name: 'Carry £61.00' }).click();
  await expect(page.getByRole('region', { name: 'Lend a right' })).toBeVisible();
  await card(page).getByRole('button', { name: 'Cancel this card' }).click();

  // The browser goes, and comes back with the network.
  await page.close();
  await page.context().setOffline(false);
  const again = await page.context().newPage();
  await again.goto('/counter');
  await expect.poll(async () => (await desk.cardRows(5601))[0]?.state).toBe('captured');
  await expect.poll(async () => (await desk.cardRows(5602))[0]?.state).toBe('declined');
  await expect.poll(async () => (await desk.cardRows(6100))[0]?.state).toBe('cancelled');
  expect(await desk.atAcquirer((await desk.cardRows(5601))[0]!.id)).toMatchObject({
    state: 'captured',
    amount: 5601,
  });
  await go(again, '/loose-ends');
  const end = again
    .getByRole('article', { name: 'A card payment' })
    .filter({ hasText: 'ending 4471' });
  await expect(end).toContainText('Visa ending 4471 was taken for £56.02 with no network');
  await expect(end).toContainText('reported lost');
});

test('a card is typed in for somebody at a distance: wrong figures are told, held, taken in part later', async ({
  browser,
}) => {
  const page = await desk.seller(browser, 'Ines');
  await go(page, '/counter');
  await type(page, '67.80 basket');
  await expect(total(page)).toContainText('67.80');
  await page.getByRole('button', { name: /^Take payment/ }).click();
  const keyed = page.locator('[data-way]').filter({ hasText: 'Card by telephone' });
  await keyed.getByRole('button').first().click();
  const fill = (label: string, text: string): Promise<void> =>
    keyed.getByLabel(label, { exact: false }).fill(text);
  await fill('Card number', '4111 1111 1111 1112');
  await fill('Number of the order', 'order 81');
  await keyed.getByRole('button', { name: 'Review' }).click();
  await expect(keyed.getByRole('alert')).toContainText('This is no card number');
  await fill('Card number', '4111 1111 1111 1111');
  await expect(keyed.getByLabel('Card number, Visa')).toBeVisible();
  await fill('Expires', '04/39');
  await fill('Security code', '123');
  await fill('Name on the card', 'Hazel Birk');
  await fill('Street', '3 Sluice Lane');
  await fill('Town', 'Tarnbrook');
  await fill('Postcode', '12345');
  await keyed.getByRole('button', { name: 'Review' }).click();
  await expect(keyed.getByRole('alert')).toContainText('no postcode of that country');
  await fill('Postcode', 'LA2 9ZZ');
  await keyed.getByLabel('How').selectOption('later');
  await keyed.getByRole('button', { name: 'Review' }).click();
  await expect(keyed).toContainText('Visa ending 1111');
  await keyed.getByRole('button', { name: 'Hold £67.80' }).click();
  const result = page.getByTestId('distant');
  await expect(result).toContainText('Held, to be taken later');
  await expect(result).toContainText(/Approval\s*\d{6}/);
  await expect(result).toContainText('order 81');
  await page.keyboard.press('Enter');
  await expect(lastSale(page)).toContainText('£67.80');
  await expect.poll(async () => (await desk.cardRows(6780))[0]?.state).toBe('authorised');
  const [row] = await desk.cardRows(6780);
  expect(await desk.atAcquirer(row!.id)).toMatchObject({ state: 'authorised', amount: 6780 });

  await go(page, '/waiting');
  const held = page.getByTestId('held').getByRole('listitem');
  await held.getByLabel('Take', { exact: true }).fill('70');
  await held.getByRole('button', { name: 'Take it' }).click();
  await expect(held.getByRole('alert')).toContainText('At most £67.80 is held');
  await held.getByLabel('Take', { exact: true }).fill('60');
  await held.getByRole('button', { name: 'Take it' }).click();
  // The rest is given back, which a helper may not decide alone.
  await held.getByRole('button', { name: 'Tobin' }).click();
  await page.getByLabel('PIN of Tobin').fill(PINS['Tobin'] ?? '');
  await page.getByRole('button', { name: 'Allow it this once' }).click();
  await expect(page.getByTestId('held')).toHaveCount(0);
  expect(await desk.atAcquirer(row!.id)).toMatchObject({ state: 'captured', amount: 6000 });
  await go(page, '/loose-ends');
  await expect(page.getByText('only £60.00 was taken of it')).toBeVisible();

  // The number is nowhere at all: no table, no log, nothing that the browser keeps.
  expect(await keptBy(page)).toContain('order 81');
  expect(await desk.placesOf('4111111111111111', page)).toEqual([]);
});

test('typed in with no network: only with an approval code given by voice, and it is sent later', async ({
  browser,
}) => {
  // At the page that takes the place of the voice on the telephone.
  const voice = await browser.newPage();
  await voice.goto(`${till.acquirer.url}/voice`);
  await voice.getByRole('button', { name: 'Ask for an approval' }).click();
  const code = (await voice.locator('output').textContent()) ?? '';
  expect(code).toMatch(/^V\d{5}$/);
  await voice.close();
  const page = await desk.seller(browser, 'Ines');
  await go(page, '/counter');
  await expect(page.getByTestId('goods')).toBeVisible();
  await goOffline(page);
  await type(page, '33.10 basket');
  await page.getByRole('button', { name: /^Take payment/ }).click();
  const keyed = page.locator('[data-way]').filter({ hasText: 'Card by telephone' });
  await keyed.getByRole('button').first().click();
  await fillKeyed(keyed, 'order 82');
  await keyed.getByLabel('How').selectOption('voice');
  await keyed.getByRole('textbox', { name: 'Approval code' }).fill(code);
  await keyed.getByRole('button', { name: 'Review' }).click();
  await keyed.getByRole('button', { name: 'Take £33.10' }).click();
  await expect(card(page)).toContainText('Nobody answers');
  await card(page).getByRole('button', { name: 'Carry £33.10' }).click();
  await expect(page.getByTestId('distant')).toContainText(code);
  await page.getByRole('button', { name: /^Next payment/ }).click();
  await expect(lastSale(page)).toContainText('£33.10');
  await page.context().setOffline(false);
  await expect.poll(async () => (await desk.cardRows(3310))[0]?.state).toBe('captured');
  expect(await desk.atAcquirer((await desk.cardRows(3310))[0]!.id)).toMatchObject({
    state: 'captured',
    amount: 3310,
  });
});
