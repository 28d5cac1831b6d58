import js from '@eslint/js';
import next from '@next/eslint-plugin-next';
import prettier from 'eslint-config-prettier';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

// units ← model ← catalogue ← netlist ← plan ← check, make ← draw; nothing imports against the stream
const STREAM = ['units', 'model', 'catalogue', 'netlist', 'plan', 'check', 'make', 'draw'];
const BESIDE = {
  edit: ['units', 'model', 'catalogue', 'netlist', 'plan'],
  exchange: STREAM.slice(0, 7),
  demo: ['units', 'model', 'catalogue', 'netlist', 'plan', 'check', 'edit'],
};
const allowed = { ...Object.fromEntries(STREAM.map((folder, index) => [folder, STREAM.slice(0, index)])), ...BESIDE };
const folders = [...STREAM, ...Object.keys(BESIDE), 'cli'];

const directions = Object.entries(allowed).map(([folder, from]) => ({
  files: [`core/src/${folder}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          {
            group: folders
              .filter((one) => one !== folder && !from.includes(one))
              .map((one) => `**/${one}`)
              .concat(folders.filter((one) => one !== folder && !from.includes(one)).map((one) => `**/${one}/**`)),
            message: `${folder} may import ${from.join(', ') || 'nothing of core'} only`,
          },
          {
            group: ['react', 'react-dom', 'next', 'next/*', 'pg', 'drizzle-orm', '**/web/**', 'wattograph-web'],
            message: 'core has no interface, framework or database in it',
          },
        ],
      },
    ],
  },
}));

export default ts.config(
  {
    ignores: [
      '**/node_modules/**',
      '**/.next/**',
      'web/next-env.d.ts',
      'test-results/**',
      'playwright-report/**',
      '.build-lock/**',
      'web/server/migrations/**',
    ],
  },
  js.configs.recommended,
  ts.configs.strict,
  ...directions,
  {
    files: ['**/*.ts', '**/*.tsx'],
    rules: {
      'max-lines': ['error', { max: 400, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      // records of a document are dictionaries: deleting a key is how an entry goes
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 80 }], 'max-params': ['error', 6] },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['core/src/cli/**', '**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', { name: 'Date', message: 'core has no clock: pass the time in' }],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'core has no randomness but a seeded one that is passed in' },
      ],
    },
  },
  {
    files: ['web/**/*.ts', 'web/**/*.tsx'],
    plugins: { 'react-hooks': hooks, '@next/next': next },
    rules: { ...hooks.configs.recommended.rules, ...next.configs.recommended.rules, 'react-hooks/incompatible-library': 'off' },
    settings: { next: { rootDir: 'web' } },
  },
  {
    files: ['web/**/*.ts', 'web/**/*.tsx'],
    ignores: ['**/*.test.ts', '**/*.test.tsx', 'web/testing/**', 'web/server/prepare.ts', 'web/ui/Link.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            {
              name: 'wattograph-core',
              importNames: ['CATALOGUE', 'createDemoShop'],
              message: 'the parts of a shop come from its document: readShop on the server, useShop in a page',
            },
            { name: 'next/link', message: 'web/ui/Link: it asks for nothing before it is followed' },
          ],
        },
      ],
    },
  },
  {
    // parts that may stand in a form: there a button without a type sends it
    files: ['web/ui/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXOpeningElement[name.name="button"]:not(:has(JSXAttribute[name.name="type"]))',
          message: 'a button of a shared part needs its type',
        },
      ],
    },
  },
  { files: ['web/server/prepare.ts', 'web/server/letIn.ts', 'core/bench/**', 'e2e/**'], rules: { 'no-console': 'off' } },
  { files: ['core/src/draw/toPdf.ts'], rules: { 'no-restricted-globals': 'off' } },
  {
    files: ['**/*.cjs'],
    languageOptions: { globals: { require: 'readonly', module: 'readonly', __dirname: 'readonly' } },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  {
    files: ['**/*.mjs', '**/*.cjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        setTimeout: 'readonly',
        clearTimeout: 'readonly',
        AbortController: 'readonly',
        fetch: 'readonly',
        Buffer: 'readonly',
        module: 'writable',
        performance: 'readonly',
      },
    },
  },
  {
    files: ['**/*.test.mjs'],
    languageOptions: {
      globals: Object.fromEntries(['afterEach', 'beforeEach', 'describe', 'expect', 'test'].map((name) => [name, 'readonly'])),
    },
  },
  prettier,
);
