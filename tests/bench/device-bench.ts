/** The device's speed, in Chromium on the built application. */
import { chromium, type BrowserContext } from '@playwright/test';
import { chromiumOptions } from '../support/chromium';
import type { RunningTill } from '../support/running-till';
import { median, milliseconds, type Figure } from './figures';
import { bundle, device, type Device } from './device';
import type { SaleTimes, WithHarness } from './harness';
import { carriedFigures, partsFigure } from './payment-bench';
import type { TapTimes } from './tap-timer';

export async function deviceFigures(till: RunningTill): Promise<Figure[]> {
  const script = await bundle('tests/bench/harness.ts');
  const browser = await chromium.launch(await chromiumOptions());
  try {
    const empty = await device(browser, till, script, 0, 0);
    const small = await device(browser, till, script, 500, 200);
    const large = await device(browser, till, script, 5000, 20_000);
    return [
      await tapToPaint(small),
      await tapWithManyLines(small),
      await keysToResult(large),
      await keysToFound(await device(browser, till, script, 500, 2000)),
      await longSale(small),
      await importItems(small),
      // Devices of their own: the others have thousands of goods from a file to send by now.
      await partsFigure(await device(browser, till, script, 500, 200)),
      ...(await carriedFigures(await device(browser, till, script, 0, 0))),
      ...(await durableSale(small, large)),
      ...(await startToCounter(empty, small, large)),
    ];
  } finally {
    await browser.close();
  }
}

/** Opens a page, waits for what is to be there, slows down to a quarter, and lets the page time itself. */
export async function timedInPage(
  context: BrowserContext,
  what: 'timeTaps' | 'timeKeys' | 'timeFind' | 'timeScans' | 'timeFilter',
  path: string,
  shown: string,
): Promise<TapTimes> {
  const page = await context.newPage();
  await page.goto(path);
  await page.locator(shown).first().waitFor();
  await page.waitForTimeout(1000);
  const cdp = await context.newCDPSession(page);
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await page.addScriptTag({ content: await bundle('tests/bench/tap-timer.ts') });
  const times = await page.evaluate(
    async (name) =>
      await (window as unknown as Record<typeof name, () => Promise<TapTimes>>)[name](),
    what,
  );
  await page.close();
  return times;
}

const counterTimes = (
  context: BrowserContext,
  what: 'timeTaps' | 'timeKeys' | 'timeFind',
): Promise<TapTimes> =>
  what === 'timeFind'
    ? timedInPage(context, what, '/find', '[data-testid=found-here] a')
    : timedInPage(context, what, '/counter', '[data-testid=goods] button');

export function againstTrivial(what: string, { taps, trivial }: TapTimes, most: number): Figure {
  return {
    what,
    is: milliseconds(median(taps)),
    against: `${milliseconds(median(trivial))} for a trivial update`,
    ratio: median(taps) / median(trivial),
    target: { most },
  };
}

/** From a tap on a tag until the frame with the changed slip has been painted, at a quarter of the speed. */
const tapToPaint = async ({ context }: Device): Promise<Figure> =>
  againstTrivial(
    'tap to painted slip, phone at a quarter of the speed',
    await counterTimes(context, 'timeTaps'),
    1.5,
  );

/** The same with 180 lines on the slip, which is worked out anew at each tap. */
async function tapWithManyLines({ context, bench }: Device): Promise<Figure> {
  await bench.evaluate(async () => await (window as unknown as WithHarness).harness.fillSlip(180));
  const times = await counterTimes(context, 'timeTaps');
  await bench.evaluate(async () => await (window as unknown as WithHarness).harness.fillSlip(0));
  return againstTrivial('the same with 180 lines on the slip', times, 3);
}

/** From a key in the entry line until what fits is painted, among 5,000 items. */
const keysToResult = async ({ context }: Device): Promise<Figure> =>
  againstTrivial(
    'a key to what fits among 5,000 items, at a quarter of the speed',
    await counterTimes(context, 'timeKeys'),
    1.5,
  );

/** From a key in Find until what fits is painted, with no network: two weeks of a busy stall are all there is. */
async function keysToFound(busy: Device): Promise<Figure> {
  await busy.context.setOffline(true);
  return againstTrivial(
    'a key in Find to what fits among 2,000 sales, at a quarter of the speed',
    await counterTimes(busy.context, 'timeFind'),
    1.5,
  );
}

/** From the tap on a sale until one of its lines can be taken back, 300 lines against 3. */
async function longSale({ context, bench }: Device): Promise<Figure> {
  const ids = await bench.evaluate(
    async () => await (window as unknown as WithHarness).harness.longSale(),
  );
  const page = await context.newPage();
  await page.goto('/find?for=D9-90000');
  await page.getByTestId('found-here').locator('a').nth(1).waitFor();
  await page.addScriptTag({ content: await bundle('tests/bench/tap-timer.ts') });
  const { taps, trivial } = await page.evaluate(
    async (of) =>
      await (
        window as unknown as { timeOpen: (of: readonly string[]) => Promise<TapTimes> }
      ).timeOpen(of),
    ids,
  );
  await page.close();
  return {
    what: 'opening a sale of 300 lines to take one of them back',
    is: milliseconds(median(taps)),
    against: `${milliseconds(median(trivial))} for one of 3`,
    ratio: median(taps) / median(trivial),
    target: { most: 2 },
  };
}

