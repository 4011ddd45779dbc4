/** What a command is told on its command line; anything else is refused, with what there is. */
import { parseArgs } from 'node:util';

/**
 * @template {import('node:util').ParseArgsConfig['options']} O
 * @param {O} options As `parseArgs` of Node has them.
 */
export function flagsOf(options) {
  try {
    return parseArgs({ options, strict: true }).values;
  } catch (error) {
    const known = Object.keys(options ?? {}).map((name) => `--${name}`);
    console.error(
      `${error instanceof Error ? error.message : String(error)}\nThere is: ${known.join(', ')}`,
    );
    process.exit(2);
  }
}
