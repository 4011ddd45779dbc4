import { createHash } from 'node:crypto';
import { execSync } from 'node:child_process';
import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import { withParcels } from './scripts/setup/parcels.mjs';

/** Names the build after the sources it was made from, so that the same sources give the same name. */
function buildName() {
  if (process.env.STALL_TILL_VERSION) return process.env.STALL_TILL_VERSION;
  try {
    const tree = execSync('git rev-parse --short HEAD && git status --porcelain', {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    const text = tree.toString();
    const [commit = ''] = text.split('\n');
    const changed = text.slice(commit.length + 1).trim();
    if (changed === '') return commit;
    return named(
      `${commit}-${createHash('sha256').update(`${changed}${Date.now()}`).digest('hex').slice(0, 6)}`,
    );
  } catch {
    return named(`build-${Date.now().toString(36)}`);
  }
}

/** Pages are made ahead by other processes of the same build: they must find the same name. @param {string} name */
function named(name) {
  process.env.STALL_TILL_VERSION = name;
  return name;
}

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  compilerOptions: {
    runes: ({ filename }) => (filename.includes('node_modules') ? undefined : true),
  },
  kit: {
    adapter: withParcels(adapter({ precompress: true })),
    paths: { relative: false },
    version: { name: buildName() },
    serviceWorker: { register: false },
    csp: {
      mode: 'hash',
      directives: {
        'default-src': ['self'],
        // The reader of barcodes is WebAssembly, served by us.
        'script-src': ['self', 'wasm-unsafe-eval'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'connect-src': ['self'],
        'worker-src': ['self'],
        'object-src': ['none'],
        'base-uri': ['self'],
        'form-action': ['self'],
      },
    },
  },
};
