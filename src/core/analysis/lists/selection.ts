/**
 * Routes chosen by everything at once: by filters, by not being in another version, and with those as one that differ
 * only in what was drawn. Each has the number that it has among all routes.
 */
import { nameInKey } from '../../document/addresses';
import type { Plan } from '../../routing/plan';
import type { Node } from '../counting/graph';
import { numberIn, numberMatching, observationsOf, seenOn, type Route } from '../counting/routes';
import { filterRoutes, type RouteFilter, type RoutesLeft } from './filters';
import { Quotient } from './quotient';
import type { RouteContents } from './route-contents';
import { routesOnlyIn, type RouteVersion } from './route-difference';

export interface Selection extends RouteFilter {
  /** Only routes that another version does not have: this version and the other, by what they show. */
  readonly notIn?: readonly [own: RouteVersion, other: RouteVersion, contents?: RouteContents];
  /** Those that differ only in what was drawn count as one, and have the number of the first of them. */
  readonly folded?: boolean;
}

export interface Selected extends RoutesLeft {
  /** How many routes are one with the k-th; null where there are fewer. */
  timesOf(k: bigint): bigint | null;
}

/** How all routes are numbered. */
export interface Numbering {
  numberOf(items: readonly string[], ending: string): bigint | null;
  outline(number: bigint): Pick<Route, 'items' | 'ending'> | null;
}

/** Of the routes in a graph, which may be a part of all; throws `TooEntangled`. */
export function selectRoutes(
  plan: Plan,
  root: Node,
  numbering: Numbering,
  { notIn, folded = false, ...filter }: Omit<Selection, 'via'>,
): Selected {
  const only = notIn === undefined ? root : routesOnlyIn({ ...notIn[0], root }, notIn[1], notIn[2]);
  if (only === null) return NONE;
  if (!folded) {
    const left = filterRoutes(only, plan.endings, filter);
    const { numberOf, outline } = numbering;
    const own = (number: bigint) => {
      const all = outline(number);
      return all === null ? null : numberIn(plan, only, all.items, all.ending);
    };
    const all = (number: bigint) => {
      const observations = observationsOf(only, number);
      const seen = observations && seenOn(plan, observations);
      return seen && numberOf(seen.items, seen.ending);
    };
    return {
      total: left.total,
      numberOf: (k) => mapped(left.numberOf(k), all),
      positionOf: (number) => mapped(own(number), (n) => left.positionOf(n)),
      timesOf: (k) => (k >= 1n && k <= left.total ? 1n : null),
    };
  }
  return foldedRoutes(plan, only, numbering, filter);
}

function foldedRoutes(
  plan: Plan,
  root: Node,
  { numberOf, outline }: Numbering,
  filter: Omit<RouteFilter, 'via'>,
): Selected {
  const { through = [], avoid = [] } = filter;
  const drawn = drawnIn(plan);
  const isDrawn = (key: string) => drawn.has(nameInKey(key));
  const folding = new Quotient(plan, root, {
    through: through.filter((names) => names.some(isDrawn)),
    avoid: avoid.filter(isDrawn),
  });
  const graph = folding.graph();
  if (graph === null) return NONE;
  const left = filterRoutes(graph, plan.endings, {
    ...filter,
    through: through.filter((names) => !names.some(isDrawn)),
    avoid: avoid.filter((name) => !isDrawn(name)),
  });
  const variants = (k: bigint) => {
    const observations = mapped(left.numberOf(k), (number) => observationsOf(graph, number));
    return observations && folding.variants(observations.map((observation) => folding.labelOf(observation)));
  };
  return {
    total: left.total,
    numberOf(k) {
      const found = variants(k);
      const seen = found && seenOn(plan, found.observations);
      return seen && numberOf(seen.items, seen.ending);
    },
    positionOf(number) {
      const all = outline(number);
      const own = all === null ? null : numberIn(plan, root, all.items, all.ending);
      const observations = own === null ? null : observationsOf(root, own);
      if (observations === null) return null;
      const labels = observations.map((observation) => folding.labelOf(observation));
      const folded = numberMatching(graph, labels, (observation) => folding.labelOf(observation));
      return mapped(folded, (n) => left.positionOf(n));
    },
    timesOf: (k) => variants(k)?.times ?? null,
  };
}

const NONE: Selected = { total: 0n, numberOf: () => null, positionOf: () => null, timesOf: () => null };

function mapped<From, To>(from: From | null, to: (from: From) => To | null): To | null {
  return from === null ? null : to(from);
}

/** The questions of sections that draw. */
function drawnIn(plan: Plan): ReadonlySet<string> {
  return new Set(
    plan.sections.flatMap(({ section, items }) =>
      section.draw === undefined
        ? []
        : items.flatMap(({ item }) => (item.kind === 'question' ? [item.name] : [])),
    ),
  );
}
