/**
 * Single routes out of the graph: the route with a number, the number of a route, and a respondent who
 * takes it.
 */
import type { Answers, Value } from '../document/types';
import { optionsOf } from '../document/shape';
import { partsOf } from '../routing/answers';
import { drawKey } from '../routing/draws';
import { itemKey, type Plan, type PlanSection } from '../routing/plan';
import { walk } from '../routing/walk';
import type { Beliefs, History, Sight, State } from './belief';
import { bySight, type Edge, type Node } from './graph';
import { plausibleAnswer } from './plausible';

/** A route with one respondent who takes it: walking them gives exactly `items` and `ending`. */
export interface Route {
  readonly number: bigint;
  /** `name`, or `name#pass`. */
  readonly items: readonly string[];
  readonly ending: string;
  readonly answers: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly given?: Answers;
  readonly full?: readonly string[];
}

/** The sights of route `number`, counted from 1; null where there is none. */
export function sightsOf(root: Node, number: bigint): Sight[] | null {
  if (number < 1n || number > root.routes) return null;
  const sights: Sight[] = [];
  let rest = number - 1n;
  let node: Node | null = root;
  while (node !== null) {
    let taken: Edge | null = null;
    for (const edge of node.edges) {
      const here: bigint = edge.to?.routes ?? 1n;
      if (rest < here) {
        taken = edge;
        break;
      }
      rest -= here;
    }
    if (taken === null) return null; // An unopened node: its one counted route is not spelt out.
    sights.push(taken.sight);
    node = taken.to;
  }
  return sights;
}

/**
 * The number of the first route on which every sight has the mark given for its place in order; null where
 * there is none, or its region was not opened. Marks may be names, or what is shown.
 */
export function numberMatching(
  root: Node,
  marks: readonly string[],
  markOf: (sight: Sight) => string,
): bigint | null {
  const search = (node: Node, at: number, before: bigint): bigint | null => {
    let number = before;
    for (const { sight, to } of node.edges) {
      if (markOf(sight) === marks[at]) {
        const last = at === marks.length - 1;
        if (to === null && last) return number;
        const found = to === null || last ? null : search(to, at + 1, number);
        if (found !== null) return found;
      }
      number += to?.routes ?? 1n;
    }
    return null;
  };
  return search(root, 0, 1n);
}

/** The node reached by sights with these marks, one after the other; null where there is none. */
export function nodeAfter(
  root: Node,
  marks: readonly string[],
  markOf: (sight: Sight) => string | null,
): Node | null {
  let node: Node | null = root;
  for (const mark of marks) {
    node = node?.edges.find(({ sight }) => markOf(sight) === mark)?.to ?? null;
  }
  return node;
}

/** The number of the first route with `length` items, which must be the root's shortest or longest. */
export function firstOfLength(root: Node, which: 'shortest' | 'longest'): bigint {
  let number = 1n;
  let node: Node | null = root;
  while (node !== null && node.opened) {
    const wanted: number = node[which];
    let next: Node | null = null;
    for (const { to } of node.edges) {
      if ((to === null ? 0 : to[which] + 1) === wanted) {
        next = to;
        break;
      }
      number += to?.routes ?? 1n;
    }
    node = next;
  }
  return number;
}

/** A respondent who takes the route: answers to everything presented, draws, given values, full quotas. */
export function witnessOf(plan: Plan, beliefs: Beliefs, sights: readonly Sight[]): Omit<Route, 'number'> {
  let states: readonly State[] = beliefs.start();
  sights.forEach((sight, step) => {
    const group = bySight(states).find(({ sight: { rank } }) => rank === sight.rank);
    if (group === undefined) throw new RangeError(`no respondent is presented step ${step} of the route`);
    states = sight.planItem === null ? group.states : beliefs.after(group.states);
  });
  const [state] = states;
  if (state === undefined) throw new RangeError('no respondent takes the route');
  return route(plan, beliefs, sights, gather(plan, state.history));
}

interface Gathered {
  readonly answers: Record<string, Value | null>;
  readonly given: Record<string, Value>;
  readonly full: string[];
  readonly draws: Record<string, string[]>;
}

function gather(plan: Plan, history: History | null): Gathered {
  const gathered: Gathered = { answers: {}, given: {}, full: [], draws: {} };
  for (let at = history; at !== null; at = at.before) {
    Object.assign(gathered.answers, at.answers);
    Object.assign(gathered.given, at.given);
    if (at.full !== undefined) gathered.full.unshift(at.full);
    if (at.drawn === undefined) continue;
    const section = plan.sections[at.drawn.section] as PlanSection;
    const name = section.items[at.drawn.item]?.item.name ?? '';
    (gathered.draws[drawKey(section, at.drawn.pass)] ??= []).unshift(name);
  }
  for (const { name, answer } of plan.document.given ?? []) {
    const question = { kind: 'question', name, text: '', answer } as const;
    const value = plausibleAnswer(question, answer, { options: optionsOf(answer).map(() => true), rows: [] });
    if (value !== null) gathered.given[name] ??= value;
  }
  return gathered;
}

function route(
  plan: Plan,
  beliefs: Beliefs,
  sights: readonly Sight[],
  gathered: Gathered,
): Omit<Route, 'number'> {
  const { given, full, draws } = gathered;
  const answers = fillIn(plan, beliefs, gathered);
  const items = sights.flatMap(({ planItem, pass }) =>
    planItem === null ? [] : [itemKey(planItem.item.name, pass)],
  );
  const ending = plan.endings[sights.at(-1)?.ending ?? plan.lastEnding]?.ending.id ?? '';
  return {
    items,
    ending,
    answers,
    ...(Object.keys(draws).length > 0 ? { draws } : {}),
    ...(Object.keys(given).length > 0 ? { given } : {}),
    ...(full.length > 0 ? { full } : {}),
  };
}

/** Adds answers that the routing does not depend on; blanks that it does depend on stay blank. */
function fillIn(plan: Plan, beliefs: Beliefs, { answers, given, full, draws }: Gathered): Answers {
  const steers = (name: string) => beliefs.drivers.byKey.has(name.toLowerCase());
  const filled: Record<string, Value> = {};
  for (const [key, value] of Object.entries(answers)) if (value !== null) filled[key] = value;
  const walked = walk(plan, { answers: filled, given, full, draws, lenient: true });
  if (!walked.ok) throw new RangeError(walked.problem);
  for (const { planItem, pass, shown } of walked.walk.steps) {
    const { item } = planItem;
    if (item.kind !== 'question') continue;
    for (const part of partsOf(planItem, shown)) {
      const key = itemKey(part.name, pass);
      const wholeGridSteers = item.answer.type === 'grid' && steers(item.name) && !item.required;
      if (key in answers || wholeGridSteers) continue;
      const value = plausibleAnswer(item, part.answer, shown);
      if (value !== null) filled[key] = value;
    }
  }
  return filled;
}
