/** How long payments take: in parts at the counter, and cards that were carried when they are sent. */
import type { BrowserContext } from '@playwright/test';
import { bundle, type Device } from './device';
import { median, milliseconds, type Figure } from './figures';
import type { WithHarness } from './harness';
import type { PayTimes } from './pay-timer';

/** Three parts ask for three appends in place of one, and for a look at each. */
export async function partsFigure({ context }: Device): Promise<Figure> {
  const one = await payTimes(context, 1);
  const three = await payTimes(context, 3);
  return {
    what: `a payment in three parts, waits of all ${String(three.taps)} taps together`,
    is: milliseconds(median(three.waits)),
    against: `${milliseconds(median(one.waits))} in one part, ${String(one.taps)} taps`,
    ratio: median(three.waits) / median(one.waits),
    target: { most: 3 },
  };
}

async function payTimes(context: BrowserContext, parts: number): Promise<PayTimes> {
  const page = await context.newPage();
  await page.goto('/counter');
  await page.getByTestId('goods').getByRole('button').first().waitFor();
  await page.waitForTimeout(1000);
  await page.addScriptTag({ content: await bundle('tests/bench/pay-timer.ts') });
  const times = await page.evaluate(
    async (n) =>
      await (
        window as unknown as { timePayments: (parts: number) => Promise<PayTimes> }
      ).timePayments(n),
    parts,
  );
  await page.close();
  return times;
}

/** Cards that were carried, sent one after another, each answer on disk before the next is asked. */
export async function carriedFigures({ bench }: Device): Promise<Figure[]> {
  const send = (cards: number): Promise<number> =>
    bench.evaluate(
      async (count) => await (window as unknown as WithHarness).harness.timeCarried(count),
      cards,
    );
  const bare = median(
    await bench.evaluate(
      async () => await (window as unknown as WithHarness).harness.timeCardAsks(60),
    ),
  );
  const few = (await send(50)) / 50;
  const all = await send(500);
  return [
    {
      what: `sending 500 carried cards, ${(all / 1000).toFixed(1)} s in all, each`,
      is: milliseconds(all / 500),
      against: `${milliseconds(bare)} for the bare question to the acquirer`,
      ratio: all / 500 / bare,
      target: { most: 3 },
    },
    {
      what: 'the same, each of 500',
      is: milliseconds(all / 500),
      against: `${milliseconds(few)} for each of 50`,
      ratio: all / 500 / few,
      target: { most: 1.2 },
    },
  ];
}
