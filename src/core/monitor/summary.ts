/** What a monitor needs of one response, worked out once from what is kept of it and small enough to keep for thousands. */
import { passKey } from '../document/addresses';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { EndingKind, Question, Value } from '../document/types';
import { walkOfCase } from '../responding/case-data';
import { inputsOf, pagesOfCase } from '../responding/kept-case';
import type { Device } from '../responding/trial-settings';
import type { TurnedCase } from '../responding/turn';
import { forkKey, forksTaken } from '../release/forks-taken';
import { gridRowAnswer, isBlank } from '../routing/answers';
import { secondsAlong, secondsByName } from '../routing/burden';
import type { Plan } from '../routing/plan';
import { walk, type Walk, type WalkStep } from '../routing/walk';
import { placeOfPage } from './pages';

/** A response as it is stored, without what tells who it is. */
export interface ResponseToRead {
  readonly id: string;
  readonly number: number;
  /** Equal for responses of the same person; null where people are not told apart. */
  readonly person: string | null;
  readonly device: Device;
  readonly changedAt: number;
  readonly kept: TurnedCase;
}

/** What somebody made of an item that was presented to them, in any pass and any row of a grid. */
export interface ItemMet {
  readonly name: string;
  /** `left`: it was on the page in hand when they left, or is now. */
  readonly as: 'answered' | 'blank' | 'dont_know' | 'refused' | 'left' | 'shown';
}

export interface ResponseSummary {
  readonly id: string;
  readonly number: number;
  readonly person: string | null;
  readonly device: Device;
  /** Milliseconds since 1970. */
  readonly startedAt: number;
  readonly changedAt: number;
  /** Null while it may go on. */
  readonly closedAt: number | null;
  /** Id and kind of the ending; null where it has come to none. */
  readonly ending: string | null;
  readonly kind: EndingKind | null;
  /** On pages, as measured; and as the burden model has it for the items that were presented. */
  readonly seconds: number;
  readonly expected: number;
  /** Places of the pages that were shown (`pages.ts`), and of the one in hand; null at an ending. */
  readonly pages: readonly string[];
  readonly inHand: string | null;
  /** Index of the last section of the questionnaire of which a page was shown; -1: of none. */
  readonly furthest: number;
  readonly items: readonly ItemMet[];
  /** What forks did to them, by key (`forkKey`), as far as they have gone. */
  readonly forks: readonly string[];
  /** Quotas that took them in. */
  readonly held: readonly string[];
  /** Grids of `LEAST_ROWS` rows or more that were answered whole, and of them those with the same answer in each row. */
  readonly grids: readonly string[];
  readonly straight: readonly string[];
}

/** Of fewer rows the same answer in each says nothing. */
export const LEAST_ROWS = 3;

/** Throws where a given value is lacking, with which no response begins. */
export function summaryOf(plan: Plan, { kept, ...of }: ResponseToRead): ResponseSummary {
  const walked = walkOfCase(plan, kept);
  if (walked === null) throw new Error(`response ${of.number} cannot be walked`);
  const isDone = kept.closed?.by === 'ending';
  const ending = walked.ending === null || !isDone ? null : (plan.endings[walked.ending]?.ending ?? null);
  const page = isDone ? undefined : pagesOfCase(plan, kept)[kept.at];
  const inHand = page === undefined ? null : placeOfPage(plan, page.key);
  const pages = new Set(kept.visits.map((visit) => placeOfPage(plan, visit.page)));
  if (inHand !== null) pages.add(inHand);
  const open = new Set(page?.steps.map(({ key }) => key));
  const grids = walked.steps.filter((step) => !open.has(step.key) && isGridAnswered(step, kept.answers));
  const names = (steps: readonly WalkStep[]) => [...new Set(steps.map(({ planItem }) => planItem.item.name))];
  return {
    ...of,
    startedAt: kept.startedAt,
    closedAt: kept.closed?.at ?? null,
    ending: ending?.id ?? null,
    kind: ending?.kind ?? null,
    seconds: kept.visits.reduce((sum, { seconds }) => sum + seconds, 0),
    expected: secondsAlong(
      secondsOf(plan),
      walked.steps.map(({ key }) => key),
    ),
    pages: [...pages],
    inHand,
    furthest: Math.max(-1, ...walked.steps.map(({ planItem }) => planItem.section)),
    items: itemsMet(walked.steps, open, kept.answers),
    forks: forksMet(plan, kept, walked, open),
    held: kept.held,
    grids: names(grids),
    straight: names(grids.filter((step) => isStraight(step, kept.answers))),
  };
}

const known = new WeakMap<Plan, (name: string) => number>();
function secondsOf(plan: Plan): (name: string) => number {
  let seconds = known.get(plan);
  if (seconds === undefined) {
    seconds = secondsByName(plan);
    known.set(plan, seconds);
  }
  return seconds;
}

type Answered = TurnedCase['answers'];

const valuesOf = ({ parts, pass }: WalkStep, answers: Answered): (Value | null)[] =>
  parts.map(({ name }) => answers[passKey(name, pass)] ?? null);

/** Of what an item met with in several passes, the first of these that there was stands for it. */
const TELLING = ['left', 'blank', 'dont_know', 'refused', 'answered', 'shown'] as const;

function itemsMet(steps: readonly WalkStep[], open: ReadonlySet<string>, answers: Answered): ItemMet[] {
  const met = new Map<string, ItemMet['as'][]>();
  for (const step of steps) {
    const { item } = step.planItem;
    const as =
      item.kind === 'statement' ? 'shown' : open.has(step.key) ? 'left' : answeredAs(item, step, answers);
    met.set(item.name, [...(met.get(item.name) ?? []), as]);
  }
  return [...met].map(([name, all]) => ({
    name,
    as: TELLING.find((each) => all.includes(each)) ?? 'shown',
  }));
}

function answeredAs({ answer }: Question, step: WalkStep, answers: Answered): ItemMet['as'] {
  const values = valuesOf(step, answers);
  if (values.some((value) => value === null || isBlank(value))) return 'blank';
  const options = optionsOf(hasRows(answer) ? gridRowAnswer(answer) : answer);
  const reasons = values
    .flat()
    .map((value) => options.find(({ code }) => code === value)?.missing ?? null)
    .filter((reason) => reason !== null);
  if (reasons.includes('dont_know')) return 'dont_know';
  return reasons.includes('refused') ? 'refused' : 'answered';
}

const isGridAnswered = (step: WalkStep, answers: Answered) =>
  step.parts.length >= LEAST_ROWS &&
  step.planItem.item.kind === 'question' &&
  hasRows(step.planItem.item.answer) &&
  valuesOf(step, answers).every((value) => typeof value === 'number');

const isStraight = (step: WalkStep, answers: Answered) => new Set(valuesOf(step, answers)).size === 1;

/** Of whoever is not done, up to the page in hand: what is not sent yet decides nothing. */
function forksMet(plan: Plan, kept: TurnedCase, whole: Walk, open: ReadonlySet<string>): string[] {
  const first = whole.steps.find(({ key }) => open.has(key));
  if (first === undefined) return forksTaken(plan, whole).map(forkKey);
  const before = walk(plan, {
    answers: kept.answers,
    ...inputsOf(kept),
    ...{ lenient: true, stoppedAt: first.key },
  });
  return before.ok ? forksTaken(plan, before.walk).map(forkKey) : [];
}