/** Per item, 5,000 against 500: reading a file and taking it in should not grow faster than it. */
async function importItems({ bench }: Device): Promise<Figure> {
  const time = (items: number): Promise<number> =>
    bench.evaluate(
      async (count) => await (window as unknown as WithHarness).harness.timeImport(count),
      items,
    );
  const few = await time(500);
  const many = await time(5000);
  return {
    what: 'taking in 5,000 items from a file, per item',
    is: milliseconds(many / 5000),
    against: `${milliseconds(few / 500)} for each of 500`,
    ratio: many / 5000 / (few / 500),
    target: { most: 1.5 },
  };
}

async function durableSale(few: Device, many: Device): Promise<Figure[]> {
  const times = { few: [] as SaleTimes[], many: [] as SaleTimes[], bare: [] as number[] };
  const sale = ({ bench }: Device): Promise<SaleTimes> =>
    bench.evaluate(async () => await (window as unknown as WithHarness).harness.timeSale());
  for (let n = 0; n < 10; n += 1) for (const each of [few, many]) await sale(each);
  for (let n = 0; n < 80; n += 1) {
    times.few.push(await sale(few));
    times.bare.push(
      await few.bench.evaluate(
        async () => await (window as unknown as WithHarness).harness.timeBarePut(),
      ),
    );
    times.many.push(await sale(many));
  }
  const middle = (of: readonly SaleTimes[], what: keyof SaleTimes): number =>
    median(of.map((each) => each[what]));
  const bare = median(times.bare);
  const [durable, later] = [middle(times.few, 'durable'), middle(times.many, 'durable')];
  const [rows, rowsLater] = [middle(times.few, 'applied'), middle(times.many, 'applied')];
  return [
    {
      what: 'a sale of three lines until it is durable',
      is: milliseconds(durable),
      against: `${milliseconds(bare)} for one bare strict put`,
      ratio: durable / bare,
      target: { most: 3 },
    },
    {
      what: 'the same at 20,000 past sales and 5,000 items',
      is: milliseconds(later),
      against: `${milliseconds(durable)} at 200 and 500`,
      ratio: later / durable,
      target: { most: 1.1 },
    },
    {
      what: 'until its rows have followed too, at 20,000 and 5,000',
      is: milliseconds(rowsLater),
      against: `${milliseconds(rows)} at 200 and 500`,
      ratio: rowsLater / rows,
      target: { most: 1.1 },
    },
  ];
}

async function startToCounter(empty: Device, small: Device, large: Device): Promise<Figure[]> {
  const times = { empty: [] as number[], small: [] as number[], large: [] as number[] };
  const all = [
    ['empty', empty],
    ['small', small],
    ['large', large],
  ] as const;
  for (const [, { context }] of all) await context.setOffline(true);
  for (let n = 0; n < 11; n += 1) {
    for (const [name, { context }] of all) {
      const took = await timeStart(context, name === 'empty');
      if (n > 0) times[name].push(took);
    }
  }
  const shell = median(times.empty);
  return [
    ['500 items and 200 past sales', times.small] as const,
    ['5,000 items and 20,000 past sales', times.large] as const,
  ].map(([what, took]) => ({
    what: `start to usable counter, offline, ${what}`,
    is: milliseconds(median(took)),
    against: `${milliseconds(shell)} for the empty shell`,
    ratio: median(took) / shell,
    target: { most: 1.5 },
  }));
}

/** Until tags (or, with no goods, the note that says so) are there. */
const timeStart = (context: BrowserContext, isEmpty: boolean): Promise<number> =>
  timeShown(context, '/counter', `[data-testid=goods] ${isEmpty ? 'p' : 'button'}`);

/** Milliseconds from the start of a navigation until something is painted. */
export async function timeShown(
  context: BrowserContext,
  path: string,
  selector: string,
): Promise<number> {
  const page = await context.newPage();
  // As text: what compiles this file would name inner functions with a helper the page lacks.
  await page.addInitScript(`(() => {
    const look = () => {
      const isShown = document.querySelector('main:not([aria-busy=true]) ${selector}') !== null;
      if (!isShown) return void requestAnimationFrame(look);
      requestAnimationFrame(() => setTimeout(() => { window.usableAt = performance.now(); }));
    };
    look();
  })()`);
  await page.goto(path);
  await page.waitForFunction(() => 'usableAt' in window);
  const at = await page.evaluate(() => (window as unknown as { usableAt: number }).usableAt);
  await page.close();
  return at;
}
