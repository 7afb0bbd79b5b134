/**
 * The test pack, for whoever programs a questionnaire elsewhere: few routes that take every fork, each as somebody who
 * answers step by step, with what is to come next.
 */
import type { Analysis, ForkEvent } from '../analysis';
import { passKey } from '../document/addresses';
import { rowsOf } from '../document/answer-types';
import type { Answers, Value } from '../document/types';
import type { Walked } from '../document/walked';
import type { Plan } from '../routing/plan';
import { walk, type WalkStep } from '../routing/walk';
import { endingLabel } from '../wording/targets';
import { shownText, valueWords } from '../wording/values';
import { answerWritten, DRAWN, ENDING, FULL, GIVEN } from './steps';

export interface PackStep {
  /** From 1; 0 for what holds before the first item. */
  readonly step: number;
  /** As it is written in the column `item`: `name`, `name#pass`, a row of a grid, `given NAME`, `ending`. */
  readonly item: string;
  /** What is on the page, earlier answers piped in; of a row its own words. */
  readonly shows: string;
  /** As it is written, and in words. */
  readonly answer: string;
  readonly words: string;
  /** What is to come next, as it is written; empty behind the ending. */
  readonly next: string;
}

export interface PackRespondent {
  readonly name: string;
  /** Number of the route they take. */
  readonly route: bigint;
  readonly walked: Walked;
  readonly steps: readonly PackStep[];
  readonly ending: string;
  /** Outcomes of forks that nobody else in the pack takes. */
  readonly alone: readonly ForkEvent[];
}

export interface TestPack {
  readonly respondents: readonly PackRespondent[];
  /** False where the forks are too many to be sure that these take all of them. */
  readonly complete: boolean;
}

/** In the order of the routes. */
export function testPack(plan: Plan, analysis: Analysis): TestPack {
  const { routes, complete } = analysis.cover;
  const respondents = routes.flatMap(({ number, alone, ending, ...route }, n): PackRespondent[] => {
    const { answers, draws, given, full } = route;
    const walked: Walked = {
      answers,
      ...(draws && {
        draws: Object.fromEntries(Object.entries(draws).map(([key, names]) => [key, [...names]])),
      }),
      ...(given && { given }),
      ...(full && { full: [...full] }),
    };
    const steps = stepsOf(plan, walked, ending);
    return steps === null ? [] : [{ name: `R${n + 1}`, route: number, walked, steps, ending, alone }];
  });
  return { respondents, complete };
}

type Unlinked = Omit<PackStep, 'next'>;

function stepsOf(plan: Plan, walked: Walked, ending: string): PackStep[] | null {
  const result = walk(plan, walked);
  if (!result.ok) return null;
  const shown = (step: WalkStep, text: string) =>
    shownText(plan, result.walk, text, step.planItem.section, step.pass);
  const presented = result.walk.steps.flatMap((step) => presentedAs(step, walked.answers, shown));
  const steps = numbered([
    ...before(plan, walked),
    ...presented,
    { step: -1, item: ENDING, shows: endingLabel(plan.document, ending), answer: ending, words: '' },
  ]);
  return steps.map((step, n) => ({ ...step, next: steps[n + 1]?.item ?? '' }));
}

/** What is known, drawn and full before the first item. */
function before(plan: Plan, { given = {}, draws = {}, full = [] }: Walked): Unlinked[] {
  const known = (plan.document.given ?? []).map(({ name, label, answer }) => ({
    step: 0,
    item: `${GIVEN}${name}`,
    shows: label,
    answer: answerWritten(given[name]),
    words: valueWords(answer, given[name]),
  }));
  const drawn = Object.entries(draws).map(([key, names]) => ({
    step: 0,
    item: `${DRAWN}${key}`,
    shows: 'these are drawn',
    answer: names.join(';'),
    words: '',
  }));
  const quotas =
    full.length === 0
      ? []
      : [{ step: 0, item: FULL, shows: 'these are full', answer: full.join(';'), words: '' }];
  return [...known, ...drawn, ...quotas];
}

/** A line for most, one for each shown row of a grid. */
function presentedAs(
  step: WalkStep,
  answers: Answers,
  shown: (step: WalkStep, text: string) => string,
): Unlinked[] {
  const { planItem, pass, key, parts } = step;
  const { item } = planItem;
  const line = (of: string, shows: string, value: Value | null | undefined, words: string): Unlinked => ({
    step: -1,
    item: of,
    shows,
    answer: answerWritten(value),
    words,
  });
  if (parts.length === 0) return [line(key, shown(step, item.text), null, '')];
  const rows = item.kind === 'question' ? rowsOf(item.answer) : [];
  return parts.map(({ name, answer }) => {
    const own = passKey(name, pass);
    const row = rows.find((each) => each.name === name);
    const text = row === undefined ? item.text : `${item.text} ${row.label}`;
    return line(own, shown(step, text), answers[own], valueWords(answer, answers[own]));
  });
}

/** From 1, what stands before the first item aside. */
function numbered(steps: readonly Unlinked[]): Unlinked[] {
  let last = 0;
  return steps.map((step) => (step.step === 0 ? step : { ...step, step: (last += 1) }));
}
