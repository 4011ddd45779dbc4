/** A phone of its own at the stall, with the harness beside the application. */
import type { Browser, BrowserContext, Page } from '@playwright/test';
import { build } from 'esbuild';
import { signIn } from '../support/at-the-stall';
import type { RunningTill } from '../support/running-till';
import type { WithHarness } from './harness';

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const;

export async function bundle(entry: string): Promise<string> {
  const built = await build({
    entryPoints: [entry],
    bundle: true,
    write: false,
    format: 'iife',
    target: 'es2022',
  });
  return built.outputFiles[0]!.text;
}

export interface Device {
  readonly context: BrowserContext;
  /** A page with the harness, away from the application's own screens. */
  readonly bench: Page;
}

/** @param items How many goods it has. @param sales How many past sales. */
export async function device(
  browser: Browser,
  till: RunningTill,
  script: string,
  items: number,
  sales: number,
): Promise<Device> {
  const context = await browser.newContext({ ...PHONE, baseURL: till.origin, bypassCSP: true });
  const page = await context.newPage();
  await page.goto(till.enrolAddress());
  await signIn(page, 'Ines');
  await page.getByRole('heading', { name: 'Pellow Green market' }).waitFor();
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await page.close();
  const bench = await context.newPage();
  await bench.goto('/robots.txt');
  await bench.addScriptTag({ content: script });
  await bench.evaluate(
    async (given) => {
      const { harness } = window as unknown as WithHarness;
      await harness.openDrawer();
      await harness.fill(given.items, given.sales);
    },
    { items, sales },
  );
  return { context, bench };
}
