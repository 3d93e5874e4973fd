import js from '@eslint/js';
import { defineConfig } from 'eslint/config';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** The floors of the core, lowest first. A floor may import the floors below it, and itself. */
const FLOORS = [
  ['known'],
  ['kept', 'units', 'midi'],
  ['rig', 'prover'],
  ['dials'],
  ['change'],
  ['catalogue'],
  ['edits'],
  ['signal'],
  ['board'],
  ['starts'],
  ['electric'],
  ['recall'],
  ['plan'],
  ['checks'],
  ['sheets'],
  ['derive'],
];
/** Rooms beside the floors, with all that they may import. */
const BESIDE = {
  bench: ['known', 'rig', 'midi', 'kept'],
  formats: ['known', 'kept', 'rig', 'change', 'edits', 'catalogue', 'signal', 'midi', 'units'],
  demo: ['known', 'kept', 'rig', 'change', 'edits', 'catalogue', 'midi', 'units'],
};

const rooms = [...FLOORS.flat(), ...Object.keys(BESIDE)];

const allowedIn = (room) => {
  if (BESIDE[room]) return [room, ...BESIDE[room]];
  const floor = FLOORS.findIndex((names) => names.includes(room));
  const below = [room, ...FLOORS.slice(0, floor).flat()];
  return room === 'derive' ? [...below, ...Object.keys(BESIDE)] : below;
};

const forbiddenIn = (room) => {
  const forbidden = rooms.filter((r) => !allowedIn(room).includes(r)).map((r) => `**/${r}/**`);
  return forbidden.length ? [forbidden] : [];
};

/** Floors within a room, lowest first. */
const STOREYS = {
  signal: ['graph', 'control', 'drawing'],
  recall: ['intend', 'actuate', 'model', 'verdict', 'what-if', 'words'],
  derive: ['steps', 'play', 'views'],
};

const patternsIn = (room) => [
  ...forbiddenIn(room).map((group) => ({
    group,
    message: `core/src/${room} stands below or beside this room; imports go one way (docs/architecture.md).`,
  })),
  {
    group: ['node:*', 'react*', '@nestjs/*', '@yunta/*', '**/testing/**'],
    message: 'The core has no I/O and no interface code.',
  },
];

const storeyRule = ([room, storeys]) =>
  storeys.slice(0, -1).map((storey, i) => ({
    files: [`core/src/${room}/${storey}/**/*.ts`],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            ...patternsIn(room),
            {
              regex: `^\\.\\./(${storeys.slice(i + 1).join('|')})/`,
              message: `core/src/${room}/${storey} stands below this; imports go one way (docs/rooms.md).`,
            },
          ],
        },
      ],
    },
  }));

const floorRule = (room) => ({
  files: [`core/src/${room}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': ['error', { patterns: patternsIn(room) }],
    'no-restricted-globals': [
      'error',
      ...['window', 'document', 'fetch', 'process', 'setTimeout', 'console'].map((name) => ({
        name,
        message: 'The core has no I/O; pass it in.',
      })),
    ],
    'no-restricted-properties': [
      'error',
      { object: 'Math', property: 'random', message: 'The core is deterministic; pass randomness in.' },
      { object: 'Date', property: 'now', message: 'The core has no clock; pass the time in.' },
    ],
  },
});

/** The floors of the page, lowest first. */
const WEB_FLOORS = ['session', 'worker', 'shared', 'picture', 'steps', 'shell'];

const webFloorRule = (room, i) => ({
  files: [`web/src/${room}/**/*.{ts,tsx}`],
  ignores: ['**/*.test.{ts,tsx}'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          { group: ['@yunta/server*', '@yunta/cli*', '@nestjs/*'], message: 'The page must not know this workspace.' },
          ...WEB_FLOORS.slice(i + 1).map((above) => ({
            regex: `^\\.\\.?/(.*/)?${above}/`,
            message: `web/src/${room} stands below this room; imports go one way (docs/architecture.md).`,
          })),
        ],
      },
    ],
  },
});

const nothingAbove = (folder, forbidden) => ({
  files: [`${folder}/**/*.{ts,tsx}`],
  rules: {
    'no-restricted-imports': [
      'error',
      { patterns: [{ group: forbidden, message: `${folder} must not know this workspace.` }] },
    ],
  },
});

export default defineConfig(
  { ignores: ['**/dist/**', '**/dist-testing/**', '**/node_modules/**', '.yunta/**'] },
  js.configs.recommended,
  tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'max-lines': ['error', { max: 450, skipBlankLines: true, skipComments: true }],
      'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
    },
  },
  // A component is mostly what it shows.
  {
    files: ['**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 100, skipBlankLines: true, skipComments: true }] },
  },
  // A block of tests holds all its cases; a generator of random rigs is one list of chances, drawn in order.
  { files: ['**/*.test.{ts,tsx}', 'core/testing/**'], rules: { 'max-lines-per-function': 'off' } },
  // What Nest injects is named by its class at run time.
  { files: ['server/**'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: ['**/*.{js,mjs}', '**/*.config.ts'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        setInterval: 'readonly',
        clearInterval: 'readonly',
        performance: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
        clearTimeout: 'readonly',
      },
    },
    rules: { 'no-restricted-exports': 'off' },
  },
  {
    files: ['scripts/screen-bench.mjs', 'scripts/shots.mjs'],
    languageOptions: { globals: { window: 'readonly', document: 'readonly', requestAnimationFrame: 'readonly' } },
  },
  rooms.map(floorRule),
  Object.entries(STOREYS).map(storeyRule),
  {
    files: ['core/src/prover/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex: '^(?!\\./|\\.\\./kept/kept\\.js$|\\.\\./known/the\\.js$)',
              message: 'The prover knows no gear: it reads recall systems and nothing else (docs/architecture.md).',
            },
          ],
        },
      ],
    },
  },
  nothingAbove('cli', ['@yunta/server*', '@yunta/web*', '@nestjs/*', 'react*']),
  nothingAbove('server', ['@yunta/web*', '@yunta/cli*', 'react*']),
  {
    files: ['web/src/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  WEB_FLOORS.map(webFloorRule),
);
