/** The arcs drawn in the sheet's margin: one for each target that skips lead to, and the lane it runs in. */
import type { Plan } from '../routing/plan';
import { codesSkipped } from './leads';
import { targetView, type TargetView } from '../wording/targets';

export interface Arc {
  readonly id: string;
  /** Anchors it leaves from: `option:NAME/CODE`, `item-skips:NAME`, or `onward:ID` of a section's end. */
  readonly sources: readonly string[];
  readonly target: TargetView;
}

/** Skips with one target from one stretch share an arc, so that many ways out stay readable. */
export function arcsOf(plan: Plan): Arc[] {
  const byTarget = new Map<string, { target: TargetView; sources: string[] }>();
  const add = (target: TargetView, sources: readonly string[]) => {
    if (target.anchor === 'next-pass') return;
    const known = byTarget.get(target.anchor);
    if (known === undefined) byTarget.set(target.anchor, { target, sources: [...sources] });
    else known.sources.push(...sources.filter((source) => !known.sources.includes(source)));
  };
  for (const section of plan.sections) {
    for (const planItem of section.items) {
      for (const skip of planItem.skips) {
        const codes = codesSkipped(planItem, skip);
        const { name } = planItem.item;
        add(
          targetView(plan, skip.to),
          codes.length === 0 ? [`item-skips:${name}`] : codes.map((code) => `option:${name}/${code}`),
        );
      }
    }
    for (const onward of section.onward) add(targetView(plan, onward.to), [`onward:${section.section.id}`]);
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
