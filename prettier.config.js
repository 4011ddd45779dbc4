/** @type {import('prettier').Config} */
export default {
  singleQuote: true,
  printWidth: 100,
  plugins: ['prettier-plugin-svelte'],
  overrides: [{ files: '*.svelte', options: { parser: 'svelte' } }],
};
