/**
 * Expected shares against adding up the chances of every single respondent, on random small questionnaires with random
 * assumptions; the chances are worked out anew here, from what the format says of `assume`.
 */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { sharesOf } from '../../src/core/analysis';
import { passKey } from '../../src/core/document/addresses';
import { optionsOf } from '../../src/core/document/shape';
import type { Answer, Assume, Item, Question, Questionnaire, Value } from '../../src/core/document/types';
import { isBlank, refusal, type ShownParts } from '../../src/core/routing/answers';
import type { Plan } from '../../src/core/routing/plan';
import { walk, type Walk, type WalkInput, type WalkStep } from '../../src/core/routing/walk';
import { planFor } from '../support/questionnaire';
import { allRoutes, everyAnswer, everyDraw, TooMany } from './brute-force';
import { randomChain, randomDocument } from './documents';
import { randomManyOptions } from './many-options';
import { seedsToTry } from './seeds';

/** With the seeds that once failed. */
const SEEDS = seedsToTry([], 200);
const MANY = seedsToTry([], 10);

export function withAssumptions(document: Questionnaire, seed: number): Questionnaire {
  const random = xoroshiro128plus(seed + 77);
  const assume = (answer: Answer): Assume | undefined => {
    if (uniformInt(random, 0, 2) === 0) return undefined;
    const blank = uniformInt(random, 0, 3) * 0.1;
    if (answer.type === 'date' || answer.type === 'text' || answer.type === 'rank') return { blank };
    if (answer.type === 'number' && uniformInt(random, 0, 1) === 0)
      return {
        ranges: [
          { from: 0, to: 1, share: 0.75 },
          { from: 2, to: 2, share: 0.25 },
        ],
        blank,
      };
    const codes = answer.type === 'number' || answer.type === 'scale' ? [1, 9] : [1, 2, 3];
    const shares: Record<string, number> = {};
    for (const code of codes)
      if (uniformInt(random, 0, 1) === 0) shares[String(code)] = uniformInt(random, 0, 4) / 10;
    return { shares, blank };
  };
  const assumed = (item: Item): Item => {
    const found = item.kind === 'question' ? assume(item.answer) : undefined;
    return found === undefined ? item : ({ ...item, assume: found } as Question);
  };
  return {
    ...document,
    sections: document.sections.map((section) => ({ ...section, items: section.items.map(assumed) })),
  };
}

/** How likely a value is, in no particular unit, of those that are no blank. */
function weightOf(answer: Answer, assume: Assume, value: Value, shown: ShownParts): number {
  const shares = assume.shares ?? {};
  const options = optionsOf(answer);
  switch (answer.type) {
    case 'single': {
      const others = options.filter((o) => shares[o.code] === undefined && o.missing === undefined);
      const left = 1 - options.reduce((sum, { code }) => sum + (shares[code] ?? 0), 0);
      const option = options.find(({ code }) => code === value);
      return shares[String(value)] ?? (option?.missing ? 0 : Math.max(0, left) / others.length);
    }
    case 'multiple':
      return options.reduce((product, { code, missing }) => {
        const chance = shares[code] ?? (missing === undefined ? 0.5 : 0);
        return product * ((value as number[]).includes(code) ? chance : 1 - chance);
      }, 1);
    case 'rank': {
      const places = Math.min(answer.top ?? options.length, shown.options.filter(Boolean).length);
      return (value as number[]).length === places ? 1 : 0;
    }
    case 'number':
    case 'scale': {
      if (options.some(({ code }) => code === value)) return shares[String(value)] ?? 0;
      const values = Array.from({ length: answer.max - answer.min + 1 }, (_, n) => answer.min + n);
      if (assume.ranges !== undefined)
        return assume.ranges.reduce((sum, { from, to, share }) => {
          const inside = (value as number) >= Number(from) && (value as number) <= Number(to);
          return inside ? sum + share / (Number(to) - Number(from) + 1) : sum;
        }, 0);
      const others = values.filter((other) => shares[other] === undefined);
      const said = [...values, ...options.map(({ code }) => code)].reduce(
        (sum, v) => sum + (shares[v] ?? 0),
        0,
      );
      return shares[String(value)] ?? Math.max(0, 1 - said) / others.length;
    }
    case 'text':
      return value === 'a' ? 0 : 1;
    default:
      return 1;
  }
}

/** The chance of one answer among those that are allowed, before checks. */
function chanceOf(item: Question, answer: Answer, value: Value | null, shown: ShownParts): number {
  const allowed = everyAnswer(answer).filter((v) => v !== null && refusal(item, answer, v, shown) === null);
  const assume = item.assume ?? {};
  const blank = item.required ? 0 : allowed.length === 0 ? 1 : (assume.blank ?? 0);
  if (value === null || isBlank(value)) return blank;
  for (const as of [assume, {}]) {
    const total = allowed.reduce<number>((sum, v) => sum + weightOf(answer, as, v as Value, shown), 0);
    if (total > 0) return ((1 - blank) * weightOf(answer, as, value, shown)) / total;
  }
  return (1 - blank) / allowed.length;
}

