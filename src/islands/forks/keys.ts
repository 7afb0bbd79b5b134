/** Moving about on the river by keyboard: along the flow, and from ribbon to ribbon. */
import type { Address } from '../../core/document/addresses';
import type { ForksModel, ForksRibbon } from '../../core/views/forks';
import type { Chosen } from '../../core/views/river-drawing';

export type Direction = 'down' | 'up' | 'left' | 'right';

/** What is chosen after an arrow key; the same where there is nothing further that way. */
export function step({ nodes, ribbons, exits }: ForksModel, chosen: Chosen, direction: Direction): Chosen {
  const all = [...ribbons, ...exits];
  const ribbon = all.find(({ id }) => id === chosen.ribbon);
  const node = (id: Address): Chosen => ({ node: id, ribbon: null });
  if (ribbon !== undefined) {
    if (direction === 'up') return node(ribbon.from);
    if (direction === 'down') return nodes.some(({ id }) => id === ribbon.to) ? node(ribbon.to) : chosen;
    const beside = all.filter(({ from }) => from === ribbon.from);
    const at = beside.indexOf(ribbon) + (direction === 'right' ? 1 : -1);
    const next = beside[(at + beside.length) % beside.length];
    return next === undefined ? chosen : { node: null, ribbon: next.id };
  }
  if (chosen.node === null) return nodes[0] === undefined ? chosen : node(nodes[0].id);
  const widest = (of: readonly ForksRibbon[]) => [...of].sort((a, b) => (b.share ?? 0) - (a.share ?? 0))[0];
  const at = nodes.findIndex(({ id }) => id === chosen.node);
  switch (direction) {
    case 'down': {
      const next = widest(ribbons.filter(({ from }) => from === chosen.node))?.to ?? nodes[at + 1]?.id;
      return next === undefined ? chosen : node(next);
    }
    case 'up': {
      const next = widest(ribbons.filter(({ to }) => to === chosen.node))?.from ?? nodes[at - 1]?.id;
      return next === undefined ? chosen : node(next);
    }
    default: {
      const out = all.filter(({ from }) => from === chosen.node);
      const next = direction === 'right' ? out[0] : out.at(-1);
      return next === undefined ? chosen : { node: null, ribbon: next.id };
    }
  }
}
