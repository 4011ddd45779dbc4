/**
 * Starts the whole of it: installs what is missing, a database of its own, migrations, the demo if
 * asked for, the build, the application. Prints where it is and who can sell. Ctrl-C stops it all.
 *
 *   --demo   puts the two demo businesses in
 *   --dev    serves from the sources instead of a build
 *
 * TLS_CERT and TLS_KEY (PEM files), HOST and ORIGIN make it reachable for phones on the same network.
 * SMTP_URL sends mail through a server; without it the demo's mail goes to a practice mailbox.
 * ACQUIRER_URL and ACQUIRER_KEY name who authorises cards, TEXTS_URL and TEXTS_KEY who carries text
 * messages; without them the demo's are for practice.
 * DATABASE_URL uses an existing server instead of one of its own; PORT asks for a port.
 */
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { prepare, startApplication } from './setup/application.mjs';
import { ensureBuild, isBuilt } from './setup/build.mjs';
import { ensureMariaDb, isMariaDbThere, startMariaDb } from './setup/mariadb.mjs';
import { areNpmPackagesThere, ensureNpmPackages } from './setup/packages.mjs';
import { freePort } from './setup/ports.mjs';
import { isAlive, ROOT, wait } from './setup/run.mjs';
import { flagsOf } from './setup/flags.mjs';
import { plan, say, step, Stop } from './setup/say.mjs';

const { demo, dev } = flagsOf({
  demo: { type: 'boolean', default: false },
  dev: { type: 'boolean', default: false },
});
const folder = process.env.STALL_TILL_DATA ?? join(ROOT, '.data');
/** Statements of the demo's bank that nobody has taken in yet. */
const statements = join(folder, 'statements');
const runningFile = join(folder, 'running.json');
const portFile = join(folder, 'port');
const FIRST_PORT = 4180;

/** @type {(() => Promise<void>)[]} Last started, first stopped. */
const toStop = [];
let isStopping = false;

/** @param {number} code */
async function stopAll(code) {
  if (isStopping) return;
  isStopping = true;
  for (const stop of toStop.reverse()) await stop().catch((error) => say(String(error)));
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, () => {
    say('\nStopping …');
    void stopAll(0).then(() => undefined);
  });
}

try {
  await main();
} catch (error) {
  say(
    error instanceof Stop
      ? `\n${error.message}`
      : String(error instanceof Error ? error.stack : error),
  );
  await stopAll(1);
}

async function main() {
  mkdirSync(folder, { recursive: true });
  const hasOwnDatabase = !process.env.DATABASE_URL;
  const steps = [
    !areNpmPackagesThere(),
    hasOwnDatabase && !isMariaDbThere(),
    hasOwnDatabase,
    'the books',
    !dev && !isBuilt(),
    'the application',
  ];
  plan(steps.filter(Boolean).length);
  await ensureNpmPackages();
  const running = await otherStart();
  if (running !== null) {
    say(`Stall Till is running already, at ${running.origin} (process ${running.pid}).`);
    printWays(running.origin, await prepare(running.databaseUrl, {}));
    return;
  }
  let databaseUrl = process.env.DATABASE_URL ?? '';
  let wasUnclean = false;
  if (hasOwnDatabase) {
    await ensureMariaDb();
    const mariadb = await step('Starting the database', () =>
      startMariaDb(join(folder, 'mariadb'), { onStop: (stop) => toStop.push(stop) }),
    );
    databaseUrl = mariadb.url;
    wasUnclean = mariadb.wasUnclean;
  }
  if (isStopping) return;
  const what = demo ? 'Getting the books and the demo ready' : 'Getting the books ready';
  const ways = await step(what, () => prepare(databaseUrl, { demo, wasUnclean, statements }));
  if (!dev) await ensureBuild();
  if (isStopping) return;
  const port = await chosenPort();
  const mailbox = await practiceMailbox();
  const acquirer = await practiceAcquirer();
  const texts = await practiceTexts();
  const bank = await practiceBank();
  const application = await step('Starting the application', () =>
    startApplication({
      databaseUrl,
      port,
      dev,
      smtpUrl: mailbox?.smtpUrl ?? process.env.SMTP_URL,
      acquirer,
      texts,
      onStop: (stop) => toStop.push(stop),
    }),
  );
  if (isStopping) return;
  const { origin } = application;
  writeFileSync(
    runningFile,
    JSON.stringify({ pid: process.pid, app: application.child.pid, origin, databaseUrl }),
    {
      mode: 0o600,
    },
  );
  toStop.push(async () => rmSync(runningFile, { force: true }));
  application.child.on('exit', (code) => {
    if (isStopping) return;
    say(`The application ended by itself (${code}).`);
    void stopAll(1);
  });
  printWays(origin, ways);
  if (mailbox !== null) say(`\nMail that is sent can be read at ${mailbox.web}`);
  if (texts !== null) say(`Text messages that are sent can be read at ${texts.url}`);
  if (acquirer !== null) say(`Approval codes are given by voice at ${acquirer.url}/voice`);
  if (existsSync(statements)) say(`A statement of the bank to take in is in ${statements}`);
  if (bank !== null) say(`The bank hands out others at ${bank.url}`);
  say('\nCtrl-C stops everything. What was sold is kept for the next start.');
}

