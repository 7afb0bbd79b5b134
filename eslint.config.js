/** Lint: types minded, hooks minded, and imports that point one way only (see docs/architecture.md). */
import astro from 'eslint-plugin-astro';
import hooks from 'eslint-plugin-react-hooks';
import { defineConfig } from 'eslint/config';
import tseslint from 'typescript-eslint';

/** Folders of the core: each may import from those before it. */
const CORE = [
  'document',
  'condition',
  'routing',
  'editing',
  'analysis',
  'coding',
  'audit',
  'keying',
  'tables',
  'simulate',
  'wording',
  'snags',
  'exchange',
  'collected',
  'responding',
  'panel',
  'forecast',
  'views',
  'release',
  'monitor',
];

/** What each folder of `src` must not import, besides what it simply has no use for. */
const CLOSED = {
  core: ['wire', 'store', 'server', 'worker', 'islands', 'pages', 'cli', 'layouts'],
  wire: ['store', 'server', 'worker', 'islands', 'pages', 'cli', 'layouts'],
  cli: ['server', 'worker', 'islands', 'pages', 'layouts'],
  store: ['wire', 'server', 'worker', 'islands', 'pages', 'cli', 'layouts'],
  server: ['worker', 'islands', 'pages', 'cli', 'layouts', 'instrument', 'respondent'],
  worker: ['wire', 'store', 'server', 'islands', 'pages', 'cli', 'layouts'],
  islands: ['pages', 'cli', 'layouts', 'instrument', 'respondent'],
  instrument: ['wire', 'store', 'server', 'worker', 'pages', 'cli', 'layouts', 'respondent'],
  respondent: ['store', 'server', 'worker', 'pages', 'cli', 'layouts', 'instrument'],
};

const PURE = [
  'react',
  'react-dom',
  'react-dom/*',
  'astro',
  'astro:*',
  'drizzle-orm',
  'drizzle-orm/*',
  'better-sqlite3',
  'node:*',
];

const ADDRESS =
  '(item|section|ending|given|quota|derived|option|skip|item-skips|onward|break|items|options):';
/** What says which part of a questionnaire is meant has one place where it is made and taken apart. */
const ADDRESSES = [
  "CallExpression[callee.property.name=/^(split|indexOf|lastIndexOf|startsWith|endsWith)$/] > Literal[value='#']",
  "TemplateElement[value.raw='#']",
  `TemplateElement[value.raw=/^${ADDRESS}$/]`,
  `Literal[value=/^${ADDRESS}[^ ]*$/]`,
  `Literal[regex.pattern=/^.${ADDRESS}/]`,
].map((selector) => ({ selector, message: 'Keys and addresses come from core/document/addresses.' }));

const ANSWER_TYPE = '(single|multiple|scale|number|text|date|time|datetime|grid|rank)';
/** What an answer of some type is like is said by its traits; a switch over types decides about each. */
const TYPES_OF_ANSWERS = [
  `BinaryExpression[left.property.name='type'][right.value=/^${ANSWER_TYPE}$/]`,
  "SwitchStatement:matches([discriminant.property.name='type'], [discriminant.name='type']) > SwitchCase[test=null]:not(:has(TSSatisfiesExpression))",
].map((selector) => ({
  selector,
  message:
    'Ask the traits in core/document/answer-types, or decide about every type in a switch without a default.',
}));

/** Rooms of larger parts, in the order of their imports; none may import from a later one. Outside, the door alone is known. */
const ISLANDS = [
  'ui',
  'state',
  'fields',
  'answering',
  'responding',
  'slips',
  'paper',
  'paste',
  'script',
  'forks',
  'routes',
  'walk',
  'codes',
  'forecast',
  'release',
  'app',
  'studies',
];
const SCRIPT = ['item', 'declarations', 'sheet', 'contents'];
const ANALYSIS = ['diagrams', 'answers', 'conditions', 'counting', 'reach', 'shares', 'lists', 'cover'];
const THROUGH_THE_DOOR = {
  regex: '^(\\.\\./)+(core/)?analysis/.',
  message: 'The analysis has one door: core/analysis/index.ts.',
};

