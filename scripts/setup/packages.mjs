/** Debian packages and npm packages that have to be there. */
import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, run } from './run.mjs';
import { step, Stop } from './say.mjs';

/**
 * Where a program is.
 * @param {readonly string[]} names
 * @returns {string | null}
 */
export function programPath(names) {
  const folders = [
    ...(process.env.PATH ?? '').split(':'),
    '/usr/sbin',
    '/usr/bin',
    '/sbin',
    '/bin',
  ];
  for (const name of names) {
    for (const folder of folders) {
      const path = join(folder, name);
      try {
        accessSync(path, constants.X_OK);
        return path;
      } catch {
        // not here
      }
    }
  }
  return null;
}

/**
 * Makes sure that a program is there, from Debian's packages if it must be.
 * @param {readonly string[]} programs Names it may have; the first found is used.
 * @param {string} pkg The Debian package that has it.
 * @param {string} what What it is for, for people.
 */
export async function ensureProgram(programs, pkg, what) {
  const there = programPath(programs);
  if (there !== null) return there;
  const canInstall = process.getuid?.() === 0 && programPath(['apt-get']) !== null;
  if (!canInstall) {
    throw new Stop(
      `${what} is not installed, and this user may not install it.\n` +
        `Install it once as root:  apt-get install ${pkg}\n` +
        'and start again. Everything else runs as an ordinary user.',
    );
  }
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await step(`Installing ${what} (Debian package ${pkg})`, async () => {
    await run('apt-get', ['update', '-q'], { env, quiet: true });
    const install = ['install', '-y', '-q', '--no-install-recommends', pkg];
    await run('apt-get', install, { env, quiet: true });
  });
  const found = programPath(programs);
  if (found === null)
    throw new Stop(`${pkg} was installed but ${programs.join(' or ')} is not there`);
  return found;
}

/**
 * The browser that tests and pictures run in: Chromium's shell without windows, which starts and paints faster;
 * the whole of Chromium where only that is there and nothing can be installed.
 * @returns {Promise<string>} Its path.
 */
export async function ensureBrowser() {
  const whole = programPath(['chromium']);
  try {
    const pkg = 'chromium-headless-shell';
    return await ensureProgram([pkg], pkg, 'Chromium, without windows');
  } catch (error) {
    if (whole === null) throw error;
    return whole;
  }
}

/** Installs the npm packages when the lock file has changed since they were. */
export async function ensureNpmPackages() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new Stop(`Node ${process.versions.node} is too old; 20.19 or newer is needed.`);
  }
  if (areNpmPackagesThere()) return;
  await step('Installing npm packages', async () => {
    await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { quiet: true });
    mkdirSync(join(ROOT, 'node_modules'), { recursive: true });
    writeFileSync(STAMP, lockOf());
  });
}

const STAMP = join(ROOT, 'node_modules', '.stall-till-lock');

const lockOf = () =>
  createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');

/** Whether those are installed that the lock file names. */
export const areNpmPackagesThere = () =>
  existsSync(STAMP) && readFileSync(STAMP, 'utf8') === lockOf();
