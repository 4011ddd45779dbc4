/** Makes the pictures in docs/screenshots/ anew, from the demo data and the built application. */
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
  await run('node', ['--import', 'tsx', 'tests/support/screenshots.ts']);
} catch (error) {
  say(error instanceof Error ? error.message : String(error));
  process.exit(1);
}
