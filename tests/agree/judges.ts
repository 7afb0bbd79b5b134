/**
 * What trying everything says of a questionnaire, and one judge for each thing that the analysis says of it: each
 * compares, and throws where they differ.
 */
import assert from 'node:assert/strict';
import {
  analyse,
  withFront,
  without,
  type Analysis,
  type RouteFilter,
  type RoutesLeft,
  type Via,
} from '../../src/core/analysis';
import { QuickCoder } from '../../src/core/coding/quick-row';
import { codedRow } from '../../src/core/coding/row';
import { holds } from '../../src/core/condition/evaluate';
import { parseCondition } from '../../src/core/condition/parse';
import type { Condition } from '../../src/core/condition/syntax';
import { passKey } from '../../src/core/document/addresses';
import type { Question } from '../../src/core/document/types';
import type { Plan } from '../../src/core/routing/plan';
import { Runner } from '../../src/core/routing/runner';
import type { Walk, WalkInput } from '../../src/core/routing/walk';
import { trail, walked } from '../support/questionnaire';
import { allRoutes, TooMany, type PlainRoute } from './brute-force';
import { forksMet, withLastPasses } from './forks-met';
import { plainWalk } from './plain-walker';

export interface Case {
  readonly plan: Plan;
  readonly analysis: Analysis;
  readonly routes: readonly PlainRoute[];
  /** Everybody who comes to an ending. */
  readonly people: readonly { readonly walk: Walk; readonly input: WalkInput }[];
  /** For messages. */
  readonly about: string;
}

/** Null where there is too much to try. */
export function caseOf(plan: Plan, about: string, most?: number): Case | null {
  const people: { walk: Walk; input: WalkInput }[] = [];
  try {
    const routes = allRoutes(plan, most, (walk, input) => people.push({ walk, input }));
    return { plan, analysis: analyse(plan), routes, people, about };
  } catch (error) {
    if (error instanceof TooMany) return null;
    throw error;
  }
}

export type Judge = (of: Case) => void;

export const JUDGES = {
  walk: judgeWalks,
  coding: judgeCoding,
  'many at once': judgeRunner,
  count: judgeCounts,
  'number and route': judgeNumbers,
  witness: judgeWitnesses,
  'who is asked': judgeAsked,
  cover: judgeCoverAndPairs,
  filters: judgeFilters,
} satisfies Readonly<Record<string, Judge>>;

/** The walk of many at once, and its coded row, against the walk that keeps a record. */
export function judgeRunner({ plan, people, about }: Case): void {
  const runner = new Runner(plan);
  const coder = new QuickCoder(plan, runner);
  for (const { walk, input } of people) {
    const where = `${about}, ${JSON.stringify(input)}`;
    const known = Object.entries({ ...input.given, ...input.answers });
    const byKey = new Map(known.map(([key, value]) => [key.toLowerCase(), value]));
    for (const [key, slot] of runner.slots) runner.put(slot, byKey.get(key) ?? null);
    const ending = runner.run({
      isDrawn: ({ planItem, drawKey }) => input.draws?.[drawKey ?? '']?.includes(planItem.item.name) ?? false,
      isFull: (id) => input.full?.includes(id) ?? false,
    });
    const presented = runner.itemsPresented().map(({ key }) => key);
    assert.deepEqual([ending, presented], [walk.ending, walk.steps.map(({ key }) => key)], where);
    const row = coder.row(ending, (key) => String(input.answers[key] ?? ''));
    assert.deepEqual(row, Object.values(codedRow(plan, walk, input.answers)), where);
  }
}

const wordsOf = ({ items, ending }: PlainRoute) => `${items.join(' ')} > ${ending}`;

export function judgeWalks({ plan, people, about }: Case): void {
  for (const { walk, input } of people) {
    const plain = plainWalk(plan.document, input, plan.problems);
    const said = `${plain.presented.join(' ')} > ${plain.ending}`;
    assert.equal(trail(plan, walk), said, `${about}, ${JSON.stringify(input)}`);
  }
}

export function judgeCoding({ plan, people, about }: Case): void {
  for (const { walk, input } of people) {
    const { row } = plainWalk(plan.document, input, plan.problems);
    assert.deepEqual(codedRow(plan, walk, input.answers), row, `${about}, ${JSON.stringify(input)}`);
  }
}

