import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './run.mjs';

/**
 * Files below folders of the project whose names end in something, in order.
 * @param {readonly string[]} folders
 * @param {string} ending
 * @returns {string[]}
 */
export function filesEndingIn(folders, ending) {
  return folders
    .filter((folder) => existsSync(join(ROOT, folder)))
    .flatMap((folder) =>
      readdirSync(join(ROOT, folder), { withFileTypes: true, recursive: true, encoding: 'utf8' })
        .filter((entry) => entry.isFile() && entry.name.endsWith(ending))
        .map((entry) => join(entry.parentPath, entry.name).slice(ROOT.length + 1)),
    )
    .sort();
}
