/**
 * The questionnaire as a line of places, each before all it can lead to: a repeat is written out pass by pass.
 *
 * Respondents move along the line and never back; the numbers of the places are the canonical order of what is
 * presented at them.
 */
import type { Plan, PlanItem, PlanSection, PlanTarget } from '../../routing/plan';

export type Place =
  /** Before a section, on the way to its first item or to the one aimed at. */
  | { readonly kind: 'gate'; readonly section: number; readonly aim: number }
  /** The start of a pass; sections that do not repeat have one. */
  | { readonly kind: 'pass'; readonly section: number; readonly pass: number }
  | { readonly kind: 'item'; readonly section: number; readonly pass: number; readonly item: number }
  /** Past the last item of a pass. */
  | { readonly kind: 'end'; readonly section: number; readonly pass: number }
  | { readonly kind: 'ending'; readonly ending: number };

export interface Course {
  readonly places: readonly Place[];
  /** The gate of a section; past the last section, the ending there. */
  gate(section: number, aim?: number): number;
  pass(section: number, pass: number): number;
  item(section: number, pass: number, item: number): number;
  end(section: number, pass: number): number;
  ending(ending: number): number;
  /** Where a target leads from within `section`, in `pass`. */
  aim(target: PlanTarget, section: number, pass: number): number;
}

/** A repeat takes as many stretches of places as it has passes at most. */
export function courseOf(plan: Plan): Course {
  const aims = aimedItems(plan);
  const places: Place[] = [];
  const gates: Map<number, number>[] = [];
  const starts: number[][] = [];
  for (const { index, items, repeat } of plan.sections) {
    gates.push(new Map());
    for (const aim of [0, ...(aims.get(index) ?? [])]) {
      gates[index]?.set(aim, places.length);
      places.push({ kind: 'gate', section: index, aim });
    }
    starts.push([]);
    for (let pass = 1; pass <= (repeat?.max ?? 1); pass += 1) {
      starts[index]?.push(places.length);
      places.push({ kind: 'pass', section: index, pass });
      for (const { index: item } of items) places.push({ kind: 'item', section: index, pass, item });
      places.push({ kind: 'end', section: index, pass });
    }
  }
  const endings = places.length;
  plan.endings.forEach((_, ending) => places.push({ kind: 'ending', ending }));

  const start = (section: number, pass: number) => starts[section]?.[pass - 1] as number;
  const course: Course = {
    places,
    gate: (section, aim = 0) => gates[section]?.get(aim) ?? endings + plan.lastEnding,
    pass: start,
    item: (section, pass, item) => start(section, pass) + 1 + item,
    end: (section, pass) => start(section, pass) + 1 + (plan.sections[section] as PlanSection).items.length,
    ending: (ending) => endings + ending,
    aim(target, section, pass) {
      switch (target.to) {
        case 'ending':
          return course.ending(target.ending);
        case 'section':
          return course.gate(target.section);
        case 'item':
          return target.section === section
            ? course.item(section, pass, target.item)
            : course.gate(target.section, target.item);
        case 'next-pass':
          return course.end(section, pass);
        default:
          return target satisfies never;
      }
    },
  };
  return course;
}

/** Items past a section's first that are aimed at from other sections. */
function aimedItems(plan: Plan): Map<number, Set<number>> {
  const aims = new Map<number, Set<number>>();
  const add = (target: PlanTarget, from: number) => {
    if (target.to !== 'item' || target.section === from || target.item === 0) return;
    const known = aims.get(target.section) ?? new Set();
    aims.set(target.section, known.add(target.item));
  };
  for (const { index, items, onward } of plan.sections) {
    for (const item of items) for (const { to } of [...item.quotas, ...item.skips]) add(to, index);
    for (const { to } of onward) add(to, index);
  }
  return aims;
}

/** The item at a place; its pass is null outside repeated sections. */
export function itemIn(
  plan: Plan,
  place: Place & { kind: 'item' },
): { readonly planItem: PlanItem; readonly pass: number | null } {
  const section = plan.sections[place.section] as PlanSection;
  return {
    planItem: section.items[place.item] as PlanItem,
    pass: section.repeat === null ? null : place.pass,
  };
}
