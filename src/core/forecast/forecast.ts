/**
 * What is to be expected of a number of people who start: how many are asked each question and come to each ending, how
 * long it takes them, and how many it takes to have enough of some. Exact under the assumed answers, with all quotas open.
 */
import {
  prospectOf,
  type Assumptions,
  type Group,
  type Length,
  type Limit,
  type Prospect,
} from '../analysis';
import { ENDINGS } from '../document/vocabularies';
import { secondsByName } from '../routing/burden';
import type { Plan } from '../routing/plan';
import { planOf } from '../routing/planner';
import { assuming } from './assuming';
import { peopleFor, percentile } from './binomial';
import { doublings, type Doubling } from './doubling';
import { groupKey, groupsOf } from './groups';
import { quotaEffect, type QuotaEffect } from './quotas';
import {
  decidedBy,
  decidingIn,
  effectsOn,
  effectsOnMinutes,
  steeringIn,
  type Deciding,
  type Effect,
  type Steering,
} from './steering';
import { simulated, type Simulated } from './simulated';

export interface ForecastAsked {
  /** People who start. */
  readonly starts: number;
  /** The chance of breaking off, a minute; 0 to less than 1. */
  readonly breakOff: number;
  /** In the place of what the document assumes. */
  readonly assumptions?: Assumptions;
  /** So many wanted in some groups. */
  readonly goals?: readonly { readonly group: Group; readonly n: number }[];
}

export interface Expected {
  readonly group: Group;
  /** Of all who start, from 0 to 1. */
  readonly share: number;
  readonly expected: number;
  /** 2.5th and 97.5th percentile of the binomial. */
  readonly low: number;
  readonly high: number;
  /** Where the share is but simulated, how far it may be off (95%). */
  readonly error: number | null;
}

/** In minutes. */
export interface Minutes {
  readonly mean: number;
  readonly p10: number;
  readonly median: number;
  readonly p90: number;
  readonly longest: number;
}

export interface Goal {
  readonly group: Group;
  readonly n: number;
  /** By certainty, how many have to start; null where no number is enough. */
  readonly starts: { readonly 50: number | null; readonly 90: number | null; readonly 95: number | null };
}

export interface Forecast {
  readonly exact: boolean;
  /** What could not be told exactly, and why. */
  readonly limits: readonly Limit[];
  /** In the order of the document, of a repeated item first all passes together. */
  readonly items: readonly Expected[];
  /** Who is shown anything of each. */
  readonly sections: readonly Expected[];
  readonly endings: readonly Expected[];
  /** Of those who come to an ending at which an interview is finished; null where there are none. */
  readonly minutes: Minutes | null;
  /** The route of the longest of them; null where it is not known exactly. */
  readonly longest: { readonly items: readonly string[]; readonly ending: string } | null;
  /** The interviews that `minutes` is about. */
  readonly lengths: readonly Length[];
  readonly goals: readonly Goal[];
}

/** A questionnaire made ready for forecasts under any assumptions. */
export class Forecaster {
  private readonly prospect: Prospect | null;
  private readonly limits: readonly Limit[];
  private readonly groups: readonly Group[];
  private readonly finished: ReadonlySet<string>;
  private decided: ReadonlyMap<string, number> | undefined;

  constructor(private readonly plan: Plan) {
    const found = prospectOf(plan);
    this.prospect = 'groups' in found ? found : null;
    this.limits = 'groups' in found ? [] : found;
    this.groups = this.prospect?.groups ?? groupsOf(plan);
    this.finished = new Set(
      plan.endings.filter(({ ending }) => !ENDINGS[ending.kind].early).map(({ ending }) => ending.id),
    );
  }

  /** The questions whose answers decide, the weightiest first; none where nothing can be told exactly. */
  steering(assumptions: Assumptions = new Map()): readonly Steering[] {
    if (this.prospect === null) return [];
    this.prospect.assume(assumptions);
    return steeringIn(this.deciding(this.prospect, assumptions), this.prospect);
  }

  private deciding(prospect: Prospect, assumptions: Assumptions): readonly Deciding[] {
    this.decided ??= decidedBy(prospect);
    return decidingIn(assuming(this.plan.document, assumptions), prospect, this.decided);
  }

