/**
 * Everything that the core tells of a questionnaire, as text with one thought a line: what a person reads of it in the
 * views, on paper and in files. A change of it shows as a difference that one can read.
 */
import {
  analyse,
  sharesOf,
  transitionsOf,
  whoFlows,
  type Analysis,
  type Route,
} from '../../src/core/analysis';
import { AuditRun } from '../../src/core/audit/run';
import { columnsOf, type Column } from '../../src/core/coding/columns';
import { codedCells } from '../../src/core/coding/row';
import type { Questionnaire } from '../../src/core/document/types';
import { applyAll, applyChange } from '../../src/core/editing/change';
import { CONVENTIONS, followConvention } from '../../src/core/editing/missing-codes';
import { operationsBetween } from '../../src/core/editing/operations';
import { codebookSheet } from '../../src/core/exchange/codebook-sheet';
import { keyFields } from '../../src/core/keying/fields';
import { limitWords } from '../../src/core/keying/typed';
import { forecastedFor, forecastSheets } from '../../src/core/release/sheets/forecast-tables';
import { testPack } from '../../src/core/release/test-pack';
import { Verification } from '../../src/core/release/verify';
import { secondsAlong, secondsByName } from '../../src/core/routing/burden';
import type { Plan } from '../../src/core/routing/plan';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRespondents } from '../../src/core/simulate/respondents';
import { allSnagsOf } from '../../src/core/snags';
import { tableVariables } from '../../src/core/tables/variables';
import { answerLines } from '../../src/core/views/answer-lines';
import { answersToAsk } from '../../src/core/views/answers-asked';
import { arcsOf } from '../../src/core/views/arcs';
import { codebook } from '../../src/core/views/codebook';
import { compareRoutes } from '../../src/core/views/compare-routes';
import { findAll } from '../../src/core/views/find';
import { forkEventWords } from '../../src/core/views/fork-events';
import { forksOf, nodeLabel, waysAlong } from '../../src/core/views/forks';
import { formOf, type FormOptions } from '../../src/core/views/form';
import { paperOf } from '../../src/core/views/paper';
import { routeSentence } from '../../src/core/views/route-sentence';
import { likelyHeight, rowsOf } from '../../src/core/views/sheet-rows';
import { usedLaterBy } from '../../src/core/views/used-later';
import { problemAt } from '../../src/core/wording/audit';
import { cellReason } from '../../src/core/wording/cell-reasons';
import { placeWords } from '../../src/core/wording/places';
import { possibleTargets } from '../../src/core/wording/targets';
import { whyLines } from '../../src/core/wording/why';
import { walked } from '../support/questionnaire';

type Telling = (told: Told) => unknown;
interface Told {
  readonly document: Questionnaire;
  readonly plan: Plan;
  readonly analysis: Analysis;
  /** The covering routes. */
  readonly routes: readonly Route[];
}

