import { defineConfig } from '@playwright/test';
import { programPath } from '../../scripts/setup/packages.mjs';
import { chromiumArguments } from '../support/chromium';

export default defineConfig({
  testDir: '.',
  outputDir: '../../test-results',
  fullyParallel: false,
  workers: 2,
  timeout: 90_000,
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