const into = (folders) => `^(\\.\\./)+(${folders.join('|')})(/|$)`;

function forbid(files, patterns) {
  return {
    files,
    ignores: ['**/*.test.ts'],
    rules: { '@typescript-eslint/no-restricted-imports': ['error', { patterns }] },
  };
}

const closedFolders = Object.entries(CLOSED)
  .filter(([folder]) => folder !== 'core' && folder !== 'islands')
  .map(([folder, closed]) =>
    forbid(
      [`src/${folder}/**/*.{ts,tsx}`],
      [
        { regex: into(closed), message: `src/${folder} must not import this: see docs/architecture.md.` },
        THROUGH_THE_DOOR,
      ],
    ),
  );

const coreRules = (folder, index) => [
  {
    regex: into([...CORE.slice(index + 1), ...CLOSED.core]),
    message: `core/${folder} comes before this: imports in the core point to earlier folders only.`,
  },
  { group: PURE, message: 'The core knows no interface, database, clock or file.' },
];

const coreFolders = CORE.map((folder, index) =>
  forbid([`src/core/${folder}/**/*.ts`], [...coreRules(folder, index), THROUGH_THE_DOOR]),
);

const analysisRooms = ANALYSIS.map((room, index) =>
  forbid(
    [`src/core/analysis/${room}/**/*.ts`],
    [
      ...coreRules('analysis', CORE.indexOf('analysis')),
      {
        regex: `^\\.\\./(${[...ANALYSIS.slice(index + 1), 'index', 'analyse', 'analysis'].join('|')})(/|$)`,
        message: `analysis/${room} comes before this: see docs/architecture.md.`,
      },
    ],
  ),
);

const islandRules = (room, index) => [
  { regex: into(CLOSED.islands), message: 'Islands are used by pages, never the other way round.' },
  { regex: into(['store', 'server']), message: 'Islands reach the server by its doors: see src/wire.' },
  THROUGH_THE_DOOR,
  ...(index + 1 < ISLANDS.length
    ? [
        {
          regex: into(ISLANDS.slice(index + 1)),
          message: `islands/${room} comes before this: see docs/architecture.md.`,
        },
      ]
    : []),
];

const islandRooms = [
  ...ISLANDS.map((room, index) => forbid([`src/islands/${room}/**/*.{ts,tsx}`], islandRules(room, index))),
  ...SCRIPT.map((room, index) =>
    forbid(
      [`src/islands/script/${room}/**/*.{ts,tsx}`],
      [
        ...islandRules('script', ISLANDS.indexOf('script')),
        {
          regex: `^\\.\\./(${[...SCRIPT.slice(index + 1), 'ScriptView'].join('|')})(/|$)`,
          message: `script/${room} comes before this: see docs/architecture.md.`,
        },
      ],
    ),
  ),
];

export default defineConfig(
  { ignores: ['dist', '.astro', 'data', 'node_modules', 'test-results', 'playwright-report'] },
  tseslint.configs.recommended,
  astro.configs.recommended,
  { files: ['**/*.tsx'], ...hooks.configs.flat.recommended },
  {
    files: ['src/islands/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { varsIgnorePattern: '^_', argsIgnorePattern: '^_' }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'off',
    },
  },
  ...coreFolders,
  ...analysisRooms,
  ...closedFolders,
  ...islandRooms,
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts', 'src/core/**'],
    rules: { 'no-restricted-syntax': ['error', ...ADDRESSES, ...TYPES_OF_ANSWERS] },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/document/addresses/**'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'fetch', 'setTimeout', 'process'],
      'no-restricted-syntax': [
        'error',
        ...ADDRESSES,
        ...TYPES_OF_ANSWERS,
        {
          selector: "MemberExpression[object.name='Math'][property.name='random']",
          message: 'Chance comes from a seed.',
        },
        {
          selector: "MemberExpression[object.name='Date'][property.name='now']",
          message: 'The clock is an argument.',
        },
      ],
    },
  },
);
