/** Stock on a device: packing a long list, the table of everything, and an order filled from its levels. */
import { chromium, type BrowserContext } from '@playwright/test';
import type { Row } from '../../src/lib/core/books/tables';
import { PLAIN_ITEM } from '../../src/lib/core/goods/plain-item';
import { fromLevels } from '../../src/lib/core/stock/fill-list';
import { BASE } from '../../src/lib/core/books/names';
import { idOf } from '../../src/lib/core/testing/made-up-business';
import { chromiumOptions } from '../support/chromium';
import type { RunningTill } from '../support/running-till';
import { bundle, device } from './device';
import { againstTrivial, timedInPage, timeShown } from './device-bench';
import { median, milliseconds, type Figure } from './figures';
import type { WithHarness } from './harness';

const ITEMS = 5000;
const FEW = 50;
const LINES = 800;

export async function stockFigures(till: RunningTill): Promise<Figure[]> {
  const script = await bundle('tests/bench/harness.ts');
  const browser = await chromium.launch(await chromiumOptions());
  try {
    const [few, many] = [
      await device(browser, till, script, FEW, 0),
      await device(browser, till, script, ITEMS, 0),
    ];
    for (const { bench, context } of [few, many]) {
      await bench.evaluate(() => (window as unknown as WithHarness).harness.fillPlaces());
      await context.setOffline(true);
    }
    const list = await many.bench.evaluate(
      (lines) => (window as unknown as WithHarness).harness.fillList(lines),
      LINES,
    );
    return [
      againstTrivial(
        `a scan on a load list of ${String(LINES)} lines to painted, at a quarter of the speed`,
        await timedInPage(many.context, 'timeScans', `/stock/lists/${list}`, '[data-crate]'),
        1.5,
      ),
      await usable(few.context, many.context),
      againstTrivial(
        'a key in the filter of 5,000 items, at a quarter of the speed',
        await timedInPage(many.context, 'timeFilter', '/stock', '[data-row]'),
        1.5,
      ),
      filled(),
    ];
  } finally {
    await browser.close();
  }
}

/** From the start of the navigation until rows of the table are painted. */
async function usable(few: BrowserContext, many: BrowserContext): Promise<Figure> {
  const times: [number[], number[]] = [[], []];
  for (let n = 0; n < 11; n += 1)
    for (const [at, context] of [few, many].entries()) {
      const took = await timeShown(context, '/stock', '[data-row]');
      if (n > 0) times[at]!.push(took);
    }
  const [less, more] = times.map(median) as [number, number];
  return {
    what: 'start to the stock of 5,000 items at six places, offline',
    is: milliseconds(more),
    against: `${milliseconds(less)} with ${String(FEW)}`,
    ratio: more / less,
    target: { most: 1.5 },
  };
}

/** Every item has a level and a par, and two of three are low. */
function filled(): Figure {
  const items = Array.from({ length: ITEMS }, (_, n): Row<'items'> => ({
    ...PLAIN_ITEM,
    ...{ id: idOf(6, n), setStamp: 'x', activeStamp: 'x', name: `Item ${String(n)}`, price: 100 },
    reorder: [{ place: BASE, level: 10_000 }],
  }));
  const supplies = new Map(
    items.map(({ id }) => [id, { suppliers: [], pars: [{ place: BASE, par: 24_000 }] }]),
  );
  const standing = new Map(
    items.map(({ id }, n) => [id, { onHand: (n % 3) * 6000, reserved: 1000, onOrder: 2000 }]),
  );
  const none = { onHand: 0, reserved: 0, onOrder: 0 };
  const fill = (): number =>
    fromLevels({
      ...{ place: BASE, supplier: null, items, supplies },
      standing: (item) => standing.get(item) ?? none,
    }).length;
  const bare = (): number => {
    const found: { item: string; wanted: number }[] = [];
    for (const { id } of items) {
      const { onHand, reserved, onOrder } = standing.get(id) ?? none;
      const par = supplies.get(id)?.pars[0]?.par ?? 0;
      if (onHand - reserved + onOrder <= 10_000)
        found.push({ item: id, wanted: par - (onHand - reserved + onOrder) });
    }
    return found.length;
  };
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < 60; round += 1)
    for (const [at, work] of [fill, bare].entries()) {
      const from = performance.now();
      work();
      // The first rounds are those in which it is being compiled.
      if (round >= 20) times[at]!.push(performance.now() - from);
    }
  const [is, against] = times.map(median) as [number, number];
  return {
    what: 'an order for 5,000 items filled from their levels',
    is: milliseconds(is),
    against: `${milliseconds(against)} for a bare loop over them`,
    ratio: is / against,
    target: { most: 3 },
  };
}
