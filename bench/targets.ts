/** What is to be reached, by the name under which its figure is kept. */

export interface Target {
  readonly words: string;
  /** Either of both. */
  readonly atMost?: number;
  readonly atLeast?: number;
  readonly unit: 'ms' | 's' | 'a second' | '×' | 'routes' | 'MB' | '';
  /** The page that has it with everything round it: performance-PAGE.md. */
  readonly page: string;
}

const dense = (words: string, atMost: number): Target => ({ words, atMost, unit: 'ms', page: 'families' });

export const TARGETS = {
  count300: dense('Counting, 300 items dense', 150),
  count1000: dense('Counting, 1,000 items dense', 600),
  count3000: dense('Counting, 3,000 items dense', 2000),
  growth: {
    words: 'Counting grows with items to the power of',
    atMost: 1.2,
    unit: '',
    page: 'families',
  },
  edit120: dense('After an edit, 120 items dense', 30),
  edit300: dense('After an edit, 300 items dense', 60),
  edit1000: dense('After an edit, 1,000 items dense', 150),
  edit3000: dense('After an edit, 3,000 items dense', 400),
  cover300: dense('Covering set, 300 items dense', 1000),
  cover1000: dense('Covering set, 1,000 items dense', 2000),
  cover3000: dense('Covering set, 3,000 items dense', 6000),
  beyondBound: {
    words: 'Covering set, 1,000 items dense: routes beyond what is proved to be needed',
    atMost: 2,
    unit: 'routes',
    page: 'families',
  },
  memory: {
    words: 'Memory, 3,000 items dense: all that is shown, at the peak of the process',
    atMost: 400,
    unit: 'MB',
    page: 'memory',
  },
  walked: {
    words: 'Walked and coded on one core, 120 items',
    atLeast: 250_000,
    unit: 'a second',
    page: 'analysis',
  },
  jsonLogic: { words: 'The same, to JsonLogic', atLeast: 30, unit: '×', page: 'analysis' },
  simulated: {
    words: 'Made up, walked and coded on one core, 120 items',
    atLeast: 100_000,
    unit: 'a second',
    page: 'analysis',
  },
  audited: {
    words: 'Rows without a fault judged on one core, 130 columns',
    atLeast: 80_000,
    unit: 'a second',
    page: 'audit',
  },
  faulty: { words: 'A row with one fault, to one without', atMost: 10, unit: '×', page: 'audit' },
  packageAlone: {
    words: 'An audit in all, to reading and writing with the CSV package alone',
    atMost: 3,
    unit: '×',
    page: 'audit',
  },
  tabulated: { words: 'A cross-table of 1,000,000 rows', atMost: 2000, unit: 'ms', page: 'audit' },
  firstRows: { words: 'First rows of the ledger at 10^33 routes', atMost: 60, unit: 'ms', page: 'views' },
  jump: { words: 'Jump in the ledger at 10^76 routes', atMost: 25, unit: 'ms', page: 'views' },
  opened: {
    words: 'A study of 1,000 items opened, until its counts stand',
    atMost: 1000,
    unit: 'ms',
    page: 'interface',
  },
  check: { words: '`check` of a small file', atMost: 150, unit: 'ms', page: 'commands' },
  compared: { words: 'Versions of 1,000 items compared', atMost: 2000, unit: 'ms', page: 'analysis' },
  packed: { words: 'Package of the demo', atMost: 5000, unit: 'ms', page: 'package' },
  packedMany: { words: 'Package of 1,000 items', atMost: 30_000, unit: 'ms', page: 'package' },
} as const satisfies Record<string, Target>;

export type TargetName = keyof typeof TARGETS;