const TELLINGS: Readonly<Record<string, Telling>> = {
  'Who is asked': ({ analysis }) => analysis.asked,
  'Who has each pass': ({ analysis }) => analysis.passes,
  Routes: ({ plan, analysis, routes }) => {
    const seconds = secondsByName(plan);
    return {
      count: analysis.routes,
      exact: analysis.exact,
      endings: analysis.endings.map(({ id, routes: many }) => `${id} ${many}`),
      items: [...analysis.items].map(([name, many]) => `${name} ${many}`),
      shortest: analysis.shortest,
      longest: analysis.longest,
      slowest: analysis.slowest(seconds),
      cover: routes.map(
        (route) =>
          `${route.number} ${figure(secondsAlong(seconds, route.items))} s: ${routeSentence(plan, route)
            .map(({ text }) => text)
            .join('')}`,
      ),
      bounds: [analysis.cover, analysis.pairs].map(
        (cover) =>
          `${cover.routes.length} routes, at least ${cover.atLeast}, ${'pairs' in cover ? cover.pairs : cover.outcomes} met`,
      ),
      chosen: analysis.cover.routes.map(({ alone }) => alone.map((event) => forkEventWords(plan, event))),
    };
  },
  Walks: ({ plan, routes }) => {
    const columns = columnsOf(plan);
    return routes.slice(0, 5).map((route) => {
      const walk = walked(plan, { ...route, lenient: true });
      return {
        why: whyLines(plan, walk).map(
          ({ name, presented, because }) => `${presented ? '+' : '-'} ${name}: ${because}`,
        ),
        row: codedCells(plan, walk, route.answers, columns).map((cell, n) => {
          const because = cell.reason === null ? '' : ` ${cellReason(walk, columns[n] as Column, cell)}`;
          return `${cell.column} = ${cell.value}${because}`;
        }),
      };
    });
  },
  'Routes side by side': ({ plan, routes: [first, ...others] }) =>
    first === undefined ? [] : others.slice(0, 4).map((other) => compareRoutes(plan, first, other)),
  Snags: ({ plan, analysis }) =>
    allSnagsOf(plan, analysis).map(
      ({ severity, rule, at, message }) =>
        `${severity} ${rule}, ${placeWords(plan.document, at)}: ${message}`,
    ),
  Shares: ({ plan }) => {
    const shares = sharesOf(plan);
    return shares === null
      ? 'too entangled'
      : [[...shares.items], shares.endings, shares.ways, shares.minutes];
  },
  Forks: ({ plan }) => {
    const shares = sharesOf(plan);
    const transitions = transitionsOf(plan, shares) ?? [];
    const share = (of: number | null) => (of === null ? '?' : figure(of));
    return [[], plan.document.sections.map(({ id }) => id)].map((unfolded) => {
      const model = forksOf(plan, transitions, new Set(unfolded), Object.fromEntries(shares?.items ?? []));
      return {
        nodes: model.nodes.map((node) => `${node.mark} | ${node.label} | ${share(node.share)}`),
        bands: model.bands.map(({ id, letter, title, repeat, draw }) => ({
          id,
          letter,
          title,
          repeat,
          draw,
        })),
        ribbons: [...model.ribbons, ...model.exits].map((ribbon) => ({
          way: `${nodeLabel(model, ribbon.from)} > ${nodeLabel(model, ribbon.to)} ${share(ribbon.share)}`,
          along: waysAlong(plan, model, ribbon),
        })),
      };
    });
  },
  'Who flows': ({ plan }) =>
    (transitionsOf(plan, null) ?? []).map(({ from, to }) => {
      const flowing = { from: from === null ? null : [from], to: 'item' in to ? [to.item] : to };
      return `${from ?? 'start'} > ${'item' in to ? to.item : to.ending}: ${whoFlows(plan, flowing)}`;
    }),
  'Who takes them': ({ routes }) =>
    routes.map(({ number, answers, draws, given, full }) =>
      [number, answers, draws, given, full]
        .map((part) => (typeof part === 'object' ? JSON.stringify(part) : part))
        .join(' '),
    ),
  'Lines of answers': ({ plan }) =>
    plan.sections.flatMap(({ items }) =>
      items.flatMap((planItem) =>
        answerLines(plan, planItem).map(({ label, code, kind, faint, tag, lead }) => ({
          label,
          code,
          kind,
          faint,
          tag,
          lead: lead?.target?.label,
        })),
      ),
    ),
  Arcs: ({ plan }) => arcsOf(plan).map(({ sources, target }) => `${sources.join(', ')} > ${target.label}`),
  Targets: ({ document }) =>
    document.sections.flatMap(({ items }, section) =>
      [null, ...items.keys()].map((item) =>
        possibleTargets(document, section, item)
          .map(({ label, words }) => `${label} (${words})`)
          .join('; '),
      ),
    ),
  'Used later': ({ plan }) =>
    plan.sections.flatMap(({ items }) =>
      items.map(({ item }) => `${item.name}: ${usedLaterBy(plan, item.name).join(', ')}`),
    ),
  Found: ({ plan }) => ['one', 'done'].map((query) => findAll(plan, query)),
  Paper: ({ plan, analysis }) => paperOf(plan, Object.fromEntries(analysis.asked)),
  Forms: ({ plan, analysis }) =>
    FORMS.map((options) => formOf(plan, options, Object.fromEntries(analysis.asked))),
  Codebook: ({ plan, document }) => [codebook(plan), codebookSheet(document).map((row) => row.join(' | '))],
  Keying: ({ plan }) => keyFields(plan).map((field) => `${field.key} ${field.label}: ${limitWords(field)}`),
  Tables: ({ plan }) => tableVariables(plan),
  'Answers to ask for': ({ plan }) => answersToAsk(plan),
  'Made up': ({ plan }) => {
    const columns = columnsOf(plan);
    return [...madeUpRespondents(plan, 6, 7)].map((person) =>
      [...person.row()].map((cell, n) => `${columns[n]?.name} ${cell}`).join(', '),
    );
  },
  'Missing codes': ({ document }) =>
    CONVENTIONS.map((convention) => {
      const { missing, sections } = applyChange(document, followConvention(document, convention)).document;
      return [
        missing.map(({ reason, code }) => `${reason} ${code}`),
        sections.flatMap(({ items }) =>
          items.flatMap((item) =>
            item.kind === 'question' && item.missingCodes !== undefined
              ? [`${item.name} ${JSON.stringify(item.missingCodes)}`]
              : [],
          ),
        ),
      ];
    }),
  Mends: ({ plan, analysis, document }) =>
    allSnagsOf(plan, analysis).flatMap(({ rule, at, mends = [] }) =>
      mends.map((mend) => [
        `${rule}, ${placeWords(document, at)}: ${mend.label}`,
        operationsBetween(document, applyAll(document, mend.patches)).map((done) => JSON.stringify(done)),
      ]),
    ),
  Audited: ({ plan }) => audited(plan),
  Verified: ({ plan, analysis }) => verified(plan, analysis),
  Forecast: ({ plan }) =>
    forecastSheets(plan, forecastedFor(plan)).map(({ name, head, rows }) => [
      `${name}: ${head.join(', ')}`,
      rows.map((row) => row.map(scalar).join(' | ')),
    ]),
  Sheet: ({ document }) =>
    rowsOf(document, new Set()).map((row) => `${row.key} ${figure(likelyHeight(row, document))}`),
};

