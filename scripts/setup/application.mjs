/** The built application as a process, and getting its database ready. */
import { spawn } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import { originOf } from './origin.mjs';
import { ROOT, run, stopChild, wait } from './run.mjs';
import { Stop } from './say.mjs';

/** Must be what the application itself refuses to read more than. */
const LARGEST_BODY = 4 * 1024 * 1024;

/** Milliseconds that it may take to start, also on a machine of which others take nearly all. */
const PATIENCE = 180_000;

/** Megabytes that what is short-lived may take: what a push holds goes before it is looked through more than once. */
const FOR_LARGE_PUSHES = ['--max-semi-space-size=32'];

/**
 * @typedef {object} Way
 * @property {string} business
 * @property {readonly string[]} people
 * @property {{ email: string, password: string } | null} account Of the made-up owner.
 * @property {readonly string[]} codes Each enrols one device.
 */

/**
 * Migrates, puts the demo in if asked, and makes fresh codes.
 * @param {string} databaseUrl
 * @param {{ demo?: boolean, wasUnclean?: boolean, statements?: string, codes?: number }} options `statements`: a folder for files of the demo's bank; `codes`: how many for each business.
 * @returns {Promise<readonly Way[]>}
 */
export async function prepare(
  databaseUrl,
  { demo = false, wasUnclean = false, statements = '', codes = 2 },
) {
  const flags = [
    '--codes',
    String(codes),
    ...(demo ? ['--demo'] : []),
    ...(wasUnclean ? ['--after-unclean-stop'] : []),
    ...(statements === '' ? [] : ['--statements', statements]),
  ];
  const env = { ...process.env, DATABASE_URL: databaseUrl };
  const out = await run('node', ['--import', 'tsx', 'scripts/prepare.ts', ...flags], {
    env,
    quiet: true,
  });
  return JSON.parse(out.trim().split('\n').at(-1) ?? '[]');
}

/**
 * @typedef {object} Application
 * @property {string} origin
 * @property {import('node:child_process').ChildProcess} child
 * @property {() => Promise<void>} stop
 */

/**
 * Starts the application and waits until it answers.
 * @param {{ databaseUrl: string, port: number, smtpUrl?: string | undefined, acquirer?: { url: string, apiKey: string } | null, texts?: { url: string, apiKey: string } | null, dev?: boolean, quiet?: boolean, build?: string, logFile?: string, onStop?: (stop: () => Promise<void>) => void }} options `logFile` gets what it says instead of the screen; `onStop` is given what stops it as soon as there is anything to stop.
 * @returns {Promise<Application>}
 */
export async function startApplication({
  databaseUrl,
  port,
  smtpUrl = process.env.SMTP_URL,
  acquirer = null,
  texts = null,
  dev = false,
  quiet = false,
  build = 'build',
  logFile,
  onStop,
}) {
  const hasTls = Boolean(process.env.TLS_CERT && process.env.TLS_KEY) && !dev;
  const host = process.env.HOST ?? '127.0.0.1';
  const near = host === '0.0.0.0' ? '127.0.0.1' : host;
  const here = `${hasTls ? 'https' : 'http'}://${near}:${port}`;
  const origin = originOf({ host, port, isTls: hasTls, origin: process.env.ORIGIN });
  const args = dev
    ? [
        'node_modules/vite/bin/vite.js',
        'dev',
        '--host',
        '127.0.0.1',
        '--port',
        String(port),
        '--strictPort',
      ]
    : [...FOR_LARGE_PUSHES, 'scripts/serve.mjs', build];
  const log = logFile === undefined ? null : openSync(logFile, 'a');
  const child = spawn('node', args, {
    cwd: ROOT,
    env: {
      ...process.env,
      NODE_ENV: dev ? 'development' : 'production',
      DATABASE_URL: databaseUrl,
      ...(smtpUrl === undefined ? {} : { SMTP_URL: smtpUrl }),
      ...(acquirer ? { ACQUIRER_URL: acquirer.url, ACQUIRER_KEY: acquirer.apiKey } : {}),
      ...(texts ? { TEXTS_URL: texts.url, TEXTS_KEY: texts.apiKey } : {}),
      HOST: host,
      PORT: String(port),
      ORIGIN: origin,
      BODY_SIZE_LIMIT: String(LARGEST_BODY),
      SHUTDOWN_TIMEOUT: '2',
    },
    // Its own group, so that Ctrl-C reaches it through us and in order.
    detached: true,
    stdio: ['ignore', log ?? (quiet ? 'ignore' : 'inherit'), log ?? 'inherit'],
  });
  if (log !== null) closeSync(log);
  const stop = () => stopChild(child);
  onStop?.(stop);
  const until = Date.now() + PATIENCE;
  while (Date.now() < until) {
    if (child.exitCode !== null || child.signalCode !== null)
      throw new Stop(`the application ended at once (${child.exitCode})`);
    if (await isWell(`${here}/healthz`)) return { origin, child, stop };
    await wait(100);
  }
  await stopChild(child);
  throw new Stop(`the application did not answer within ${PATIENCE / 1000} s`);
}

/**
 * Asks our own process, whose certificate may be one that only the vendor's phones trust.
 * @param {string} address
 * @returns {Promise<boolean>}
 */
async function isWell(address) {
  return await new Promise((resolve) => {
    const asking = address.startsWith('https:')
      ? https.get(address, { rejectUnauthorized: false })
      : http.get(address);
    asking.on('error', () => resolve(false));
    asking.on('response', (response) => {
      response.resume();
      resolve(response.statusCode === 200);
    });
  });
}
