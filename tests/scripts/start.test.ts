/** The start command: stops cleanly, starts again where it left off, knows that it is running. */
import assert from 'node:assert/strict';
import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, describe, it } from 'node:test';
import { isAlive, ROOT, wait } from '../../scripts/setup/run.mjs';

const folder = mkdtempSync(join(tmpdir(), 'stall-till-start-'));
const running: ChildProcess[] = [];
after(async () => {
  for (const child of running) child.kill('SIGTERM');
  await wait(200);
  rmSync(folder, { recursive: true, force: true });
});

interface Started {
  readonly child: ChildProcess;
  readonly said: () => string;
}

/** Starts with the demo and waits until it says so, or ends: minutes, on a machine with other work. */
async function start(until = 'Ctrl-C stops'): Promise<Started> {
  const child = spawn('node', ['scripts/start.mjs', '--demo'], {
    cwd: ROOT,
    env: { ...process.env, STALL_TILL_DATA: folder },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.push(child);
  let text = '';
  child.stdout.on('data', (data: Buffer) => (text += data.toString()));
  child.stderr.on('data', (data: Buffer) => (text += data.toString()));
  for (let tries = 0; tries < 6000; tries += 1) {
    if (text.includes(until) || child.exitCode !== null) break;
    await wait(50);
  }
  return { child, said: () => text };
}

async function stop({ child }: Started, signal: NodeJS.Signals): Promise<number | null> {
  child.kill(signal);
  // The database waits for a disk that others use as well.
  for (let tries = 0; tries < 900 && child.exitCode === null; tries += 1) await wait(100);
  return child.exitCode;
}

const links = (text: string): string[] =>
  text.match(/http:\/\/localhost:\d+\/enrol#[A-Z0-9-]+/g) ?? [];
const origin = (text: string): string => /Stall Till is at (\S+)/.exec(text)?.[1] ?? '';
const databasePid = (): number =>
  Number(readFileSync(join(folder, 'mariadb', 'mariadbd.pid'), 'utf8'));

/** Processes that were started for this folder, and what is left of the database's. */
const ofFolder = (): string[] =>
  readdirSync('/proc').filter((pid) => {
    try {
      return (
        /^\d+$/.test(pid) &&
        Number(pid) !== process.pid &&
        readFileSync(`/proc/${pid}/environ`, 'utf8').includes(`STALL_TILL_DATA=${folder}\0`)
      );
    } catch {
      return false;
    }
  });

describe('the start command', () => {
  it('says where it is and who can sell, and a second one says that it is running', async () => {
    const first = await start();
    const said = first.said();
    // Each step says which of how many it is.
    const steps = said.match(/^\d+\/\d+ .* …$/gm) ?? [];
    assert.ok(steps.length >= 3, said);
    steps.forEach((step, n) =>
      assert.ok(step.startsWith(`${String(n + 1)}/${String(steps.length)} `), said),
    );
    assert.match(said, /Larkmoss Plants: Maren \(owner, PIN 407183\), Tobin \(lead/);
    assert.match(said, /Pinwheel & Tail: Dov \(owner, PIN 826451\)/);
    assert.equal(links(said).length, 4);
    assert.equal((await fetch(origin(said))).status, 200);

    const second = await start();
    assert.equal(second.child.exitCode, 0);
    assert.match(second.said(), /is running already/);
    const fresh = links(second.said());
    assert.equal(new Set([...fresh, ...links(said)]).size, 8);

    const pid = databasePid();
    assert.equal(await stop(first, 'SIGTERM'), 0);
    assert.equal(isAlive(pid), false);
    assert.equal(existsSync(join(folder, 'running.json')), false);
    await assert.rejects(fetch(origin(said)));

    const again = await start();
    assert.equal(
      origin(again.said()),
      origin(said),
      'the same address, or devices lose their data',
    );
    assert.equal(await stop(again, 'SIGINT'), 0);
  });

  for (const step of ['Starting the database …', 'Starting the application …'])
    it(`leaves nothing behind that is stopped while it says “${step}”`, async () => {
      const first = await start(step);
      assert.equal(await stop(first, 'SIGTERM'), 0, first.said());
      assert.deepEqual(ofFolder(), []);
    });

  it('cleans up after a start that was killed', async () => {
    const first = await start();
    const pid = databasePid();
    first.child.kill('SIGKILL');
    await wait(300);
    assert.equal(isAlive(pid), true, 'the database outlives the script that was killed');
    const again = await start();
    assert.match(again.said(), /Ctrl-C stops/);
    assert.equal(isAlive(pid), false);
    assert.equal(origin(again.said()), origin(first.said()));
    assert.equal(await stop(again, 'SIGTERM'), 0);
  });

  it('says what to install when it may not install it', async () => {
    const node = process.execPath.replace(/\/node$/, '');
    const child = spawn(
      'node',
      [
        '--input-type=module',
        '-e',
        "process.getuid = () => 1000; const { ensureProgram } = await import('./scripts/setup/packages.mjs'); await ensureProgram(['no-such-server'], 'mariadb-server', 'the database').catch((e) => { console.log(e.message); });",
      ],
      { cwd: ROOT, env: { PATH: node }, stdio: ['ignore', 'pipe', 'inherit'] },
    );
    let text = '';
    child.stdout.on('data', (data: Buffer) => (text += data.toString()));
    await new Promise((resolve) => child.once('exit', resolve));
    assert.match(text, /apt-get install mariadb-server/);
  });
});
