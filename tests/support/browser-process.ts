/** A Chromium of our own that can be killed as a dead battery would, and started again. */
import { spawn, type ChildProcess } from 'node:child_process';
import { chromium, type Browser, type Page } from '@playwright/test';
import { ensureBrowser } from '../../scripts/setup/packages.mjs';
import { chromiumArguments } from './chromium';

export class BrowserProcess {
  private constructor(
    readonly child: ChildProcess,
    readonly browser: Browser,
    readonly page: Page,
  ) {}

  /** @param profile Folder of the profile; the same one again is the same device. */
  static async start(profile: string): Promise<BrowserProcess> {
    const child = spawn(
      await ensureBrowser(),
      [
        ...chromiumArguments,
        '--headless=new',
        '--remote-debugging-port=0',
        `--user-data-dir=${profile}`,
        '--window-size=1280,800',
        'about:blank',
      ],
      { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
    );
    const endpoint = await new Promise<string>((resolve, reject) => {
      let said = '';
      child.stderr.on('data', (data: Buffer) => {
        said += data.toString();
        const found = /DevTools listening on (ws:\S+)/.exec(said)?.[1];
        if (found !== undefined) resolve(found);
      });
      child.once('exit', () => reject(new Error(`Chromium did not start: ${said}`)));
    });
    const browser = await chromium.connectOverCDP(endpoint);
    const context = browser.contexts()[0]!;
    const page = context.pages()[0] ?? (await context.newPage());
    return new BrowserProcess(child, browser, page);
  }

  /** Closed in good order: what it has of an application is on its disk then. */
  async quit(): Promise<void> {
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    const session = await this.browser.newBrowserCDPSession();
    await session.send('Browser.close').catch(() => undefined);
    await gone;
    await this.browser.close().catch(() => undefined);
  }

  /** SIGKILL to all of its processes at once. */
  async kill(): Promise<void> {
    const gone = new Promise((resolve) => this.child.once('exit', resolve));
    process.kill(-this.child.pid!, 'SIGKILL');
    await gone;
    await this.browser.close().catch(() => undefined);
  }
}