/** The chance of what was answered at a step, among all answers that get past its checks. */
function chanceAt(plan: Plan, step: WalkStep, input: WalkInput): number {
  const { item } = step.planItem;
  if (item.kind === 'statement') return 1;
  const keys = step.parts.map(({ name }) => passKey(name, step.pass));
  const together = (values: readonly (Value | null)[]) =>
    step.parts.reduce(
      (product, { answer }, n) => product * chanceOf(item, answer, values[n] ?? null, step.shown),
      1,
    );
  const here = together(keys.map((key) => input.answers[key] ?? null));
  if (!item.checks?.some(({ kind }) => kind === 'hard') || here === 0) return here;
  let tried: (Value | null)[][] = [[]];
  for (const { answer } of step.parts)
    tried = tried.flatMap((values) => everyAnswer(answer).map((value) => [...values, value]));
  const passing = tried.reduce((sum, values) => {
    const chance = together(values);
    if (chance === 0) return sum;
    const answers = {
      ...input.answers,
      ...Object.fromEntries(keys.map((key, n) => [key, values[n] ?? null])),
    };
    const again = walk(plan, { ...input, answers, stoppedAt: step.key });
    assert.ok(again.ok);
    const refused = again.walk.steps.at(-1)?.faults.some(({ kind }) => kind === 'hard');
    return refused ? sum : sum + chance;
  }, 0);
  return here / passing;
}

function agrees(document: Questionnaire, seed: number): boolean {
  const plan = planFor(document);
  const draws = everyDraw(plan).length;
  const items = new Map<string, number>();
  const endings = new Map<string, number>();
  const routes = new Map<string, { route: { items: string[]; ending: string }; share: number }>();
  const transitions = new Map<string, number>();
  let all = 0;
  const add = (to: Map<string, number>, key: string, more: number) => to.set(key, (to.get(key) ?? 0) + more);
  const each = (done: Walk, input: WalkInput) => {
    if ((input.full ?? []).length > 0) return;
    const given = (document.given ?? []).reduce((product, { name, answer, assume = {} }) => {
      const any = { options: optionsOf(answer).map(() => true), rows: [] };
      const asked: Question = { kind: 'question', name, text: '', answer, required: true, assume };
      return product * chanceOf(asked, answer, input.given?.[name] ?? null, any);
    }, 1);
    const share = done.steps.reduce(
      (product, step) => (product === 0 ? 0 : product * chanceAt(plan, step, input)),
      given / draws,
    );
    if (share === 0) return;
    all += share;
    const ending = plan.endings[done.ending ?? 0]?.ending.id ?? '';
    add(endings, ending, share);
    for (const name of new Set(done.steps.map(({ planItem }) => planItem.item.name))) add(items, name, share);
    const keys = done.steps.map(({ key }) => key);
    const names = [null, ...done.steps.map(({ planItem }) => planItem.item.name), `> ${ending}`];
    names.slice(1).forEach((name, n) => add(transitions, `${names[n]} ${name}`, share));
    const known = routes.get(`${keys.join(' ')} > ${ending}`);
    if (known === undefined)
      routes.set(`${keys.join(' ')} > ${ending}`, { route: { items: keys, ending }, share });
    else known.share += share;
  };
  try {
    allRoutes(plan, 4000, each);
  } catch (error) {
    if (error instanceof TooMany) return false;
    throw error;
  }
  // Where some are stuck before an ending, shares are of those who are not: nothing to compare with.
  if (Math.abs(all - 1) > 1e-9) return false;
  const shares = sharesOf(plan);
  assert.ok(shares !== null, `seed ${seed}`);
  const near = (found: number, expected: number, what: string) =>
    assert.ok(Math.abs(found - expected) < 1e-9, `seed ${seed}, ${what}: ${found}, expected ${expected}`);
  for (const [name, { share }] of shares.items) near(share, items.get(name) ?? 0, name);
  for (const { id, share } of shares.endings) near(share, endings.get(id) ?? 0, `> ${id}`);
  for (const [words, { route, share }] of routes) near(shares.ofRoute(route), share, words);
  const found = new Map<string, number>();
  for (const { from, to, share } of shares.transitions())
    add(found, `${from} ${'item' in to ? to.item : `> ${to.ending}`}`, share ?? -1);
  for (const key of new Set([...found.keys(), ...transitions.keys()]))
    near(found.get(key) ?? 0, transitions.get(key) ?? 0, `from ${key}`);
  const byShare = [...routes.values()].map(({ share }) => share).sort((a, b) => b - a);
  const { routes: likeliest, othersAtMost } = shares.likeliest(5);
  likeliest.forEach(({ items: shown, ending, share }, n) => {
    const words = `${shown.join(' ')} > ${ending}`;
    near(routes.get(words)?.share ?? 0, share, `likely route ${words}`);
    near(share, byShare[n] ?? 0, `${n} likelier routes`);
  });
  near(othersAtMost, byShare[likeliest.length] ?? 0, 'all others');
  return true;
}

describe('expected shares and brute force agree', () => {
  it(`on ${SEEDS.words}, and as many of many sections`, () => {
    let compared = 0;
    for (const seed of SEEDS.all) {
      for (const make of [randomDocument, randomChain]) {
        if (agrees(withAssumptions(make(seed), seed), seed)) compared += 1;
      }
    }
    assert.ok(compared > SEEDS.count * 0.8, `only ${compared} could be compared`);
  });

  it(`on ${MANY.words} about one of many options`, () => {
    const compared = MANY.all.filter((seed) =>
      agrees(withAssumptions(randomManyOptions(seed), seed), seed),
    ).length;
    assert.ok(compared > MANY.count * 0.6, `only ${compared} could be compared`);
  });
});
