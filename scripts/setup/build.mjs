/** The production build, made anew only when its sources have changed. */
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { ROOT, run } from './run.mjs';
import { step } from './say.mjs';

const SOURCES = [
  'src',
  'static',
  'package-lock.json',
  'svelte.config.js',
  'vite.config.ts',
  'scripts/setup/circle-in.mjs',
  'scripts/setup/parcels.mjs',
];
const STAMP = join(ROOT, 'build', '.sources');

/** Makes the build if it is not that of the sources as they are. */
export async function ensureBuild() {
  const sources = fingerprint();
  if (isBuilt(sources)) return;
  await step('Building the application', async () => {
    rmSync(join(ROOT, 'build'), { recursive: true, force: true });
    const env = {
      ...process.env,
      NODE_ENV: 'production',
      STALL_TILL_VERSION: sources.slice(0, 10),
    };
    await run('npx', ['vite', 'build', '--logLevel', 'warn'], { env, quiet: true });
    mkdirSync(join(ROOT, 'build'), { recursive: true });
    writeFileSync(STAMP, sources);
  });
}

/** Whether the build is that of the sources as they are. */
export const isBuilt = (sources = fingerprint()) =>
  existsSync(STAMP) && readFileSync(STAMP, 'utf8') === sources;

function fingerprint() {
  const hash = createHash('sha256');
  for (const path of SOURCES.flatMap(filesIn)) {
    hash
      .update(path)
      .update('\0')
      .update(readFileSync(join(ROOT, path)))
      .update('\0');
  }
  return hash.digest('hex');
}

/**
 * @param {string} path
 * @returns {string[]}
 */
function filesIn(path) {
  const full = join(ROOT, path);
  if (!existsSync(full)) return [];
  if (statSync(full).isFile()) return [path];
  const entries = readdirSync(full, { withFileTypes: true, recursive: true, encoding: 'utf8' });
  return entries
    .filter((entry) => entry.isFile() && !entry.name.includes('.test.'))
    .map((entry) => join(entry.parentPath, entry.name).slice(ROOT.length + 1))
    .sort();
}
