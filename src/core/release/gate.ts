/**
 * What stands in the way of freezing a questionnaire for fielding: snags nobody has answered for, routes nobody has passed,
 * and test respondents for whom something is different.
 */
import type { Analysis } from '../analysis';
import type { Plan } from '../routing/plan';
import { contentMarks } from '../routing/route-content';
import {
  allSnagsOf,
  handOffSnags,
  respondentSnags,
  snagKey,
  type OtherStudy,
  type Snag,
  type TestRespondent,
} from '../snags';

/** What is looked at, in the order in which it is told: the words of one, and of several. */
export const GATE = {
  errors: { one: 'error', many: 'errors' },
  warnings: { one: 'warning not answered for', many: 'warnings not answered for' },
  routes: { one: 'route not passed', many: 'routes not passed' },
  labels: { one: 'variable or code without a label', many: 'variables and codes without a label' },
  codes: { one: 'missing code that collides', many: 'missing codes that collide' },
  respondents: { one: 'test respondent gone astray', many: 'test respondents gone astray' },
} as const satisfies Readonly<Record<string, { readonly one: string; readonly many: string }>>;

export type GateCheck = keyof typeof GATE;
export const GATE_CHECKS = Object.keys(GATE) as readonly GateCheck[];

/** Which routes are to be passed: those that take every fork, or every one. */
export const ROUTES_WANTED = ['cover', 'all'] as const;
export type RoutesWanted = (typeof ROUTES_WANTED)[number];

export interface GateLine {
  readonly check: GateCheck;
  /** How many of them; the gate is met where every line has none. */
  readonly count: bigint;
  /** Those that are snags. */
  readonly snags: readonly Snag[];
  /** Of the covering routes, the numbers of those not passed. */
  readonly routes: readonly bigint[];
  /** False where there may be more than could be found. */
  readonly complete: boolean;
}

export interface GateInput {
  /** All there are, those set aside among them. */
  readonly snags: readonly Snag[];
  /** Keys of the snags set aside with a reason. */
  readonly asides: ReadonlySet<string>;
  /** Numbers of routes that take every fork. */
  readonly cover: readonly bigint[];
  /** Whether they do: where the forks are too many, some may be on none of them. */
  readonly covered: boolean;
  /** Of all routes, and whether that is all there are. */
  readonly total: bigint;
  readonly exact: boolean;
  /** Numbers of the routes that were passed and show the same still. */
  readonly passed: ReadonlySet<bigint>;
  readonly wanted: RoutesWanted;
}

/** Snags by what they are about, each once; an error is in the way though somebody set it aside. */
export function gateOf(input: GateInput): GateLine[] {
  const { snags, asides, cover, covered, total, exact, passed, wanted } = input;
  const byCheck = new Map<GateCheck, Snag[]>();
  for (const snag of snags) {
    const check = checkOf(snag);
    if (check === null || (snag.severity !== 'error' && asides.has(snagKey(snag)))) continue;
    byCheck.set(check, [...(byCheck.get(check) ?? []), snag]);
  }
  const routes = cover.filter((number) => !passed.has(number));
  return GATE_CHECKS.map((check) => {
    if (check !== 'routes') {
      const found = byCheck.get(check) ?? [];
      return { check, count: BigInt(found.length), snags: found, routes: [], complete: true };
    }
    const complete = wanted === 'all' ? exact : covered;
    const left = wanted === 'all' ? total - BigInt(passed.size) : BigInt(routes.length);
    // What could not be looked for is not there to be passed, and must not look as if it were.
    return { check, count: left === 0n && !complete ? 1n : left, snags: [], routes, complete };
  });
}

/** Whether nothing stands in the way. */
export function isMet(lines: readonly { readonly count: bigint }[]): boolean {
  return lines.every(({ count }) => count === 0n);
}

/** “3 routes not passed”; of what may be more, “at least”. */
export function gateLineWords({ check, count, complete }: Omit<GateLine, 'snags' | 'routes'>): string {
  const { one, many } = GATE[check];
  return `${complete ? '' : 'at least '}${count} ${count === 1n ? one : many}`;
}

/** What was done on a questionnaire, as far as freezing it hangs on that. */
export interface WorkJudged {
  /** The marks of each route that was passed; see `contentMarks`. */
  readonly passed: readonly (readonly string[])[];
  /** Keys of the snags set aside. */
  readonly asides: readonly string[];
  readonly respondents: readonly TestRespondent[];
  /** The studies that one can hand on to. */
  readonly others: readonly OtherStudy[];
}

/** The whole of it, worked out of the questionnaire and what was done on it. */
export function judgeGate(
  plan: Plan,
  analysis: Analysis,
  work: WorkJudged,
  wanted: RoutesWanted,
): GateLine[] {
  const marks = contentMarks(plan);
  const { cover } = analysis;
  return gateOf({
    snags: [
      ...allSnagsOf(plan, analysis),
      ...respondentSnags(plan, work.respondents),
      ...handOffSnags(plan, work.others),
    ],
    asides: new Set(work.asides),
    cover: cover.routes.map(({ number }) => number),
    covered: cover.complete,
    total: analysis.routes,
    exact: analysis.exact,
    passed: new Set(work.passed.flatMap((shown) => analysis.numberShowing(shown, marks) ?? [])),
    wanted,
  });
}

function checkOf({ rule, severity }: Snag): GateCheck | null {
  if (rule === 'respondent-changed') return 'respondents';
  if (rule === 'unlabelled') return 'labels';
  if (rule === 'code-collides') return 'codes';
  if (severity === 'error') return 'errors';
  return severity === 'warning' ? 'warnings' : null;
}
