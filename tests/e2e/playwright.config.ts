import { defineConfig } from '@playwright/test';
import { ensureBrowser } from '../../scripts/setup/packages.mjs';
import { chromiumArguments } from '../support/chromium';

export default defineConfig({
  testDir: '.',
  globalSetup: '../support/till-template.ts',
  outputDir: '../../test-results',
  fullyParallel: false,
  workers: 2,
  timeout: 180_000,
  // What hangs is to end with a name.
  globalTimeout: 60 * 60_000,
  // What passes only at the second try is a fault, in the product or in the test.
  retries: 0,
  expect: { timeout: 30_000 },
  reporter: [['list']],
  use: {
    screenshot: 'only-on-failure',
    viewport: { width: 1280, height: 800 },
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: await ensureBrowser(),
      args: chromiumArguments,
    },
  },
});
