/** How Chromium is started. */
import type { LaunchOptions } from '@playwright/test';
import { ensureBrowser } from '../../scripts/setup/packages.mjs';

export const chromiumArguments = [
  '--no-sandbox',
  '--disable-gpu',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export async function chromiumOptions(): Promise<LaunchOptions> {
  return { executablePath: await ensureBrowser(), args: chromiumArguments };
}
