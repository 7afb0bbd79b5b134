/** Two routes beside each other: what each presents that the other does not, and the answer that parts them. */
import { driversOf } from '../analysis';
import { nameInKey, passKey, readPassKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import type { Answers } from '../document/types';
import type { Plan } from '../routing/plan';
import { walk } from '../routing/walk';
import { valueWords } from '../wording/values';
import { whyLines } from '../wording/why';

export interface ComparedRoute {
  readonly items: readonly string[];
  readonly ending: string;
  readonly answers: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly given?: Answers;
  readonly full?: readonly string[];
}

export interface RouteComparison {
  /** Presented on one only, in order: `name`, or `name#pass`. */
  readonly onlyFirst: readonly string[];
  readonly onlySecond: readonly string[];
  readonly endings: readonly [string, string];
  /** Steering answers given on both before they part, that differ; the last asked first. */
  readonly parting: readonly PartingAnswer[];
  /** What comes next where they part, with why on the one and why not on the other; null where they are the same. */
  readonly fork: {
    readonly item: string;
    /** On which of them it is presented. */
    readonly on: 'first' | 'second';
    readonly because: string;
    readonly otherwise: string;
  } | null;
}

export interface PartingAnswer {
  /** `name`, or `name#pass`; `given NAME` for what came with the respondent. */
  readonly key: string;
  readonly label: string;
  readonly first: string;
  readonly second: string;
}

/** The second seen from the first; what both present is not told. */
export function compareRoutes(plan: Plan, first: ComparedRoute, second: ComparedRoute): RouteComparison {
  const [inFirst, inSecond] = [new Set(first.items), new Set(second.items)];
  const onlyFirst = first.items.filter((key) => !inSecond.has(key));
  const onlySecond = second.items.filter((key) => !inFirst.has(key));
  const at = first.items.findIndex((key, n) => key !== second.items[n]);
  const common = at < 0 ? first.items : first.items.slice(0, at);
  const next = at < 0 ? second.items[common.length] : first.items[at];
  const on = next !== undefined && inFirst.has(next) && !inSecond.has(next) ? 'first' : 'second';
  const item = on === 'first' ? next : (onlySecond[0] ?? next);
  return {
    onlyFirst,
    onlySecond,
    endings: [first.ending, second.ending],
    parting: partingAnswers(plan, common, first, second),
    fork:
      item === undefined
        ? null
        : {
            item,
            on,
            because: whyOf(plan, on === 'first' ? first : second, item),
            otherwise: whyOf(plan, on === 'first' ? second : first, item),
          },
  };
}

function partingAnswers(
  plan: Plan,
  common: readonly string[],
  first: ComparedRoute,
  second: ComparedRoute,
): PartingAnswer[] {
  const steering = driversOf(plan).byKey;
  const found: PartingAnswer[] = [];
  for (const entry of plan.document.given ?? []) {
    const [a, b] = [first, second].map(({ given }) => valueWords(entry.answer, given?.[entry.name]));
    if (steering.has(entry.name.toLowerCase()) && a !== b)
      found.push({ key: `given ${entry.name}`, label: entry.label, first: a ?? '', second: b ?? '' });
  }
  for (const key of common) {
    const { name, pass } = readPassKey(key);
    const variable = plan.variables.get(name.toLowerCase());
    if (variable?.of !== 'question') continue;
    const { answer, label } = variable.question;
    const rows = hasRows(answer) ? answer.rows : [{ name, label: label ?? name }];
    for (const row of rows) {
      if (!steering.has(row.name.toLowerCase())) continue;
      const own = passKey(row.name, pass);
      const [a, b] = [first, second].map(({ answers }) => valueWords(answer, answers[own]));
      if (a !== b) found.push({ key: own, label: row.label, first: a ?? '', second: b ?? '' });
    }
  }
  return found.reverse();
}

/** Why an item is presented to the respondent of a route, or not. */
function whyOf(plan: Plan, { answers, draws, given, full }: ComparedRoute, key: string): string {
  const walked = walk(plan, {
    answers,
    ...(draws ? { draws } : {}),
    ...(given ? { given } : {}),
    ...(full ? { full } : {}),
  });
  if (!walked.ok) return '';
  const lines = whyLines(plan, walked.walk);
  const line =
    lines.find(({ name }) => name === key) ?? lines.find(({ name }) => nameInKey(name) === nameInKey(key));
  return line?.because ?? 'this pass is not run';
}
