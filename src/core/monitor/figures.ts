/** All figures of a monitor: a fold over the responses under a link, to one of its questionnaires, as they stand at a moment. */
import type { EndingKind } from '../document/types';
import { ENDINGS } from '../document/vocabularies';
import type { Plan } from '../routing/plan';
import { endingLabel, sectionLabel } from '../wording/targets';
import { forkEventWords } from '../views/fork-events';
import { daysBetween } from './days';
import { forksOf, leadsToNothingKept, unmetOutcomes } from './forks';
import { isWhole, outcomeOf, OUTCOMES, type Outcome, type OutcomeMoment } from './outcomes';
import { isFastBy, paceOf, type Quartiles } from './pace';
import { pagePlaces, type PagePlace } from './pages';
import { hasLeft, ITEM_FIGURES, outcomeAt, takesPlace, type ItemFigure } from './picked';
import { quotaPace, type QuotaPace } from './quota-pace';
import { eligibleShare, ratesOf, type Rate } from './rates';
import type { ResponseSummary } from './summary';

/** Of whom nothing is kept but how many they were in the hour that begins at `at`; null: that was not kept either. */
export interface Counted {
  readonly what: 'declined' | 'removed';
  readonly at: number | null;
  readonly count: number;
}

export interface Monitored extends OutcomeMoment {
  readonly plan: Plan;
  readonly responses: readonly ResponseSummary[];
  readonly counted: readonly Counted[];
  /** When people were first written to, or given a link of their own; null where anybody may answer. */
  readonly invitedAt: readonly number[] | null;
  /** People with a link of their own who declined: no response is kept of them. */
  readonly declinedPeople: number;
  /** When the first could begin. */
  readonly since: number;
  /** When the link closes by itself; a moment that is past where it was closed; null: it is open without an end. */
  readonly closesAt: number | null;
  readonly dayOf: (at: number) => string;
}

export interface DayLine {
  /** `2026-11-29`. */
  readonly day: string;
  /** It is still to come, up to that on which the link closes. */
  readonly isAhead: boolean;
  readonly invited: number;
  readonly begun: number;
  /** By the day on which they came to it; 0 is left out. */
  readonly outcomes: Readonly<Partial<Record<Outcome, number>>>;
}

export interface Figures {
  /** Null where anybody may answer. */
  readonly invited: number | null;
  readonly unheard: number | null;
  readonly begun: number;
  readonly outcomes: Readonly<Record<Outcome, number>>;
  readonly days: readonly DayLine[];
  /** Null where nobody was invited by name. */
  readonly rates: { readonly eligible: number; readonly list: readonly Rate[] } | null;
  readonly endings: readonly {
    readonly id: string;
    readonly label: string;
    readonly kind: EndingKind;
    /** Null where those who declined cannot be told apart by their ending. */
    readonly count: number | null;
  }[];
  readonly minutes: {
    readonly count: number;
    readonly took: Quartiles | null;
    readonly expected: Quartiles | null;
  };
  readonly pages: readonly (PagePlace & {
    readonly title: string;
    readonly shown: number;
    readonly left: number;
  })[];
  /** Items that were presented to somebody. */
  readonly items: readonly ({ readonly name: string } & Readonly<Record<ItemFigure, number>>)[];
  /** Names of items that were presented to nobody. */
  readonly unreached: readonly string[];
  readonly forks: readonly { readonly at: string; readonly words: string; readonly came: number }[];
  readonly quotas: readonly (QuotaPace & {
    readonly id: string;
    readonly label: string;
    readonly target: number;
  })[];
  /** Null where too few are complete to tell. */
  readonly fast: { readonly count: number; readonly below: number } | null;
  readonly grids: readonly { readonly name: string; readonly whole: number; readonly straight: number }[];
}

export function figuresOf(of: Monitored): Figures {
  const { plan, responses } = of;
  const outcomes = outcomesOf(of);
  const pace = paceOf(responses);
  const isFast = isFastBy(pace);
  const { items, unreached } = itemFigures(of);
  return {
    ...peopleFigures(of, outcomes),
    begun: responses.length + countOf(of, 'declined') + countOf(of, 'removed'),
    outcomes,
    days: dayLines(of),
    endings: endingFigures(of),
    minutes: { count: pace.count, took: pace.took, expected: pace.expected },
    pages: pagePlaces(plan).map((page) => ({
      ...page,
      title: sectionLabel(plan.document, page.section),
      shown: responses.filter(({ pages }) => pages.includes(page.place)).length,
      left: responses.filter((each) => hasLeft(each, of, page.place)).length,
    })),
    items,
    unreached,
    forks: unmetOutcomes(
      forksOf(plan),
      responses.map(({ forks }) => forks),
    )
      // Of those who declined it is not kept by which of the ways to that ending they did.
      .filter(({ event }) => outcomes.declined === 0 || !leadsToNothingKept(plan, event))
      .map(({ at, event, came }) => ({ at, words: forkEventWords(plan, event), came })),
    quotas: (plan.document.quotas ?? []).map(({ id, label, target }) => ({
      ...{ id, label, target },
      ...quotaPace(target, responses.filter((each) => takesPlace(each, id)).map(outcomeAt), of),
    })),
    fast: pace.fastBelow === null ? null : { count: responses.filter(isFast).length, below: pace.fastBelow },
    grids: gridFigures(responses),
  };
}

const countOf = ({ counted }: Monitored, what: Counted['what']) =>
  counted.filter((each) => each.what === what).reduce((sum, { count }) => sum + count, 0);

