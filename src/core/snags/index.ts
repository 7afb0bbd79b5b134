/**
 * All checks of a questionnaire, in document order.
 *
 * `snagsOf` reads the document: names, targets, conditions, codes, labels. `routedSnagsOf` asks the analysis: who
 * gets where. Both together are all there is to find.
 */
import {
  DEFAULT_CAPS,
  flowOf,
  TooMuch,
  withinMemory,
  type Analysis,
  type AnalysisCache,
  type Caps,
} from '../analysis';
import { address, type Address } from '../document/addresses';
import { eachPart } from '../document/each-property';
import type { Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import { partAt, type DocumentPlace } from '../routing/problems';
import { askedTwice } from './asked-twice';
import { blankDecides } from './blank-decides';
import { CheckContext } from './check-context';
import { closingNotLast } from './closing';
import { codeCollides } from './code-collides';
import { consentNotKept, screeningLetsAll } from './consent';
import { duplicateNames } from './duplicate-names';
import { fallsThrough } from './falls-through';
import { noWayOut, unlabelled } from './labels';
import { endingUnreached, neverAsked } from './never-asked';
import { alwaysTrue, neverTrue } from './never-true';
import { notExact } from './not-exact';
export { unsaidSnags } from './not-exact';
import { outsideRange, textCompared } from './outside-range';
import { passesCut } from './passes-cut';
import { picksContradict } from './picks-contradict';
import { repeatedCodes } from './repeated-codes';
import { rulesOverlap, skipShadowed } from './skip-order';
import { messageShadowed, noMessage, stuck } from './stuck';
import { mayBeUnasked, negationIncludesUnasked } from './unasked';
import { targetMends } from './target-mends';
import { tooLong } from './too-long';
import { valuesUnclaimed } from './values-unclaimed';
import type { Snag, SnagRule } from './types';

export { handOffSnags, type OtherStudy } from './hand-off';
export { keptOf, respondentSnags, walkAgain, type TestRespondent } from './respondents';
export type { Mend, Severity, Snag, SnagRule, SnagWitness } from './types';

/** The snags that the document shows by itself. */
export function snagsOf(plan: Plan): Snag[] {
  const fromPlan: Snag[] = plan.problems.map(({ rule, at, field, message, span }) => ({
    rule,
    severity: 'error',
    at,
    field,
    message,
    ...(span === undefined ? {} : { span }),
    ...(field === 'to' ? { mends: targetMends(plan.document, at) } : {}),
  }));
  return inOrder(plan.document, [...fromPlan, ...eachByItself(READING, plan)]);
}

/** The checks that read the document alone, by the rule that each looks for first. */
const READING: Readonly<Record<string, (plan: Plan) => Snag[]>> = {
  'duplicate-name': duplicateNames,
  'code-repeated': ({ document }) => repeatedCodes(document),
  'code-collides': codeCollides,
  'outside-range': outsideRange,
  'text-compared': textCompared,
  unlabelled,
  'no-way-out': noWayOut,
  'closing-not-last': closingNotLast,
};

/** The snags that only the routes show, each with somebody who meets it where somebody does. */
export function routedSnagsOf(
  plan: Plan,
  analysis: Analysis,
  cache: AnalysisCache | null = null,
  caps: Caps = DEFAULT_CAPS,
): Snag[] {
  const flow = flowOf(plan, caps, cache);
  if ('entangledAt' in flow) return [...notExact(analysis), tooEntangled(flow.entangledAt)];
  const context = withinMemory(() => new CheckContext(plan, analysis, flow));
  if (context === null) return [...notExact(analysis), tooEntangled({})];
  const { diagrams } = flow.encoded;
  const found = eachByItself(FOLLOWING, context, () => {
    diagrams.rest();
  });
  return inOrder(plan.document, [...notExact(analysis), ...found]);
}

/** The checks that follow people through the questionnaire, by the rule that each looks for first. */
const FOLLOWING: Readonly<Partial<Record<SnagRule, (context: CheckContext) => Snag[]>>> = {
  'never-asked': neverAsked,
  'ending-unreached': endingUnreached,
  'never-true': neverTrue,
  'always-true': alwaysTrue,
  'skip-shadowed': skipShadowed,
  'rules-overlap': rulesOverlap,
  'falls-through': fallsThrough,
  'values-unclaimed': valuesUnclaimed,
  'blank-decides': blankDecides,
  'negation-includes-unasked': negationIncludesUnasked,
  'may-be-unasked': mayBeUnasked,
  'picks-contradict': picksContradict,
  'consent-not-kept': consentNotKept,
  'screening-lets-all': screeningLetsAll,
  stuck,
  'no-message': noMessage,
  'message-shadowed': messageShadowed,
  'passes-cut': passesCut,
  'asked-twice': askedTwice,
  'too-long': tooLong,
};

/** What the checks find; one that fails costs what it would have found, and says so. */
export function eachByItself<About>(
  checks: Readonly<Record<string, (about: About) => Snag[]>>,
  about: About,
  /** Called before each, so that each has its own measure of work. */
  beforeEach: () => void = () => undefined,
): Snag[] {
  return Object.entries(checks).flatMap(([rule, check]) => {
    try {
      beforeEach();
      return check(about);
    } catch (error) {
      // Too much to hold is no fault.
      return [error instanceof TooMuch ? checkStopped(rule) : checkFailed(rule, error)];
    }
  });
}

function checkStopped(rule: string): Snag {
  return {
    rule: 'not-exact',
    severity: 'warning',
    at: {},
    message: `the check for “${rule}” had to stop: the conditions are too entangled to follow everybody. What it looks for was not found or ruled out; the rest stands`,
  };
}

function checkFailed(rule: string, error: unknown): Snag {
  const why = error instanceof Error ? error.message : String(error);
  return {
    rule: 'not-exact',
    severity: 'warning',
    at: {},
    fault: error instanceof Error ? error : new Error(why),
    message: `the check for “${rule}” failed on this questionnaire by a fault of the program (${why}): what it looks for was not found or ruled out; the rest stands`,
  };
}

/** Without what only the log is to have: that is told to `log`, with each of them. */
export function withoutFaults(snags: readonly Snag[], log: (fault: Error) => void): Snag[] {
  return snags.map(({ fault, ...snag }) => {
    if (fault !== undefined) log(fault);
    return snag;
  });
}

/** `at`: from where on people cannot be followed any more. */
function tooEntangled(at: DocumentPlace): Snag {
  const from = Object.keys(at).length === 0 ? 'The' : 'From here on the';
  return {
    rule: 'not-exact',
    severity: 'warning',
    at,
    message: `${from} conditions are too entangled for the checks that follow people through the questionnaire: names, codes and conditions were checked one by one, who gets where was not`,
  };
}

/** Everything there is to find. */
export function allSnagsOf(plan: Plan, analysis: Analysis, caps: Caps = DEFAULT_CAPS): Snag[] {
  return inOrder(plan.document, [...snagsOf(plan), ...routedSnagsOf(plan, analysis, null, caps)]);
}

/** What a snag is told by: while rule, place and words are the same, it is the same snag. */
export function snagKey({ rule, at, message }: Snag): string {
  return JSON.stringify([rule, at, message]);
}

/** By place in the document, and within one place as they came. */
export function inOrder(document: Questionnaire, snags: readonly Snag[]): Snag[] {
  const order = documentOrder(document);
  return snags
    .map((snag, index) => ({ snag, index, rank: order(snag.at) }))
    .sort((a, b) => a.rank - b.rank || a.index - b.index)
    .map(({ snag }) => snag);
}

/** Whether results over this plan are provisional: some rule of the error kind is broken. */
export function isProvisional(snags: readonly Snag[]): boolean {
  return snags.some(({ severity }) => severity === 'error');
}

/** Documents are never changed in place. */
const orders = new WeakMap<Questionnaire, (at: DocumentPlace) => number>();

function documentOrder(document: Questionnaire): (at: DocumentPlace) => number {
  const known = orders.get(document);
  if (known !== undefined) return known;
  const order = orderOf(document);
  orders.set(document, order);
  return order;
}

function orderOf(document: Questionnaire): (at: DocumentPlace) => number {
  const rank = new Map<Address, number>();
  eachPart(document, ({ at }) => {
    if (!rank.has(at)) rank.set(at, rank.size);
  });
  return (at) => {
    const isEnd = at.item === undefined && at.onward !== undefined;
    const part = isEnd ? address('onward', at.section ?? '') : partAt(at);
    return (part === null ? undefined : rank.get(part)) ?? 0;
  };
}
