/** One path through the forks as a route, with a respondent who meets just what happens on it. */
import { passKey } from '../../document/addresses';
import type { Diagram } from '../diagrams/diagram';
import type { ForkEvents } from './fork-graph';
import { isSameWay, type ForkPath } from './fork-paths';
import type { Terrain } from '../conditions/terrain';
import { waysFrom } from '../reach/ways';
import { respondentOf, type Presented, type Witness } from '../counting/witness';

export interface PathRoute {
  readonly items: readonly string[];
  readonly ending: string;
  readonly witness: Witness;
}

/** Null where nobody takes the path. */
export function alongPath(terrain: Terrain, events: ForkEvents, path: ForkPath): PathRoute | null {
  const { diagrams, layout } = terrain;
  const masses: Diagram[] = [terrain.given];
  const presented: Presented[] = [];
  let known = terrain.given;
  let ending = '';
  for (const step of path) {
    const { at, place } = step;
    const branch = waysFrom(terrain, at, known).find((way) =>
      isSameWay({ place: way.to, events: events.numbersOf(way) }, step),
    );
    if (branch === undefined) return null;
    masses.push(branch.mass);
    if (branch.presented) {
      const { planItem, pass } = terrain.itemAt(at);
      presented.push({ planItem, pass });
    }
    const here = layout.places[at];
    if (here?.kind === 'ending') ending = terrain.plan.endings[here.ending]?.ending.id ?? '';
    if (place !== null) known = diagrams.forget(branch.mass, terrain.isPastAt(place));
  }
  const items = presented.map(({ planItem, pass }) => passKey(planItem.item.name, pass));
  const witness = respondentOf(terrain, masses, presented);
  return witness && { items, ending, witness };
}
