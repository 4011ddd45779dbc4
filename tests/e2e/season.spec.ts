/** The season: an event is planned, changed, and held again, with no network; another device has it too. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import {
  enrol,
  go,
  goOffline,
  lastSale,
  openDrawer,
  sellOne,
  standing,
  tag,
} from '../support/at-the-stall';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
let page: Page;
test.beforeAll(async ({ browser }) => {
  till = await RunningTill.start();
  const context = await browser.newContext({ baseURL: till.origin, reducedMotion: 'reduce' });
  page = await context.newPage();
  await enrol(page, till, 'Maren');
});
test.afterAll(({ browser }) => till.end(browser));

const inDays = (days: number): string =>
  new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

test('an event is planned in a minute, and says beside the field what is wrong', async () => {
  await goOffline(page);
  await page.goto('/season');
  await page.getByRole('link', { name: 'A new event' }).click();
  await page.getByLabel('Place').fill('Abbey yard');
  await page.getByLabel('Day', { exact: true }).fill(inDays(20));
  await page.getByLabel('Day', { exact: true }).press('Enter');
  await expect(page.getByRole('alert')).toHaveText('Give the event a name.');
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
  // Left and come back to: what was typed is still there.
  await go(page, '/season');
  await page.goto('/events/new');
  await expect(page.getByLabel('Place')).toHaveValue('Abbey yard');
  await page.getByLabel('Name', { exact: true }).fill('Winter lights');
  await page.getByLabel('Closes').fill('01:00');
  await expect(page.getByText('It closes at 01:00 on the day after.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a day' }).click();
  await page.getByLabel('Day 2', { exact: true }).fill(inDays(20));
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('is there twice');
  await page.getByLabel('Day 2', { exact: true }).fill(inDays(21));
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Winter lights' })).toBeVisible();
});

test('the same again is the next edition; both hang on the string', async () => {
  await page.getByRole('link', { name: 'Where and when …' }).click();
  const again = page.getByRole('form', { name: 'The same again' });
  await again.getByLabel('It is held').selectOption({ label: 'every 3 weeks' });
  await expect(again.getByTestId('next-edition')).toContainText('2 days');
  await again.getByRole('button', { name: 'Plan the next edition' }).click();
  await expect(page.getByLabel('Day 1', { exact: true })).toHaveValue(inDays(41));
  await expect(page.getByLabel('Place')).toHaveValue('Abbey yard');
  await page.getByLabel('Place').fill('Castle yard');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await go(page, '/season');
  const next = page.getByTestId('next').getByRole('listitem');
  await expect(next.filter({ hasText: 'Winter lights' })).toHaveCount(2);
  await expect(next.first()).toContainText('Pellow Green market');
  await expect(page.getByTestId('behind').getByRole('row')).not.toHaveCount(1);
});

test('where dates crowd, pennants spread when one is touched, and it opens at the second touch', async () => {
  await page.goto('/season');
  const crowded = page.locator('.season-pennant.crowded').first();
  const name = crowded.locator('.season-said');
  await expect(name).toBeHidden();
  const tap = async (): Promise<void> => {
    await crowded.dispatchEvent('pointerdown', { pointerType: 'touch' });
    await crowded.dispatchEvent('click');
  };
  await tap();
  await expect(name).toBeVisible();
  const spread = page.locator('.season-pennant.spread');
  expect(await spread.count()).toBeGreaterThan(1);
  const boxes = await spread.evaluateAll((all) =>
    all.map((each) => each.querySelector('.season-flag')!.getBoundingClientRect().left),
  );
  for (const [n, left] of boxes.entries())
    if (n > 0) expect(left - boxes[n - 1]!).toBeGreaterThan(46);
  expect(new URL(page.url()).pathname).toBe('/season');
  await tap();
  await expect(page).toHaveURL(/\/events\//);
  // A touch that becomes a scroll spreads them as well, and takes nothing from the keyboard.
  await page.goto('/season');
  await crowded.dispatchEvent('pointerdown', { pointerType: 'touch' });
  await crowded.dispatchEvent('pointercancel', { pointerType: 'touch' });
  await expect(name).toBeVisible();
  await crowded.press('Enter');
  await expect(page).toHaveURL(/\/events\//);
});

test('another device hears of it', async ({ browser }) => {
  await page.context().setOffline(false);
  await expect(standing(page)).toHaveText('All sent');
  const context = await browser.newContext({ baseURL: till.origin, reducedMotion: 'reduce' });
  const other = await context.newPage();
  await enrol(other, till, 'Ines');
  await go(other, '/season');
  await expect(
    other.getByTestId('next').getByRole('listitem').filter({ hasText: 'Winter lights' }),
  ).toHaveCount(2);
  await context.close();
});

test('fee, costs, prices and people are saved apart; the next edition has them, and the counter the prices', async () => {
  await go(page, '/books');
  await page.getByRole('link', { name: /Pellow Green market.*trading/ }).click();
  await page.getByPlaceholder(/Something to bring/).fill('Weights for the awning');
  await page.getByPlaceholder(/Something to bring/).press('Enter');
  await page.getByLabel('Weights for the awning', { exact: true }).check();
  await expect(page.getByText('all there')).toBeVisible();
  await page.getByRole('link', { name: 'Where and when …' }).click();
  const costs = page.getByRole('form', { name: 'Fee and costs' });
  await costs.getByLabel('The pitch costs').selectOption('larger');
  await costs.getByRole('textbox', { name: 'Amount' }).fill('46');
  await costs.getByLabel('Percent of the takings').fill('seven');
  await costs.getByRole('button', { name: 'Save fee and costs' }).click();
  await expect(costs.getByRole('alert')).toContainText('“seven” is no such percentage');
  await costs.getByLabel('Percent of the takings').fill('7.5');
  await costs.getByRole('button', { name: 'Save fee and costs' }).click();
  await expect(page.getByTestId('costs-so-far')).toContainText('£46.00 for the pitch');

  const prices = page.getByRole('form', { name: 'Prices here' });
  await prices.getByRole('button', { name: 'A percentage' }).click();
  await prices.getByLabel('Percent on top').fill('10');
  await prices.getByLabel('Rounded to').fill('0.10');
  await prices.getByRole('button', { name: 'Save the prices' }).click();
  await expect(page.getByTestId('prices-shown')).toBeVisible();

  const people = page.getByRole('form', { name: 'Who is there' });
  await people.getByRole('button', { name: 'Add a duty' }).click();
  await people.getByRole('button', { name: 'Save who is there' }).click();
  await expect(people.getByRole('alert')).toHaveText('Say who it is.');
  await people.getByLabel('Who').selectOption({ label: 'Tobin' });
  await people.getByRole('button', { name: 'Save who is there' }).click();
  await expect(people.getByRole('alert')).toHaveCount(0);
  await expect(page.getByText('Who is at Pellow Green is saved.')).toBeVisible();

  // £4.50 and a tenth of it are £4.95: to the nearest ten pence, £5.00.
  await openDrawer(page);
  await expect(tag(page, 'Lavender')).toContainText('5.00');
  await sellOne(page, 'Lavender');
  await expect(lastSale(page)).toContainText('£5.00');
  await expect(standing(page)).toHaveText('All sent');
  // The body is read on its way: the browser need not have it any more once the page is there.
  const answers: unknown[] = [];
  await page.route('**/api/kept', async (route) => {
    const response = await route.fetch();
    answers.push(await response.json());
    await route.fulfill({ response });
  });
  await go(page, '/loose-ends');
  await expect.poll(() => answers.at(-1)).toMatchObject({ kept: [] });
  await page.unroute('**/api/kept');

  await go(page, '/books');
  await page.getByRole('link', { name: /Pellow Green market.*trading/ }).click();
  await page.getByRole('link', { name: 'Where and when …' }).click();
  const again = page.getByRole('form', { name: 'The same again' });
  const before = page.url();
  await again.getByRole('button', { name: 'Plan the next edition' }).click();
  await expect(page).not.toHaveURL(before);
  await expect(page.getByTestId('costs-so-far')).toContainText('£46.00 for the pitch');
  await expect(people.getByLabel('Who')).toHaveValue(/.+/);
  await expect(prices.getByLabel('Percent on top')).toHaveValue('10');
});

