import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import reactHooks from 'eslint-plugin-react-hooks';
import reactRefresh from 'eslint-plugin-react-refresh';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Dependencies point one way: core ← demonstration ← protocol ← server, web. */
const onlyFrom = (files, forbidden, why) => ({
  files,
  rules: {
    'no-restricted-imports': ['error', { patterns: [{ group: forbidden, message: why }] }],
  },
});

export default tseslint.config(
  { ignores: ['**/dist', '**/node_modules', '.data', 'test-results', 'playwright-report'] },
  js.configs.recommended,
  tseslint.configs.strict,
  {
    languageOptions: { globals: { ...globals.node } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/unified-signatures': 'off',
      eqeqeq: 'error',
      'no-eval': 'error',
      'no-implied-eval': 'error',
      'no-new-func': 'error',
      'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
      'no-param-reassign': 'error',
    },
  },
  onlyFrom(
    ['packages/core/src/**'],
    ['@yperkine/*', 'node:*', 'react*', 'zod', 'd3*'],
    'The mathematics depends on nothing.',
  ),
  onlyFrom(
    ['packages/core/src/checker/**'],
    ['@yperkine/*', 'node:*', '../*', '!../language', '../language/*', '!../language/tree.ts'],
    'The checker shares nothing with what it checks but the shape of a formula.',
  ),
  onlyFrom(
    ['packages/demonstration/src/**'],
    ['@yperkine/protocol', '@yperkine/server', '@yperkine/web', 'node:*', 'react*', 'express'],
    'The document knows neither server nor interface.',
  ),
  onlyFrom(
    ['packages/protocol/src/**'],
    ['@yperkine/server', '@yperkine/web', 'node:*', 'react*', 'express'],
    'The protocol knows neither side.',
  ),
  onlyFrom(['apps/server/src/**'], ['@yperkine/web', 'react*'], 'The server knows no interface.'),
  onlyFrom(
    ['apps/web/src/**'],
    ['@yperkine/server', 'node:*', 'express', 'sequelize'],
    'The interface knows the server by its protocol only.',
  ),
  {
    files: ['apps/web/**/*.{ts,tsx}'],
    languageOptions: { globals: { ...globals.browser } },
    plugins: { 'react-hooks': reactHooks, 'react-refresh': reactRefresh },
    rules: { ...reactHooks.configs.recommended.rules },
  },
  {
    files: ['scripts/**', 'tests/interface/**', 'bench/**'],
    languageOptions: { globals: { ...globals.browser } },
  },
  prettier,
);
