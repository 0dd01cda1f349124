import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Arrows between layers go one way: routes → server → core, ui → core, cli → core; core → nothing of ours. */
const layer = (files, patterns) => ({
  files,
  rules: {
    '@typescript-eslint/no-restricted-imports': [
      'error',
      {
        patterns: patterns.map(([group, message, allowTypeImports = false]) => ({
          group,
          message,
          allowTypeImports,
        })),
      },
    ],
  },
});
const SERVER = [['**/server/**', '$lib/server/**'], 'This layer may not reach into the server.'];
const UI = [['**/ui/**', '$lib/ui/**', '*.svelte'], 'This layer may not reach into the interface.'];
const ROUTES = [['**/routes/**'], 'Nothing imports routes.'];
const KIT = [
  ['$app/**', '@sveltejs/**', 'svelte', 'svelte/**'],
  'This layer knows nothing of Svelte or Kit.',
];
const READING = [
  ['**/reading/**', '$lib/reading/**'],
  'The core opens no files; readers of documents sit on top of it.',
];
const NODE = [
  ['node:*', 'fs', 'path', 'crypto', 'knex', 'better-sqlite3'],
  'The core is pure: no Node built-ins, no database.',
];

export default ts.config(
  { ignores: ['build/', '.svelte-kit/', 'node_modules/', '.data/', 'coverage/', '.cache/'] },
  ...ts.configs.recommended,
  ...svelte.configs['flat/recommended'],
  {
    languageOptions: { globals: { ...globals.browser, ...globals.node } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'off',
      'no-restricted-globals': 'off',
      'svelte/no-navigation-without-resolve': 'off',
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } },
    rules: {
      'svelte/no-at-html-tags': 'off',
      'svelte/require-each-key': 'error',
    },
  },
  {
    files: ['src/**/*.svelte'],
    ignores: ['src/lib/ui/kit/**'],
    rules: {
      'svelte/no-restricted-html-elements': [
        'error',
        {
          elements: ['button', 'input', 'select', 'textarea', 'progress', 'dialog', 'kbd', 'table'],
          message: 'Take it from ui/kit: the one place of raw form elements and tables.',
        },
      ],
      'no-restricted-syntax': [
        'error',
        {
          selector:
            ':matches(SvelteElement[kind="html"][name.name!="iframe"], SvelteElement[name.name=/^(Search|Select|Textarea|Checkbox|Toggle|Badge)$/]) > SvelteStartTag > SvelteAttribute[key.name="title"]',
          message:
            'Words that come when one points at something stand in data-tip: the kit shows them, by keys too.',
        },
      ],
    },
  },
  {
    ...layer(['src/lib/core/**/*.ts'], [SERVER, UI, ROUTES, KIT, NODE, READING]),
    ignores: ['**/*.test.ts'],
  },
  {
    files: ['src/lib/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'navigator', 'process', 'Buffer', 'fetch'],
    },
  },
  layer(['src/lib/server/**/*.ts'], [UI, ROUTES, KIT]),
  layer(
    ['src/routes/**/*.ts', 'src/routes/**/*.svelte', 'src/hooks.server.ts'],
    [
      [
        ['$lib/server/*/*', '!$lib/server/access/*', '!$lib/server/http/*', '!$lib/server/db/open'],
        'A room of the server has one door: its index.ts. Its repository is its own.',
      ],
      [['zod'], 'What a request may say stands beside the service: requests.ts of its room.', true],
    ],
  ),
  layer(['src/lib/ui/**'], [[...SERVER, true], READING, ROUTES]),
  layer(['src/workers/**/*.ts'], [SERVER, UI, ROUTES, KIT]),
  layer(['src/lib/reading/**/*.ts', 'src/cli/**/*.ts'], [SERVER, UI, ROUTES, KIT]),
);
