/** One path through the graph of forks as a route, with a respondent who meets just what happens on it. */
import { itemKey } from '../routing/plan';
import type { ForkPath } from './cover';
import type { Diagram } from './diagram';
import type { ForkGraph } from './fork-graph';
import type { Terrain } from './terrain';
import { waysFrom } from './ways';
import { respondentOf, type Presented, type Witness } from './witness';

export interface PathRoute {
  readonly items: readonly string[];
  readonly ending: string;
  readonly witness: Witness;
}

/** Throws where the path is not one of the graph. */
export function alongPath(terrain: Terrain, graph: ForkGraph, path: ForkPath): PathRoute {
  const masses: Diagram[] = [];
  const presented: Presented[] = [];
  let ending = '';
  let node = graph.root;
  for (const edge of path) {
    const branch = node === null ? undefined : waysFrom(terrain, node.at, node.known)[edge.way];
    if (node === null || branch === undefined) throw new RangeError('the path leaves the graph');
    masses.push(branch.mass);
    if (branch.presented) {
      const { planItem, pass } = terrain.itemAt(node.at);
      presented.push({ planItem, pass });
    }
    const place = terrain.layout.places[node.at];
    if (place?.kind === 'ending') ending = terrain.plan.endings[place.ending]?.ending.id ?? '';
    node = edge.to;
  }
  const items = presented.map(({ planItem, pass }) => itemKey(planItem.item.name, pass));
  return { items, ending, witness: respondentOf(terrain, masses, presented) };
}
