/**
 * What can be seen at each place. Kept from one edit to the next: an item in a pass and an ending stay the same
 * observation wherever they have moved to, so that a graph made before an edit speaks of the places as they are now.
 */
import { passKey } from '../../document/addresses';
import type { Plan, PlanItem } from '../../routing/plan';
import { itemIn, type Course, type Place } from '../conditions/course';

/** A place in the order of the questionnaire. */
export interface Ranked {
  /** Number of the place. */
  readonly rank: number;
}

/** What can be seen next: an item in a pass, or an ending. Compared by `rank`, which is canonical order. */
export interface Observation extends Ranked {
  readonly planItem: PlanItem | null;
  readonly pass: number | null;
  /** Index of the ending; -1 for an item. */
  readonly ending: number;
}

type Writable = { -readonly [Key in keyof Observation]: Observation[Key] };

export class Observations {
  private readonly byName = new Map<string, Writable>();
  private here: (Writable | undefined)[] = [];
  private plan: Plan | null = null;
  private course: Course | null = null;

  /** Takes the places of a questionnaire; observations known before are told where they are now. */
  renew(plan: Plan, course: Course): void {
    if (this.course === course) return;
    this.plan = plan;
    this.course = course;
    const met = new Map<string, number>();
    this.here = course.places.map((place, at) => {
      const name = this.nameOf(plan, place);
      if (name === null) return undefined;
      const times = met.get(name) ?? 0;
      met.set(name, times + 1);
      return this.observation(times === 0 ? name : `${name} ${times}`, place, at);
    });
  }

  /** Of an item or an ending. */
  at(at: number): Observation {
    const observation = this.here[at];
    if (observation === undefined || (observation.planItem === null && observation.ending < 0))
      throw new RangeError(`nothing is seen at place ${at}`);
    return observation;
  }

  /** Of an item, an ending or a gate. */
  ranked(at: number): Ranked {
    const spot = this.here[at];
    if (spot === undefined) throw new RangeError(`place ${at} is no spot`);
    return spot;
  }

  private nameOf(plan: Plan, place: Place): string | null {
    switch (place.kind) {
      case 'item': {
        const { planItem, pass } = itemIn(plan, place);
        return `item ${passKey(planItem.item.name, pass)}`;
      }
      case 'ending':
        return `ending ${plan.endings[place.ending]?.ending.id ?? ''}`;
      case 'gate':
        return `gate ${plan.sections[place.section]?.section.id ?? ''} ${place.aim}`;
      default:
        return null;
    }
  }

  private observation(name: string, place: Place, rank: number): Writable {
    const item = place.kind === 'item' ? itemIn(this.plan as Plan, place) : { planItem: null, pass: null };
    const now = { rank, ...item, ending: place.kind === 'ending' ? place.ending : -1 };
    const known = this.byName.get(name);
    if (known !== undefined) return Object.assign(known, now);
    this.byName.set(name, now);
    return now;
  }
}
