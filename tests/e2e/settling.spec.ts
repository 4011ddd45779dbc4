/** At a desk at night: the demo's last market, from its loose ends to settled, and what comes after that. */
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { enrol, go, lastSale, openSettling, signIn } from '../support/at-the-stall';
import { askFor, hold } from '../support/card-desk';
import { RunningTill } from '../support/running-till';

let till: RunningTill;
test.beforeAll(async () => {
  till = await RunningTill.start();
});
test.afterAll(({ browser }) => till.end(browser));

const ends = (page: Page) => page.getByTestId('end');
const end = (page: Page, code: string) =>
  page.locator(`[data-testid="end"][data-code="${code}"]`).first();
const row = (page: Page, name: RegExp) =>
  page.getByTestId('settle-table').getByRole('row', { name });

test('an event is settled once nothing of it is loose, and what comes later shows', async ({
  browser,
}) => {
  const page = await browser.newPage({ baseURL: till.origin });
  await enrol(page, till, 'Maren');
  await openSettling(page);

  await test.step('the page names what does not tie up, and why', async () => {
    for (const code of [
      'device/not-sent',
      'card/state',
      'card/odd',
      'bag/on-its-way',
      'way/to-come',
      'stock/off',
    ])
      await expect(end(page, code)).toBeVisible();
    await expect(end(page, 'device/not-sent')).toContainText('4 more entries');
    await expect(end(page, 'stock/off')).toContainText('Perhaps one was tapped for the other');
    await expect(row(page, /^Cards, by the report/)).toContainText('ties up');
    await page.getByRole('button', { name: 'Settle the event' }).click();
    await expect(page.getByText(/loose ends are left; settle or accept each first/)).toBeVisible();
  });

  await test.step('a row opens into what is behind it', async () => {
    await row(page, /^Cash in Drawer 1/)
      .getByRole('button')
      .click();
    await expect(page.getByTestId('drawer-formula')).toContainText('Handed over');
    const documents = page.getByTestId('behind').getByRole('listitem');
    const link = documents.first().getByRole('link');
    const number = await link.innerText();
    await link.click();
    await expect(page).toHaveURL(/\/sales\//);
    await expect(page.locator('main')).toContainText(number);
    await page.goBack();
    await row(page, /^Cash in Drawer 1/)
      .getByRole('button')
      .click();
    await row(page, /^Goods gone/)
      .getByRole('button')
      .click();
    await expect(page.getByTestId('settle-stock').getByRole('row')).toHaveCount(3);
    await page.getByTestId('settle-stock').getByRole('button').first().click();
    await expect(page.getByTestId('behind').last()).toContainText(/D\d+-\d+/);
    await page.getByTestId('settle-stock').getByRole('button').first().click();
    await page.getByRole('button', { name: /^All \d+ items/ }).click();
    await expect(page.getByTestId('settle-stock').getByRole('row').nth(30)).toBeVisible();
    await page.getByRole('button', { name: 'Only what is off' }).click();
  });

  await test.step('earlier editions stand beside it, and a maker is written to', async () => {
    const editions = page.getByTestId('editions').getByRole('row');
    await expect(editions).toHaveCount(4);
    // What the last left is on the server; none is left to be waited for.
    await expect(page.getByTestId('editions')).not.toContainText('…');
    await expect(page.getByText(/(less|more) is left of it\./)).toBeVisible();
    await page
      .getByRole('button', { name: 'Mail it to odile@brandt-pots.example', exact: true })
      .click();
    await expect(page.getByText('with its PDF, once there is network')).toBeVisible();
    await expect(
      page.getByRole('button', { name: 'Mail it to odile@brandt-pots.example again' }),
    ).toBeVisible();
    await expect
      .poll(() => till.mailbox.letters.map(({ to }) => to))
      .toContain('odile@brandt-pots.example');
    const letter = till.mailbox.letters.find(({ to }) => to === 'odile@brandt-pots.example');
    expect(letter?.text).toMatch(/\nTo pay: £\d/);
    const [statement] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'All as CSV' }).click(),
    ]);
    const lines = readFileSync(await statement.path(), 'utf8').split('\r\n');
    expect(lines[0]).toBe('maker,goods,quantity,net,tax,commission,to_pay,paid');
    expect(lines.some((line) => line.startsWith('Odile Brandt,all,'))).toBe(true);
  });

  await test.step('the bag has come to the bank', async () => {
    await row(page, /^Bag B-/)
      .getByRole('button')
      .click();
    await page.getByRole('button', { name: 'It has come to the bank …' }).click();
    await page.getByLabel('What came').fill('999999');
    await page.getByRole('button', { name: 'It has come', exact: true }).click();
    await expect(page.getByText(/more than the .* that are owed/)).toBeVisible();
    const bag =
      (await row(page, /^Bag B-/)
        .getByRole('cell')
        .nth(1)
        .textContent()) ?? '';
    await page.getByLabel('What came').fill(bag);
    await page.getByRole('button', { name: 'It has come', exact: true }).click();
    await expect(end(page, 'bag/on-its-way')).toHaveCount(0);
    await expect(row(page, /^Bag B-/).first()).toContainText('has come');
  });

  await test.step('a report as a file is looked at line by line before it is taken in', async () => {
    const csv = [
      'reference,amount,fee,last4,at,Händler',
      'stranger,12.00,0.20,0005,2026-01-02 10:00,Grün',
      'stranger,12.00,0.20,0005,2026-01-02 10:00,Grün',
      'other,much,0.20,0005,2026-01-02 10:00,Grün',
    ].join('\r\n');
    await page.getByLabel('or a file (CSV)').setInputFiles({
      ...{ name: 'report.csv', mimeType: 'text/csv' },
      buffer: Buffer.from(csv, 'latin1'),
    });
    await expect(page.getByTestId('report-file')).toContainText('1 line of £12.00');
    await expect(page.getByTestId('report-file')).toContainText('1 of them are there twice');
    await expect(page.getByTestId('report-file')).toContainText('Line 4: “much” is no amount');
    await page.getByTestId('report-file').getByRole('button', { name: 'Leave it' }).click();
    await expect(page.getByTestId('report-file')).toHaveCount(0);
  });

  await test.step('each of the rest is accepted with a reason; without one it is not', async () => {
    const first = ends(page).first();
    await first.getByRole('button', { name: 'Accept with a reason' }).click();
    await first.getByRole('button', { name: 'Accept it' }).click();
    await expect(first.getByText(/Say why/)).toBeVisible();
    await first.getByRole('button', { name: 'Leave it open' }).click();
    for (let left = await ends(page).count(); left > 0; left -= 1) {
      const next = ends(page).first();
      await next.getByRole('button', { name: 'Accept with a reason' }).click();
      await next.getByLabel('Why it is left as it is').fill('looked at with Tobin');
      await next.getByRole('button', { name: 'Accept it' }).click();
      await expect(ends(page)).toHaveCount(left - 1);
    }
    await expect(page.getByTestId('nothing-loose')).toBeVisible();
  });

  await test.step('it is settled, with a digest; the event hangs so on the string', async () => {
    await page.getByRole('button', { name: 'Settle the event' }).click();
    await expect(page.getByTestId('settled')).toContainText('Settled by Maren');
    await page.getByRole('link', { name: 'The event’s page' }).click();
    await expect(
      page.getByRole('list', { name: 'Stages of the event' }).getByText('settled'),
    ).toBeVisible();
  });

  await test.step('the acquirer has nothing new of that day, and says so', async () => {
    await openSettled(page);
    await page.getByRole('button', { name: 'Fetch the report again' }).click();
    await expect(page.getByText('The report has nothing of these days yet.')).toBeVisible();
  });

  await test.step('what is paid later does not change it in silence, and is added', async () => {
    await openSettled(page);
    const statement = page.getByRole('button', { name: /^Statement of/ });
    if ((await statement.count()) > 0) {
      const saving = page.waitForEvent('download');
      await statement.first().click();
      const pdf = readFileSync(await (await saving).path());
      expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    }
    // What is still to come by card comes after all.
    await row(page, /at the bank/)
      .filter({ hasText: 'to come' })
      .getByRole('button')
      .click();
    await page.getByRole('button', { name: 'It has come to the bank …' }).click();
    await page.getByRole('button', { name: 'It has come', exact: true }).click();
    await expect(end(page, 'settled/changed')).toContainText('Something came after');
    await page.getByRole('button', { name: 'Settle once more' }).click();
    await expect(end(page, 'settled/changed')).toHaveCount(0);
    await expect(page.getByTestId('nothing-loose')).toBeVisible();
  });

  await test.step('a helper sees it, and needs the right to settle', async () => {
    await go(page, '/who');
    await signIn(page, 'Oriel');
    await openSettled(page);
    await page.getByRole('button', { name: /^Fetch the report/ }).click();
    await expect(page.getByText('may not settle events')).toBeVisible();
  });
});