test('a calendar goes out as a file and comes in with what each event will do', async () => {
  await go(page, '/season');
  await page.getByText('As a calendar', { exact: true }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save all events as a calendar' }).click();
  const saved = readFileSync(await (await saving).path(), 'utf8');
  expect(saved).toMatch(/^BEGIN:VCALENDAR\r\nVERSION:2.0\r\n/);
  expect(saved).toContain('SUMMARY:Pellow Green market');

  const file = [
    'BEGIN:VCALENDAR',
    'BEGIN:VEVENT',
    'UID:fair-1@parish.example',
    'SUMMARY:Parish fair',
    `DTSTART:${inDays(30).replaceAll('-', '')}T100000`,
    'DURATION:PT6H',
    'END:VEVENT',
    'BEGIN:VEVENT',
    'UID:fair-2@parish.example',
    'SUMMARY:Backwards',
    `DTSTART:${inDays(31).replaceAll('-', '')}T100000`,
    `DTEND:${inDays(30).replaceAll('-', '')}T100000`,
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');
  const take = (text: string): Promise<void> =>
    page
      .getByLabel('Plan events from a calendar file')
      .setInputFiles({ name: 'x.ics', mimeType: 'text/calendar', buffer: Buffer.from(text) });
  await take('name,price');
  await expect(page.getByRole('alert')).toContainText('This is no calendar file');
  await take(file);
  const lines = page.getByTestId('planned');
  await expect(lines).toContainText('line 8');
  await expect(lines).toContainText('it ends before it begins');
  await page.getByRole('button', { name: 'Take 1 in' }).click();
  const next = page.getByTestId('next').getByRole('listitem').filter({ hasText: 'Parish fair' });
  await expect(next).toHaveCount(1);
  // Taken in again it is the same event.
  await take(file);
  await expect(page.getByRole('button', { name: '1 the same' })).toBeVisible();
});
