import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './web/svelte.config.js';

/** The four floors: each knows only those below it. */
const nothingFrom = (patterns, why) => ({
  'no-restricted-imports': ['error', { patterns: [{ group: patterns, message: why }] }],
});

const NOT_IN_CORE = [
  {
    group: ['node:*', 'svelte*', '$*', 'pg', 'drizzle*', 'd3*', '@orthos/*'],
    message: 'core is computation alone: no Node, no interface, no database, no other floor',
  },
  { regex: '^(\\.\\./)+(formats|instruments|web|e2e)/', message: 'core knows no other floor' },
];

/** Core's layers, from the ground up: each sees the doors (`index.ts`) of those before it and nothing else of them. */
const LAYERS = [
  'ground',
  'materials',
  'packages',
  'alloys',
  'board',
  'foil',
  'copper',
  'thermal',
  'circuit',
  'rework',
  'diagnosis',
  'prove',
  'hands',
  'compare',
  'sets',
  'job',
  'scene',
  'calc',
];
const within = (layer, files, more = []) => {
  const n = LAYERS.indexOf(layer);
  const patterns = [
    ...NOT_IN_CORE,
    { regex: `^(\\.\\./)+(${LAYERS.slice(n + 1).join('|') || 'none'})/`, message: `${layer} lies below it` },
    {
      regex: `^(\\.\\./)+(${LAYERS.slice(0, n).join('|') || 'none'})/(?!index\\.ts$)`,
      message: 'other folders of core are entered by their door, index.ts',
    },
    { regex: '^\\.{1,2}/index\\.ts$', message: 'a folder does not enter by its own door' },
    ...more,
  ];
  return { files: [files], rules: { 'no-restricted-imports': ['error', { patterns }] } };
};
/** Rooms of `rework`, each above the last: the run of a board, kinds of phases, recipes of them; plans stand beside, above all three. */
const ROOMS = ['bench', 'phases', 'methods'];
const PLANS = '(plan\\w*|procedure|lowestTip|uncertainty|fate)\\.ts$';
const layers = [
  ...LAYERS.map((layer) => within(layer, `core/src/${layer}/**`)),
  ...ROOMS.map((room, n) =>
    within('rework', `core/src/rework/${room}/**`, [
      { regex: `^(\\.\\./)+(${ROOMS.slice(n + 1).join('|') || 'none'})/`, message: `${room} lies below it` },
      { regex: `^(\\.\\./)+${PLANS}`, message: `${room} knows nothing of plans` },
    ]),
  ),
];

export default ts.config(
  {
    ignores: [
      '**/node_modules/',
      '**/build*/',
      '**/.svelte-kit/',
      '.data/',
      '.cache/',
      'core/kernel/',
      '**/*.generated.ts',
    ],
  },
  js.configs.recommended,
  ...ts.configs.recommended,
  ...ts.configs.stylistic,
  ...svelte.configs.recommended,
  {
    rules: {
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error'] }],
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      // the fields and keys of contracts are data, not style
      '@typescript-eslint/consistent-type-definitions': 'off',
      '@typescript-eslint/consistent-indexed-object-style': 'off',
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true }],
      'no-undef': 'off',
    },
  },
  {
    files: ['core/src/**'],
    rules: {
      'no-restricted-globals': ['error', 'document', 'window', 'process', 'fetch', 'setTimeout', 'performance', 'Date'],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'pass a seed in' }],
    },
  },
  ...layers,
  {
    files: ['formats/src/**', 'instruments/src/**'],
    rules: nothingFrom(
      ['svelte*', '$*', 'pg', 'drizzle*', '**/web/**'],
      'formats and instruments know core and nothing above',
    ),
  },
  {
    files: ['web/src/**'],
    ignores: ['web/src/lib/server/**', 'web/src/**/*.server.ts', 'web/src/**/+server.ts', 'web/src/app.d.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              group: ['$lib/server/**', '**/lib/server/**', 'pg', 'drizzle*', 'node:*'],
              message: 'the browser does not see the server',
            },
          ],
        },
      ],
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } },
    rules: {
      'svelte/no-navigation-without-resolve': 'off',
      'svelte/prefer-svelte-reactivity': 'off',
    },
  },
  { languageOptions: { globals: { ...globals.browser, ...globals.node } } },
);
