/**
 * How likely the readings of a driver are, by the assumed answers: each stands for all values that no test tells from
 * it, so it has the chances of all of them.
 */
import type { Answer, Assume, Option, Value } from '../../document/types';
import {
  codeWeights,
  lineWeights,
  pickChances,
  pickTables,
  type LineAnswer,
  type LineWeights,
} from '../../routing/assumed';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { optionsApart, plausibleTexts } from '../answers/candidates';

/** A place of a rank left open is next to impossible, unless too few options are shown to fill it. */
const OPEN_PLACE = 1e-30;

/**
 * Weights parallel to `values`, in no particular unit; 0 for a blank, of which the assumption speaks apart. Nothing
 * is minded here of what is allowed.
 */
export function chancesOf(
  { driver, values }: AnswerSymbol,
  answer: Answer,
  assume: Assume,
): readonly number[] {
  switch (answer.type) {
    case 'single': {
      const weights = codeWeights(answer.options, assume);
      return values.map((value) => weights[answer.options.findIndex(({ code }) => code === value)] ?? 0);
    }
    case 'multiple': {
      const { alone, told, others } = optionsApart(driver, answer.options);
      const all = pickChances(answer.options, assume);
      const chance = (option: Option) => all[answer.options.indexOf(option)] ?? 0;
      const othersPicked = pickTables(others.map(chance))[0] ?? [1];
      return picksWeighed(
        values,
        (codes) =>
          [...told, ...alone].reduce(
            (product, option) =>
              product * (codes.includes(option.code) ? chance(option) : 1 - chance(option)),
            1,
          ) * (othersPicked[others.filter(({ code }) => codes.includes(code)).length] ?? 0),
      );
    }
    case 'rank': {
      const { alone, others } = optionsApart(driver, answer.options);
      const places = answer.top ?? answer.options.length;
      return picksWeighed(values, (codes) => {
        if (alone.some(({ code }) => codes.includes(code))) return 0;
        const more = others.filter(({ code }) => codes.includes(code)).length;
        return choose(others.length, more) * OPEN_PLACE ** Math.max(0, places - codes.length);
      });
    }
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return onLine(values, answer, lineWeights(answer, assume));
    case 'text': {
      const [written] = plausibleTexts(answer);
      const index = Math.max(0, values.indexOf(written ?? null));
      return values.map((_, n) => (n === index ? 1 : 0));
    }
    case 'grid':
      return values.map(() => 0);
    default:
      return answer satisfies never;
  }
}

function picksWeighed(
  values: readonly (Value | null)[],
  weigh: (codes: readonly number[]) => number,
): number[] {
  return values.map((value) => (Array.isArray(value) ? weigh(value as readonly number[]) : 0));
}

/** How many ways there are to choose so many out of so many. */
export function choose(from: number, count: number): number {
  let ways = 1;
  for (let n = 1; n <= count; n += 1) ways = (ways * (from - count + n)) / n;
  return ways;
}

/** A value stands for all up to the next one that is tried: what conditions name is tried with its neighbours. */
function onLine(
  values: readonly (Value | null)[],
  answer: LineAnswer,
  { line, spans, specials }: LineWeights,
): number[] {
  const codes = ('specials' in answer ? answer.specials : undefined)?.map(({ code }) => code) ?? [];
  const isSpecial = (value: Value) => typeof value === 'number' && codes.includes(value);
  const steps = values.map((value) =>
    value === null || isSpecial(value) ? null : line.stepOf(value as number | string),
  );
  const sorted = steps.filter((step) => step !== null).sort((a, b) => a - b);
  return values.map((value, n) => {
    if (value === null) return 0;
    const step = steps[n] ?? null;
    if (step === null) return specials[codes.indexOf(value as number)] ?? 0;
    const index = sorted.indexOf(step);
    const from = index === 0 ? -Infinity : Math.ceil(step - 1e-9);
    const next = sorted[index + 1];
    const to = next === undefined ? Infinity : Math.ceil(next - 1e-9) - 1;
    return spans.reduce((sum, span) => {
      const shared = Math.min(to, span.to) - Math.max(from, span.from) + 1;
      return shared <= 0 ? sum : sum + (span.share * shared) / (span.to - span.from + 1);
    }, 0);
  });
}
