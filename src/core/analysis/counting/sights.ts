/**
 * What can be seen at each place. Kept from one edit to the next: an item in a pass and an ending stay the same sight
 * wherever they have moved to, so that a graph made before an edit speaks of the places as they are now.
 */
import { passKey } from '../../document/addresses';
import type { Plan, PlanItem, PlanSection } from '../../routing/plan';
import type { Layout, Place } from '../conditions/layout';

/** A place in the order of the questionnaire. */
export interface Spot {
  /** Number of the place. */
  readonly rank: number;
}

/** What can be seen next: an item in a pass, or an ending. Compared by `rank`, which is canonical order. */
export interface Sight extends Spot {
  readonly planItem: PlanItem | null;
  readonly pass: number | null;
  /** Index of the ending; -1 for an item. */
  readonly ending: number;
}

type Writable = { -readonly [Key in keyof Sight]: Sight[Key] };

export class Sights {
  private readonly byName = new Map<string, Writable>();
  private here: (Writable | undefined)[] = [];
  private plan: Plan | null = null;
  private layout: Layout | null = null;

  /** Takes the places of a questionnaire; sights known before are told where they are now. */
  renew(plan: Plan, layout: Layout): void {
    if (this.layout === layout) return;
    this.plan = plan;
    this.layout = layout;
    const met = new Map<string, number>();
    this.here = layout.places.map((place, at) => {
      const name = this.nameOf(plan, place);
      if (name === null) return undefined;
      const times = met.get(name) ?? 0;
      met.set(name, times + 1);
      return this.sight(times === 0 ? name : `${name} ${times}`, place, at);
    });
  }

  /** Of an item or an ending. */
  at(at: number): Sight {
    const sight = this.here[at];
    if (sight === undefined || (sight.planItem === null && sight.ending < 0))
      throw new RangeError(`nothing is seen at place ${at}`);
    return sight;
  }

  /** Of an item, an ending or a gate. */
  spot(at: number): Spot {
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

  private sight(name: string, place: Place, rank: number): Writable {
    const item = place.kind === 'item' ? itemIn(this.plan as Plan, place) : { planItem: null, pass: null };
    const now = { rank, ...item, ending: place.kind === 'ending' ? place.ending : -1 };
    const known = this.byName.get(name);
    if (known !== undefined) return Object.assign(known, now);
    this.byName.set(name, now);
    return now;
  }
}

function itemIn(plan: Plan, place: Place & { kind: 'item' }): { planItem: PlanItem; pass: number | null } {
  const section = plan.sections[place.section] as PlanSection;
  return {
    planItem: section.items[place.item] as PlanItem,
    pass: section.repeat === null ? null : place.pass,
  };
}
