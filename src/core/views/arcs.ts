/** The arcs drawn in the sheet's margin: one for each target that skips lead to, and the lane it runs in. */
import { address, type Address } from '../document/addresses';
import type { Plan } from '../routing/plan';
import { targetView, type TargetView } from '../wording/targets';
import { codesSkipped } from './leads';

export interface Arc {
  readonly id: string;
  /** What it leaves from: answers, the skips of an item as a whole, or a section's end. */
  readonly sources: readonly Address[];
  readonly target: TargetView & { readonly anchor: Address };
}

/** Skips with one target from one stretch share an arc, so that many ways out stay readable. */
export function arcsOf(plan: Plan): Arc[] {
  const byTarget = new Map<
    Address,
    { target: TargetView & { readonly anchor: Address }; sources: Address[] }
  >();
  const add = ({ anchor, ...target }: TargetView, sources: readonly Address[]) => {
    if (anchor === null) return;
    const known = byTarget.get(anchor);
    if (known === undefined) byTarget.set(anchor, { target: { anchor, ...target }, sources: [...sources] });
    else known.sources.push(...sources.filter((source) => !known.sources.includes(source)));
  };
  for (const section of plan.sections) {
    for (const planItem of section.items) {
      for (const skip of planItem.skips) {
        const codes = codesSkipped(planItem, skip);
        const { name } = planItem.item;
        add(
          targetView(plan, skip.to),
          codes.length === 0
            ? [address('item-skips', name)]
            : codes.map((code) => address('option', name, code)),
        );
      }
    }
    for (const onward of section.onward)
      add(targetView(plan, onward.to), [address('onward', section.section.id)]);
  }
  return [...byTarget].map(([anchor, { target, sources }]) => ({ id: anchor, sources, target }));
}

/** The vertical stretch that an arc takes up, in pixels. */
export interface Stretch {
  readonly id: string;
  readonly top: number;
  readonly bottom: number;
}

/**
 * Gives each stretch a lane, 0 nearest the text, so that no two in a lane overlap. Shorter ones go first and so
 * lie inside longer ones (greedy interval colouring).
 */
export function packLanes(stretches: readonly Stretch[], gap = 6): ReadonlyMap<string, number> {
  const lanes: Stretch[][] = [];
  const laneOf = new Map<string, number>();
  const shortFirst = [...stretches].sort((a, b) => a.bottom - a.top - (b.bottom - b.top) || a.top - b.top);
  for (const stretch of shortFirst) {
    const clear = (lane: readonly Stretch[]) =>
      lane.every((other) => other.bottom + gap <= stretch.top || other.top >= stretch.bottom + gap);
    let lane = lanes.findIndex(clear);
    if (lane < 0) lane = lanes.push([]) - 1;
    lanes[lane]?.push(stretch);
    laneOf.set(stretch.id, lane);
  }
  return laneOf;
}
