// @ts-check
import eslint from '@eslint/js';
import ngrx from '@ngrx/eslint-plugin/v9';
import angular from 'angular-eslint';
import prettier from 'eslint-config-prettier';
import { defineConfig, globalIgnores } from 'eslint/config';
import { readdirSync } from 'node:fs';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Forbids imports by pattern, with the reason. @param {string[]} group @param {string} message */
const never = (group, message) => ({ group, message });
/** @param {ReturnType<typeof never>[]} patterns */
const imports = (...patterns) => ({ 'no-restricted-imports': ['error', { patterns }] });

const server = never(['@sieve/server*', '**/server/src/**'], 'Only the server may use the server.');
const web = never(['@sieve/web*', '**/web/src/**', '@angular/*'], 'Only the web application may use this.');
const standins = never(['@sieve/standins*', '**/standins/src/**'], 'The stand-ins are the other side of the wire.');
const contract = never(['@sieve/contract*'], 'This package must not know the API.');
const node = never(['node:*'], 'Core has no I/O.');
const notInCore = [server, web, standins, contract, node];
const stages = [
  'intake',
  'harvest',
  'tidy',
  'match',
  'mail',
  'search',
  'split',
  'export',
  'forecast',
  'company',
  'keys',
];
/** @param {string} folder */
const foldersOf = (folder) =>
  readdirSync(new URL(folder, import.meta.url), { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? [entry.name] : [],
  );
const steps = foldersOf('packages/core/src/steps');
const subjects = foldersOf('packages/server/src').filter((folder) => folder !== 'testing');
const features = foldersOf('packages/web/src/app/features');

export default defineConfig(
  globalIgnores(['**/dist/', '**/.angular/', '**/coverage/', '**/test-results/', '**/migrations/', 'data/']),
  {
    files: ['**/*.ts'],
    extends: [eslint.configs.recommended, tseslint.configs.recommendedTypeChecked, tseslint.configs.stylistic],
    languageOptions: {
      parserOptions: {
        project: ['./tsconfig.tests.json', './packages/web/tsconfig.app.json', './packages/web/tsconfig.spec.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      // Routes and handlers are asynchronous by their type, not always by their body.
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/triple-slash-reference': 'off',
      // `import { z }` keeps all of zod (365 kB) in the web bundle; the namespace import tree-shakes.
      'no-restricted-syntax': [
        'error',
        {
          selector: 'ImportDeclaration[source.value="zod"][importKind!="type"] > ImportSpecifier',
          message: "Use import * as z from 'zod'.",
        },
      ],
    },
  },
  {
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/fixtures/**'],
    rules: {
      ...imports(...notInCore),
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Take the time as a parameter.' },
        { object: 'Math', property: 'random', message: 'Take random as a parameter.' },
      ],
    },
  },
  // A stage of core knows the model and pure helpers, never another stage; only sift knows all.
  ...stages.map((stage) => ({
    files: [`packages/core/src/${stage}/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: imports(
      ...notInCore,
      never(
        stages.filter((other) => other !== stage).map((other) => `../${other}/*`),
        'Stages of core do not import each other.',
      ),
    ),
  })),
  // A step knows the model and the stages; never another step, the registry or the sift.
  ...steps.map((step) => ({
    files: [`packages/core/src/steps/${step}/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: imports(
      ...notInCore,
      never(
        [
          ...steps.filter((other) => other !== step).map((other) => `../${other}/*`),
          '../registry',
          '../sieve',
          '**/sift/*',
        ],
        'A step knows no other step and not the sift.',
      ),
    ),
  })),
  { files: ['packages/contract/src/**/*.ts'], rules: imports(server, web, standins, node) },
  { files: ['packages/server/src/**/*.ts'], rules: imports(web, standins) },
  // A subject of the server has its tables to itself; db/schema.ts is the list of all.
  ...subjects
    .filter((subject) => subject !== 'db')
    .map((subject) => ({
      files: [`packages/server/src/${subject}/**/*.ts`],
      ignores: ['**/*.test.ts'],
      rules: imports(
        web,
        standins,
        never(
          [...subjects.filter((other) => other !== subject).map((other) => `**/${other}/tables`), '**/db/schema'],
          'Ask the store of the subject that has the table.',
        ),
      ),
    })),
  {
    files: ['packages/standins/src/**/*.ts'],
    rules: imports(server, web, contract, never(['@sieve/core*'], 'The stand-ins know nothing of the application.')),
  },
  {
    files: ['packages/web/src/**/*.ts'],
    extends: [angular.configs.tsRecommended, ngrx.configs.all],
    processor: angular.processInlineTemplates,
    rules: {
      ...imports(server, standins, node),
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'cs', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      '@ngrx/prefer-effect-callback-in-block-statement': 'off',
      // Angular's Validators and signals are passed as plain functions.
      '@typescript-eslint/unbound-method': 'off',
      '@ngrx/with-state-no-arrays-at-root-level': 'off',
    },
  },
  // A feature never imports another feature.
  ...features.map((feature) => ({
    files: [`packages/web/src/app/features/${feature}/**/*.ts`],
    rules: imports(
      server,
      standins,
      node,
      never(
        features
          .filter((other) => other !== feature)
          .flatMap((other) => [`../${other}/*`, `**/../../${other}/*`, `**/features/${other}/*`]),
        'Features do not import each other.',
      ),
    ),
  })),
  {
    files: ['packages/web/**/*.html'],
    extends: [angular.configs.templateRecommended, angular.configs.templateAccessibility],
  },
  {
    files: ['**/*.{spec,test}.ts', 'packages/server/src/testing/*.ts'],
    languageOptions: { globals: globals.jest },
    rules: { '@typescript-eslint/unbound-method': 'off', '@typescript-eslint/no-unused-expressions': 'off' },
  },
  {
    files: ['**/*.{js,mjs}'],
    extends: [eslint.configs.recommended],
    languageOptions: { globals: { ...globals.node, fetch: 'readonly' } },
  },
  prettier,
);
