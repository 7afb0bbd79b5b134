/** The river before it is drawn: sizes for the layout, what ribbons are worth, and their outlines. All lengths in pixels. */
import type { Plan } from '../routing/plan';
import { sectionLabel } from '../wording/targets';
import { routesAlong, type ForksModel, type ForksRibbon, type RoutesAlong } from './forks';

/** What ribbons are as wide as. */
export type RibbonMeasure = 'share' | 'routes';

/** All that is drawn. */
export interface River {
  readonly plan: Plan;
  readonly model: ForksModel;
  /** Ids of sections that were to be unfolded, and are too dense. */
  readonly tooDense: readonly string[];
  readonly layout: RiverLayout;
  readonly sizes: RiverSizes;
  /** Of ribbons and exits, by id, from 0 to 1; null where not known. */
  readonly weights: ReadonlyMap<string, number | null>;
  readonly measure: RibbonMeasure;
}

export interface RiverSizes {
  /** Of a share of one. */
  readonly full: number;
  /** Of a node, from top to bottom, and of the gap to the next. */
  readonly height: number;
  readonly gap: number;
}

/** What is laid out: nodes from top to bottom, each above the next, and ribbons between them. */
export interface LayoutTask {
  readonly nodes: readonly { readonly id: string; readonly width: number }[];
  readonly ribbons: readonly {
    readonly id: string;
    readonly from: string;
    readonly to: string;
    readonly width: number;
  }[];
  readonly height: number;
  readonly gap: number;
}

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface RiverLayout {
  readonly width: number;
  readonly height: number;
  /** Upper left corners. */
  readonly nodes: Readonly<Record<string, Point>>;
  /** The middle of each ribbon, from its node to its node. */
  readonly ribbons: Readonly<Record<string, readonly Point[]>>;
}

const NARROWEST_RIBBON = 1.5;
const NARROWEST_NODE = 8;

/** Sizes with which so many nodes fit into a height, as long as they stay readable. */
export function sizesFor(nodes: number, height: number): RiverSizes {
  const full = nodes > 40 ? 300 : 440;
  const pitch = Math.min(66, Math.max(22, height / Math.max(1, nodes)));
  const thick = Math.round(Math.min(26, Math.max(10, pitch * 0.42)));
  return { full, height: thick, gap: Math.round(pitch - thick) };
}

/** Which sections stay folded though they were to be unfolded, as a sentence; null where none does. */
export function denseWords({ plan, tooDense }: Pick<River, 'plan' | 'tooDense'>): string | null {
  const sections = plan.sections.filter(({ section }) => tooDense.includes(section.id));
  if (sections.length === 0) return null;
  const labels = sections.map(({ index }) => sectionLabel(plan.document, index)).join(', ');
  const stays = sections.length === 1 ? 'stays' : 'stay';
  return `${labels} ${stays} folded: nearly any item may follow any other there, in too many ways to tell apart.`;
}

export function shareWeights({ ribbons, exits }: ForksModel): ReadonlyMap<string, number | null> {
  return new Map([...ribbons, ...exits].map(({ id, share }) => [id, share]));
}

/** Of each ribbon and exit, which routes go along it; null where passes hide that. */
export function askedRoutes(
  plan: Plan,
  model: ForksModel,
): readonly { readonly id: string; readonly along: RoutesAlong | null }[] {
  return [...model.ribbons, ...model.exits].map((ribbon) => ({
    id: ribbon.id,
    along: routesAlong(plan, model, ribbon),
  }));
}

/** How large a part of all routes goes along each. `counts`: of those that are not null, in order; `total` at least 1. */
export function routeWeights(
  asked: ReturnType<typeof askedRoutes>,
  counts: readonly bigint[],
  total: bigint,
): ReadonlyMap<string, number | null> {
  const left = [...counts];
  return new Map(
    asked.map(({ id, along }): [string, number | null] => [
      id,
      along === null ? null : Number(((left.shift() ?? 0n) * 1_000_000n) / total) / 1_000_000,
    ]),
  );
}

/** How wide a ribbon is; `weights` by id, from 0 to 1. */
export function ribbonWidth(weight: number | null | undefined, { full }: RiverSizes): number {
  return Math.max(NARROWEST_RIBBON, (weight ?? 0) * full);
}

