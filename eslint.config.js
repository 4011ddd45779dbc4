import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import { parser } from './eslint.program.js';
import svelteConfig from './svelte.config.js';

export default ts.config(
  { ignores: ['build/', '.svelte-kit/', '.data/', 'node_modules/', 'test-results/', 'static/'] },
  js.configs.recommended,
  ...ts.configs.strictTypeChecked,
  ...svelte.configs.recommended,
  prettier,
  ...svelte.configs.prettier,
  {
    languageOptions: {
      globals: { ...globals.browser, ...globals.node },
      parserOptions: { projectService: true, extraFileExtensions: ['.svelte'] },
    },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      // Indexes are checked by noUncheckedIndexedAccess; "!" says that a bound was checked before.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      '@typescript-eslint/no-invalid-void-type': 'off',
      // An effect names the state it follows; rows of a table without fields are of no type.
      '@typescript-eslint/no-meaningless-void-operator': 'off',
      '@typescript-eslint/no-generated-empty-object-type': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'max-lines-per-function': 'off',
    },
  },
  { files: ['**/*.ts'], ignores: ['**/*.svelte.ts'], languageOptions: { parser } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: {
        parser,
        svelteConfig,
        projectService: true,
        extraFileExtensions: ['.svelte'],
      },
    },
    rules: {
      // Paths are plain: the application is served from the root.
      'svelte/no-navigation-without-resolve': 'off',
      // Sets and maps are replaced whole, never changed: they need no proxies.
      'svelte/prefer-svelte-reactivity': 'off',
      // Svelte's template and Dexie's rows are typed by svelte-check, which sees more than the linter.
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
    },
  },
  {
    // The core is pure: no clock, no chance, no world around it.
    files: ['src/lib/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/lib/core/testing/**'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'fetch',
        'process',
        'localStorage',
        'navigator',
        'crypto',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Time comes in as an argument.' },
        { object: 'Math', property: 'random', message: 'Chance comes in as an argument.' },
      ],
    },
  },
  {
    files: ['**/*.test.ts', 'tests/**'],
    // node:test's describe and it return promises that nobody waits for.
    rules: {
      // A test may doubt what the types promise.
      '@typescript-eslint/no-unnecessary-condition': 'off',
      '@typescript-eslint/no-floating-promises': [
        'error',
        {
          allowForKnownSafeCalls: [
            {
              from: 'package',
              package: 'node:test',
              name: ['describe', 'it', 'test', 'before', 'after', 'suite'],
            },
          ],
        },
      ],
    },
  },
  { files: ['**/*.js', '**/*.mjs', '**/*.cjs', '*.ts'], ...ts.configs.disableTypeChecked },
);
