/**
 * One respondent walked through two versions of a questionnaire, side by side: somebody who takes a route on which the two
 * differ, with the answers given in the one carried over to the other.
 */
import { diffArrays } from 'diff';
import { renumberAnswers, renumberingBetween } from '../coding/renumbered';
import { nameInKey, passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Questionnaire, Value } from '../document/types';
import type { Walked } from '../document/walked';
import { isBlank, partsOf, type ShownParts } from '../routing/answers';
import { generatorFor } from '../routing/chance';
import { readDraws } from '../routing/draws';
import type { Plan, PlanItem } from '../routing/plan';
import { walk, type WalkStep } from '../routing/walk';
import { drawAnswer } from '../simulate/drawing';
import { endingLabel } from '../wording/targets';
import { answeredWords, shownText } from '../wording/values';
import type { Differing, DifferingRoutes } from './differing-routes';
import { shownOf } from './shown';
import type { Versions } from './versions';

/** Something presented on one side. */
export interface SideStep {
  /** `name`, or `name#pass`; of the new version where it is called otherwise there. */
  readonly key: string;
  readonly text: string;
  /** In words; empty for a blank and for a statement. */
  readonly answer: string;
  /** The other version does not ask for this: the answer was made up to go on. */
  readonly isMadeUp: boolean;
}

export interface Side {
  /** Number of the route in its version; null where the walk stopped. */
  readonly number: bigint | null;
  /** In words; null where the walk stopped. */
  readonly ending: string | null;
  /** Why it could not be walked to an ending. */
  readonly stopped: string | null;
}

export interface BothSides {
  readonly old: Side;
  readonly now: Side;
  /** What both present in one row; `isOther`: it is shown or answered otherwise, or presented on one side alone. */
  readonly rows: readonly {
    readonly old: SideStep | null;
    readonly now: SideStep | null;
    readonly isOther: boolean;
  }[];
}

/** The `k`-th route of a kind, from 1, and what its respondent meets on the other side; null where there is none. */
export function bothSides(
  versions: Versions,
  routes: DifferingRoutes,
  which: Differing,
  k: bigint,
): BothSides | null {
  const { renamed, now, first, second } = versions;
  const number = routes[which]?.numberOf(k) ?? null;
  const route = number === null ? null : (which === 'lost' ? first : second).route(number);
  if (route === null) return null;
  const { answers, draws, given, full } = route;
  const walked: Walked = {
    answers,
    ...(draws && { draws: mutable(draws) }),
    ...(given && { given }),
    ...(full && { full: [...full] }),
  };
  const other = (from: Questionnaire, to: Questionnaire): Walked => {
    const renumbering = renumberingBetween(from, to);
    return renumbering === null
      ? walked
      : { ...walked, answers: renumberAnswers(renumbering, walked.answers) };
  };
  const [onOld, onNow] = which === 'lost' ? [walked, other(renamed, now)] : [other(now, renamed), walked];
  return sideBySide(versions, onOld, onNow);
}

function mutable(draws: Readonly<Record<string, readonly string[]>>): Record<string, string[]> {
  return Object.fromEntries(Object.entries(draws).map(([key, names]) => [key, [...names]]));
}

function sideBySide(versions: Versions, onOld: Walked, onNow: Walked): BothSides {
  const { before, after, first, second } = versions;
  const [old, now] = [walkedSide(before, onOld), walkedSide(after, onNow)];
  const [shown, shownNow] = [shownOf(before), shownOf(after)];
  const markOf = ({ key }: SideStep, of: typeof shown) => of.item(nameInKey(key), null);
  const rows: BothSides['rows'][number][] = [];
  const [left, right] = [[...old.steps], [...now.steps]];
  const keys = (steps: readonly SideStep[]) => steps.map(({ key }) => key);
  for (const { added, removed, count } of diffArrays(keys(left), keys(right)))
    for (let n = 0; n < count; n += 1) {
      const was = added ? null : (left.shift() ?? null);
      const is = removed ? null : (right.shift() ?? null);
      const isSame =
        was !== null &&
        is !== null &&
        was.answer === is.answer &&
        markOf(was, shown) === markOf(is, shownNow);
      rows.push({ old: was, now: is, isOther: !isSame });
    }
  return {
    old: { ...old.side, number: old.at === null ? null : first.numberOf(keys(old.steps), old.at) },
    now: { ...now.side, number: now.at === null ? null : second.numberOf(keys(now.steps), now.at) },
    rows,
  };
}

interface WalkedSide {
  readonly steps: readonly SideStep[];
  /** Id of the ending. */
  readonly at: string | null;
  readonly side: Pick<Side, 'ending' | 'stopped'>;
}

function walkedSide(plan: Plan, walked: Walked): WalkedSide {
  const answers: Record<string, Value | null> = { ...walked.answers };
  const madeUp = new Set<string>();
  const result = walk(plan, {
    ...fitting(plan, walked),
    answers,
    seed: 1,
    respond: (planItem, pass, shown, tries) => tries === 0 && makeUp(planItem, pass, shown, answers, madeUp),
  });
  if (!result.ok) return { steps: [], at: null, side: { ending: null, stopped: result.problem } };
  const { steps, ending } = result.walk;
  const last = steps.at(-1);
  const fault = last?.faults.find(({ kind }) => kind !== 'soft' && kind !== 'unspecified');
  const at = ending === null ? null : (plan.endings[ending]?.ending.id ?? null);
  return {
    steps: steps.map((step) => ({
      key: step.key,
      text: shownText(plan, result.walk, step.planItem.item.text, step.planItem.section, step.pass),
      answer: answeredWords(step, answers),
      isMadeUp: keysOf(step).some((key) => madeUp.has(key)),
    })),
    at,
    side: {
      ending: at === null ? null : endingLabel(plan.document, at),
      stopped: at === null ? `${last?.key ?? 'the start'}: ${fault?.message ?? 'the walk ends here'}` : null,
    },
  };
}

const keysOf = ({ parts, pass }: WalkStep) => parts.map(({ name }) => passKey(name, pass));

/** Answers what is required here and was not asked where the answers come from. */
function makeUp(
  planItem: PlanItem,
  pass: number | null,
  shown: ShownParts,
  answers: Record<string, Value | null>,
  madeUp: Set<string>,
): boolean {
  const { item } = planItem;
  const parts = item.kind === 'question' && item.required === true ? partsOf(planItem, shown) : [];
  const blank = parts.filter(({ name }) => isBlank(answers[passKey(name, pass)]));
  for (const { name, answer } of blank) {
    const key = passKey(name, pass);
    answers[key] = drawAnswer(generatorFor(1, key), { answer, required: true }, shown);
    madeUp.add(key);
  }
  return blank.length > 0;
}

/** As far as this version knows what was drawn, given and full; a value known beforehand that it alone needs is made up. */
function fitting(plan: Plan, { draws = {}, given = {}, full = [] }: Walked): Omit<Walked, 'answers'> {
  const { given: wanted = [], quotas = [] } = plan.document;
  const known = Object.entries(draws).filter(([key, names]) => readDraws(plan, { [key]: names }).ok);
  const values = wanted.map(({ name, answer }) => {
    const shown = { options: optionsOf(answer).map(() => true), rows: [] };
    return [
      name,
      given[name] ?? drawAnswer(generatorFor(1, name), { answer, required: true }, shown),
    ] as const;
  });
  return {
    draws: Object.fromEntries(known),
    given: Object.fromEntries(values),
    full: full.filter((id) => quotas.some((quota) => quota.id === id)),
  };
}
