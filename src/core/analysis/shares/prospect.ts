/**
 * What is to be expected of a sample under any assumed answers: made once of a questionnaire, and worked out again, exactly,
 * as often as something else is assumed.
 */
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import type { Limit } from '../answers/drivers';
import { EncodedPlan } from '../conditions/encoded-plan';
import { ZERO, type Term } from '../diagrams/circuit';
import { Diagrams, FALSE, type Diagram } from '../diagrams/diagram';
import { DEFAULT_CAPS, TooMuch, withinMemory, type Caps } from '../diagrams/limits';
import type { Assumptions } from './answer-weights';
import { lastingTo } from './lasting';
import { lengthsOf, longestOf, type Length, type Longest } from './lengths';
import { slopesOfMean } from './mean-length';
import { quotaTermsIn, type QuotaTerms } from './quota-terms';
import type { Leaning } from './situation-chances';
import { interviewsIn, type Interviews } from './together';
import { WEIGHED_SCOPE, Weighing } from './weighing';

/**
 * People of whom a share is told: who is asked an item (in one pass, or, with null, at all), is shown anything of a section,
 * or comes to an ending.
 */
export type Group =
  | { readonly item: string; readonly pass: number | null }
  | { readonly section: string }
  | { readonly ending: string };

interface Told {
  readonly group: Group;
  /** Null where who they are is too entangled to be weighed. */
  readonly term: Term | null;
  /** Where they are presented it, in order. */
  readonly places: readonly number[];
}

export interface Lengths {
  /** Shortest first; those of about one length are put together, and their mean is told. */
  readonly lengths: readonly Length[];
  /** Null where there are no such interviews. */
  readonly longest: LongestInterview | null;
}

export interface LongestInterview {
  readonly seconds: number;
  /** The route it takes: `name`, or `name#pass`, in order. */
  readonly items: readonly string[];
  readonly ending: string;
}

export class Prospect {
  private readonly weighing: Weighing;
  private readonly told: readonly Told[];
  private traced: Interviews | null | undefined;
  private quotasTold: readonly QuotaTerms[] | undefined;

  /** The encoded plan must be fresh and exact. */
  constructor(
    private readonly plan: Plan,
    private readonly encoded: EncodedPlan,
  ) {
    this.weighing = new Weighing(encoded);
    this.told = [...this.items(), ...this.sections(), ...this.endings()];
  }

  /** In the order of the document, of a repeated item first all passes together; then sections, then endings. */
  get groups(): readonly Group[] {
    return this.told.map(({ group }) => group);
  }

  /** Other answers are assumed from now on; of what is left out, those of the document. */
  assume(assumptions: Assumptions): void {
    this.weighing.assume(assumptions);
  }

  /** From 0 to 1, of all who start; parallel to `groups`, null where it cannot be told. */
  shares(): (number | null)[] {
    return this.told.map(({ term }) => (term === null ? null : this.weighing.circuit.valueOf(term)));
  }

  /** The same of one group, by its index. */
  share(group: number): number | null {
    const term = this.told[group]?.term ?? null;
    return term === null ? null : this.weighing.circuit.valueOf(term);
  }

  /**
   * How fast the share of a group (by its index) changes on each of some ways, from what is assumed of a question to something
   * else, the way being 1 long: exact derivatives, by everything that can be assumed.
   */
  slopesAlong(
    ways: readonly { readonly name: string; readonly leaning: Leaning }[],
  ): (group: number) => number[] {
    const { circuit } = this.weighing;
    const along = ways.map(({ name, leaning }) => this.weighing.slopesToward(name, leaning));
    return (group) => {
      const of = circuit.slopes(this.told[group]?.term ?? ZERO);
      return along.map((slopes) =>
        slopes.reduce((sum, [weight, slope]) => sum + slope * (of.get(weight) ?? 0), 0),
      );
    };
  }

  /** The questions (and given values) on which the share of a group can hang, whatever is assumed. */
  hangsOn(group: number): ReadonlySet<string> {
    const names = new Set<string>();
    for (const weight of this.weighing.circuit.weightsUnder(this.told[group]?.term ?? ZERO)) {
      const name = this.weighing.nameOfWeight(weight);
      if (name !== undefined) names.add(name);
    }
    return names;
  }