  /** What one more point of each answer gives; null where it cannot be told. */
  effects(of: Hanging, assumptions: Assumptions = new Map()): readonly Effect[] | null {
    if (this.prospect === null) return null;
    this.prospect.assume(assumptions);
    const deciding = this.deciding(this.prospect, assumptions);
    const document = assuming(this.plan.document, assumptions);
    if (of === 'minutes')
      return effectsOnMinutes(document, deciding, this.prospect, secondsByName({ document }), this.finished);
    const index = this.indexOf(of.group);
    return index < 0 ? null : effectsOn(index, deciding, this.prospect);
  }

  /** What would double a base, before anybody breaks off; null where it cannot be told. */
  doublings(of: Group, assumptions: Assumptions = new Map()): readonly Doubling[] | null {
    const effects = this.effects({ group: of }, assumptions);
    const index = this.indexOf(of);
    if (this.prospect === null || effects === null || index < 0) return null;
    return doublings(index, effects, this.deciding(this.prospect, assumptions), this.prospect, assumptions);
  }

  /**
   * What each quota does to those who start, before anybody breaks off, in the order of the document; with `of`, how many of a group
   * it costs. None where nothing can be told exactly.
   */
  quotas({ starts, assumptions = new Map() }: ForecastAsked, of: Group | null): readonly QuotaTold[] {
    const { prospect } = this;
    if (prospect === null) return [];
    prospect.assume(assumptions);
    const targets = new Map(this.plan.document.quotas?.map(({ id, target }) => [id, target]));
    const group = of === null ? -1 : this.indexOf(of);
    return prospect.quotas().map((shares, n) => {
      const effect = quotaEffect({ id: shares.id, target: targets.get(shares.id) ?? 0 }, shares, starts);
      const after = group < 0 ? null : prospect.afterQuota(n, group);
      return { ...effect, groupLost: after === null ? null : after * effect.after };
    });
  }

  private indexOf(of: Group): number {
    const key = groupKey(of);
    return this.groups.findIndex((group) => groupKey(group) === key);
  }

  /** By ending, in the order of the document. */
  minutesByEnding({ breakOff, assumptions = new Map() }: ForecastAsked): readonly EndingMinutes[] {
    const seconds = secondsByName({ document: assuming(this.plan.document, assumptions) });
    this.prospect?.assume(assumptions);
    return this.plan.endings.map(({ ending: { id } }) => {
      const found = this.prospect?.lengths(seconds, new Set([id]));
      const lengths = (found?.lengths ?? []).map((length) => ({
        ...length,
        share: length.share * staying(breakOff)(length.seconds),
      }));
      const share = lengths.reduce((sum, length) => sum + length.share, 0);
      return { id, minutes: minutesOf(lengths, found?.longest?.seconds ?? null), share };
    });
  }

  /**
   * What each section takes of those who are shown anything of it and finish, in the order of the document, before anybody breaks
   * off: who stays hangs on the whole interview.
   */
  minutesBySection(assumptions: Assumptions = new Map()): readonly SectionMinutes[] {
    const { sections } = this.plan;
    const seconds = secondsByName({ document: assuming(this.plan.document, assumptions) });
    this.prospect?.assume(assumptions);
    return sections.map(({ section: { id }, items }) => {
      const own = new Set(items.map(({ item }) => item.name));
      const found = this.prospect?.lengths((name) => (own.has(name) ? seconds(name) : 0), this.finished);
      const lengths = (found?.lengths ?? []).filter(({ seconds: taken }) => taken > 0);
      return { id, minutes: minutesOf(lengths, found?.longest?.seconds ?? null) };
    });
  }

