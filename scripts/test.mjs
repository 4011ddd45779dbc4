/**
 * Everything that has to hold, from a fresh clone: types, lint, import rules, unused code, units and
 * properties, the server and the store contract on a real MariaDB, the built application over HTTP
 * and end to end in Chromium. Installs what is missing.
 *
 *   npm test                 all of it
 *   npm test -- unit e2e     only these stages
 *   npm test -- long         random tests ten times as long, drawn anew; SEED=… repeats them
 */
import { spawn } from 'node:child_process';
import { filesEndingIn } from './setup/files.mjs';
import { ensureBuild } from './setup/build.mjs';
import { ensureMariaDb, ensureNoWaiting } from './setup/mariadb.mjs';
import { ensureNpmPackages, ensureBrowser } from './setup/packages.mjs';
import { ROOT } from './setup/run.mjs';
import { say, Stop } from './setup/say.mjs';

/** @typedef {{ name: string, run: () => Promise<void> }} Stage */

/**
 * Runs a program, its output shown only when it fails or is asked for.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {Record<string, string>} env
 */
function program(command, args, env = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, ...env },
    });
    let out = '';
    child.stdout.on('data', (data) => (out += data));
    child.stderr.on('data', (data) => (out += data));
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve(out) : reject(new Stop(out))));
  });
}

/** `npm test` draws the same every time: what passed once passes again. */
const SEED = '20261122';

let passed = 0;
let failed = 0;

/**
 * Runs test files, many in one process: most of what a process of its own would take for each is to load the same
 * again. Naming no file would run nothing and succeed, so that is refused.
 * @param {readonly string[]} folders
 * @param {number} processes How many of them at a time.
 * @param {Record<string, string>} env what random tests draw from; see tests/support/random.ts
 */
async function nodeTests(folders, processes, env = { SEED: process.env['SEED'] ?? SEED }) {
  const files = filesEndingIn(folders, '.test.ts');
  if (files.length === 0) throw new Stop(`no test file was found in ${folders.join(', ')}`);
  const loading = ['--import', 'tsx', '--import', './tests/support/seeded.ts'];
  const shares = Array.from({ length: processes }, (_, at) =>
    files.filter((_file, nth) => nth % processes === at),
  );
  const ends = await Promise.allSettled(
    shares.map((share) =>
      program('node', [...loading, '--test-reporter=tap', TOGETHER, ...share], env),
    ),
  );
  const wrong = [];
  for (const end of ends) {
    const out = end.status === 'fulfilled' ? String(end.value) : String(end.reason.message);
    const ran = count(out);
    if (end.status === 'rejected') wrong.push(onlyFailures(out));
    else if (ran === 0) wrong.push('the test files were found but no test ran');
  }
  if (wrong.length > 0) throw new Stop(wrong.join('\n'));
}
const TOGETHER = 'tests/support/together.ts';

/** @param {string} out */
function count(out) {
  const ok = Number(/^# pass (\d+)$/m.exec(out)?.[1] ?? 0);
  const bad = Number(/^# fail (\d+)$/m.exec(out)?.[1] ?? 0);
  passed += ok;
  failed += bad;
  return ok + bad;
}

/** @param {string} tap */
function onlyFailures(tap) {
  const lines = tap.split('\n');
  const kept = lines.flatMap((line, at) =>
    /^\s*not ok /.test(line) ? lines.slice(at, at + 30) : [],
  );
  return kept.length > 0 ? kept.join('\n') : tap;
}

async function endToEnd() {
  let out;
  try {
    out = await program('npx', ['playwright', 'test', '-c', 'tests/e2e/playwright.config.ts']);
  } catch (error) {
    out = String(error instanceof Error ? error.message : error);
    failed += Number(/^\s*(\d+) failed$/m.exec(out)?.[1] ?? 1);
    passed += Number(/^\s*(\d+) passed/m.exec(out)?.[1] ?? 0);
    throw new Stop(out);
  }
  const ran = Number(/^\s*(\d+) passed/m.exec(out)?.[1] ?? 0);
  if (ran === 0) throw new Stop('no end-to-end test ran');
  passed += ran;
}

/** @type {readonly Stage[]} On one core, one after another. */
const slow = [
  { name: 'lint', run: () => program('npm', ['run', '-s', 'lint:code']) },
  { name: 'rules', run: () => program('npm', ['run', '-s', 'lint:rules']) },
];
/** @type {readonly Stage[]} Beside those, on the other. Types and build both write `.svelte-kit`. */
const beside = [
  { name: 'build', run: () => ensureBuild() },
  { name: 'types', run: () => program('npm', ['run', '-s', 'check']) },
  { name: 'unit', run: () => nodeTests(['src', 'tests/faults'], 1) },
];
/** @type {readonly Stage[]} With the machine to themselves, one after another. */
const runners = [
  {
    name: 'server',
    run: () => nodeTests(['tests/server', 'tests/contract'], 2),
  },
  { name: 'http', run: () => nodeTests(['tests/http', 'tests/scripts'], 1) },
  { name: 'e2e', run: endToEnd },
];

/** Only where it is asked for. @type {Stage} */
const long = {
  name: 'long',
  run: async () => {
    const drawn = process.env['SEED'] ?? String(Date.now() % 2_000_000_000);
    say(`  SEED=${drawn}`);
    const env = { SEED: drawn, TIMES: process.env['TIMES'] ?? '10' };
    await nodeTests(['src/lib/core', 'tests/faults'], 2, env);
  },
};

const wanted = process.argv.slice(2);
const stages = [...slow, ...beside, ...runners, long];
const unknown = wanted.filter((name) => !stages.some((stage) => stage.name === name));
/** @param {Stage} stage */
const isWanted = ({ name }) => wanted.length === 0 || wanted.includes(name);
try {
  if (unknown.length > 0) {
    throw new Stop(
      `there is no stage ${unknown.join(', ')}; there are ${stages.map((s) => s.name).join(', ')}`,
    );
  }
  await ensureNpmPackages();
  await ensureMariaDb();
  await ensureNoWaiting();
  await ensureBrowser();
  const began = Date.now();
  // What types and rules read is made first; made again beside them, it stays as it is.
  await program('npx', ['svelte-kit', 'sync']);
  await Promise.all([slow, beside].map(inTurn));
  await inTurn(runners);
  if (wanted.includes('long')) await one(long);
  say(`All of it holds, in ${seconds(began)} s.`);
  say(`${passed} passed, ${failed} failed`);
} catch (error) {
  say(error instanceof Error ? error.message : String(error));
  process.exit(1);
}

/** @param {readonly Stage[]} all */
async function inTurn(all) {
  for (const stage of all.filter(isWanted)) await one(stage);
}

/** Runs a stage; with the first that fails all is over. @param {Stage} stage */
async function one({ name, run }) {
  const from = Date.now();
  say(`· ${name} …`);
  try {
    await run();
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
    say(`✘ ${name} failed after ${seconds(from)} s`);
    say(`${passed} passed, ${Math.max(failed, 1)} failed`);
    process.exit(1);
  }
  say(`✔ ${name}: ${seconds(from)} s`);
}

/** @param {number} from */
function seconds(from) {
  return ((Date.now() - from) / 1000).toFixed(0);
}
