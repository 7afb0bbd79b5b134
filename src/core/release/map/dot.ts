/** The map in the DOT language: a section a cluster, early ends set apart, and a line as thick as its share. */
import { isEarly } from '../../document/vocabularies';
import { sound } from '../../exchange/markup';
import * as colours from '../../views/river-colours';
import { percentText } from '../../wording/percent';
import type { ForkGraph, GraphEdge, GraphNode } from './graph';

/** In points, of a line that everybody takes, and of one that hardly anybody takes. */
const THICKEST = 12;
const THINNEST = 0.8;
/** Of an item's words, beside its name. */
const MOST_SIGNS = 44;

type Attributes = Readonly<Record<string, string | number>>;

/** `version`: which version it is of; `tokens`: the stylesheet in which the colours are. */
export function dot(graph: ForkGraph, version: string, tokens: string): string {
  const resolved = colours.resolving(tokens);
  const list = (attributes: Attributes) => listed(attributes, resolved);
  const lines = [
    `digraph ${quoted(graph.title)} {`,
    `  graph ${list({ label: `${graph.title}\n${version}`, labelloc: 't', rankdir: 'TB', fontname: 'sans-serif', bgcolor: colours.SHEET })}`,
    `  node ${list({ shape: 'box', style: 'rounded', fontname: 'sans-serif', fontsize: 10, color: colours.PINE })}`,
    `  edge ${list({ fontname: 'sans-serif', fontsize: 9, color: colours.PINE_MID, fontcolor: colours.SOFT })}`,
    ...graph.sections.flatMap(({ label, nodes }, n) => [
      `  subgraph ${quoted(`cluster_${n + 1}`)} {`,
      `    graph ${list({ label, style: 'rounded', color: colours.LINE, bgcolor: colours.TINT })}`,
      ...nodes.map((node) => `    ${quoted(node.id)} ${list(ofItem(node))}`),
      '  }',
    ]),
    ...graph.endings.map((node) => `  ${quoted(node.id)} ${list(ofEnding(node))}`),
    ...graph.edges.map((edge) => `  ${quoted(edge.from)} -> ${quoted(edge.to)} ${list(ofEdge(edge))}`),
    '}',
  ];
  return `${lines.join('\n')}\n`;
}

function ofItem({ kind, name, text, share }: GraphNode): Attributes {
  const words = text.length <= MOST_SIGNS ? text : `${text.slice(0, MOST_SIGNS - 1)}…`;
  return {
    label: `${name}${shareIn(share)}\n${words}`,
    tooltip: text,
    ...(kind === 'question' ? {} : { style: 'rounded,dashed' }),
  };
}

function ofEnding({ text, share, ending = 'complete' }: GraphNode): Attributes {
  const colour = colours.endingColour(ending);
  return {
    label: `${text}${shareIn(share)}`,
    shape: isEarly(ending) ? 'cds' : 'box',
    style: 'filled',
    color: colour,
    fillcolor: colour,
    fontcolor: colours.SHEET,
  };
}

function ofEdge({ share, condition, who }: GraphEdge): Attributes {
  return {
    ...(condition === null || condition === 'always' ? {} : { label: percentOf(share), tooltip: who }),
    ...(share === null ? {} : { penwidth: Math.max(THINNEST, Math.min(1, share) * THICKEST).toFixed(2) }),
  };
}

function percentOf(share: number | null): string {
  return share === null ? '' : percentText(Math.min(1, share));
}

function shareIn(share: number | null): string {
  return share === null ? '' : ` · ${percentOf(share)}`;
}

/** Words are the author's: only what is a colour has its tokens replaced. */
function listed(attributes: Attributes, resolved: (colour: string) => string): string {
  const parts = Object.entries(attributes).map(([name, value]) => {
    const text = String(value);
    return `${name}=${quoted(name.endsWith('color') ? resolved(text) : text)}`;
  });
  return `[${parts.join(', ')}];`;
}

/** Between quotation marks; a break of a line stays one, and a backslash is none of the language's own. */
function quoted(text: string): string {
  const plain = sound(text).replaceAll('\\', '\\\\').replaceAll('"', '\\"').replaceAll('\n', '\\n');
  return `"${plain}"`;
}
