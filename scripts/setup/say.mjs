/** What the scripts say while they work: a line per step, with its time. */

/** @param {string} text */
export const say = (text) => process.stdout.write(`${text}\n`);

let at = 0;
let all = 0;

/** Says of every step from now on which of how many it is. @param {number} steps */
export function plan(steps) {
  at = 0;
  all = steps;
}

/**
 * Runs a step and says how long it took; on a terminal its time is counted while it runs.
 * @template T
 * @param {string} name
 * @param {() => T | Promise<T>} work
 * @returns {Promise<T>}
 */
export async function step(name, work) {
  const began = Date.now();
  const passed = () => (Date.now() - began) / 1000;
  at += 1;
  const said = all === 0 ? `· ${name}` : `${String(at)}/${String(all)} ${name}`;
  const { stdout } = process;
  const tick = stdout.isTTY
    ? setInterval(() => stdout.write(`\r${said} … ${passed().toFixed(0)} s`), 1000)
    : undefined;
  stdout.write(`${said} …${stdout.isTTY ? '' : '\n'}`);
  try {
    const result = await work();
    stdout.write(`${stdout.isTTY ? `\r${said}` : `  ${name}`}: done in ${passed().toFixed(1)} s\n`);
    return result;
  } catch (error) {
    stdout.write(
      `${stdout.isTTY ? `\r${said}` : `  ${name}`}: failed after ${passed().toFixed(1)} s\n`,
    );
    throw error;
  } finally {
    clearInterval(tick);
  }
}

/** An end that was expected to be possible: said without a stack. */
export class Stop extends Error {}