/**
 * A start that is still running on the same folder; what a killed one left behind is ended.
 * @returns {Promise<{ pid: number, origin: string, databaseUrl: string } | null>}
 */
async function otherStart() {
  if (!existsSync(runningFile)) return null;
  const running = JSON.parse(readFileSync(runningFile, 'utf8'));
  if (isAlive(running.pid) && commandOf(running.pid).includes('start.mjs')) return running;
  if (isAlive(running.app) && /serve\.mjs|vite/.test(commandOf(running.app))) {
    process.kill(running.app, 'SIGTERM');
    for (let tries = 0; tries < 50 && isAlive(running.app); tries += 1) await wait(100);
  }
  rmSync(runningFile, { force: true });
  return null;
}

/** @param {number} pid */
function commandOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ');
  } catch {
    return '';
  }
}

/** With the demo, mail goes to a mailbox that stands in for all others, unless SMTP_URL names a server. */
async function practiceMailbox() {
  if (!demo || process.env.SMTP_URL) return null;
  // The packages may only just have been installed.
  const { startMailbox } = await import('../standins/mailbox/mailbox.mjs');
  const mailbox = await startMailbox({ smtpPort: await freePort(), webPort: await freePort() });
  toStop.push(mailbox.stop);
  return mailbox;
}

/** With the demo, cards go to an acquirer for practice, unless ACQUIRER_URL names another. */
async function practiceAcquirer() {
  if (!demo || process.env.ACQUIRER_URL) return null;
  const { startAcquirerProcess } = await import('./setup/acquirer.mjs');
  const acquirer = await startAcquirerProcess(join(folder, 'acquirer.ndjson'));
  toStop.push(acquirer.stop);
  return acquirer;
}

/** With the demo, text messages go to a gateway for practice, unless TEXTS_URL names another. */
async function practiceTexts() {
  if (!demo || process.env.TEXTS_URL) return null;
  const { startTexts } = await import('../standins/texts/texts.mjs');
  const apiKey = randomBytes(16).toString('hex');
  const texts = await startTexts({ port: await freePort(), apiKey });
  toStop.push(texts.stop);
  return texts;
}

/** With the demo, statements come from a bank for practice, which knows what the demo's bank had booked. */
async function practiceBank() {
  if (!demo || !existsSync(statements)) return null;
  const [{ startBank }, { BankAccount }] = await Promise.all([
    import('../standins/bank/bank.mjs'),
    import('../standins/bank/accounts.mjs'),
  ]);
  const kept = readdirSync(statements)
    .filter((name) => name.endsWith('.json'))
    .map((name) => BankAccount.of(JSON.parse(readFileSync(join(statements, name), 'utf8'))));
  const bank = await startBank({ port: await freePort(), kept });
  toStop.push(bank.stop);
  return bank;
}

/** The same port at every start, since browsers keep a till's data by its address. */
async function chosenPort() {
  const known = existsSync(portFile) ? Number(readFileSync(portFile, 'utf8')) : FIRST_PORT;
  const wanted = Number(process.env.PORT ?? known);
  const port = await freePort(wanted);
  if (port !== wanted && existsSync(portFile)) {
    say(
      `Port ${wanted} is taken by another program, so this start uses ${port}. Browsers that were\n` +
        `enrolled at ${wanted} keep their data there: free that port and start again to go on with them.`,
    );
  } else {
    writeFileSync(portFile, String(port));
  }
  return port;
}

/**
 * @param {string} origin
 * @param {readonly import('./setup/application.mjs').Way[]} ways
 */
function printWays(origin, ways) {
  say(`\nStall Till is at ${origin}`);
  if (ways.length === 0) say(`There is no business yet; begin with one at ${origin}/sign-up.`);
  for (const { business, people, account, codes } of ways) {
    say(`\n${business}: ${people.join(', ')}`);
    if (account) say(`  the owner signs in with ${account.email}, ${account.password}`);
    for (const [at, code] of codes.entries()) {
      say(
        `  ${at === 0 ? 'open this in a browser:   ' : 'in another browser:       '}${origin}/enrol#${code}`,
      );
    }
  }
  if (ways.length > 0)
    say('\nEach link enrols one browser, once, within a day; start again for fresh ones.');
}
