/** The map as a graph for programs that draw or reckon with one: an item or an ending a node, and who goes on a line. */
import { whoFlowsOn, type FlowWords } from '../../analysis';
import { address, type Address } from '../../document/addresses';
import type { EndingKind, Item, Questionnaire } from '../../document/types';
import { ENDINGS } from '../../document/vocabularies';
import { sectionLabel, endingLabel } from '../../wording/targets';
import { flowingSentence } from '../../wording/flowing';
import { once } from '../formats/once';
import { preparedFor } from '../formats/prepared';
import { markedWords } from '../print/marked';
import { wholeForks } from './whole-river';

export interface ForkGraph {
  readonly title: string;
  readonly sections: readonly { readonly label: string; readonly nodes: readonly GraphNode[] }[];
  readonly endings: readonly GraphNode[];
  readonly edges: readonly GraphEdge[];
}

export interface GraphNode {
  readonly id: Address;
  readonly kind: Item['kind'] | 'ending';
  readonly name: string;
  /** What a question asks, a note says, or an ending is called. */
  readonly text: string;
  /** Of an item. */
  readonly section?: string;
  /** Of an ending. */
  readonly ending?: EndingKind;
  /** From 0 to 1, of all who start: who are presented it, or end there. Null where that is not known exactly. */
  readonly share: number | null;
}

export interface GraphEdge {
  readonly from: Address;
  readonly to: Address;
  /** How often it is taken, per respondent, within a repeated section in one pass. */
  readonly share: number | null;
  /** Who of those who come to `from` take it, as a condition (`always` for everybody) and in words; null: too entangled. */
  readonly condition: string | null;
  readonly who: string;
}

/** Throws `CannotWrite` where the conditions are too entangled. */
export const forkGraph = once((document: Questionnaire): ForkGraph => {
  const { plan } = preparedFor(document);
  const model = wholeForks(document);
  const who = whoBetween(whoFlowsOn(plan));
  const shares = new Map(model.nodes.map(({ id, share }) => [id, share]));
  const lines = [...model.ribbons, ...model.exits];
  return {
    title: document.title,
    sections: plan.sections.map(({ index, items }) => ({
      label: sectionLabel(document, index),
      nodes: items.map(({ item }) => ({
        id: address('item', item.name),
        kind: item.kind,
        name: item.name,
        text: markedWords(item.text),
        section: sectionLabel(document, index),
        share: shares.get(address('item', item.name)) ?? null,
      })),
    })),
    endings: document.endings.map(({ id, kind }) => {
      const at = address('ending', id);
      const into = lines.filter(({ to }) => to === at);
      const known = into.every(({ share }) => share !== null);
      return {
        id: at,
        kind: 'ending',
        name: id,
        text: `${ENDINGS[kind].word}: ${endingLabel(document, id)}`,
        ending: kind,
        share: known ? into.reduce((sum, { share }) => sum + (share ?? 0), 0) : null,
      };
    }),
    edges: lines.map(({ from, to, share }) => {
      const condition = who.get(from)?.get(to) ?? null;
      return { from, to, share, condition, who: flowingSentence(condition, plan.variables) };
    }),
  };
});

function whoBetween(flows: readonly FlowWords[] | null): ReadonlyMap<Address, ReadonlyMap<Address, string>> {
  const between = new Map<Address, Map<Address, string>>();
  for (const { from, to, who } of flows ?? []) {
    const source = address('item', from);
    const target = 'item' in to ? address('item', to.item) : address('ending', to.ending);
    const known = between.get(source) ?? new Map<Address, string>();
    between.set(source, known.set(target, who));
  }
  return between;
}
