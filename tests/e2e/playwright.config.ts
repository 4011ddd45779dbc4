import { defineConfig } from '@playwright/test';
import { ensureBrowser } from '../../scripts/setup/packages.mjs';
import { chromiumArguments } from '../support/chromium';

export default defineConfig({
  testDir: '.',
  globalSetup: '../support/till-template.ts',
  outputDir: '../../test-results',
  fullyParallel: false,
  // One more than cores: each waits for something now and then.
  workers: 3,
  // Long, for a machine of which others take more than half: what is there is found at once all the same.
  timeout: 600_000,
  // What hangs is to end with a name.
  globalTimeout: 60 * 60_000,
  // What passes only at the second try is a fault, in the product or in the test.
  retries: 0,
  expect: { timeout: 90_000 },
  reporter: [['list'], ['../support/what-stood-there.ts']],
  use: {
    screenshot: 'only-on-failure',
    viewport: { width: 1280, height: 800 },
    actionTimeout: 90_000,
    // What moves is painted again and again, which is half of what a sale costs here; what is to be seen moving asks for it.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: await ensureBrowser(),
      args: chromiumArguments,
    },
  },
});