export function judgeCounts({ plan, analysis, routes, about }: Case): void {
  assert.deepEqual(analysis.limits, [], about);
  assert.equal(analysis.routes, BigInt(routes.length), about);
  const through = (name: string) => (route: PlainRoute) =>
    route.items.some((key) => key.split('#')[0] === name);
  for (const [name, count] of analysis.items)
    assert.equal(count, BigInt(routes.filter(through(name)).length), `${about}, routes with ${name}`);
  for (const { id, routes: count } of analysis.endings)
    assert.equal(
      count,
      BigInt(routes.filter(({ ending }) => ending === id).length),
      `${about}, routes to ${id}`,
    );
  for (const { items } of routes.slice(0, 20)) {
    const prefix = items.slice(0, Math.floor(items.length / 2));
    const alike = routes.filter((other) => prefix.every((key, index) => other.items[index] === key));
    const isQuestion = (key: string) => plan.variables.has((key.split('#')[0] as string).toLowerCase());
    const left = alike.map((other) => other.items.slice(prefix.length).filter(isQuestion).length);
    const expected = { routes: BigInt(alike.length), least: Math.min(...left), most: Math.max(...left) };
    assert.deepEqual(analysis.ahead(prefix), expected, `${about}, ahead of ${prefix.join(' ')}`);
  }
  assert.equal(analysis.shortest === null, plan.endings.length === 0 || routes.length === 0, about);
  const lengths = routes.map(({ items }) => items.length);
  if (routes.length === 0) return;
  for (const [found, length] of [
    [analysis.shortest, Math.min(...lengths)],
    [analysis.longest, Math.max(...lengths)],
  ] as const)
    assert.deepEqual([found?.items, found?.number], [length, BigInt(lengths.indexOf(length) + 1)], about);
}

export function judgeNumbers({ analysis, routes, about }: Case): void {
  routes.forEach(({ items, ending }, index) => {
    const number = BigInt(index + 1);
    const found = analysis.outline(number);
    assert.deepEqual([found?.items, found?.ending], [items, ending], `${about}, route ${number}`);
    assert.equal(analysis.numberOf(items, ending), number, about);
  });
  assert.equal(analysis.outline(BigInt(routes.length + 1)), null, about);
}

export function judgeWitnesses({ plan, analysis, routes, about }: Case): void {
  routes.forEach((route, index) => {
    const { answers = {}, draws, given, full } = analysis.route(BigInt(index + 1)) ?? {};
    const walk = walked(plan, { answers, draws, given, full });
    assert.equal(trail(plan, walk), wordsOf(route), `${about}, witness of route ${index + 1}`);
  });
}

function parsed(text: string): Condition {
  const result = parseCondition(text);
  assert.ok(result.ok, `“${text}” does not parse`);
  return result.tree;
}

export function judgeAsked({ plan, analysis, people, about }: Case): void {
  const conditions = new Map([...analysis.asked].map(([name, text]) => [name, { text, tree: parsed(text) }]));
  const quotas = (plan.document.quotas ?? []).length > 0;
  const presented = new Set<string>();
  for (const { walk, input } of people) {
    const keys = new Set(walk.steps.map(({ key }) => key));
    for (const { index, items, repeat, section: of } of plan.sections) {
      const passes =
        repeat === null ? [null] : Array.from({ length: walk.passes.get(index) ?? 0 }, (_, n) => n + 1);
      for (const pass of passes) {
        for (const { item } of items) {
          const { text, tree } = conditions.get(item.name) as { text: string; tree: Condition };
          const is = keys.has(passKey(item.name, pass));
          const said = holds(tree, walk.environment(index, pass));
          if (is) presented.add(item.name);
          // Of what is drawn, or may be cut off by a quota, the condition says who could be asked.
          const could = quotas || (of.draw !== undefined && item.kind === 'question');
          const where = `${about}, ${passKey(item.name, pass)} if ${text}, with ${JSON.stringify(input)}`;
          if (could) assert.ok(said || !is, where);
          else assert.equal(said, is, where);
        }
      }
    }
  }
  for (const [name, { text }] of conditions)
    assert.equal(text === 'never', !presented.has(name), `${about}, ${name} if ${text}`);
}

export function judgeCover({ plan, analysis, people, about }: Case): void {
  const possible = new Set(people.flatMap(({ walk }) => [...forksMet(plan, walk)]));
  const { routes, atLeast } = analysis.cover;
  for (const { items, ending, number } of routes)
    assert.equal(analysis.numberOf(items, ending), number, about);
  judgeCovering(plan, routes, possible, about);
  assert.ok(routes.length >= atLeast, `${about}: ${routes.length} routes, but ${atLeast} are needed`);
}

/** That respondents walk as they should, and meet all that is possible. */
export function judgeCovering(
  plan: Plan,
  routes: readonly (PlainRoute & WalkInput)[],
  possible: ReadonlySet<string>,
  about: string,
): void {
  const met = new Set<string>();
  for (const route of routes) {
    const walk = walked(plan, route);
    assert.equal(trail(plan, walk), wordsOf(route), about);
    for (const outcome of forksMet(plan, walk)) met.add(outcome);
  }
  assert.deepEqual([...withLastPasses(met)].sort(), [...withLastPasses(possible)].sort(), about);
}

