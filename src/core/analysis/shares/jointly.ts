/**
 * Two versions of a questionnaire over the same respondents: who is led otherwise by the second than by the first, and what
 * share of its sample that is. Names and answers must be those of the second; an answer that has changed counts as a
 * difference for all who are presented it, whatever the first made of it.
 */
import { passKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { EncodedPlan } from '../conditions/encoded-plan';
import { CachedWork } from '../counting/analysis-cache';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';
import { DEFAULT_CAPS, withinMemory, type Caps } from '../diagrams/limits';
import { Coming } from '../reach/coming';
import { WEIGHED_SCOPE, Weighing } from './weighing';

/** What is shown otherwise in the second version, by name and id: all who are presented it meet a difference. */
export interface ShownOtherwise {
  readonly items: ReadonlySet<string>;
  readonly endings: ReadonlySet<string>;
}

export interface Jointly {
  /** Items of both versions that are asked of others now, in some pass. */
  readonly otherBases: ReadonlySet<string>;
  /**
   * Of the second version's sample, from 0 to 1, who are presented something else or come to another ending; null where
   * that hangs on chance that only the first version has.
   */
  readonly share: number | null;
}

/** Null where it cannot be told exactly, or is too entangled. */
export function jointly(
  first: Plan,
  second: Plan,
  otherwise: ShownOtherwise,
  caps: Caps = DEFAULT_CAPS,
): Jointly | null {
  return withinMemory(() => new BothVersions(first, second, otherwise, new CachedWork(caps)).compared());
}

interface Led {
  readonly encoded: EncodedPlan;
  readonly coming: Coming;
  /** Those who come to each item and pass, and to each ending, with where it stands. */
  readonly places: ReadonlyMap<string, PlaceMass>;
}

interface PlaceMass {
  readonly name: string;
  readonly of: keyof ShownOtherwise;
  readonly mass: Diagram;
  readonly at: number;
}

class BothVersions {
  constructor(
    private readonly first: Plan,
    private readonly second: Plan,
    private readonly otherwise: ShownOtherwise,
    private readonly work: CachedWork,
  ) {}

  compared(): Jointly | null {
    const { diagrams } = this.work;
    const before = this.led(this.first, (encoded) => new Coming(encoded));
    const weighings: Weighing[] = [];
    const now = this.led(this.second, (encoded) => {
      const weighing = new Weighing(encoded);
      weighings.push(weighing);
      return weighing.coming;
    });
    if (before.encoded.limits.length + now.encoded.limits.length > 0 || !this.areAlike(before, now))
      return null;
    const toNow = this.translation(before, now);
    const otherBases = new Set<string>();
    let differing: Diagram = FALSE;
    for (const [key, { name, of, mass, at }] of now.places) {
      const earlier = toNow(before.places.get(key)?.mass ?? FALSE);
      if (mass !== earlier) {
        const other = diagrams.or(
          diagrams.and(mass, diagrams.not(earlier)),
          diagrams.and(earlier, diagrams.not(mass)),
        );
        const settled = now.coming.possible([other], undefined, at);
        if (of === 'items' && diagrams.and(other, settled) !== FALSE) otherBases.add(name);
        differing = diagrams.or(differing, other);
      }
      if (this.otherwise[of].has(name)) differing = diagrams.or(differing, mass);
    }
    for (const [key, { mass }] of before.places)
      if (!now.places.has(key)) differing = diagrams.or(differing, toNow(mass));
    const known = this.knownNow(differing, before, now, toNow);
    const [weighing] = weighings;
    return { otherBases, share: known === null || weighing === undefined ? null : weighing.shareOf(known) };
  }

  private led(plan: Plan, comingOf: (encoded: EncodedPlan) => Coming): Led {
    const { diagrams, ranks } = this.work;
    const versions = [this.first, this.second];
    const encoded = new EncodedPlan(plan, diagrams, { ...WEIGHED_SCOPE, ranks, keepsTests: true, versions });
    const coming = comingOf(encoded);
    const places = new Map<string, PlaceMass>();
    encoded.course.places.forEach((place, at) => {
      if (place.kind === 'item') {
        const { planItem, pass } = encoded.itemAt(at);
        const { name } = planItem.item;
        places.set(passKey(name, pass), { name, of: 'items', mass: coming.presentedAt(at), at });
      } else if (place.kind === 'ending') {
        const name = plan.endings[place.ending]?.ending.id ?? '';
        places.set(`> ${name}`, { name, of: 'endings', mass: coming.at(at), at });
      }
    });
    return { encoded, coming, places };
  }

  /** Whether both tell the same answers apart in the same way. */
  private areAlike(before: Led, now: Led): boolean {
    return [...now.encoded.symbols].every(([key, { values }]) => {
      const earlier = before.encoded.symbols.get(key);
      return earlier === undefined || JSON.stringify(earlier.values) === JSON.stringify(values);
    });
  }

  /** What moved in the order of the questionnaire has other variables now: diagrams of the first version in those of the second. */
  private translation(before: Led, now: Led): (of: Diagram) => Diagram {
    const { diagrams } = this.work;
    const known = new Map<Diagram, Diagram>();
    const variable = (level: number): Diagram => {
      const earlier = before.encoded.symbolAt(level);
      const symbol = earlier && now.encoded.symbols.get(earlier.key);
      return symbol === undefined || symbol === earlier
        ? diagrams.variable(level)
        : symbol.sameAs(level, earlier as AnswerSymbol);
    };
    const toNow = (of: Diagram): Diagram => {
      if (of === FALSE || of === TRUE) return of;
      let found = known.get(of);
      if (found === undefined) {
        found = diagrams.choose(
          variable(diagrams.topOf(of)),
          toNow(diagrams.highOf(of)),
          toNow(diagrams.lowOf(of)),
        );
        known.set(of, found);
      }
      return found;
    };
    return toNow;
  }

  /**
   * Without what only the first version asks: whoever was presented it meets a difference already, and whoever was not has
   * no answer to it. Quotas are open, as everywhere in shares. Null where it hangs on a choice of chance, a value
   * known beforehand, or a count over passes, that the second version does not have.
   */
  private knownNow(
    differing: Diagram,
    before: Led,
    now: Led,
    toNow: (of: Diagram) => Diagram,
  ): Diagram | null {
    const { diagrams } = this.work;
    let open = differing;
    for (const level of before.encoded.fullLevel.values())
      open = diagrams.and(open, diagrams.not(diagrams.variable(level)));
    const chosen = new Set([
      ...now.encoded.fullLevel.values(),
      ...now.encoded.drawnLevel.values(),
      ...now.encoded.begunLevel.values(),
    ]);
    const isKnown = (level: number) =>
      now.encoded.symbolAt(level) !== undefined ||
      now.encoded.settledWith(level) !== undefined ||
      chosen.has(level);
    const gone = diagrams.support(open).filter((level) => !isKnown(level));
    // Of those who came with a value that is asked for no more, it is not known who had which.
    const isAsked = (level: number) =>
      before.encoded.symbolAt(level) !== undefined && before.encoded.homeOf(level) !== null;
    if (!gone.every(isAsked)) return null;
    const unanswered = new Set<number>();
    for (let level = gone.pop(); level !== undefined; level = gone.pop()) {
      const home = before.encoded.homeOf(level);
      if (home == null || unanswered.has(home)) continue;
      unanswered.add(home);
      const presented = before.coming.presentedAt(home);
      open = diagrams.and(open, toNow(diagrams.or(presented, before.encoded.unasked(home))));
      gone.push(...diagrams.support(presented).filter((other) => !isKnown(other)));
    }
    return diagrams.forget(open, (level) => !isKnown(level));
  }
}
