/**
 * Every respondent of a small questionnaire with how likely they are: the chances are worked out anew here, from what the
 * format says of `assume`.
 */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { holds } from '../../src/core/condition/evaluate';
import { passKey } from '../../src/core/document/addresses';
import { optionsOf } from '../../src/core/document/shape';
import type {
  Answer,
  Assume,
  AssumedShares,
  Item,
  Question,
  Questionnaire,
  Value,
} from '../../src/core/document/types';
import { isBlank, refusal, type ShownParts } from '../../src/core/routing/answers';
import type { Plan } from '../../src/core/routing/plan';
import { walk, type Walk, type WalkInput, type WalkStep } from '../../src/core/routing/walk';
import { allRoutes, everyAnswer, everyDraw, TooMany } from './brute-force';
import { randomChain, randomDocument } from './documents';
import { randomManyOptions } from './many-options';
import type { Seeds } from './seeds';

/** As many walks as are tried. */
const MOST = 4000;

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
  const given = (document.given ?? []).map(({ name }) => name);
  const known = [...given];
  const assumed = (item: Item, tests: readonly string[]): Item => {
    const found = item.kind === 'question' ? assume(item.answer) : undefined;
    if (item.kind !== 'question' || found === undefined) return item;
    const on = tests[uniformInt(random, 0, Math.max(0, 2 * tests.length))];
    if (on === undefined) return { ...item, assume: found };
    const others = [`${on} = 1`, `${on} answered`].slice(0, uniformInt(random, 1, 2));
    return {
      ...item,
      assume: { ...found, where: others.map((test) => ({ if: test, ...(assume(item.answer) ?? {}) })) },
    };
  };
  return {
    ...document,
    sections: document.sections.map((section) => {
      const own = [...known];
      const items = section.items.map((item) => {
        const now = assumed(item, own);
        if (item.kind === 'question' && item.answer.type !== 'grid' && !section.shuffle) own.push(item.name);
        return now;
      });
      if (section.repeat === undefined) known.splice(0, known.length, ...own);
      return { ...section, items };
    }),
  };
}

/** How likely a value is, in no particular unit, of those that are no blank. */
function weightOf(answer: Answer, assume: AssumedShares, value: Value, shown: ShownParts): number {
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
function chanceOf(
  item: Question,
  assume: AssumedShares,
  answer: Answer,
  value: Value | null,
  shown: ShownParts,
): number {
  const allowed = everyAnswer(answer).filter((v) => v !== null && refusal(item, answer, v, shown) === null);
  const blank = item.required ? 0 : allowed.length === 0 ? 1 : (assume.blank ?? 0);
  if (value === null || isBlank(value)) return blank;
  for (const as of [assume, {}]) {
    const total = allowed.reduce<number>((sum, v) => sum + weightOf(answer, as, v as Value, shown), 0);
    if (total > 0) return ((1 - blank) * weightOf(answer, as, value, shown)) / total;
  }
  return (1 - blank) / allowed.length;
}

/** The chance of what was answered at a step, among all answers that get past its checks. */
function chanceAt(plan: Plan, done: Walk, step: WalkStep, input: WalkInput): number {
  const { item, assumedIf, section } = step.planItem;
  if (item.kind === 'statement') return 1;
  const where = assumedIf.findIndex((condition) => holds(condition, done.environment(section, step.pass)));
  const assume = item.assume?.where?.[where] ?? item.assume ?? {};
  const keys = step.parts.map(({ name }) => passKey(name, step.pass));
  const together = (values: readonly (Value | null)[]) =>
    step.parts.reduce(
      (product, { answer }, n) => product * chanceOf(item, assume, answer, values[n] ?? null, step.shown),
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

/** Tells every respondent with quotas open; false where there are too many, or some are stuck before an ending. */
export function everyRespondent(
  plan: Plan,
  each: (walk: Walk, input: WalkInput, share: number) => void,
): boolean {
  const draws = everyDraw(plan).length;
  let all = 0;
  const weigh = (done: Walk, input: WalkInput) => {
    if ((input.full ?? []).length > 0) return;
    const given = (plan.document.given ?? []).reduce((product, { name, answer, assume = {} }) => {
      const any = { options: optionsOf(answer).map(() => true), rows: [] };
      const asked: Question = { kind: 'question', name, text: '', answer, required: true };
      return product * chanceOf(asked, assume, answer, input.given?.[name] ?? null, any);
    }, 1);
    const share = done.steps.reduce(
      (product, step) => (product === 0 ? 0 : product * chanceAt(plan, done, step, input)),
      given / draws,
    );
    if (share === 0) return;
    all += share;
    each(done, input, share);
  };
  try {
    allRoutes(plan, MOST, weigh);
  } catch (error) {
    if (error instanceof TooMany) return false;
    throw error;
  }
  // Where some are stuck before an ending, shares are of those who are not: nothing to compare with.
  return Math.abs(all - 1) < 1e-9;
}

/**
 * Has every one of many random questionnaires compared with brute force. `agrees`: false where there are too many
 * respondents to go through; throws where something differs. Enough of them must be compared.
 */
export function agreesOnMany(
  agrees: (document: Questionnaire, seed: number) => boolean,
  { usual, ofMany }: { readonly usual: Seeds; readonly ofMany: Seeds },
): void {
  it(`on ${usual.words}, and as many of many sections`, () => {
    let compared = 0;
    for (const seed of usual.all) {
      for (const make of [randomDocument, randomChain]) {
        if (agrees(withAssumptions(make(seed), seed), seed)) compared += 1;
      }
    }
    assert.ok(compared > usual.count * 0.8, `only ${compared} could be compared`);
  });

  it(`on ${ofMany.words} about one of many options`, () => {
    const compared = ofMany.all.filter((seed) =>
      agrees(withAssumptions(randomManyOptions(seed), seed), seed),
    ).length;
    assert.ok(compared > ofMany.count * 0.6, `only ${compared} could be compared`);
  });
}
