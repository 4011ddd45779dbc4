/**
 * Runs many test files in one process, one after another: what they share, which is most of what they load, is loaded
 * once. Each is a suite of its own, with its own hooks.
 *
 *   node --import tsx --import ./tests/support/seeded.ts tests/support/together.ts FILE …
 */
import { resolve } from 'node:path';
import { beforeEach, describe } from 'node:test';
import { pathToFileURL } from 'node:url';

/** What one test may take, in milliseconds: one that hangs is to fail by its name. */
const PATIENCE = 10 * 60_000;

let watch: NodeJS.Timeout | undefined;
beforeEach((test) => {
  clearTimeout(watch);
  watch = setTimeout(() => {
    console.log(`not ok - still not over after ${String(PATIENCE / 60_000)} minutes: ${test.name}`);
    process.exit(1);
  }, PATIENCE);
  watch.unref();
});

for (const file of process.argv.slice(2))
  describe(file, async () => {
    await import(pathToFileURL(resolve(file)).href);
  });
