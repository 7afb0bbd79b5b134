/** Answers that were given, as shares that can be assumed: what they say of a question, and what they can be taken for. */
import { hasRows } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type {
  Answer,
  Assume,
  AssumedShares,
  MultipleAnswer,
  Questionnaire,
  Value,
} from '../../document/types';
import type { Change } from '../../editing/change';
import { gridRowAnswer } from '../../routing/answers';
import { pickChances } from '../../routing/assumed';
import { areMet, chancesForShares } from '../../routing/pick-shares';
import { assumeAll, assumedAtQuestions } from '../sets';
import type { Assumptions } from '../../analysis';

export interface SeenShares {
  /** How often the question was asked (each pass by itself), or the value was known. */
  readonly base: number;
  readonly assume: Assume;
}

/** Values on a line are listed one by one up to as many; more of them are put into ranges that hold about as many each. */
const MOST_LISTED = 12;
const RANGES = 10;

/** Of so many who gave a value, and so many who left it blank. */
export function sharesAmong(answer: Answer, values: readonly Value[], blanks: number): AssumedShares {
  const blank = blanks === 0 ? {} : { blank: blanks / (values.length + blanks) };
  return values.length === 0 ? blank : { ...valueShares(answer, values), ...blank };
}

function valueShares(answer: Answer, values: readonly Value[]): AssumedShares {
  const options = optionsOf(answer).map(({ code }) => code);
  const shareOf = (holds: (value: Value) => boolean) => values.filter(holds).length / values.length;
  const listed = (
    codes: readonly (number | string)[],
    holds: (value: Value, code: number | string) => boolean,
  ) => Object.fromEntries(codes.map((code) => [String(code), shareOf((value) => holds(value, code))]));
  switch (answer.type) {
    case 'single':
      return { shares: listed(options, (value, code) => value === code) };
    case 'multiple':
      return chancesOf(
        answer,
        listed(options, (value, code) => typeof value === 'object' && value.includes(code as number)),
      ).assume;
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return onLine(values, options, listed);
    case 'text':
    case 'rank':
    case 'grid':
      return {};
    default:
      return answer satisfies never;
  }
}

/** Shares of picks that were seen, by code, as what is assumed: the chances of which they come; and whether they can be together. */
export function chancesOf(
  answer: MultipleAnswer,
  seen: Readonly<Record<string, number>>,
): { readonly assume: AssumedShares; readonly canBe: boolean } {
  const shares = new Map(
    [...answer.options.entries()].flatMap(([n, { code }]) => {
      const share = seen[String(code)];
      return share === undefined ? [] : [[n, share] as const];
    }),
  );
  const chances = chancesForShares(answer, pickChances(answer.options, {}), shares);
  const assume = {
    shares: Object.fromEntries(
      answer.options.flatMap(({ code }, n) => (shares.has(n) ? [[code, chances[n] ?? 0]] : [])),
    ),
  };
  return { assume, canBe: areMet(answer, assume, shares, A_POINT) };
}

/** What is at the edge of what can be, as picks of just one, is met no more closely than so. */
const A_POINT = 0.01;

function onLine(
  values: readonly Value[],
  options: readonly number[],
  listed: (
    codes: readonly (number | string)[],
    holds: (value: Value, code: number | string) => boolean,
  ) => Record<string, number>,
): AssumedShares {
  const isSpecial = (value: Value) => (options as readonly Value[]).includes(value);
  const plain = values.filter(
    (value): value is number | string => !isSpecial(value) && typeof value !== 'object',
  );
  const sorted = plain.toSorted((a, b) => (a < b ? -1 : a > b ? 1 : 0));
  const distinct = [...new Set(sorted)];
  const equal = (value: Value, code: number | string) => value === code;
  if (distinct.length <= MOST_LISTED) return { shares: listed([...distinct, ...options], equal) };
  const specials = options.length === 0 ? {} : { shares: listed(options, equal) };
  return { ...specials, ranges: rangesOf(sorted, values.length) };
}

/** Ranges that no value falls between, each of about as many. */
function rangesOf(sorted: readonly (number | string)[], of: number): NonNullable<Assume['ranges']> {
  const ranges: { from: number | string; to: number | string; share: number }[] = [];
  let from = 0;
  for (let n = 1; n <= RANGES && from < sorted.length; n += 1) {
    let to = Math.max(from + 1, Math.round((n * sorted.length) / RANGES));
    while (to < sorted.length && sorted[to] === sorted[to - 1]) to += 1;
    ranges.push({
      from: sorted[from] as number | string,
      to: sorted[to - 1] as number | string,
      share: (to - from) / of,
    });
    from = to;
  }
  return ranges;
}

/** As they come over the network. */
export function seenMap(shares: Readonly<Record<string, object>>): ReadonlyMap<string, SeenShares> {
  return new Map(Object.entries(shares) as [string, SeenShares][]);
}

/** What the shares can be taken for: questions that are still asked in the same way, in the order of the questionnaire. */
export function shareTakers(
  document: Questionnaire,
  seen: ReadonlyMap<string, SeenShares>,
  least: number,
): readonly string[] {
  const fits = (name: string, answer: Answer) => {
    const of = seen.get(name);
    return (
      of !== undefined && of.base >= least && Object.keys(of.assume).length > 0 && hasCodes(answer, of.assume)
    );
  };
  return [...assumedAtQuestions(document)].flatMap(([name, { answer }]) =>
    fits(name, answer) ? [name] : [],
  );
}

/** Every code that has a share is still there, and it is still answered in the same way. */
function hasCodes(answer: Answer, { shares = {}, ranges }: AssumedShares): boolean {
  const asked = hasRows(answer) ? gridRowAnswer(answer) : answer;
  switch (asked.type) {
    case 'single':
    case 'multiple': {
      const codes = new Set(optionsOf(asked).map(({ code }) => String(code)));
      return ranges === undefined && Object.keys(shares).every((code) => codes.has(code));
    }
    case 'scale':
    case 'number':
    case 'date':
    case 'time':
    case 'datetime':
      return true;
    case 'text':
    case 'rank':
    case 'grid':
      return ranges === undefined && Object.keys(shares).length === 0;
    default:
      return asked satisfies never;
  }
}

/** What is assumed from then on, with where it is known from. */
function sharesTaken(
  seen: ReadonlyMap<string, SeenShares>,
  names: readonly string[],
  of: string,
): Assumptions {
  return new Map(
    names.flatMap((name): [string, Assume][] => {
      const found = seen.get(name);
      return found === undefined
        ? []
        : [[name, { ...found.assume, source: of, ...(found.base > 0 ? { base: found.base } : {}) }]];
    }),
  );
}

/** One step of the history: what was assumed before comes back with it. `set`: null for what stands at the questions. */
export function takeShares(
  seen: ReadonlyMap<string, SeenShares>,
  names: readonly string[],
  of: string,
  set: string | null = null,
): Change {
  return assumeAll(set, sharesTaken(seen, names, of), `Assume the shares of ${of}`);
}
