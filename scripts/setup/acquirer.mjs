/** The practice acquirer as a process of its own. */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { freePort } from './ports.mjs';
import { ROOT, stopChild } from './run.mjs';
import { Stop } from './say.mjs';

/**
 * @param {string} file Keeps its payments.
 * @param {{ port?: number, apiKey?: string }} [options] What it had before, to start it again as it was.
 */
export async function startAcquirerProcess(file, { port, apiKey } = {}) {
  const key = apiKey ?? randomBytes(16).toString('hex');
  const on = port ?? (await freePort());
  const program = join(ROOT, 'standins', 'acquirer', 'acquirer.mjs');
  // Its input is a line to us: when we are gone, however that came, it goes too.
  const child = spawn('node', [program, String(on), key, file, '--while-input'], {
    detached: true,
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  const url = await new Promise((resolve, reject) => {
    child.stdout.once('data', (line) => resolve(String(line).trim()));
    child.once('exit', () => reject(new Stop('the practice acquirer ended at once')));
  });
  return { url: String(url), apiKey: key, port: on, child, stop: () => stopChild(child) };
}
