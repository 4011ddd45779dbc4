/** Debian's Chromium, installed when it is missing. */
import type { LaunchOptions } from '@playwright/test';
import { ensureProgram } from '../../scripts/setup/packages.mjs';

export const chromiumArguments = [
  '--no-sandbox',
  '--disable-gpu',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export const chromiumPath = (): Promise<string> =>
  ensureProgram(['chromium'], 'chromium', 'the Chromium browser');

export async function chromiumOptions(): Promise<LaunchOptions> {
  return { executablePath: await chromiumPath(), args: chromiumArguments };
}
