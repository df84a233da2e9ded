import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/**
 * The arrows between the folders: core ← server ← crawl ← cli, and core ← lib ← routes → server.
 * @param {string[]} files
 * @param {string[]} group
 * @param {string} message
 */
const arrow = (files, group, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
});
const database = ['drizzle-orm', 'drizzle-orm/*', 'mysql2', 'mysql2/*'];

export default ts.config(
  { ignores: ['node_modules/', '.svelte-kit/', 'build/', 'build-node/', '.data*/', 'drizzle/'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...svelte.configs.recommended,
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { extraFileExtensions: ['.svelte'], parser: ts.parser, svelteConfig } },
  },
  {
    rules: {
      'no-undef': 'off',
      'no-console': ['error', { allow: ['error'] }],
      // The width of the formatter holds for comments too.
      'max-len': ['error', { code: 1000, comments: 120, ignoreUrls: true }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', ignoreRestSiblings: true }],

      // Maps and sets that a component holds are replaced whole.
      'svelte/prefer-svelte-reactivity': 'off',
      'svelte/no-navigation-without-resolve': 'off',
    },
  },
  arrow(
    ['src/core/**'],
    ['$server*', '$server/**', '$crawl*', '$crawl/**', '$lib*', '$lib/**', '$app/*', 'node:*', 'undici', ...database],
    'core has no I/O, no framework and no database.',
  ),
  arrow(
    ['src/server/**'],
    ['$crawl*', '$crawl/**', '$lib*', '$lib/**', '$app/*', 'undici'],
    'server knows the database and core, nothing above it.',
  ),
  arrow(['src/crawl/**'], ['$lib*', '$lib/**', '$app/*', ...database], 'Only src/server knows the database.'),
  arrow(
    ['src/lib/**'],
    ['$crawl*', '$crawl/**', '$server*', '$server/**', ...database],
    'lib runs in the browser: it may use core only.',
  ),
  arrow(
    ['src/routes/**', 'src/hooks.server.ts'],
    ['$crawl*', '$crawl/**', ...database],
    'Routes are thin: they call server and core.',
  ),
  { files: ['src/core/**/*.test.ts'], rules: { 'no-restricted-imports': 'off' } },
  // Measurements print their figures.
  { files: ['bench/**'], rules: { 'no-console': 'off' } },
);