/** Every two outcomes of forks that one person meets, on some route of the second level; and no route too many. */
export function judgePairs({ plan, analysis, people, about }: Case): void {
  const { routes, atLeast, pairs, complete } = analysis.pairs;
  assert.ok(complete, about);
  const lastPass = withLastPasses(new Set(people.flatMap(({ walk }) => [...forksMet(plan, walk)])));
  const pairsOf = (walk: Walk) => {
    const met = [...forksMet(plan, walk)].filter(
      (outcome) => lastPass.has(outcome) && !/^(presented|ending|message) /.test(outcome),
    );
    return met.flatMap((a) => met.flatMap((b) => (a < b ? [`${a} + ${b}`] : [])));
  };
  const possible = new Set(people.flatMap(({ walk }) => pairsOf(walk)));
  assert.equal(pairs, possible.size, `${about}, pairs`);
  assert.equal(routes.length > 0, people.length > 0, about);
  const met = routes.map((route) => {
    const walk = walked(plan, route);
    assert.equal(trail(plan, walk), wordsOf(route), about);
    return pairsOf(walk);
  });
  assert.deepEqual([...new Set(met.flat())].sort(), [...possible].sort(), about);
  assert.ok(routes.length >= atLeast, `${about}: ${routes.length} routes, at least ${atLeast}`);
  met.forEach((own, n) => {
    const others = new Set(met.filter((_, other) => other !== n).flat());
    assert.ok(routes.length === 1 || own.some((pair) => !others.has(pair)), `${about}, route ${n} is spare`);
  });
}

export function judgeCoverAndPairs(of: Case): void {
  judgeCover(of);
  judgePairs(of);
}

export function judgeFilters(of: Case): void {
  judgeTaking(of);
  judgeAnswering(of);
  const { plan, analysis, routes, about } = of;
  const names = [...analysis.items.keys()];
  for (const [n, name] of names.entries()) {
    const ending = plan.endings[n % plan.endings.length]?.ending.id as string;
    const [other, third] = [
      names[(n + 2) % names.length] as string,
      names[(n * 3 + 1) % names.length] as string,
    ];
    const filters: readonly RouteFilter[] = [
      { through: [[name]] },
      { avoid: [name, third] },
      { through: [[name, third], [other]], order: 'longest' },
      { through: [[name]], avoid: [other], ending, order: 'shortest' },
      { least: n, most: n + 3 },
      { through: [[name, `${other}#1`]], avoid: [`${name}#3`, `${third}#2`] },
      { through: [[`${name}#2`]], order: 'shortest' },
      { through: [[other]], least: n, order: 'longest' },
    ];
    for (const filter of filters) {
      const left = analysis.filtered(filter);
      const where = `${about}, ${JSON.stringify(filter)}`;
      const expected = numbersLeft(routes, filter);
      judgeList(left, expected, routes.length, where);
      const some = expected.filter((_, index) => (index + n) % 3 === 0);
      const gone = new Set(some);
      const kept = expected.filter((number) => !gone.has(number));
      judgeList(
        without(left, [...some, 1n].reverse()),
        kept.filter((number) => number !== 1n),
        routes.length,
        `${where}, without`,
      );
      judgeList(
        withFront(left, some.toReversed()),
        [...some.toReversed(), ...kept],
        routes.length,
        `${where}, first`,
      );
    }
  }
}

function judgeList(left: RoutesLeft, expected: readonly bigint[], routes: number, where: string): void {
  const numbers = expected.map((_, k) => left.numberOf(BigInt(k + 1)));
  const found = [left.total, ...numbers, left.numberOf(BigInt(expected.length + 1)), left.numberOf(0n)];
  same(found, [BigInt(expected.length), ...expected, null, null], where);
  const all = Array.from({ length: routes + 1 }, (_, n) => BigInt(n + 1));
  const positions = new Map(expected.map((number, k) => [number, BigInt(k + 1)]));
  same(
    all.map((number) => left.positionOf(number)),
    all.map((number) => positions.get(number) ?? null),
    `${where}: positions`,
  );
}

/** Asserting that thousands of long lists are equal takes longer than making them: it is asked only of those that are not. */
function same(found: readonly (bigint | null)[], expected: readonly (bigint | null)[], where: string): void {
  const isSame = found.length === expected.length && found.every((each, n) => each === expected[n]);
  if (!isSame) assert.deepEqual(found, expected, where);
}

