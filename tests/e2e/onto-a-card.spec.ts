/** Money without a sale goes onto a card that is there: with no network, with the answer lost, and where the bank will not. */
import { expect, test, type Browser, type Page } from '@playwright/test';
import { select } from '../../src/lib/server/database/select';
import { go, goOffline, goOnline, standing } from '../support/at-the-stall';
import { card, CardDesk, hold } from '../support/card-desk';
import { oneStall } from '../support/one-stall';

const device = oneStall();

const alert = (page: Page) => page.getByRole('alert');
const give = (page: Page, amount: string) =>
  page.getByRole('button', { name: `Give back £${amount}` });

async function atStall(browser: Browser) {
  return { page: await device(browser, 'Maren'), desk: new CardDesk(device.devices()) };
}

async function fillIn(page: Page, amount: string, why: string): Promise<void> {
  await page.getByRole('link', { name: 'Find', exact: true }).click();
  await page.getByRole('link', { name: 'Give back without a sale …' }).click();
  await page.getByRole('button', { name: 'Only an amount' }).click();
  await page.getByLabel('Amount').fill(amount);
  await page.getByLabel('Given back').selectOption({ label: 'onto a card that is here, by Card' });
  await page.getByLabel('Why').fill(why);
}

/** What the server's books have of money that went onto cards for so much. Minor units. */
const given = (amount: number) =>
  select<{ id: string; business: string; state: string; amount: string }>(
    device.till().database,
    'SELECT id, business, state, amount FROM books_card_refunds WHERE id = payment AND amount = ?',
    [amount],
  );

test('it is read with no network, nothing is given by what goes wrong before, and it goes once', async ({
  browser,
}) => {
  const { page, desk } = await atStall(browser);
  await expect(standing(page)).toHaveText('All sent');
  await fillIn(page, '5', '');
  await goOffline(page);
  // What would be refused is refused before anybody holds a card to the reader.
  await give(page, '5.00').click();
  await expect(alert(page)).toContainText('Say why');
  await expect(card(page)).toHaveCount(0);
  await page.getByLabel('Why').fill('a torn bag');
  await give(page, '5.00').click();
  await expect(card(page)).toContainText('asks for the card that £5.00 goes onto');
  await card(page).getByRole('button', { name: 'Stop asking' }).click();
  await expect(alert(page)).toContainText('Nothing was given back: it was stopped at the reader');
  await give(page, '5.00').click();
  await card(page).getByRole('button', { name: 'Shows 1.00 more' }).click();
  await expect(alert(page)).toContainText('the reader showed £6.00 and not £5.00');
  await give(page, '5.00').click();
  await card(page).getByRole('button', { name: 'Reader dies' }).click();
  await expect(alert(page)).toContainText('lost its power');
  // The browser dies while the reader asks.
  await give(page, '5.00').click();
  await expect(card(page)).toBeVisible();
  await page.reload();
  await fillIn(page, '5', 'a torn bag');
  await give(page, '5.00').dblclick();
  await hold(page);
  const paper = page.getByTestId('document');
  await expect(paper).toContainText('£5.00 onto Visa …4471');
  await expect(paper).toContainText('£5.00 goes to the card as soon as there is network.');
  expect(await given(500)).toEqual([]);

  // It is done at the acquirer, and the answer never arrives.
  await desk.fault({ of: 'POST /credit', dropAfter: 1 });
  await page.reload();
  await goOnline(page);
  await expect(paper).toContainText('£5.00 is on its way to the card.');
  await expect(standing(page)).toHaveText('All sent');
  await expect.poll(() => given(500)).toMatchObject([{ state: 'refunded', amount: '500' }]);
  const [{ id, business } = { id: '', business: '' }] = await given(500);
  const { url, apiKey } = device.till().acquirer;
  const theirs = await fetch(`${url}/payments?reference=${business}:${id}`, {
    headers: { authorization: `Bearer ${apiKey}` },
  });
  expect(await theirs.json()).toMatchObject({ state: 'credited', refunded: 500, asked: 500 });
});

test('what the bank will not take is said, and has its name in the evening', async ({
  browser,
}) => {
  const { page } = await atStall(browser);
  await fillIn(page, '7.50', 'a cracked pot');
  await give(page, '7.50').click();
  await card(page).getByLabel('Practice:').selectOption('decline:reported lost');
  await hold(page);
  await expect(page.getByTestId('document')).toContainText(
    'The acquirer will not give £7.50 back to the card: reported lost',
  );
  await expect.poll(() => given(750)).toMatchObject([{ state: 'refused' }]);

  // In the evening it has its name; what went onto the other card is in the report as it is here.
  await go(page, '/');
  await page.getByRole('link', { name: 'The event’s page' }).click();
  await page.getByRole('link', { name: 'Settle …' }).click();
  const end = (code: string) => page.locator(`[data-testid="end"][data-code="${code}"]`);
  await expect(end('card/refund')).toContainText('The acquirer will not give money back to a card');
  await expect(end('card/refund')).toContainText('£7.50');
  await page.getByRole('button', { name: 'Fetch the report' }).click();
  await expect(page.getByRole('button', { name: 'Fetch the report again' })).toBeVisible();
  await expect(end('card/odd')).toHaveCount(0);
});
