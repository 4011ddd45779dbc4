/** Running other programs. */
import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { Stop } from './say.mjs';

/** The folder of the project. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');

/**
 * Runs a program to its end and shows what it prints; if `quiet`, only once it has failed.
 * @param {string} command
 * @param {readonly string[]} args
 * @param {{ env?: NodeJS.ProcessEnv, quiet?: boolean }} [options]
 * @returns {Promise<string>} What it printed, if `quiet`.
 * @throws {Stop} With all that it printed, if `quiet`.
 */
export function run(command, args, { env = process.env, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      env,
      stdio: ['ignore', quiet ? 'pipe' : 'inherit', quiet ? 'pipe' : 'inherit'],
    });
    let out = '';
    let all = '';
    child.stdout?.on('data', (data) => {
      out += data;
      all += data;
    });
    child.stderr?.on('data', (data) => (all += data));
    child.on('error', reject);
    child.on('exit', (code, signal) => {
      if (code === 0) resolve(out);
      else reject(new Stop(`${command} ${args.join(' ')} ended with ${code ?? signal}\n${all}`));
    });
  });
}

/**
 * Ends a process that we started, gently first.
 * @param {import('node:child_process').ChildProcess} child
 * @param {number} patience Milliseconds before it is killed.
 */
export async function stopChild(child, patience = 8000) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  const timer = setTimeout(() => child.kill('SIGKILL'), patience);
  await gone;
  clearTimeout(timer);
}

/** @param {number} pid */
export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

/** @param {number} ms */
export const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
