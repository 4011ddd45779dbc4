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

export default defineConfig({ plugins: [receiptlineForBrowsers, tailwindcss(), sveltekit()] });