  forecast(asked: ForecastAsked): Forecast {
    const { starts, breakOff, assumptions = new Map(), goals = [] } = asked;
    const document = assuming(this.plan.document, assumptions);
    const seconds = secondsByName({ document });
    const stay = staying(breakOff);
    this.prospect?.assume(assumptions);
    let madeUp: Simulated | null = null;
    const simulate = () => (madeUp ??= simulated(planOf(document), this.groups, this.finished, stay));

    const shares =
      breakOff === 0 ? this.prospect?.shares() : this.prospect?.sharesOfThoseWhoStay(seconds, stay);
    const told = this.groups.map((group, n) => {
      const exact = shares?.[n] ?? null;
      return expected(group, starts, exact === null ? (simulate().shares[n] ?? null) : { share: exact });
    });
    const exactLengths = this.prospect?.lengths(seconds, this.finished) ?? null;
    const lengths = (exactLengths?.lengths ?? simulate().lengths).map((length) =>
      exactLengths === null ? length : { ...length, share: length.share * stay(length.seconds) },
    );
    const longest = exactLengths?.longest ?? null;
    const limits = [
      ...this.limits,
      ...(this.prospect !== null && exactLengths === null ? [LENGTHS_SIMULATED] : []),
    ];
    return {
      exact: told.every(({ error }) => error === null) && limits.length === 0,
      limits,
      items: told.filter(({ group }) => 'item' in group),
      sections: told.filter(({ group }) => 'section' in group),
      endings: told.filter(({ group }) => 'ending' in group),
      minutes: minutesOf(lengths, longest?.seconds ?? null),
      longest: longest && { items: longest.items, ending: longest.ending },
      lengths,
      goals: goals.map(({ group, n }) => {
        const share = told.find((of) => groupKey(of.group) === groupKey(group))?.share ?? 0;
        const needed = (certainty: number) => peopleFor(n, share, certainty);
        return { group, n, starts: { 50: needed(0.5), 90: needed(0.9), 95: needed(0.95) } };
      }),
    };
  }
}

/** Of whoever has something before them that takes so many seconds, the share that goes on after it. */
function staying(breakOff: number): (seconds: number) => number {
  return (seconds) => (1 - breakOff) ** (seconds / 60);
}

const LENGTHS_SIMULATED: Limit = { at: {}, message: 'interviews differ in too much to be gone through' };

function expected(
  group: Group,
  starts: number,
  of: { readonly share: number; readonly error?: number } | null,
): Expected {
  // Rounding in the last digit can carry a sum beyond what there is.
  const share = Math.min(1, Math.max(0, of?.share ?? 0));
  return {
    group,
    share,
    expected: share * starts,
    low: percentile(0.025, starts, share),
    high: percentile(0.975, starts, share),
    error: of?.error ?? null,
  };
}

/** A share below this is that of answers which nobody is assumed to give, though they can be given. */
const NOBODY = 1e-20;

function minutesOf(lengths: readonly Length[], longest: number | null): Minutes | null {
  const total = lengths.reduce((sum, { share }) => sum + share, 0);
  if (total < NOBODY) return null;
  const at = (level: number) => {
    let sum = 0;
    // As many as are wanted, but for what adding up rounds.
    return (lengths.find(({ share }) => (sum += share) >= (level - 1e-12) * total) ?? lengths.at(-1))
      ?.seconds;
  };
  const minutes = (seconds: number | undefined) => (seconds ?? 0) / 60;
  return {
    mean: minutes(lengths.reduce((sum, { share, seconds }) => sum + share * seconds, 0) / total),
    p10: minutes(at(0.1)),
    median: minutes(at(0.5)),
    p90: minutes(at(0.9)),
    longest: minutes(longest ?? lengths.at(-1)?.seconds),
  };
}

/** The lengths of the interviews that come to one ending. */
export interface EndingMinutes {
  readonly id: string;
  /** Null where nobody comes there, or it cannot be told. */
  readonly minutes: Minutes | null;
  /** Of all who start. */
  readonly share: number;
}

export interface QuotaTold extends QuotaEffect {
  /** How many of the group that was asked about are turned away; null where it cannot be told, or none was. */
  readonly groupLost: number | null;
}

export interface SectionMinutes {
  readonly id: string;
  /** Null where nobody who finishes is shown anything of it, or it cannot be told. */
  readonly minutes: Minutes | null;
}

/** What a group, or the minutes of finished interviews, hangs on. */
export type Hanging = { readonly group: Group } | 'minutes';
