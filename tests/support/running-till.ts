/** The whole product for end-to-end tests: MariaDB, the demo, the built application. */
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from '@playwright/test';
import { startApplication } from '../../scripts/setup/application.mjs';
import { freePort } from '../../scripts/setup/ports.mjs';
import { ROOT, wait } from '../../scripts/setup/run.mjs';
import { startAcquirerProcess } from '../../scripts/setup/acquirer.mjs';
import { startTexts } from '../../standins/texts/texts.mjs';
import { startMailbox } from '../../standins/mailbox/mailbox.mjs';
import { openDatabase, type Database } from '../../src/lib/server/database/database';
import { startSeeded, type Codes } from './till-template';

export class RunningTill {
  #application: Awaited<ReturnType<typeof startApplication>> | null = null;

  private constructor(
    readonly origin: string,
    readonly port: number,
    readonly databaseUrl: string,
    readonly database: Database,
    /** Codes that have not been used yet; taken from the front. */
    readonly codes: Codes,
    readonly build: string,
    /** Where all mail ends up. */
    readonly mailbox: Awaited<ReturnType<typeof startMailbox>>,
    /** Who takes the cards; a process of its own. */
    readonly acquirer: Awaited<ReturnType<typeof startAcquirerProcess>>,
    /** Where all text messages end up. */
    readonly texts: Awaited<ReturnType<typeof startTexts>>,
    /** Where the acquirer keeps its payments. */
    readonly acquirerFile: string,
    /** What the server says, all of it. */
    readonly logFile: string,
    readonly endDatabase: () => Promise<void>,
  ) {}

  /** @param withOwnBuild Serves from a copy of the build that the test may change. */
  static async start(withOwnBuild = false): Promise<RunningTill> {
    const folder = mkdtempSync(join(tmpdir(), 'stall-till-e2e-'));
    const { server, codes } = await startSeeded(folder);
    const mailbox = await startMailbox({ smtpPort: await freePort(), webPort: await freePort() });
    const acquirerFile = join(folder, 'acquirer.ndjson');
    const acquirer = await startAcquirerProcess(acquirerFile);
    const texts = await startTexts({ port: await freePort(), apiKey: 'practice' });
    const port = await freePort();
    const build = withOwnBuild ? ownBuild() : join(ROOT, 'build');
    const till = new RunningTill(
      `http://localhost:${String(port)}`,
      port,
      server.url,
      openDatabase({ databaseUrl: server.url, databaseTimeout: 60_000 }),
      codes,
      build,
      mailbox,
      acquirer,
      texts,
      acquirerFile,
      join(folder, 'server.log'),
      async () => {
        await texts.stop();
        await acquirer.stop();
        await mailbox.stop();
        await server.stop();
        rmSync(folder, { recursive: true, force: true });
        if (withOwnBuild) rmSync(build, { recursive: true, force: true });
      },
    );
    // What is left running would keep the test's process from ending.
    await till.startServer().catch(async (error: unknown) => {
      await till.end();
      throw error;
    });
    return till;
  }

  async startServer(): Promise<void> {
    const { databaseUrl, port, build } = this;
    const { smtpUrl } = this.mailbox;
    this.#application = await startApplication({
      databaseUrl,
      port,
      build,
      smtpUrl,
      acquirer: this.acquirer,
      texts: this.texts,
      logFile: this.logFile,
      quiet: true,
    });
  }

  /** As a power cut would: nothing is flushed, nobody is told. */
  async killServer(): Promise<void> {
    const child = this.#application?.child;
    this.#application = null;
    if (child === undefined) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  }

  /** An address that enrols one browser. */
  enrolAddress(business: keyof Codes = 'larkmoss'): string {
    const code = this.codes[business].shift();
    if (code === undefined) throw new Error('all codes have been used');
    return `${this.origin}/enrol#${code}`;
  }

  /** Makes the service worker another one, as a deployment would. Only with a build of its own. */
  async deployNewVersion(): Promise<void> {
    await this.killServer();
    const file = join(this.build, 'client', 'service-worker.js');
    writeFileSync(file, `${readFileSync(file, 'utf8')}\n// ${String(Date.now())}\n`);
    for (const packed of ['.gz', '.br']) rmSync(`${file}${packed}`, { force: true });
    await this.startServer();
  }

  /** @param browser Whose pages are closed first: those of an ended test file would go on asking for a server. */
  async end(browser?: Browser): Promise<void> {
    for (const context of browser?.contexts() ?? []) await context.close();
    await this.#application?.stop();
    await this.database.close();
    await this.endDatabase();
    await wait(50);
  }
}

/** Inside the project, so that its packages are found from there. */
function ownBuild(): string {
  const parent = join(ROOT, '.data');
  mkdirSync(parent, { recursive: true });
  const copy = mkdtempSync(join(parent, 'test-build-'));
  cpSync(join(ROOT, 'build'), copy, { recursive: true });
  return copy;
}