/** As wide as what comes in, or what goes out. */
export function nodeWidth(
  { ribbons, exits }: ForksModel,
  id: string,
  width: (ribbon: ForksRibbon) => number,
): number {
  const sum = (some: readonly ForksRibbon[]) => some.reduce((all, ribbon) => all + width(ribbon), 0);
  const into = sum(ribbons.filter(({ to }) => to === id));
  const out = sum([...ribbons, ...exits].filter(({ from }) => from === id));
  return Math.max(NARROWEST_NODE, into, out);
}

/** `weights`: what each ribbon and exit is worth, by id, from 0 to 1. */
export function layoutTask(
  model: ForksModel,
  sizes: RiverSizes,
  weights: ReadonlyMap<string, number | null>,
): LayoutTask {
  const width = ({ id }: ForksRibbon) => ribbonWidth(weights.get(id), sizes);
  return {
    nodes: model.nodes.map(({ id }) => ({ id, width: nodeWidth(model, id, width) })),
    ribbons: model.ribbons.map((ribbon) => ({
      id: ribbon.id,
      from: ribbon.from,
      to: ribbon.to,
      width: width(ribbon),
    })),
    height: sizes.height,
    gap: sizes.gap,
  };
}

/** The outline of a ribbon as an SVG path: as wide everywhere, measured across. */
export function ribbonPath(points: readonly Point[], width: number): string {
  const half = width / 2;
  return `${along(points, -half, 'M')} ${along([...points].reverse(), half, 'L')} Z`;
}

/** The outline of a ribbon that turns right, out of the river, and grows as thick as `thick`. */
export function exitPath(from: Point, to: Point, width: number, thick: number): string {
  const n = (value: number) => Number(value.toFixed(1));
  const [left, right] = [n(from.x - width / 2), n(from.x + width / 2)];
  const [top, bottom] = [n(to.y - thick / 2), n(to.y + thick / 2)];
  const [turned, end, start] = [n(from.x + width / 2 + 30), n(to.x), n(from.y)];
  return [
    `M${left} ${start} C${left} ${bottom} ${right} ${bottom} ${turned} ${bottom} L${end} ${bottom}`,
    `L${end} ${top} L${turned} ${top} C${n(turned - 20)} ${top} ${right} ${top} ${right} ${start} Z`,
  ].join(' ');
}

function along(points: readonly Point[], shift: number, first: 'M' | 'L'): string {
  const n = (value: number) => Number(value.toFixed(1));
  return points
    .map(({ x, y }, index) => {
      const here = `${n(x + shift)} ${n(y)}`;
      const before = points[index - 1];
      if (before === undefined) return `${first}${here}`;
      const middle = n((before.y + y) / 2);
      return `C${n(before.x + shift)} ${middle} ${n(x + shift)} ${middle} ${here}`;
    })
    .join(' ');
}

/** Of what a layout leaves between two nodes beyond the gap, so much is kept, up to a limit in pixels. */
const KEPT = 0.12;
const KEPT_AT_MOST = 34;

/** The same layout with less room where ribbons go far across: they may be steep. */
export function compacted(layout: RiverLayout, { nodes, height, gap }: LayoutTask): RiverLayout {
  const tops = nodes.flatMap(({ id }) => layout.nodes[id]?.y ?? []);
  // From where to where each height moves: piece by piece, at the top and bottom of every node.
  const marks: { from: number; to: number }[] = [];
  let to = tops[0] ?? 0;
  tops.forEach((top, n) => {
    const before = tops[n - 1];
    if (before !== undefined) {
      const room = top - before - height;
      to += room <= gap ? room : gap + Math.min(KEPT_AT_MOST, (room - gap) * KEPT);
    }
    marks.push({ from: top, to });
    to += height;
    marks.push({ from: top + height, to });
  });
  const moved = (y: number): number => {
    const after = marks.findIndex(({ from }) => from >= y);
    const [a, b] = [marks[after - 1], marks[after]];
    const end = marks.at(-1);
    if (b === undefined) return end === undefined ? y : y - end.from + end.to;
    if (a === undefined) return y - b.from + b.to;
    return b.from === a.from ? b.to : a.to + ((y - a.from) / (b.from - a.from)) * (b.to - a.to);
  };
  const at = ({ x, y }: Point): Point => ({ x, y: moved(y) });
  return {
    width: layout.width,
    height: moved(layout.height),
    nodes: Object.fromEntries(Object.entries(layout.nodes).map(([id, point]) => [id, at(point)])),
    ribbons: Object.fromEntries(Object.entries(layout.ribbons).map(([id, points]) => [id, points.map(at)])),
  };
}
