/**
 * The river as far as it can be told apart: where every item of a section may be followed by nearly any later one (many
 * drawn, many with an ask-if of their own), so many ribbons run side by side that no map shows them. Such a section stays one node.
 */
import type { Transition } from '../analysis';
import type { Plan } from '../routing/plan';
import { forksOf, type ForksModel } from './forks';

/** Ribbons that run beside a section's items, on average: with more, the layout takes minutes and nobody sees a way. */
const MOST_BESIDE = 32;

export interface LegibleForks {
  readonly model: ForksModel;
  /** Ids of the sections that were to be unfolded, and are not. */
  readonly tooDense: readonly string[];
}

export function legibleForks(
  plan: Plan,
  transitions: readonly Transition[],
  unfolded: ReadonlySet<string>,
  asked?: Parameters<typeof forksOf>[3],
): LegibleForks {
  const model = forksOf(plan, transitions, unfolded, asked);
  const tooDense = model.bands
    .filter((band) => band.unfolded && ribbonsBeside(model, band.nodes) > MOST_BESIDE)
    .map(({ id }) => id);
  if (tooDense.length === 0) return { model, tooDense };
  const left = new Set([...unfolded].filter((id) => !tooDense.includes(id)));
  return { model: forksOf(plan, transitions, left, asked), tooDense };
}

function ribbonsBeside({ ribbons }: ForksModel, nodes: readonly string[]): number {
  const order = new Map(nodes.map((id, n) => [id, n]));
  let beside = 0;
  for (const { from, to } of ribbons) {
    const [above, below] = [order.get(from), order.get(to)];
    if (above !== undefined && below !== undefined) beside += below - above;
  }
  return beside / nodes.length;
}