  /** The stretches of a number or date between which no test tells a difference; null for others, and where nothing hangs on it. */
  stretchesOf(name: string): readonly (readonly [from: number | string, to: number | string])[] | null {
    return this.weighing.stretchesOf(name);
  }

  /** Of each quota, the shares of the sample that meet it, and that count towards it; null where it cannot be told. */
  quotas(): { readonly id: string; readonly met: number | null; readonly counted: number | null }[] {
    const share = (term: Term | null) => (term === null ? null : this.weighing.circuit.valueOf(term));
    return this.quotaTerms().map(({ id, met, counted }) => ({
      id,
      met: share(met),
      counted: share(counted),
    }));
  }

  /**
   * Of those who meet a quota (by its index), the share of the sample that is presented what a group (by its index) is about only after
   * it: whoever comes to the quota once it is full is lost to the group. Null where it cannot be told.
   */
  afterQuota(quota: number, group: number): number | null {
    const terms = this.quotaTerms()[quota];
    const told = this.told[group];
    if (terms === undefined || told === undefined) return null;
    const { diagrams } = this.encoded;
    const first = Math.min(...terms.places);
    let [before, after]: Diagram[] = [FALSE, FALSE];
    for (const at of told.places) {
      if (at <= first) before = diagrams.or(before ?? FALSE, this.massAt(at));
      else after = diagrams.or(after ?? FALSE, this.massAt(at));
    }
    const only = diagrams.and(after ?? FALSE, diagrams.not(before ?? FALSE));
    const term = this.termOf(diagrams.and(terms.meeting, only));
    return term === null ? null : this.weighing.circuit.valueOf(term);
  }

  private quotaTerms(): readonly QuotaTerms[] {
    return (this.quotasTold ??= quotaTermsIn(this.plan, this.encoded, this.weighing));
  }

  /** Whether whole interviews can be gone through: where not, there are no lengths and nobody breaks off. */
  get hasLengths(): boolean {
    return this.interviews() !== null;
  }

  /**
   * Lengths of the interviews that come to some endings (by their ids), as they are by the seconds of each item, shortest
   * first; null where whole interviews cannot be gone through.
   */
  lengths(seconds: (name: string) => number, endings: ReadonlySet<string>): Lengths | null {
    const interviews = this.interviews();
    if (interviews === null) return null;
    const { circuit } = this.weighing;
    const secondsAt = (place: number) => this.secondsAt(place, seconds);
    const counts = (place: number) => {
      const ending = this.endingAt(place);
      return ending === null || endings.has(ending);
    };
    return {
      lengths: lengthsOf(interviews, circuit, secondsAt, counts),
      longest: this.routeOf(longestOf(interviews, circuit, secondsAt, counts)),
    };
  }

  private routeOf(longest: Longest | null): LongestInterview | null {
    if (longest === null) return null;
    const items = longest.places.flatMap((at) => {
      if (this.encoded.course.places[at]?.kind !== 'item') return [];
      const { planItem, pass } = this.encoded.itemAt(at);
      return [passKey(planItem.item.name, pass)];
    });
    const [ending = ''] = longest.places.flatMap((at) => this.endingAt(at) ?? []);
    return { seconds: longest.seconds, items, ending };
  }

  /**
   * How fast the mean length of such interviews changes, in seconds, on ways from what is assumed of a question to something else, each
   * way being 1 long; as exactly as shares. `more`: how fast the question's own seconds change on it. Null where whole interviews cannot
   * be gone through.
   */
  slopesOfMeanLength(
    seconds: (name: string) => number,
    endings: ReadonlySet<string>,
  ): ((name: string, leaning: Leaning, more: number) => number) | null {
    const interviews = this.interviews();
    if (interviews === null) return null;
    const { byWeight, bySeconds } = slopesOfMean(
      interviews,
      this.weighing.circuit,
      (place) => this.secondsAt(place, seconds),
      (place) => {
        const ending = this.endingAt(place);
        return ending === null || endings.has(ending);
      },
    );
    const ofSeconds = new Map<string, number>();
    for (const [place, slope] of bySeconds) {
      if (this.encoded.course.places[place]?.kind !== 'item') continue;
      const { name } = this.encoded.itemAt(place).planItem.item;
      ofSeconds.set(name, (ofSeconds.get(name) ?? 0) + slope);
    }
    return (name, leaning, more) =>
      this.weighing
        .slopesToward(name, leaning)
        .reduce((sum, [weight, slope]) => sum + slope * (byWeight.get(weight) ?? 0), 0) +
      more * (ofSeconds.get(name) ?? 0);
  }

