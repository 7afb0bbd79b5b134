/**
 * The river drawn: bands, ribbons, nodes, early endings, as a tree of SVG that a screen shows and a file holds. What can be
 * pressed is marked by `data-node`, `data-ribbon` and `data-band`. Lengths in pixels.
 */
import { address, nameAt, readAddress, type Address } from '../document/addresses';
import { element, type Element } from '../exchange/element';
import { percentText } from '../wording/percent';
import { endingLabel } from '../wording/targets';
import { nodeLabel, type ForksBand, type ForksNode, type ForksRibbon } from './forks';
import { exitPath, nodeWidth as widthOf, ribbonPath, ribbonWidth, type Point, type River } from './river';
import * as colours from './river-colours';

const SANS = "'Instrument Sans Variable', 'Instrument Sans', Roboto, Arial, sans-serif";
const MONO = "'JetBrains Mono Variable', 'JetBrains Mono', Roboto, monospace";

/** Left of the river, for what its nodes are called. */
const LABELS = 208;
/** From the river to where early endings are written, and their room. */
const EXIT_AT = 46;
const EXITS = 150;
/** Dots for the items of a section: more are not counted by eye. */
const MOST_DOTS = 40;

export interface Bounds {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** How much room the whole map takes: the river with its labels at the left and the early endings at the right. */
export function boundsOf({ width, height }: River['layout']): Bounds {
  return { x: -LABELS, y: -14, width: LABELS + width + EXIT_AT + EXITS, height: height + 30 };
}

/** What stands out. */
export interface Marked {
  readonly chosen: Chosen;
  /** Nodes on some route with the chosen one; null: all. */
  readonly lit: ReadonlySet<string> | null;
  /** How many snags there are, by node. */
  readonly snags: ReadonlyMap<string, number>;
}

export interface Chosen {
  /** Id of a node, or of a ribbon. */
  readonly node: Address | null;
  readonly ribbon: string | null;
}

export const UNMARKED: Marked = { chosen: { node: null, ribbon: null }, lit: null, snags: new Map() };

export function drawRiver(river: River, marked: Marked): Element {
  const { model } = river;
  const isLit = litIn(river, marked);
  return element(
    'g',
    { 'font-family': SANS, 'font-size': 13, fill: colours.INK },
    model.bands.map((band) => bandDrawn(band, river)),
    model.ribbons.map((ribbon) => ribbonDrawn(river, ribbon, marked, isLit(ribbon))),
    exitsPlaced(river).map((placed) => exitDrawn(river, placed, marked, isLit(placed.exit))),
    model.nodes.map((node) => nodeDrawn(river, node, marked)),
  );
}

/** Whether a ribbon is on some route with what is chosen. */
function litIn({ model }: River, { chosen, lit }: Marked): (ribbon: ForksRibbon) => boolean {
  const order = new Map(model.nodes.map(({ id }, n) => [id, n]));
  const at = (chosen.node === null ? undefined : order.get(chosen.node)) ?? -1;
  return ({ from, to }) => {
    if (lit === null) return true;
    const [above, below] = [order.get(from) ?? -1, order.get(to) ?? Infinity];
    const around = above < at && below > at;
    return !around && lit.has(from) && (lit.has(to) || !order.has(to)) && (order.has(to) || above >= at);
  };
}

function ribbonDrawn(river: River, ribbon: ForksRibbon, { chosen }: Marked, isLit: boolean): Element | null {
  const { model, layout, sizes, weights } = river;
  const points = layout.ribbons[ribbon.id];
  if (points === undefined) return null;
  const here = ribbon.id === chosen.ribbon;
  const ending = model.nodes.find(({ id }) => id === ribbon.to)?.ending ?? null;
  const fill = here ? colours.MARIGOLD : ending === null ? colours.RIBBON : colours.exitColour(ending);
  return element(
    'path',
    {
      'data-ribbon': ribbon.id,
      d: ribbonPath(points, ribbonWidth(weights.get(ribbon.id), sizes)),
      fill,
      opacity: isLit ? 1 : 0.25,
      stroke: here ? colours.INK : 'none',
      'stroke-width': 0.6,
    },
    element('title', {}, titleOf(river, ribbon)),
  );
}

interface PlacedExit {
  readonly exit: ForksRibbon;
  readonly from: Point;
  readonly to: Point;
  /** At its end, where it is written what it is. */
  readonly thick: number;
}

/** Early endings leave at the right end of their node, one below the other. */
function exitsPlaced(river: River): PlacedExit[] {
  const { model, layout, sizes, weights } = river;
  return model.nodes.flatMap((node) => {
    const point = layout.nodes[node.id];
    const exits = model.exits.filter(({ from }) => from === node.id);
    if (point === undefined || exits.length === 0) return [];
    let right = point.x + nodeWidth(river, node.id);
    const below = point.y + sizes.height;
    let line = below + 2;
    return exits.map((exit) => {
      const width = ribbonWidth(weights.get(exit.id), sizes);
      const thick = Math.min(width, sizes.gap * 0.7);
      const from = { x: right - width / 2, y: below };
      right -= width;
      const room = Math.max(15, thick + 3);
      line += room;
      return { exit, from, to: { x: layout.width + EXIT_AT, y: line - room / 2 }, thick };
    });
  });
}

function exitDrawn(river: River, placed: PlacedExit, { chosen }: Marked, isLit: boolean): Element {
  const { plan, sizes, weights } = river;
  const { exit, from, to, thick } = placed;
  const { name } = readAddress(exit.to);
  const kind = plan.document.endings.find(({ id }) => id === name)?.kind ?? 'complete';
  const here = exit.id === chosen.ribbon;
  return element(
    'g',
    { 'data-ribbon': exit.id, opacity: isLit ? 1 : 0.25 },
    element('path', {
      d: exitPath(from, to, ribbonWidth(weights.get(exit.id), sizes), thick),
      'fill-opacity': 0.9,
      fill: here ? colours.MARIGOLD : colours.exitColour(kind),
      stroke: here ? colours.INK : 'none',
      'stroke-width': 0.6,
    }),
    element('rect', { x: to.x, y: to.y - 7, width: 4, height: 14, fill: colours.endingColour(kind) }),
    element(
      'text',
      { x: to.x + 10, y: to.y + 4, 'font-size': 12, 'font-weight': 600 },
      endingLabel(plan.document, name),
      element('tspan', { 'font-weight': 400, fill: colours.SOFT, dx: 6 }, weightText(river, exit)),
    ),
  );
}

function nodeDrawn(river: River, node: ForksNode, { chosen, lit, snags }: Marked): Element | null {
  const point = river.layout.nodes[node.id];
  if (point === undefined) return null;
  const { x, y } = point;
  const here = node.id === chosen.node;
  const { height } = river.sizes;
  const middle = y + height / 2 + 4;
  const unreached = node.share === 0;
  const width = nodeWidth(river, node.id);
  return element(
    'g',
    { 'data-node': node.id, opacity: lit === null || lit.has(node.id) ? 1 : 0.3 },
    element('title', {}, `${node.label}${unreached ? ': no respondent comes here' : ''}`),
    element('rect', {
      x: -LABELS + 6,
      y: y - 3,
      width: LABELS - 18,
      height: height + 6,
      fill: 'transparent',
    }),
    calledBeside(node, middle),
    snagsDrawn(snags.get(node.id) ?? 0, middle),
    element('rect', {
      x,
      y,
      width,
      height,
      rx: 3,
      fill:
        node.ending !== null
          ? colours.endingColour(node.ending)
          : here
            ? colours.MARIGOLD_WASH
            : colours.SHEET,
      stroke: here ? colours.MARIGOLD : node.ending !== null ? 'none' : colours.PINE,
      'stroke-width': here ? 2.5 : 1.5,
      'stroke-dasharray': unreached ? '3 3' : undefined,
    }),
    figuresDrawn(river, node, { ...point, width }, middle),
  );
}

/** What a node is called, at its left. */
function calledBeside(node: ForksNode, middle: number): Element[] {
  if (nameAt(node.id, 'section') === null) {
    const isItem = node.ending === null;
    const look = { 'font-family': isItem ? MONO : SANS, 'font-size': isItem ? 12 : 13, 'font-weight': 600 };
    const words = shortened(isItem ? node.mark : node.label, 22);
    return [element('text', { x: -20, y: middle, 'text-anchor': 'end', ...look }, words)];
  }
  const letter = { 'font-family': MONO, 'font-size': 14, 'font-weight': 700, fill: colours.PINE_MID };
  return [
    element('text', { x: -LABELS + 30, y: middle, ...letter }, node.mark),
    element(
      'text',
      { x: -20, y: middle, 'text-anchor': 'end', 'font-weight': 600 },
      shortened(node.label, 20),
    ),
  ];
}

function snagsDrawn(count: number, middle: number): Element | null {
  if (count === 0) return null;
  return element(
    'g',
    { fill: colours.CORAL },
    element('path', { d: `M${-LABELS + 4} ${middle + 1} l5 -10 l5 10 z` }),
    element('text', { x: -LABELS + 16, y: middle, 'font-size': 11, 'font-weight': 700 }, String(count)),
  );
}

/** How many come to a node, and a dot for each item of a section: in it where there is room, else beside it. */
function figuresDrawn(
  river: River,
  node: ForksNode,
  { x, y, width }: Point & { readonly width: number },
  middle: number,
): Element[] {
  const { height } = river.sizes;
  const isSection = nameAt(node.id, 'section') !== null;
  const band = isSection ? river.model.bands.find(({ section }) => section === node.section) : undefined;
  const text = [shareText(node), band === undefined ? '' : noteOf(band)]
    .filter((part) => part !== '')
    .join(' · ');
  const inside = height >= 14 && width > text.length * 6.4 + 16;
  const dots = isSection && node.items.length <= MOST_DOTS ? node.items.length : 0;
  const dotRoom = dots * 9 + 12;
  const dotsInside = inside && width > text.length * 6.4 + 24 + dotRoom;
  const dotsX = dotsInside ? x + width - dotRoom + 6 : x + width + (inside ? 10 : text.length * 6.4 + 20);
  return [
    element(
      'text',
      {
        x: inside ? x + 9 : x + width + 8,
        y: middle,
        'font-size': 11.5,
        'font-weight': 600,
        fill: inside && node.ending !== null ? colours.SHEET : colours.INK,
      },
      text,
    ),
    ...Array.from({ length: dots }, (_, n) =>
      element('circle', { cx: dotsX + n * 9, cy: y + height / 2, r: 2.8, fill: colours.PINE_MID }),
    ),
  ];
}

/** The ground of an unfolded section, with its title. */
function bandDrawn(band: ForksBand, { layout, sizes }: River): Element | null {
  if (!band.unfolded) return null;
  const [first, last] = [layout.nodes[band.nodes[0] ?? ''], layout.nodes[band.nodes.at(-1) ?? '']];
  if (first === undefined || last === undefined) return null;
  const [top, bottom] = [first.y - sizes.gap / 2 + 1, last.y + sizes.height + sizes.gap / 2 - 1];
  const note = noteOf(band);
  const title = [shortened(band.title, 24), ...(note === '' ? [] : [note])].join(' · ');
  const right = layout.width;
  return element(
    'g',
    { 'data-band': address('section', band.id) },
    element('title', {}, [band.title, ...(note === '' ? [] : [note])].join(' · ')),
    element('rect', {
      x: -LABELS + 2,
      y: top,
      width: right + LABELS + 30,
      height: bottom - top,
      rx: 6,
      fill: colours.TINT,
      stroke: colours.LINE,
    }),
    band.repeat !== null &&
      element('path', {
        d: `M${right + 22} ${top + 8} V${bottom - 8} M${right + 26} ${top + 8} V${bottom - 8}`,
        stroke: colours.PINE_MID,
        fill: 'none',
      }),
    element(
      'text',
      {
        x: -LABELS + 12,
        y: top + 15,
        'font-size': 12,
        'font-weight': 700,
        fill: colours.PINE_MID,
        'font-family': MONO,
      },
      band.letter,
    ),
    bottom - top >= 90 &&
      element(
        'text',
        {
          transform: `translate(${right + 9} ${top + 12}) rotate(90)`,
          'font-size': 11,
          fill: colours.SOFT,
          'font-weight': 600,
        },
        title,
      ),
  );
}

export function nodeWidth({ model, sizes, weights }: River, id: string): number {
  return widthOf(model, id, (ribbon) => ribbonWidth(weights.get(ribbon.id), sizes));
}

function noteOf({ repeat, draw }: ForksBand): string {
  if (repeat !== null) return `up to ${repeat} times`;
  return draw === null ? '' : `${draw[0]} of ${draw[1]} drawn`;
}

function shareText({ share }: ForksNode): string {
  return share === null ? '' : percentText(Math.min(1, share));
}

function weightText({ weights, measure }: River, { id }: ForksRibbon): string {
  const weight = weights.get(id);
  return weight === null || weight === undefined
    ? ''
    : `${percentText(weight)}${measure === 'routes' ? ' of routes' : ''}`;
}

function titleOf(river: River, ribbon: ForksRibbon): string {
  const label = (id: Address) => nodeLabel(river.model, id);
  return `${label(ribbon.from)} → ${label(ribbon.to)} ${weightText(river, ribbon)}`;
}

function shortened(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, most - 1)}…`;
}
