/** Speed, as ratios within one run: machines are shared and noisy, so no time is a promise. */
import { ensureBuild } from './setup/build.mjs';
import { ensureMariaDb } from './setup/mariadb.mjs';
import { ensureNpmPackages, ensureBrowser } from './setup/packages.mjs';
import { run } from './setup/run.mjs';
import { say } from './setup/say.mjs';

try {
  await ensureNpmPackages();
  await ensureMariaDb();
  await ensureBrowser();
  await ensureBuild();
  await run('node', ['--import', 'tsx', 'tests/bench/bench.ts', ...process.argv.slice(2)]);
} catch (error) {
  say(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