/** By trying each route. */
function numbersLeft(routes: Case['routes'], filter: RouteFilter): bigint[] {
  const { through = [], avoid = [], ending, least = 0, most = Infinity, order } = filter;
  const left = routes.flatMap(({ items, ending: end }, index) => {
    const shown = new Set(items.flatMap((key) => [key, key.split('#')[0] as string]));
    const fits =
      through.every((list) => list.some((name) => shown.has(name))) &&
      !avoid.some((name) => shown.has(name)) &&
      (ending === undefined || ending === end) &&
      items.length >= least &&
      items.length <= most;
    return fits ? [{ number: BigInt(index + 1), length: items.length }] : [];
  });
  // Sorting keeps the order of equal ones.
  if (order !== undefined) left.sort((a, b) => (a.length - b.length) * (order === 'shortest' ? 1 : -1));
  return left.map(({ number }) => number);
}

/** The routes on which somebody takes each skip, quota and onward entry, and one of them for each. */
export function judgeTaking({ plan, analysis, routes, people, about }: Case): void {
  const met = people.map(({ walk }) => ({ route: trail(plan, walk), outcomes: forksMet(plan, walk) }));
  for (const [of, outcome, way] of waysWritten(plan)) {
    const takers = new Set(met.flatMap(({ route, outcomes }) => (outcomes.has(outcome) ? [route] : [])));
    const names = [...analysis.items.keys()];
    for (const filter of [{}, { avoid: names.slice(-1) }] as const) {
      const left = routes.flatMap((route, index) => {
        const avoided = route.items.some((key) => filter.avoid?.includes(key.split('#')[0] as string));
        return takers.has(wordsOf(route)) && !avoided ? [BigInt(index + 1)] : [];
      });
      const filtered = analysis.filtered({ ...filter, via: [way] });
      const where = `${about}, taking ${of} ${JSON.stringify(filter)}`;
      judgeList(filtered, left, routes.length, where);
      const first = filtered.route(1n);
      if (first === null) continue;
      assert.ok(
        forksMet(plan, walked(plan, first)).has(outcome),
        `${where}: route ${first.number}, ${JSON.stringify(first.answers)}`,
      );
    }
  }
}

/**
 * The routes of those who give an answer: all who were tried are on one that is left, and on each that is left somebody
 * gives it.
 */
export function judgeAnswering({ plan, analysis, people, routes, about }: Case): void {
  const numbers = new Map(routes.map((route, index) => [wordsOf(route), BigInt(index + 1)]));
  for (const { section, index, items, repeat } of plan.sections) {
    for (const { item } of items) {
      if (item.kind !== 'question') continue;
      for (const text of testsOf(item)) {
        const answers = parsed(text);
        const gives = (walk: Walk) => {
          const keys = new Set(walk.steps.map(({ key }) => key));
          const passes =
            repeat === null ? [null] : Array.from({ length: walk.passes.get(index) ?? 0 }, (_, n) => n + 1);
          return passes.some(
            (pass) => keys.has(passKey(item.name, pass)) && holds(answers, walk.environment(index, pass)),
          );
        };
        const where = `${about}, answering ${text} in ${section.id}`;
        const left = analysis.filtered({ via: [{ item: item.name, answers }] });
        for (const { walk } of people)
          if (gives(walk))
            assert.ok(left.positionOf(numbers.get(trail(plan, walk)) ?? 0n) !== null, `${where}: missed`);
        for (let k = 1n; k <= left.total; k += 1n) {
          const found = left.route(k);
          assert.ok(found !== null && gives(walked(plan, found)), `${where}: route ${found?.number}`);
        }
      }
    }
  }
}

/** A few answers, each as a test. */
function testsOf({ name, answer }: Question): string[] {
  if (answer.type === 'single') return answer.options.slice(0, 3).map(({ code }) => `${name} = ${code}`);
  if (answer.type === 'multiple') return answer.options.slice(-2).map(({ code }) => `${name} has ${code}`);
  if (answer.type === 'number' || answer.type === 'scale')
    return [`${name} = ${answer.min}`, `${name} > ${answer.min}`, `${name} unanswered`];
  return [];
}

/** Every way that a questionnaire has written, with the outcome it is in `forksMet`. */
function waysWritten(plan: Plan): (readonly [of: string, outcome: string, way: Via])[] {
  return plan.sections.flatMap(({ section, index, items, onward }) => [
    ...items.flatMap(({ item: { name }, skips, quotas }) => [
      ...skips.map(
        (skip) =>
          [`${name} ${skip.index}`, `${name} skip ${skip.index}`, { item: name, skip: skip.index }] as const,
      ),
      ...quotas.map(({ id }) => [`quota ${id}`, `${name} quota ${id}`, { quota: id }] as const),
    ]),
    ...onward.map(
      (entry) =>
        [
          `${section.id} ${entry.index}`,
          `onward ${index} ${entry.index}`,
          { section: section.id, onward: entry.index },
        ] as const,
    ),
  ]);
}