/** Cells that people write and mistype, put into rows of people made up: what is wrong with them, and what is written instead. */
const MISTYPED = ['', '9999', 'x', '-1', ' 2 ', '1', '0', '2,5', 'Yes'];

function audited(plan: Plan) {
  const header = columnsOf(plan).map(({ name }) => name);
  const run = new AuditRun(plan, header, { codeBlanks: true }, {}, null);
  return [...madeUpRespondents(plan, 9, 3)].map((person, n) => {
    const cells = [...person.row()].map(String);
    const changed = [1, 2, 3, 4].map((k) => (7 * n + 3 * k) % cells.length);
    changed.forEach((at, k) => (cells[at] = MISTYPED[(n + 2 * k) % MISTYPED.length] ?? ''));
    const row = run.row(cells);
    return {
      mistyped: changed.map((at) => `${header[at]} “${cells[at]}”`),
      problems: row.problems.map((problem) =>
        [problem.column, problem.problem, problem.value, problemAt(problem, (id) => id)].join(' '),
      ),
      written: run
        .changesOf(row, cells)
        .map(({ column, from, to, why }) => `${column} ${from} > ${to} ${why}`),
    };
  });
}

/** The test pack, where four respondents of five are led astray at one step: left out, shown twice, or answered otherwise. */
function verified(plan: Plan, analysis: Analysis) {
  const verification = new Verification(plan, analysis);
  testPack(plan, analysis).respondents.forEach(({ steps }, n) => {
    const seen = steps.map(({ step, item, answer }) => ({ step: String(step), item, answer }));
    const at = Math.min(seen.length - 1, 2 + 3 * n);
    const here = seen[at];
    if (here === undefined) return;
    if (n % 5 === 0) seen.splice(at, 1);
    else if (n % 5 === 1) seen.splice(at, 0, here);
    else if (n % 5 === 2) seen[at] = { ...here, answer: '2' };
    else if (n % 5 === 3) seen[at] = { ...here, item: 'nothing_here' };
    verification.take(`R${n + 1}`, seen);
  });
  const { respondents, agree, differ, forks } = verification.result();
  return {
    agree: `${agree} of ${respondents}; ${forks.taken} of ${forks.all} forks`,
    differ: differ.map((each) => Object.values(each).join(' | ')),
    untaken: forks.untaken.map((event) => forkEventWords(plan, event)),
  };
}

const FORMS: readonly FormOptions[] = [
  { reader: 'respondent', routing: 'answers', passes: 'columns' },
  { reader: 'interviewer', routing: 'questions', passes: 'blocks' },
];

export function told(document: Questionnaire): string {
  const plan = planOf(document);
  const analysis = analyse(plan);
  const routes = analysis.cover.routes.flatMap(({ number }) => analysis.route(number) ?? []);
  return Object.entries(TELLINGS)
    .map(
      ([title, telling]) =>
        `== ${title}\n${lines(telling({ document, plan, analysis, routes })).join('\n')}\n`,
    )
    .join('\n');
}

/** Digits that hold on every machine. */
const figure = (of: number) => String(Number(of.toPrecision(9)));

/** Nested values as indented lines, what is not nested on one; parts of the plan, which lead round in circles, by name. */
function lines(value: unknown, indent = ''): string[] {
  if (value instanceof Map || value instanceof Set) return lines([...value], indent);
  if (!isNested(value)) return [`${indent}${scalar(value)}`];
  const entries = Object.entries(withoutPlan(value));
  const isList = Array.isArray(value);
  const plain = entries.filter(
    ([, each]) => !isNested(each) && each !== null && each !== '' && each !== false,
  );
  const inner = entries.filter(([, each]) => isNested(each) && Object.keys(each).length > 0);
  if (
    isList &&
    inner.length === 0 &&
    plain.length <= FEW &&
    plain.every(([, each]) => scalar(each).length < SHORT)
  )
    return [`${indent}[${plain.map(([, each]) => scalar(each)).join(', ')}]`];
  if (isList) return entries.flatMap(([, each]) => lines(each, indent));
  return [
    `${indent}- ${plain.map(([key, each]) => `${key}: ${scalar(each)}`).join(' · ')}`,
    ...inner.flatMap(([key, each]) => {
      const [first = '', ...more] = lines(each, `${indent}    `);
      return more.length === 0
        ? [`${indent}  ${key}: ${first.trim()}`]
        : [`${indent}  ${key}:`, first, ...more];
    }),
  ];
}

/** Lists of a few short texts stand on one line. */
const [FEW, SHORT] = [12, 40];
const scalar = (value: unknown) => (typeof value === 'number' ? figure(value) : String(value));
const isNested = (value: unknown): value is object => typeof value === 'object' && value !== null;

function withoutPlan(value: object): object {
  if (Array.isArray(value)) return value;
  const named = (each: unknown) => {
    const { item, section } = (each ?? {}) as { item?: { name?: string }; section?: { id?: string } };
    return item?.name ?? section?.id ?? each;
  };
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, named(each)]));
}