/** All who have begun, each once: of some nothing is kept but that. */
function outcomesOf(of: Monitored): Record<Outcome, number> {
  const counts = Object.fromEntries(OUTCOMES.map((outcome) => [outcome, 0])) as Record<Outcome, number>;
  for (const response of of.responses) counts[outcomeOf(response, of)] += 1;
  counts.declined += countOf(of, 'declined');
  counts.broken_off += countOf(of, 'removed');
  return counts;
}

/** Days to come are shown where the link closes within so many. */
const MOST_AHEAD = 31 * 86_400_000;

function dayLines(of: Monitored): DayLine[] {
  const { responses, counted, invitedAt, dayOf, now, closesAt } = of;
  interface Line {
    invited: number;
    begun: number;
    outcomes: Partial<Record<Outcome, number>>;
  }
  const found = new Map<string, Line>();
  const on = (at: number) => {
    const day = dayOf(at);
    const line = found.get(day) ?? { invited: 0, begun: 0, outcomes: {} };
    found.set(day, line);
    return line;
  };
  const come = ({ outcomes }: Line, outcome: Outcome, count = 1) => {
    outcomes[outcome] = (outcomes[outcome] ?? 0) + count;
  };
  for (const at of invitedAt ?? []) on(at).invited += 1;
  for (const response of responses) {
    on(response.startedAt).begun += 1;
    come(on(outcomeAt(response)), outcomeOf(response, of));
  }
  for (const { what, at, count } of counted) {
    if (at === null) continue;
    // When they began is not kept: whoever declines does so on the first pages.
    on(at).begun += count;
    come(on(at), what === 'declined' ? 'declined' : 'broken_off', count);
  }
  const [first] = [...found.keys()].toSorted();
  if (first === undefined) return [];
  const today = dayOf(now);
  const isNear = closesAt !== null && closesAt - now <= MOST_AHEAD;
  // Until midnight is until the day before.
  const end = isNear ? dayOf(closesAt - 1) : today;
  const last = [...found.keys(), end].toSorted().at(-1) ?? end;
  return daysBetween(first, last).map((day) => ({
    day,
    isAhead: day > today,
    ...(found.get(day) ?? { invited: 0, begun: 0, outcomes: {} }),
  }));
}

/** Of people, each by what they came to at last. */
function peopleFigures(
  of: Monitored,
  outcomes: Readonly<Record<Outcome, number>>,
): Pick<Figures, 'invited' | 'unheard' | 'rates'> {
  const { plan, responses, invitedAt, declinedPeople } = of;
  if (invitedAt === null) return { invited: null, unheard: null, rates: null };
  const last = new Map<string, ResponseSummary>();
  for (const response of responses)
    if (response.person !== null) {
      const before = last.get(response.person);
      if (before === undefined || !isWhole(before)) last.set(response.person, response);
    }
  const people = [...last.values()];
  const count = (is: (response: ResponseSummary) => boolean) => people.filter(is).length;
  const are = (...wanted: Outcome[]) => count((response) => wanted.includes(outcomeOf(response, of)));
  const removed = countOf(of, 'removed');
  const unheard = Math.max(0, invitedAt.length - people.length - declinedPeople - removed);
  const lastScreening = plan.sections.findLastIndex(({ section }) => section.kind === 'screening');
  const brokenOff = are('broken_off');
  const dispositions = {
    complete: are('complete', 'hand_off'),
    partial: are('partial'),
    refusal: brokenOff + declinedPeople + removed,
    unknown: unheard + are('under_way'),
    ineligible: are('screened_out', 'quota_full'),
    eligibleRefusal: count(
      (response) => outcomeOf(response, of) === 'broken_off' && response.furthest > lastScreening,
    ),
  };
  const withPartial = outcomes.partial > 0 || of.partialFrom !== null;
  return {
    invited: invitedAt.length,
    unheard,
    rates: {
      eligible: eligibleShare(dispositions),
      list: ratesOf(dispositions).filter(({ kind }) => withPartial || !kind.endsWith('_partial')),
    },
  };
}

function endingFigures(of: Monitored): Figures['endings'] {
  const { plan, responses } = of;
  const nothingKept = plan.endings.filter(({ ending }) => ENDINGS[ending.kind].keepsNothing);
  const declined = countOf(of, 'declined');
  return plan.endings.map(({ ending: { id, kind } }) => ({
    ...{ id, kind, label: endingLabel(plan.document, id) },
    count: ENDINGS[kind].keepsNothing
      ? nothingKept.length === 1 || declined === 0
        ? declined
        : null
      : responses.filter(({ ending }) => ending === id).length,
  }));
}

function itemFigures({ plan, responses }: Monitored): Pick<Figures, 'items' | 'unreached'> {
  const counts = new Map<string, Record<ItemFigure, number>>();
  for (const { items } of responses)
    for (const { name, as } of items) {
      const figures =
        counts.get(name) ??
        (Object.fromEntries(ITEM_FIGURES.map((figure) => [figure, 0])) as Record<ItemFigure, number>);
      counts.set(name, figures);
      figures.asked += 1;
      if (as !== 'answered' && as !== 'shown') figures[as] += 1;
    }
  const names = plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  return {
    items: names.flatMap((name) => {
      const figures = counts.get(name);
      return figures === undefined ? [] : [{ name, ...figures }];
    }),
    unreached: names.filter((name) => !counts.has(name)),
  };
}

function gridFigures(responses: readonly ResponseSummary[]): Figures['grids'] {
  const grids = new Map<string, { whole: number; straight: number }>();
  for (const of of responses)
    for (const name of of.grids) {
      const figures = grids.get(name) ?? { whole: 0, straight: 0 };
      grids.set(name, figures);
      figures.whole += 1;
      if (of.straight.includes(name)) figures.straight += 1;
    }
  return [...grids].map(([name, figures]) => ({ name, ...figures }));
}
