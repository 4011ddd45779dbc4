import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';
import { circleIn } from './scripts/setup/circle-in.mjs';

/**
 * ReceiptLine looks for `require` to tell Node from a browser, which a bundler gives to everybody. In a
 * browser it has no character converter, and the one place that wants it converts ASCII to ASCII.
 */
const receiptlineForBrowsers: Plugin = {
  name: 'receiptline-for-browsers',
  enforce: 'pre',
  transform(code, id) {
    if (!/receiptline\/lib\/receiptline\.js$/.test(id)) return undefined;
    const changed = code
      .replace("typeof require !== 'undefined'", 'false')
      .replace(
        'let iconv = undefined;',
        'let iconv = { encode: (text) => ({ toString: () => text }) };',
      );
    if (changed === code) this.error('receiptline is no longer as this expects it');
    return { code: changed, map: null };
  },
};

/** What at least so many pages use comes in one file; what fewer do in the next, and what one does in its own. */
const LAYERS = [12, 4, 2];
/**
 * A browser asks for a few files to begin with, and not for eighty, and keeps ninety and not three hundred. Without this a
 * bundler makes a file for each set of pages that share something. What any page needs is needed by as many as need
 * that page: no layer needs one behind it, so no two load one another. `$initial` leaves out what is loaded only once it is
 * asked for, such as what writes PDFs.
 */
const fewerFiles: Plugin = {
  name: 'fewer-files',
  config: () => ({
    environments: {
      client: {
        build: {
          rolldownOptions: {
            output: {
              codeSplitting: {
                groups: [
                  ...LAYERS.map((minShareCount, at) => ({
                    ...{ name: `by-${String(minShareCount)}`, minShareCount },
                    ...{ tags: ['$initial' as const], priority: LAYERS.length - at },
                  })),
                ],
              },
            },
          },
        },
      },
    },
  }),
};

/** Of files that load one another, one runs before what it needs is there: the page then lacks something, and says nothing. */
const noCircles: Plugin = {
  name: 'no-circles',
  applyToEnvironment: ({ name }) => name === 'client',
  generateBundle(_, bundle) {
    const chunks = Object.values(bundle).filter((file) => file.type === 'chunk');
    const circle = circleIn(new Map(chunks.map(({ fileName, imports }) => [fileName, imports])));
    if (circle.length === 0) return;
    const files = circle.map((file) => {
      const modules = bundle[file]?.type === 'chunk' ? bundle[file].moduleIds.slice(0, 3) : [];
      return `${file} (${modules.join(', ')} …)`;
    });
    this.error(`these files load one another, see LAYERS in vite.config.ts: ${files.join(' → ')}`);
  },
};

export default defineConfig({
  build: { reportCompressedSize: false },
  plugins: [receiptlineForBrowsers, fewerFiles, noCircles, tailwindcss(), sveltekit()],
});
