/** What the scripts say while they work: a line per step, with its time. */

/** @param {string} text */
export const say = (text) => process.stdout.write(`${text}\n`);

/**
 * Runs a step and says how long it took.
 * @template T
 * @param {string} name
 * @param {() => T | Promise<T>} work
 * @returns {Promise<T>}
 */
export async function step(name, work) {
  const began = Date.now();
  say(`· ${name} …`);
  const result = await work();
  say(`  ${name}: done in ${((Date.now() - began) / 1000).toFixed(1)} s`);
  return result;
}

/** An end that was expected to be possible: said without a stack. */
export class Stop extends Error {}
