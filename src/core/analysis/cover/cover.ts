/**
 * A small set of routes that together meet everything that any fork can do, and how small such a set can be.
 *
 * Paths are chosen greedily, each with the most that is new (a dynamic program over the graph of forks), then
 * routes are dropped and merged. The lower bound is the dual of the covering problem: for weights of the events,
 * all weights over the heaviest path. The weights are improved by multiplicative updates (Plotkin, Shmoys and
 * Tardos, "Fast approximation algorithms for fractional packing and covering problems", 1995).
 */
import { eventsOf, type ForkPath, type PathFinder } from './fork-paths';

export interface Cover {
  readonly paths: readonly ForkPath[];
  /** No set with fewer paths meets every event. */
  readonly atLeast: number;
}

export interface CoverTask {
  readonly finder: PathFinder;
  /** Numbers of the events that have to be met, each of which somebody meets. */
  readonly events: ReadonlySet<number>;
  /** Those of them that every path on which they are met tells of: only these prove anything. */
  readonly told: ReadonlySet<number>;
  /** How many numbers there are. */
  readonly numbers: number;
  /** A path on which one event is met, where no heavy one was found; null where none can be found. */
  readonly through: (event: number) => ForkPath | null;
  /** Whether heavy paths are too dear for trying much. */
  readonly dear: boolean;
  /** Told whenever there are more, or fewer that do as well, or the bound is higher. */
  readonly improved: Improved;
}

/**
 * Paths that were found so far: at first some, which meet a part of the events, then ever fewer that meet all. To be read at
 * once: the list goes on being changed.
 */
export type Improved = (soFar: Cover) => void;

/** Edges looked at in improving the bound, and so the time it takes. */
const EDGES_LOOKED_AT = 12_000_000;
const MOST_ROUNDS = 240;
/** How much an event on the heaviest path loses of its weight in a round. */
const STEP = 0.12;

/** `atLeast` is proven: no set of fewer paths meets all events. */
export function coverOf(task: CoverTask): Cover {
  const { finder, events, numbers } = task;
  if (events.size === 0) return { paths: [], atLeast: 0 };
  const even = new Float64Array(numbers);
  for (const event of events) even[event] = 1;
  const told = (paths: readonly ForkPath[]) => task.improved({ paths, atLeast: 1 });
  let best = smaller(task, greedy(task, even, told), told);
  let atLeast = 1;
  const weights = new Float64Array(numbers);
  for (const event of task.told) weights[event] = 1;
  const rounds = Math.min(MOST_ROUNDS, Math.ceil(EDGES_LOOKED_AT / Math.max(1, finder.cost)));
  for (let round = 0; round < rounds && best.length > atLeast && task.told.size > 0; round += 1) {
    const { weight, path } = finder.heaviest(weights);
    const total = weights.reduce((sum, each) => sum + each, 0);
    // A hair less than the quotient, so that rounding never claims too much.
    const bound = Math.ceil((total / weight) * (1 - 1e-9));
    if (bound > atLeast) {
      atLeast = bound;
      task.improved({ paths: best, atLeast });
    }
    for (const event of eventsOf(path)) weights[event] = (weights[event] as number) * (1 - STEP);
    const scale = task.told.size / weights.reduce((sum, each) => sum + each, 0);
    weights.forEach((each, event) => (weights[event] = each * scale));
    // The weights tell which events are hard to meet together with others: worth another try now and then.
    if (!task.dear && round % 24 === 23) {
      const all = weights.map((weight, event) => (task.told.has(event) ? weight : (even[event] ?? 0)));
      const other = smaller(task, greedy(task, all));
      if (other.length < best.length) {
        best = other;
        task.improved({ paths: best, atLeast });
      }
    }
  }
  return { paths: best, atLeast };
}

/** Paths until every event is met, each as heavy as can be in what is new. */
function greedy(
  { finder, events, through }: CoverTask,
  weights: Float64Array,
  told: (paths: readonly ForkPath[]) => void = () => undefined,
): ForkPath[] {
  const left = Float64Array.from(weights);
  const open = new Set(events);
  const chosen: ForkPath[] = [];
  for (let [event] = open; event !== undefined; [event] = open) {
    const heavy = finder.heavy(left);
    const isNew = heavy !== null && [...eventsOf(heavy)].some((met) => open.has(met));
    const path = isNew ? heavy : through(event);
    if (path === null) {
      open.delete(event);
      continue;
    }
    const before = open.size;
    for (const met of eventsOf(path)) {
      open.delete(met);
      left[met] = 0;
    }
    if (open.size === before) throw new RangeError('an event that has to be met is on no path');
    chosen.push(path);
    told(chosen);
  }
  return chosen;
}

/** The same events with fewer paths, where dropping one or putting two into one does it. */
function smaller(
  task: CoverTask,
  from: readonly ForkPath[],
  told: (paths: readonly ForkPath[]) => void = () => undefined,
): ForkPath[] {
  const left = [...from];
  const met = new Int32Array(task.numbers);
  const count = (path: ForkPath, by: number) => {
    for (const event of eventsOf(path)) met[event] = (met[event] as number) + by;
  };
  for (const path of left) count(path, 1);
  /** What only these paths meet. */
  const ownOf = (...some: readonly ForkPath[]) => {
    for (const path of some) count(path, -1);
    const own = new Set(
      some.flatMap((path) =>
        [...eventsOf(path)].filter((event) => met[event] === 0 && task.events.has(event)),
      ),
    );
    for (const path of some) count(path, 1);
    return own;
  };
  const replace = (gone: readonly ForkPath[], by: readonly ForkPath[]) => {
    for (const path of gone) {
      count(path, -1);
      left.splice(left.indexOf(path), 1);
    }
    for (const path of by) {
      count(path, 1);
      left.push(path);
    }
  };
  for (const path of [...left].reverse()) if (ownOf(path).size === 0) replace([path], []);
  // Those that add least are the likeliest to go into another.
  for (;;) {
    told(left);
    const bySize = left.map((path) => ({ path, own: ownOf(path) })).sort((a, b) => a.own.size - b.own.size);
    const some = bySize.slice(0, task.dear ? 5 : 12).map(({ path }) => path);
    const merged = firstMerge(task, some, ownOf);
    if (merged === null) return left;
    replace(merged.gone, [merged.by]);
  }
}

function firstMerge(
  { finder, numbers }: CoverTask,
  some: readonly ForkPath[],
  ownOf: (...of: readonly ForkPath[]) => ReadonlySet<number>,
): { gone: readonly ForkPath[]; by: ForkPath } | null {
  for (let a = 0; a < some.length; a += 1) {
    for (let b = a + 1; b < some.length; b += 1) {
      const gone = [some[a] as ForkPath, some[b] as ForkPath];
      const own = ownOf(...gone);
      const weights = new Float64Array(numbers);
      for (const event of own) weights[event] = 1;
      // What no path can meet together is known at once, whether or not somebody takes the path.
      if (finder.bound(weights) < own.size) continue;
      const path = finder.heavy(weights);
      if (path === null) continue;
      const met = eventsOf(path);
      if ([...own].every((event) => met.has(event))) return { gone, by: path };
    }
  }
  return null;
}
