import eslint from '@eslint/js';
import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

/** Imports that some files must do without. Which way the arrows between the workspaces point is told in .dependency-cruiser.cjs. */
const forbid = (patterns, message) => ({ 'no-restricted-imports': ['error', { patterns: [{ group: patterns, message }] }] });

const NODE = {
  process: 'readonly',
  console: 'readonly',
  fetch: 'readonly',
  setTimeout: 'readonly',
  URL: 'readonly',
  localStorage: 'readonly',
  crypto: 'readonly',
  performance: 'readonly',
  clearTimeout: 'readonly',
  document: 'readonly',
  Buffer: 'readonly',
  FormData: 'readonly',
  AbortController: 'readonly',
};

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', '**/.angular/**', '**/test-results/**', '**/playwright-report/**'] },
  eslint.configs.recommended,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['**/*.ts'],
    rules: { '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports', disallowTypeAnnotations: false }] },
  },
  {
    // What decides more than this is split by what it decides.
    files: ['{core,contract,work,server,web}/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    rules: { complexity: ['error', { max: 15, variant: 'modified' }] },
  },
  {
    // A promise that nobody waits for loses its error.
    files: ['{core,contract,work,server,web}/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    languageOptions: {
      parserOptions: {
        project: ['core', 'contract', 'work', 'server']
          .map((name) => `${name}/tsconfig.json`)
          .concat(['web/tsconfig.app.json', 'web/tsconfig.worker.json']),
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/await-thenable': 'error',
      // A sentence that waits for its sizes is a function: put into another one it would print its code.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true, allowAny: true },
      ],
    },
  },
  { files: ['**/*.mjs', '**/*.cjs'], languageOptions: { globals: { ...NODE, require: 'readonly', module: 'writable' } } },
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    rules: {
      ...forbid(
        ['@isometra/*', 'node:*', '@angular/*', 'express', 'sequelize', 'rxjs'],
        'The core imports only Zod and its numeric library.',
      ),
      'no-restricted-globals': ['error', 'process', 'window', 'document', 'localStorage', 'fetch', 'setTimeout', 'Date'],
    },
  },
  {
    files: ['contract/src/**/*.ts', 'work/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**'],
    rules: forbid(['node:*'], 'These run in the browser too.'),
  },
  {
    files: ['web/src/**/*.ts'],
    rules: forbid(['node:*'], 'This runs in the browser.'),
  },
  {
    // A page of the shop's network is none that a phone's browser holds for safe: there these are missing.
    files: ['web/src/**/*.ts'],
    ignores: ['**/*.spec.ts', '**/testing/**', 'web/src/app/data/tabs.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'crypto', property: 'randomUUID', message: 'On a phone in the network it is missing: newId of data/id.' },
        { object: 'crypto', property: 'subtle', message: 'On a phone in the network it is missing: @noble/hashes.' },
        { object: 'navigator', property: 'locks', message: 'On a phone in the network it is missing: data/tabs.' },
        { object: 'navigator', property: 'clipboard', message: 'On a phone in the network it is missing.' },
      ],
    },
  },
  {
    files: ['web/src/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'iso', style: 'kebab-case' }],
      '@angular-eslint/component-class-suffix': 'off',
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['web/src/app/**/*.ts'],
    ignores: ['web/src/app/data/**', 'web/src/app/app.config.ts', '**/*.spec.ts', '**/testing/**'],
    rules: forbid(['node:*', '@angular/common/http'], 'Components never speak HTTP: that is for the services in data/.'),
  },
  {
    files: ['web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/no-any': 'off',
      '@angular-eslint/template/label-has-associated-control': ['error', { controlComponents: ['p-radiobutton', 'iso-pick'] }],
    },
  },
);