/** The event that was settled just now: the latest of those behind us. */
async function openSettled(page: Page): Promise<void> {
  await go(page, '/books');
  await page
    .getByRole('link', { name: /Quay Street.*settled/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Settle …' }).click();
  await expect(page.getByTestId('settled')).toBeVisible();
}

test('the report of today’s cards is fetched from the acquirer, and each line finds its payment', async ({
  browser,
}) => {
  const page = await browser.newPage({ baseURL: till.origin });
  await enrol(page, till, 'Maren');
  await go(page, '/drawer/open');
  await page.getByLabel('£10', { exact: true }).fill('5');
  await page.getByRole('button', { name: /^Open with/ }).click();
  await page
    .getByTestId('goods')
    .getByRole('button', { name: /Lavender/ })
    .click();
  await page.getByRole('button', { name: /^Take payment/ }).click();
  await page.waitForURL('**/counter/pay');
  await askFor(page, '4.50');
  await hold(page);
  await expect(lastSale(page)).toContainText('£4.50');

  await go(page, '/');
  await page.getByRole('link', { name: 'The event’s page' }).click();
  await page.getByRole('link', { name: 'Settle …' }).click();
  await expect(end(page, 'card/no-report')).toBeVisible();
  await page.getByRole('button', { name: 'Fetch the report' }).click();
  await expect(row(page, /^Cards, by the report/)).toContainText('ties up');
  await expect(page.getByTestId('paired')).toContainText('1 by reference');
  await expect(end(page, 'card/no-report')).toHaveCount(0);

  // A line of a file that no till knows is none of ours, by hand and with a word.
  // By the clock of the place, which the event goes by.
  const day = new Intl.DateTimeFormat('en-CA', { timeZone: 'Europe/London' }).format(new Date());
  await page.getByLabel('or a file (CSV)').setInputFiles({
    ...{ name: 'more.csv', mimeType: 'text/csv' },
    buffer: Buffer.from(`reference,amount,last4,at\r\nstranger,77.00,0005,${day} 10:00\r\n`),
  });
  await page.getByRole('button', { name: 'Take in 1 line' }).click();
  await expect(end(page, 'card/odd')).toContainText('a card that no till knows');
  await page.getByRole('button', { name: 'Join it by hand …' }).click();
  await page.getByRole('button', { name: 'So it is' }).click();
  await expect(page.getByText(/Say why, in a few words/)).toBeVisible();
  await page.getByLabel('How that is known').fill('the stall beside ours');
  await page.getByRole('button', { name: 'So it is' }).click();
  await expect(end(page, 'card/odd')).toHaveCount(0);
  await expect(row(page, /^Cards, by the report/)).toContainText('ties up');

  // The cardholder takes it back: with the next report that is a loose end of its own.
  const [charged] = readFileSync(till.acquirerFile, 'utf8')
    .split('\n')
    .flatMap((line) => /"reference":"([^"]+)"/.exec(line)?.[1] ?? []);
  const { url, apiKey } = till.acquirer;
  const disputed = await fetch(`${url}/dispute`, {
    method: 'POST',
    headers: { authorization: `Bearer ${apiKey}` },
    body: JSON.stringify({ reference: charged }),
  });
  expect(disputed.status).toBe(200);
  await page.getByRole('button', { name: 'Fetch the report again' }).click();
  await expect(end(page, 'card/odd')).toContainText('A cardholder took a payment back');
  await expect(end(page, 'card/odd')).toContainText('£4.50');
});
