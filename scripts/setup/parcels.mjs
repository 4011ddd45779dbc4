/**
 * Parcels: many of the application's parts in one file, so that a new device asks for some forty things and not for some
 * three hundred; each costs a weak network a round trip. What they are is in `src/service-worker/gather.ts`.
 */
import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, extname, join, relative } from 'node:path';

/** Only text: it stands in JSON. */
const TEXTS = new Set(['.js', '.css', '.html', '.svg', '.webmanifest']);
/** Characters before they are packed; about a quarter of that goes over the network. */
const ROOM = 256_000;
const WORKER = '/service-worker.js';

/**
 * Makes the parcels of a build before an adapter copies and packs it.
 * @param {import('@sveltejs/kit').Adapter} adapter
 * @returns {import('@sveltejs/kit').Adapter}
 */
export function withParcels(adapter) {
  return {
    ...adapter,
    adapt: async (builder) => {
      const client = builder.getClientDirectory();
      const pages = [...builder.prerendered.pages].map(
        /** @returns {Part} */ ([path, { file }]) => ({
          path,
          text: readFileSync(
            join(builder.getBuildDirectory('output/prerendered/pages'), file),
            'utf8',
          ),
        }),
      );
      writeParcels(client, builder.config.kit.version?.name ?? '', [pages, partsIn(client)]);
      await adapter.adapt(builder);
    },
  };
}

/** @typedef {{ path: string, text: string }} Part */

/**
 * @param {string} client Where the build's files are.
 * @param {string} version
 * @param {readonly (readonly Part[])[]} groups Parts of two groups never share a parcel.
 */
export function writeParcels(client, version, groups) {
  const parcels = groups.flatMap(shared).map((parts) => {
    const text = JSON.stringify(Object.fromEntries(parts.map(({ path, text }) => [path, text])));
    const name = createHash('sha256').update(text).digest('hex').slice(0, 16);
    const address = `/_app/immutable/parcels/${name}.json`;
    write(join(client, address), text);
    return { address, parts: parts.map(({ path }) => path) };
  });
  write(join(client, `/_app/parcels/${version}.json`), JSON.stringify(parcels));
}

/**
 * @param {string} client
 * @returns {Part[]}
 */
function partsIn(client) {
  return readdirSync(client, { withFileTypes: true, recursive: true, encoding: 'utf8' })
    .filter((entry) => entry.isFile() && TEXTS.has(extname(entry.name)))
    .map((entry) => join(entry.parentPath, entry.name))
    .map((file) => ({
      path: `/${relative(client, file).replaceAll('\\', '/')}`,
      text: readFileSync(file, 'utf8'),
    }))
    .filter(({ path }) => path !== WORKER)
    .sort((one, other) => (one.path < other.path ? -1 : 1));
}

/**
 * As many in one as there is room for.
 * @param {readonly Part[]} parts
 */
function shared(parts) {
  /** @type {Part[][]} */
  const parcels = [];
  let room = 0;
  for (const part of parts) {
    if (part.text.length > room) {
      parcels.push([]);
      room = ROOM;
    }
    parcels.at(-1)?.push(part);
    room -= part.text.length;
  }
  return parcels;
}

/**
 * @param {string} file
 * @param {string} text
 */
function write(file, text) {
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, text);
}
