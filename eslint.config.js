import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import { parser } from './eslint.program.js';
import svelteConfig from './svelte.config.js';

/** Components, which the linter of everything else (.oxlintrc.json, in a seventh of the time) cannot read. */
export default ts.config(
  { ignores: ['**/*', '!src', '!src/**/', '!src/**/*.svelte', '!src/**/*.svelte.ts'] },
  js.configs.recommended,
  ...ts.configs.strictTypeChecked,
  ...svelte.configs.recommended,
  prettier,
  ...svelte.configs.prettier,
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      globals: globals.browser,
      parserOptions: {
        parser,
        svelteConfig,
        projectService: true,
        extraFileExtensions: ['.svelte'],
      },
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
      // Paths are plain: the application is served from the root.
      'svelte/no-navigation-without-resolve': 'off',
      // Sets and maps are replaced whole, never changed: they need no proxies.
      'svelte/prefer-svelte-reactivity': 'off',
      // Svelte's template and the database's rows are typed by svelte-check, which sees more than the linter.
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
    },
  },
);
