import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig, type Plugin } from 'vite';

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

/** What at least so many pages use comes in one file. */
const SHARED_BY = 12;
/** Bytes; smaller ones of what some pages share are put together with what nearly the same pages use. */
const SMALL = 64 * 1024;
/**
 * A browser asks for a dozen files to begin with, and not for eighty, and keeps a hundred and not three hundred. Without
 * this a bundler makes a file for each set of pages that share something.
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
                  // What is no part of ours comes before all that is: nothing then waits for what waits for it.
                  { name: 'days', test: /node_modules.(rrule|ical\.js)/, priority: 3 },
                  { name: 'shared', minShareCount: SHARED_BY, priority: 2 },
                  {
                    ...{ name: 'some', minShareCount: 2, priority: 1 },
                    ...{ entriesAware: true, entriesAwareMergeThreshold: SMALL },
                  },
                ],
              },
            },
          },
        },
      },
    },
  }),
};

export default defineConfig({
  build: { reportCompressedSize: false },
  plugins: [receiptlineForBrowsers, fewerFiles, tailwindcss(), sveltekit()],
});
