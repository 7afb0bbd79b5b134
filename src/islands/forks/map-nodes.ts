/** The nodes of the map: which shows what is selected, how many snags each has, and what is said of it. */
import { useMemo } from 'react';
import { address, nameAt, type Address } from '../../core/document/addresses';
import { nodeLabel } from '../../core/views/forks';
import type { River } from '../../core/views/river';
import type { Chosen } from '../../core/views/river-drawing';
import { percentText } from '../../core/wording/percent';
import { useSnags } from '../state/snags';
import type { Selection } from '../state/study-state';

/** Of what is selected anywhere in the study, the node that shows it. */
export function nodeOf(
  selection: Selection,
  unfolded: ReadonlySet<string>,
  plan: {
    readonly sections: readonly {
      readonly section: { readonly id: string };
      readonly items: readonly { readonly item: { readonly name: string } }[];
    }[];
  },
): Address | null {
  if (selection === null || selection === 'comments') return null;
  for (const { section, items } of plan.sections) {
    if (selection === address('section', section.id))
      return unfolded.has(section.id)
        ? items[0] === undefined
          ? null
          : address('item', items[0].item.name)
        : selection;
    if (items.some(({ item }) => selection === address('item', item.name)))
      return unfolded.has(section.id) ? selection : address('section', section.id);
  }
  return nameAt(selection, 'ending') === null ? null : selection;
}

/** By node, its snags that are errors or warnings and not set aside. */
export function useNodeSnags(
  nodes: readonly { readonly id: Address; readonly items: readonly string[] }[],
): ReadonlyMap<string, number> {
  const { open } = useSnags();
  return useMemo(() => {
    const counts = new Map<string, number>();
    for (const { at, severity } of open) {
      if (severity === 'note') continue;
      const node = nodes.find(
        ({ id, items }) =>
          (at.item !== undefined && items.includes(at.item)) ||
          (at.item === undefined && at.section !== undefined && id === address('section', at.section)) ||
          (at.ending !== undefined && id === address('ending', at.ending)),
      );
      if (node !== undefined) counts.set(node.id, (counts.get(node.id) ?? 0) + 1);
    }
    return counts;
  }, [open, nodes]);
}

/** What a screen reader is told of what is chosen. */
export function toldOf({ model }: River, chosen: Chosen): string {
  const label = (id: Address) => nodeLabel(model, id);
  const all = [...model.ribbons, ...model.exits];
  const ribbon = all.find(({ id }) => id === chosen.ribbon);
  const share = (of: number | null) => (of === null ? '' : `, ${percentText(Math.min(1, of))} of the sample`);
  if (ribbon !== undefined) return `From ${label(ribbon.from)} to ${label(ribbon.to)}${share(ribbon.share)}`;
  const node = model.nodes.find(({ id }) => id === chosen.node);
  if (node === undefined) return '';
  const leads = all.filter(({ from }) => from === node.id).map(({ to }) => label(to));
  return `${node.label}${share(node.share)}${leads.length === 0 ? '' : `, leads to ${leads.join(', ')}`}`;
}