  /**
   * Shares of all groups where some break off: of whoever is presented an item, `stay` (by seconds) go on from it. Null where
   * whole interviews cannot be gone through.
   */
  sharesOfThoseWhoStay(
    seconds: (name: string) => number,
    stay: (seconds: number) => number,
  ): number[] | null {
    const interviews = this.interviews();
    if (interviews === null) return null;
    return lastingTo(
      interviews,
      this.weighing.circuit,
      (place) => stay(this.secondsAt(place, seconds)),
      this.told.map(({ places }) => places),
    );
  }

  private readonly secondsAt = (at: number, seconds: (name: string) => number): number => {
    const place = this.encoded.course.places[at];
    return place?.kind === 'item' ? seconds(this.encoded.itemAt(at).planItem.item.name) : 0;
  };

  private readonly endingAt = (at: number): string | null => {
    const place = this.encoded.course.places[at];
    return place?.kind === 'ending' ? (this.plan.endings[place.ending]?.ending.id ?? null) : null;
  };

  private interviews(): Interviews | null {
    if (this.traced === undefined) {
      const places = new Map<number, Diagram>();
      for (const { places: all } of this.told) for (const at of all) places.set(at, this.massAt(at));
      this.traced = withinMemory(() =>
        interviewsIn(
          this.encoded,
          this.weighing,
          [...places].map(([at, mass]) => ({ at, mass })),
        ),
      );
    }
    return this.weighing.isMixed ? null : this.traced;
  }

  private termOf(mass: Diagram): Term | null {
    return withinMemory(() => this.weighing.termOf(mass));
  }

  private massAt(at: number): Diagram {
    const { coming } = this.weighing;
    return this.encoded.course.places[at]?.kind === 'item' ? coming.presentedAt(at) : coming.at(at);
  }

  private items(): Told[] {
    const { plan, encoded } = this;
    const { course, diagrams } = encoded;
    return plan.sections.flatMap((section) =>
      section.items.flatMap(({ item, index }): Told[] => {
        const passes = Array.from({ length: section.repeat?.max ?? 1 }, (_, n) => n + 1);
        const places = passes.map((pass) => course.item(section.index, pass, index));
        const masses = places.map((at) => this.massAt(at));
        const any = masses.reduce((some, mass) => diagrams.or(some, mass));
        const all = { group: { item: item.name, pass: null }, term: this.termOf(any), places };
        if (section.repeat === null) return [all];
        return [
          all,
          ...passes.map((pass, n) => ({
            group: { item: item.name, pass },
            term: this.termOf(masses[n] as Diagram),
            places: [places[n] as number],
          })),
        ];
      }),
    );
  }

  private sections(): Told[] {
    const { course, diagrams } = this.encoded;
    return this.plan.sections.map(({ section, items, index, repeat }) => {
      const passes = Array.from({ length: repeat?.max ?? 1 }, (_, n) => n + 1);
      const places = passes.flatMap((pass) => items.map((item) => course.item(index, pass, item.index)));
      const any = places.reduce((some, at) => diagrams.or(some, this.massAt(at)), FALSE);
      return { group: { section: section.id }, term: this.termOf(any), places };
    });
  }

  private endings(): Told[] {
    return this.plan.endings.map(({ ending }, index) => {
      const at = this.encoded.course.ending(index);
      return { group: { ending: ending.id }, term: this.termOf(this.massAt(at)), places: [at] };
    });
  }
}

/** Or where, and why, it cannot be told exactly. */
export function prospectOf(plan: Plan, caps: Caps = DEFAULT_CAPS): Prospect | readonly Limit[] {
  try {
    const encoded = new EncodedPlan(plan, new Diagrams(caps.nodes, caps.steps), WEIGHED_SCOPE);
    return encoded.limits.length > 0 ? encoded.limits : new Prospect(plan, encoded);
  } catch (error) {
    if (error instanceof TooMuch) return [{ at: {}, message: 'the conditions are too entangled' }];
    throw error;
  }
}
