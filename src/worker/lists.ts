/** The lists of routes that the ledger shows, kept as long as the analysis they are of. */
import {
  listed,
  withFront,
  without,
  type Analysis,
  type Likeliest,
  type RouteFilter,
  type RoutesLeft,
  type Shares,
  type RouteVersion,
  type Via,
} from '../core/analysis';
import type { Plan } from '../core/routing/plan';
import { answerAsked } from '../core/views/answers-asked';
import type { ListQuery, ListSummary } from './list-query';
import type { LikelySummary } from './types';

/** How many of the likeliest are looked for. */
const LIKELIEST = 1000;

export interface ListSource {
  readonly plan: Plan;
  readonly analysis: Analysis;
  /** Null where shares are not exact. */
  shares(): Shares | null;
  /** This version and the one that touched routes are told by; null where there is none. */
  versions(): readonly [RouteVersion, RouteVersion] | null;
}

export interface RouteList extends RoutesLeft {
  readonly exact: boolean;
  readonly front: number;
  /** How many routes the one with a number stands for. */
  timesOf(number: bigint): bigint | null;
}

export class Lists {
  private readonly known = new Map<string, RouteList | null>();
  private found: Likeliest | null | undefined;

  constructor(private readonly source: ListSource) {}

  /** Null where it is too entangled to tell. */
  of(query: ListQuery): RouteList | null {
    const key = JSON.stringify(query);
    let list = this.known.get(key);
    if (list === undefined) {
      list = this.make(query);
      // The lists asked for last are the ones that are scrolled.
      if (this.known.size > 12) this.known.clear();
      this.known.set(key, list);
    }
    return list;
  }

  summary(query: ListQuery): ListSummary {
    const list = this.of(query);
    if (list === null) return { total: '0', exact: false, front: 0, refused: 'entangled' };
    return { total: String(list.total), exact: list.exact, front: list.front, refused: null };
  }

  private make(query: ListQuery): RouteList | null {
    const { through, avoid, ending, taking, answering, order, folded, touched, leaveOut, only, front } =
      query;
    const { analysis, plan } = this.source;
    const versions = touched ? this.source.versions() : null;
    if (touched && versions === null) return null;
    const filter: RouteFilter = {
      through,
      avoid,
      via: [...taking, ...answering.flatMap((text) => answerWay(plan, text))],
      ...(ending === null ? {} : { ending }),
      ...(order === 'shortest' || order === 'longest' ? { order } : {}),
    };
    const selected = analysis.select({
      ...filter,
      folded,
      ...(versions === null ? {} : { notIn: versions }),
    });
    if (selected === null) return null;
    let left: RoutesLeft & { front?: number } = selected;
    if (leaveOut.length > 0) left = without(left, leaveOut.map(BigInt));
    if (only !== null) left = among(left, only.map(BigInt));
    else if (order === 'likeliest') left = among(left, this.likeliestNumbers());
    else if (front.length > 0) left = withFront(left, front.map(BigInt));
    return {
      total: left.total,
      numberOf: (k) => left.numberOf(k),
      positionOf: (number) => left.positionOf(number),
      exact: selected.exact,
      front: left.front ?? 0,
      timesOf(number) {
        const position = selected.positionOf(number);
        return position === null ? null : selected.timesOf(position);
      },
    };
  }

  likely(): LikelySummary | null {
    const found = this.likeliest();
    return (
      found && {
        routes: found.routes.length,
        together: found.routes.reduce((sum, { share }) => sum + share, 0),
        othersAtMost: found.othersAtMost,
      }
    );
  }

  private likeliestNumbers(): readonly bigint[] {
    return (this.likeliest()?.routes ?? []).flatMap(
      ({ items, ending }) => this.source.analysis.numberOf(items, ending) ?? [],
    );
  }

  private likeliest(): Likeliest | null {
    if (this.found === undefined) this.found = this.source.shares()?.likeliest(LIKELIEST) ?? null;
    return this.found;
  }
}

/** One that nobody can give leaves nothing; the page asks for none that cannot be read. */
function answerWay(plan: Plan, text: string): Via[] {
  const asked = answerAsked(plan, text);
  return asked.ok ? [{ item: asked.item, answers: asked.answers }] : [];
}

/** Those of the numbers that are left, in the order given; of several that are one row, the first. */
function among(left: RoutesLeft, numbers: readonly bigint[]): RoutesLeft {
  const met = new Set<bigint>();
  const some = numbers.flatMap((number) => {
    const position = left.positionOf(number);
    if (position === null || met.has(position)) return [];
    met.add(position);
    return [left.numberOf(position) ?? number];
  });
  return listed(some);
}
