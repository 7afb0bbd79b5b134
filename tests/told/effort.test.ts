/**
 * How much an analysis does, in nodes of diagrams, and how small the sets of routes are that it finds: without a clock, and so
 * the same on every machine. Where a difference is meant, read whether it is less, and write it down with
 * `KEEP_TOLD=1 npm run unit -- told`.
 */
import assert from 'node:assert/strict';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { after, it } from 'node:test';
import { compared } from '../../bench/families/compared';
import { dense } from '../../bench/families/dense';
import { hard } from '../../bench/families/hard';
import { longLists } from '../../bench/families/long-lists';
import { roster } from '../../bench/families/roster';
import { analyse, AnalysisCache, DEFAULT_CAPS, type Analysis } from '../../src/core/analysis';
import type { Questionnaire } from '../../src/core/document/types';
import { applyChange } from '../../src/core/editing/change';
import { planOf } from '../../src/core/routing/planner';
import { routedSnagsOf } from '../../src/core/snags';
import { randomChain } from '../agree/documents';

const FILE = path.join('tests', 'told', 'effort.txt');

const QUESTIONNAIRES: readonly (readonly [name: string, document: Questionnaire])[] = [
  ...[1, 2, 3, 4].map((seed) => [`chain ${seed}`, randomChain(seed)] as const),
  ['dense 40', dense(40, 1)],
  ['dense 60', dense(60, 2)],
  ['roster', roster(2, 1)],
  ['long lists', longLists(2, 1)],
  ['compared', compared(2, 1)],
  ['hard', hard(24, 1)],
];

const told = ({ routes, atLeast, ...of }: Analysis['cover'] | Analysis['pairs']) =>
  `${routes.length} of at least ${atLeast}${'complete' in of && !of.complete ? ', not complete' : ''}`;

/** The document with the condition of one item taken away. */
function edited(document: Questionnaire): Questionnaire {
  return applyChange(document, {
    label: '',
    apply: (draft) => {
      const items = draft.sections.flatMap((section) => section.items);
      const item = items.filter((each) => each.kind !== 'page_break' && each.askIf !== undefined)[5];
      if (item !== undefined && item.kind !== 'page_break') delete item.askIf;
    },
  }).document;
}

function effort(document: Questionnaire): string[] {
  const cache = new AnalysisCache();
  const nodes = () =>
    (['routes', 'asked', 'checks'] as const)
      .map((kind) => cache.work(kind, DEFAULT_CAPS).diagrams.nodes)
      .join(', ');
  const work = (of: Questionnaire): string => {
    const plan = planOf(of);
    const analysis = analyse(plan, DEFAULT_CAPS, cache);
    const { routes } = analysis;
    const asked = analysis.asked.size;
    const snags = routedSnagsOf(plan, analysis, cache).length;
    return `${routes} routes, ${asked} conditions, ${snags} snags; nodes: ${nodes()}`;
  };
  const first = work(document);
  const { cover, pairs } = analyse(planOf(document));
  return [
    first,
    `after an edit: ${work(edited(document))}`,
    `forks: ${told(cover)}`,
    `pairs: ${told(pairs)}`,
  ];
}

const before = new Map(
  (existsSync(FILE) ? readFileSync(FILE, 'utf8') : '')
    .split('== ')
    .slice(1)
    .map((part) => part.trimEnd().split('\n'))
    .map(([name = '', ...lines]) => [name, lines]),
);
const now: string[] = [];

for (const [name, document] of QUESTIONNAIRES)
  it(`an analysis of ${name} does no more, and finds no larger sets, than before`, () => {
    const lines = effort(document);
    now.push(`== ${name}`, ...lines);
    if (process.env.KEEP_TOLD !== '1') assert.deepEqual(lines, before.get(name));
  });

after(() => {
  if (process.env.KEEP_TOLD === '1') writeFileSync(FILE, `${now.join('\n')}\n`);
});
