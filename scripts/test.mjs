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
import { existsSync, rmSync } from 'node:fs';
import { filesEndingIn } from './setup/files.mjs';
import { ensureBuild } from './setup/build.mjs';
import { ensureMariaDb, ensureNoWaiting } from './setup/mariadb.mjs';
import { ensureNpmPackages, ensureBrowser } from './setup/packages.mjs';
import { ROOT } from './setup/run.mjs';
import { say, Stop } from './setup/say.mjs';

/**
 * @typedef {object} Stage
 * @property {string} name
 * @property {readonly string[]} after What has to be over before it begins.
 * @property {() => Promise<void>} run One process, on one core.
 */

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
 * Runs test files, all in one process: most of what a process of its own would take for each is to load the same
 * again. Naming no file would run nothing and succeed, so that is refused.
 * @param {readonly string[]} folders
 * @param {Record<string, string>} env what random tests draw from; see tests/support/random.ts
 */
async function nodeTests(folders, env = { SEED: process.env['SEED'] ?? SEED }) {
  const files = filesEndingIn(folders, '.test.ts');
  if (files.length === 0) throw new Stop(`no test file was found in ${folders.join(', ')}`);
  const loading = ['--import', 'tsx', '--import', './tests/support/seeded.ts'];
  let out;
  try {
    out = await program('node', [...loading, '--test-reporter=tap', TOGETHER, ...files], env);
  } catch (error) {
    const said = String(error instanceof Error ? error.message : error);
    count(said);
    throw new Stop(onlyFailures(said));
  }
  if (count(out) === 0) throw new Stop('the test files were found but no test ran');
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

/** The database that end-to-end tests begin with; they make it themselves where it was not made before. */
let template = '';
process.on('exit', () => {
  if (template !== '') rmSync(template, { recursive: true, force: true });
});
async function makeTemplate() {
  const making = ['--import', 'tsx', 'tests/support/make-template.ts'];
  /** @type {string} */
  const said = await program('node', making);
  // Something else may have been said before it or behind it.
  template = said.split('\n').findLast((line) => existsSync(line)) ?? '';
}

async function endToEnd() {
  const env = template === '' ? {} : { STALL_TILL_TEMPLATE: template };
  const args = ['playwright', 'test', '-c', 'tests/e2e/playwright.config.ts'];
  let out;
  try {
    out = await program('npx', args, env);
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

/**
 * In the order in which they begin, two at a time: what others wait for first, then what takes longest. Types and build
 * both write `.svelte-kit`.
 * @type {readonly Stage[]}
 */
const stages = [
  { name: 'build', after: [], run: () => ensureBuild() },
  { name: 'lint', after: [], run: () => program('npm', ['run', '-s', 'lint:code']) },
  { name: 'template', after: [], run: makeTemplate },
  { name: 'unit', after: [], run: () => nodeTests(['src', 'tests/faults']) },
  { name: 'scripts', after: ['build'], run: () => nodeTests(['tests/scripts']) },
  { name: 'server', after: [], run: () => nodeTests(['tests/server', 'tests/contract']) },
  { name: 'http', after: ['build'], run: () => nodeTests(['tests/http']) },
  { name: 'rules', after: [], run: () => program('npm', ['run', '-s', 'lint:rules']) },
  { name: 'types', after: ['build'], run: () => program('npm', ['run', '-s', 'check']) },
];
/** Two browsers at a time: with the machine to themselves. @type {Stage} */
const last = { name: 'e2e', after: stages.map(({ name }) => name), run: endToEnd };

/** Only where it is asked for. @type {Stage} */
const long = {
  name: 'long',
  after: [last.name],
  run: async () => {
    const drawn = process.env['SEED'] ?? String(Date.now() % 2_000_000_000);
    say(`  SEED=${drawn}`);
    const env = { SEED: drawn, TIMES: process.env['TIMES'] ?? '10' };
    await Promise.all([nodeTests(['src/lib/core'], env), nodeTests(['tests/faults'], env)]);
  },
};

const wanted = process.argv.slice(2);
const all = [...stages, last, long];
const unknown = wanted.filter((name) => !all.some((stage) => stage.name === name));
/** @param {Stage} stage */
const isWanted = (stage) => (wanted.length === 0 ? stage !== long : wanted.includes(stage.name));
try {
  if (unknown.length > 0) {
    throw new Stop(
      `there is no stage ${unknown.join(', ')}; there are ${all.map((s) => s.name).join(', ')}`,
    );
  }
  await ensureNpmPackages();
  await ensureMariaDb();
  await ensureNoWaiting();
  await ensureBrowser();
  const began = Date.now();
  // What types and rules read is made first; made again beside them, it stays as it is.
  await program('npx', ['svelte-kit', 'sync']);
  await twoAtATime(all.filter(isWanted));
  say(`All of it holds, in ${seconds(began)} s.`);
  say(`${passed} passed, ${failed} failed`);
} catch (error) {
  say(error instanceof Error ? error.message : String(error));
  process.exit(1);
}

/**
 * Begins the first that may begin whenever one of two cores is free.
 * @param {readonly Stage[]} wantedStages
 */
async function twoAtATime(wantedStages) {
  const waiting = [...wantedStages];
  const open = new Set(waiting.map(({ name }) => name));
  /** @type {Set<Promise<void>>} */
  const running = new Set();
  while (waiting.length > 0 || running.size > 0) {
    const at = waiting.findIndex(({ after }) => !after.some((name) => open.has(name)));
    if (at === -1 || running.size === 2) {
      await Promise.race(running);
      continue;
    }
    const [stage] = waiting.splice(at, 1);
    if (stage === undefined) break;
    const run = one(stage).then(() => {
      open.delete(stage.name);
      running.delete(run);
    });
    running.add(run);
  }
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
