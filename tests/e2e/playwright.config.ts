import { defineConfig } from '@playwright/test';
import { programPath } from '../../scripts/setup/packages.mjs';
import { chromiumArguments } from '../support/chromium';

export default defineConfig({
  testDir: '.',
  globalSetup: '../support/till-template.ts',
  outputDir: '../../test-results',
  fullyParallel: false,
  workers: 2,
  timeout: 90_000,
  // A shared machine can stall for many seconds. What passes only at the second try is listed as flaky.
  retries: process.env['CI'] === undefined ? 0 : 1,
  expect: { timeout: 15_000 },
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 15_000,
    launchOptions: {
      executablePath: programPath(['chromium']) ?? '/usr/bin/chromium',
      args: chromiumArguments,
    },
  },
});
