/** Shares that were seen among real or made-up respondents, as assumed answers of a questionnaire. */
import { passKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Assume, Question, Questionnaire, Value } from '../document/types';
import type { Change } from '../editing/change';
import { gridRowAnswer, isBlank } from '../routing/answers';
import type { Plan } from '../routing/plan';
import { walkOfCase } from './case-data';
import type { KeptCase } from './kept-case';

export interface SeenShares {
  /** How often the question was asked (each pass by itself), or the value was known. */
  readonly base: number;
  readonly assume: Assume;
}

/** Values on a line are listed one by one up to as many; more of them are put into ranges that hold about as many each. */
const MOST_LISTED = 12;
const RANGES = 10;

interface Seen {
  readonly answer: Answer;
  readonly values: Value[];
  blanks: number;
  base: number;
}

/** By the name of the question or of what is known beforehand; what nobody was asked is left out. */
export function seenShares(plan: Plan, cases: readonly KeptCase[]): ReadonlyMap<string, SeenShares> {
  const seen = new Map<string, Seen>();
  const note = (name: string, answer: Answer, values: readonly (Value | null)[]) => {
    const of = seen.get(name) ?? { answer, values: [], blanks: 0, base: 0 };
    seen.set(name, of);
    of.base += 1;
    for (const value of values)
      if (value === null || isBlank(value)) of.blanks += 1;
      else of.values.push(value);
  };
  for (const kept of cases) {
    for (const { name, answer, random } of plan.document.given ?? [])
      // What chance allots is settled by the questionnaire.
      if (!random && kept.given[name] !== undefined) note(name, answer, [kept.given[name] ?? null]);
    for (const { planItem, parts, pass } of answeredSteps(plan, kept)) {
      const { item } = planItem;
      if (item.kind === 'statement') continue;
      const values = parts.map(({ name }) => kept.answers[passKey(name, pass)] ?? null);
      // The rows of a grid are answered alike.
      const [first] = parts;
      if (first !== undefined) note(item.name, first.answer, values);
    }
  }
  return new Map([...seen].map(([name, of]) => [name, sharesOf(of)]));
}

/** Of whoever is not done, the page in hand is not answered. */
function answeredSteps(plan: Plan, kept: KeptCase) {
  const steps = walkOfCase(plan, kept)?.steps ?? [];
  const isDone = kept.closed !== null && kept.closed.by === 'ending';
  const inHand = steps.at(-1)?.planItem;
  return isDone || inHand === undefined
    ? steps
    : steps.filter(({ planItem }) => planItem.section !== inHand.section || planItem.page !== inHand.page);
}

function sharesOf({ answer, values, blanks, base }: Seen): SeenShares {
  const blank = blanks === 0 ? {} : { blank: blanks / (values.length + blanks) };
  return { base, assume: values.length === 0 ? blank : { ...valueShares(answer, values), ...blank } };
}

function valueShares(answer: Answer, values: readonly Value[]): Assume {
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
      return {
        shares: listed(options, (value, code) => typeof value === 'object' && value.includes(code as number)),
      };
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

function onLine(
  values: readonly Value[],
  options: readonly number[],
  listed: (
    codes: readonly (number | string)[],
    holds: (value: Value, code: number | string) => boolean,
  ) => Record<string, number>,
): Assume {
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
  return [
    ...(document.given ?? []).filter(({ name, random, answer }) => !random && fits(name, answer)),
    ...document.sections.flatMap(({ items }) =>
      items.filter((item): item is Question => item.kind === 'question' && fits(item.name, item.answer)),
    ),
  ].map(({ name }) => name);
}

/** Every code that has a share is still there, and it is still answered in the same way. */
function hasCodes(answer: Answer, { shares = {}, ranges }: Assume): boolean {
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

/** One step of the history: what was assumed before comes back with it. */
export function takeShares(
  document: Questionnaire,
  seen: ReadonlyMap<string, SeenShares>,
  least: number,
  of: string,
): Change {
  const takers = new Set(shareTakers(document, seen, least));
  return {
    label: `Assume the shares of ${of}`,
    apply(draft) {
      const questions = draft.sections.flatMap(({ items }) =>
        items.filter((item) => item.kind === 'question'),
      );
      for (const entry of [...(draft.given ?? []), ...questions]) {
        const found = takers.has(entry.name) ? seen.get(entry.name) : undefined;
        if (found !== undefined) entry.assume = structuredClone(found.assume) as typeof entry.assume;
      }
    },
  };
}
