import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import { ownLookUps } from './scripts/lint/own-look-ups.mjs';
import svelteConfig from './packages/pages/svelte.config.js';

export default ts.config(
  { ignores: ['**/dist/', 'node_modules/', 'demo-data/', 'pallmist-data/'] },
  js.configs.recommended,
  ...svelte.configs.recommended,
  {
    files: ['packages/*/src/**/*.ts'],
    extends: [...ts.configs.strictTypeChecked],
    languageOptions: {
      // The same extensions as below: where they differ from file to file, the types are loaded again for each.
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname, extraFileExtensions: ['.svelte'] },
    },
    rules: {
      // There are no enums here, and looking for them takes a quarter of the time.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-misused-spread': 'off',
      '@typescript-eslint/no-generated-empty-object-type': 'off',
      '@typescript-eslint/no-redundant-type-constituents': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true }],
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['packages/{address,app,api,cli,service}/src/**/*.ts'],
    ignores: ['packages/service/src/store/typeorm/migrations/**'],
    plugins: { pallmist: { rules: { 'own-look-ups': ownLookUps } } },
    rules: { 'pallmist/own-look-ups': ['error', 'tables'] },
  },
  {
    // What answers requests looks up names that strangers choose.
    files: ['packages/service/src/{api,apps,builders,http,ledger,mail,pages,webhooks}/**/*.ts'],
    rules: { 'pallmist/own-look-ups': ['error', 'all'] },
  },
  {
    // A migration says what a format was: what the entities say today is another one.
    files: ['packages/service/src/store/typeorm/migrations/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { group: ['../*.ts'], message: 'A migration is literal: it uses nothing that describes the tables as they are today.' },
          ],
        },
      ],
    },
  },
  {
    files: ['packages/service/src/**/*.ts'],
    ignores: ['packages/service/src/http/location.ts', 'packages/service/src/http/server.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.property.name='redirect']",
          message: 'Use redirect() of http/location.ts: it refuses what leads to another site.',
        },
        { selector: 'Literal[value=/^location$/i]', message: 'Use redirect() of http/location.ts: it refuses what leads to another site.' },
        {
          selector: "CallExpression[callee.property.name='pipe']",
          message: 'Use pipeline, or feed() of http/streams.ts: pipe() hears no errors.',
        },
      ],
    },
  },
  {
    // A type says that it refuses a text by giving what `refuse` gives: nothing.
    files: ['packages/address/src/**/*.ts', 'packages/app/src/types/packed.ts'],
    rules: { '@typescript-eslint/no-confusing-void-expression': 'off' },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      globals: globals.browser,
      parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig },
    },
    // Links lead to addresses that Pallmist has written itself.
    rules: {
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/no-unused-svelte-ignore': 'off',
      'no-undef': 'off',
      'no-unused-vars': 'off',
    },
  },
  { files: ['**/*.mjs', '*.js', '**/*.config.ts', '**/*.config.js'], languageOptions: { globals: globals.node } },
  // What is measured in a browser runs there.
  { files: ['bench/pages.mjs'], languageOptions: { globals: { ...globals.node, ...globals.browser } } },
  {
    files: ['packages/*/test/**/*.ts', 'test/**/*.ts'],
    extends: [...ts.configs.recommended],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
  },
);
