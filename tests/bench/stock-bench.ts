/** Packing, the table of stock, and filling an order from reorder levels. */
import type { Row } from '../../src/lib/core/books/tables';
import { PLAIN_ITEM } from '../../src/lib/core/goods/plain-item';
import { fromLevels } from '../../src/lib/core/stock/fill-list';
import { idOf, itemId } from '../../src/lib/core/testing/arbitrary-daybook';
import { chromium } from '@playwright/test';
import { chromiumOptions } from '../support/chromium';
import type { RunningTill } from '../support/running-till';
import { bundle, device, type Device } from './device';
import { median, milliseconds, type Figure } from './figures';
import type { WithHarness } from './harness';
import type { TapTimes } from './tap-timer';

export async function stockAndPacking(till: RunningTill): Promise<Figure[]> {
  const script = await bundle('tests/bench/harness.ts');
  const browser = await chromium.launch(await chromiumOptions());
  try {
    const few = await device(browser, till, script, 50, 0);
    const many = await device(browser, till, script, 5000, 0);
    for (const { bench } of [few, many])
      await bench.evaluate(
        async () => await (window as unknown as WithHarness).harness.spreadStock(),
      );
    return [await packFigure(many), ...(await stockFigures(few, many)), fillFigure()];
  } finally {
    await browser.close();
  }
}

/** From a scan on a load list of 800 lines until the crate has been painted, at a quarter of the speed. */
async function packFigure({ context, bench }: Device): Promise<Figure> {
  const list = await bench.evaluate(
    async () => await (window as unknown as WithHarness).harness.makeLoadList(800),
  );
  const times = await timesOn(
    context,
    `/stock/lists/${list}`,
    '[data-testid=crates] li',
    'timeScans',
  );
  return {
    what: 'a scan on a load list of 800 lines, painted, at a quarter of the speed',
    is: milliseconds(median(times.taps)),
    against: `${milliseconds(median(times.trivial))} for a trivial update`,
    ratio: median(times.taps) / median(times.trivial),
    target: { most: 1.5 },
  };
}

/** The table of stock until it can be used, and a key in its filter. */
async function stockFigures(few: Device, many: Device): Promise<Figure[]> {
  const times = { few: [] as number[], many: [] as number[] };
  for (let n = 0; n < 8; n += 1)
    for (const [name, device] of [
      ['few', few],
      ['many', many],
    ] as const) {
      const took = await timeTable(device);
      if (n > 0) times[name].push(took);
    }
  const keys = await timesOn(many.context, '/stock', '[aria-label=Stock] tbody tr', 'timeFilter');
  return [
    {
      what: 'the table of stock usable, 5,000 items and 6 places',
      is: milliseconds(median(times.many)),
      against: `${milliseconds(median(times.few))} with 50`,
      ratio: median(times.many) / median(times.few),
      target: { most: 1.5 },
    },
    {
      what: 'a key in its filter, at a quarter of the speed',
      is: milliseconds(median(keys.taps)),
      against: `${milliseconds(median(keys.trivial))} for a trivial update`,
      ratio: median(keys.taps) / median(keys.trivial),
      target: { most: 1.5 },
    },
  ];
}

async function timeTable({ context }: Device): Promise<number> {
  const page = await context.newPage();
  await page.goto('/season');
  await page.getByRole('heading', { name: 'The season' }).waitFor();
  const took = await page.evaluate(async () => {
    const from = performance.now();
    document.querySelector<HTMLAnchorElement>('nav a[href="/stock"]')!.click();
    while (document.querySelector('[aria-label=Stock] tbody tr, table tbody tr') === null)
      await new Promise((resolve) => requestAnimationFrame(resolve));
    return performance.now() - from;
  });
  await page.close();
  return took;
}

async function timesOn(
  context: Device['context'],
  path: string,
  ready: string,
  what: 'timeScans' | 'timeFilter',
): Promise<TapTimes> {
  const page = await context.newPage();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(path);
  await page.locator(`${ready}, table tbody tr`).first().waitFor();
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

/** Filling an order for 5,000 items from their levels, against a bare loop over them. */
function fillFigure(): Figure {
  const supplier = idOf(52, 1);
  const items = Array.from({ length: 5000 }, (_, n): Row<'items'> => ({
    ...{ ...PLAIN_ITEM, id: itemId(n), setStamp: 'x', name: `Thing ${String(n)}`, price: 450 },
    reorder: [{ place: 'base', level: (n % 40) * 1000 }],
  }));
  const supplies = new Map(
    items.map(({ id }, n) => [
      id,
      {
        suppliers: [{ supplier, code: '', pack: 6000, price: 100_000 }],
        pars: [{ place: 'base', par: (n % 60) * 1000 }],
      },
    ]),
  );
  const standing = new Map(
    items.map(({ id }, n) => [id, { onHand: (n % 50) * 1000, reserved: 0, onOrder: 0 }]),
  );
  const nothing = { onHand: 0, reserved: 0, onOrder: 0 };
  const fill = (): number =>
    fromLevels({
      ...{ place: 'base', supplier, items, supplies },
      standing: (item) => standing.get(item) ?? nothing,
    }).length;
  /** What is lacking, and nothing else. */
  const bare = (): number => {
    let lacking = 0;
    for (const { id, reorder } of items) {
      const so = standing.get(id) ?? nothing;
      const supply = supplies.get(id);
      if (supply !== undefined && so.onHand <= reorder[0]!.level) lacking += supply.pars[0]!.par;
    }
    return lacking;
  };
  const timed = (work: () => unknown): number => {
    const from = performance.now();
    work();
    return performance.now() - from;
  };
  const [fills, loops]: [number[], number[]] = [[], []];
  for (let n = 0; n < 60; n += 1) {
    const [one, other] = [timed(fill), timed(bare)];
    if (n < 10) continue;
    fills.push(one);
    loops.push(other);
  }
  return {
    what: 'an order filled from the levels of 5,000 items',
    is: milliseconds(median(fills)),
    against: `${milliseconds(median(loops))} for a bare loop over them`,
    ratio: median(fills) / median(loops),
    target: { most: 3 },
  };
}
