/** One path through the forks as a route, with a respondent who meets just what happens on it. */
import { passKey } from '../../document/addresses';
import type { EncodedPlan } from '../conditions/encoded-plan';
import { respondentOf, type Presented, type Witness } from '../counting/witness';
import type { Diagram } from '../diagrams/diagram';
import { waysFrom } from '../reach/fork-events';
import type { ForkEvents } from './fork-graph';
import { isSameWay, type ForkPath } from './fork-paths';

export interface PathRoute {
  readonly items: readonly string[];
  readonly ending: string;
  readonly witness: Witness;
}

/** Null where nobody takes the path. */
export function alongPath(encoded: EncodedPlan, events: ForkEvents, path: ForkPath): PathRoute | null {
  const { diagrams, course } = encoded;
  const masses: Diagram[] = [encoded.given];
  const presented: Presented[] = [];
  let known = encoded.given;
  let ending = '';
  for (const step of path) {
    const { at, place } = step;
    const branch = waysFrom(encoded, at, known).find((way) =>
      isSameWay({ place: way.to, events: events.numbersOf(way) }, step),
    );
    if (branch === undefined) return null;
    masses.push(branch.mass);
    if (branch.presented) {
      const { planItem, pass } = encoded.itemAt(at);
      presented.push({ planItem, pass });
    }
    const here = course.places[at];
    if (here?.kind === 'ending') ending = encoded.plan.endings[here.ending]?.ending.id ?? '';
    if (place !== null) known = diagrams.forget(branch.mass, encoded.isPastAt(place));
  }
  const items = presented.map(({ planItem, pass }) => passKey(planItem.item.name, pass));
  const witness = respondentOf(encoded, masses, presented);
  return witness && { items, ending, witness };
}
