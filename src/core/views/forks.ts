/**
 * The whole questionnaire as a river: sections or items one below the other, and ribbons between them for those who are
 * presented the one straight after the other.
 */
import type { RouteFilter, Transition } from '../analysis';
import { address, nameAt, readAddress, type Address, type WrittenWay } from '../document/addresses';
import type { EndingKind } from '../document/types';
import { sectionLetter } from '../document/variables';
import { isEarly } from '../document/vocabularies';
import type { Plan, PlanSection, PlanTarget } from '../routing/plan';
import { endingLabel } from '../wording/targets';

export interface ForksNode {
  /** Of a section, an item or an ending, as the editor selects it. */
  readonly id: Address;
  /** What stands beside it: a section's letter and title, an item's name, an ending's word. */
  readonly mark: string;
  readonly label: string;
  /** Index of its section; null for an ending. */
  readonly section: number | null;
  /** The items it stands for, by name. */
  readonly items: readonly string[];
  /** How often it is come to, per respondent; null where that is not known exactly. */
  readonly share: number | null;
  readonly ending: EndingKind | null;
}

export interface ForksRibbon {
  readonly id: string;
  /** Ids of nodes. */
  readonly from: Address;
  readonly to: Address;
  readonly share: number | null;
}

/** A section's stretch of the river. */
export interface ForksBand {
  readonly section: number;
  readonly id: string;
  readonly letter: string;
  readonly title: string;
  /** Whether its items are told apart. */
  readonly unfolded: boolean;
  /** Nodes that stand in it, in order. */
  readonly nodes: readonly Address[];
  /** Times that it is repeated at most; null where it is not. */
  readonly repeat: number | null;
  /** How many of how many questions are drawn; null where all are asked. */
  readonly draw: readonly [number, number] | null;
}

export interface ForksModel {
  /** From top to bottom. */
  readonly nodes: readonly ForksNode[];
  readonly bands: readonly ForksBand[];
  readonly ribbons: readonly ForksRibbon[];
  /** Ribbons that end the interview early: their `to` is an ending that is no node. */
  readonly exits: readonly ForksRibbon[];
}

/**
 * `unfolded`: ids of the sections whose items are told apart; `asked`: the share of the sample that is presented each item
 * at all, by name, where it is known. What flows within a repeated section is told for one pass, on average.
 */
export function forksOf(
  plan: Plan,
  transitions: readonly Transition[],
  unfolded: ReadonlySet<string>,
  asked: Readonly<Record<string, { readonly share: number }>> = {},
): ForksModel {
  const { nodes, bands, home } = standingOf(plan, unfolded);
  const order = new Map(nodes.map(({ id }, n) => [id, n]));
  const all = flowsBetween(plan, transitions, home, order);
  const into = new Map<Address, number | null>();
  for (const { to, share } of all) into.set(to, added(into.get(to), share));
  const ribbons = all.flatMap(({ id, from, to, share }) => (from === null ? [] : [{ id, from, to, share }]));
  const isExit = ({ to }: ForksRibbon) => !order.has(to);
  const shareOf = ({ id, items }: ForksNode) => {
    const arriving = into.has(id) ? (into.get(id) ?? null) : 0;
    return nameAt(id, 'item') === null ? arriving : (asked[items[0] ?? '']?.share ?? arriving ?? 0);
  };
  return {
    nodes: nodes.map((node) => ({ ...node, share: shareOf(node) })),
    bands,
    ribbons: ribbons.filter((ribbon) => !isExit(ribbon)),
    exits: ribbons.filter(isExit),
  };
}

/** Shares added up; not known as soon as one of them is not. */
function added(sum: number | null | undefined, share: number | null): number | null {
  return sum === null || share === null ? null : (sum ?? 0) + share;
}

interface Standing {
  /** In the order of the script, the endings that are no early ones last. */
  readonly nodes: readonly ForksNode[];
  readonly bands: readonly ForksBand[];
  /** The node that stands for an item, by its name. */
  readonly home: ReadonlyMap<string, Address>;
}

function standingOf(plan: Plan, unfolded: ReadonlySet<string>): Standing {
  const home = new Map<string, Address>();
  const nodes: ForksNode[] = [];
  const bands: ForksBand[] = [];
  for (const planSection of plan.sections) {
    const { section, index, items } = planSection;
    const apart = unfolded.has(section.id) && items.length > 0;
    const own = nodesIn(planSection, apart);
    for (const { id, items: names } of own) for (const name of names) home.set(name, id);
    nodes.push(...own);
    bands.push({
      section: index,
      id: section.id,
      letter: sectionLetter(index),
      title: section.title,
      unfolded: apart,
      nodes: own.map(({ id }) => id),
      repeat: planSection.repeat?.max ?? null,
      draw: section.draw === undefined ? null : [section.draw, questionsIn(planSection)],
    });
  }
  for (const { ending } of plan.endings) {
    if (isEarly(ending.kind)) continue;
    nodes.push({
      id: address('ending', ending.id),
      mark: '',
      label: endingLabel(plan.document, ending.id),
      section: null,
      items: [],
      share: null,
      ending: ending.kind,
    });
  }
  return { nodes, bands, home };
}

/** The section as one node, or each of its items. */
function nodesIn(planSection: PlanSection, apart: boolean): ForksNode[] {
  const { section, index, items } = planSection;
  const names = items.map(({ item }) => item.name);
  return (apart ? names.map((name) => [name]) : [names]).map((group): ForksNode => {
    const [name = ''] = group;
    return {
      id: apart ? address('item', name) : address('section', section.id),
      mark: apart ? name : sectionLetter(index),
      label: apart ? labelOf(planSection, name) : section.title,
      section: index,
      items: group,
      share: null,
      ending: null,
    };
  });
}

interface Flow {
  readonly id: string;
  /** Null at the start. */
  readonly from: Address | null;
  readonly to: Address;
  readonly share: number | null;
}

/** What goes on between nodes, not within one and not up the river into the next pass. */
function flowsBetween(
  plan: Plan,
  transitions: readonly Transition[],
  home: Standing['home'],
  order: ReadonlyMap<Address, number>,
): Flow[] {
  const flows = new Map<string, Flow>();
  const onePass = passShares(plan, transitions);
  for (const { from, to, share: all } of transitions) {
    const share = all === null ? null : all * onePass(from, 'item' in to ? to.item : null);
    const source = from === null ? null : (home.get(from) ?? null);
    const target =
      'item' in to ? (home.get(to.item) ?? address('item', to.item)) : address('ending', to.ending);
    if (source === target) continue;
    const above = (source === null ? undefined : order.get(source)) ?? -1;
    if (source !== null && (order.get(target) ?? Infinity) < above) continue;
    const id = `${source ?? 'start'} > ${target}`;
    flows.set(id, { id, from: source, to: target, share: added(flows.get(id)?.share, share) });
  }
  return [...flows.values()];
}

/** By what to multiply what goes on within a repeated section, so that it is told for one pass. */
function passShares(
  plan: Plan,
  transitions: readonly Transition[],
): (from: string | null, to: string | null) => number {
  const home = new Map<string, number>();
  for (const { index, repeat, items } of plan.sections)
    if (repeat !== null) for (const { item } of items) home.set(item.name, index);
  const entered = new Map<number, number>();
  const again = new Map<number, number>();
  const add = (to: Map<number, number>, section: number, share: number | null) =>
    to.set(section, (to.get(section) ?? 0) + (share ?? 0));
  for (const { from, to, share, again: next } of transitions) {
    const section = 'item' in to ? home.get(to.item) : undefined;
    if (section === undefined) continue;
    if (next) add(again, section, share);
    else if (from === null || home.get(from) !== section) add(entered, section, share);
  }
  return (from, to) => {
    const section = from === null || to === null ? undefined : home.get(from);
    if (section === undefined || to === null || home.get(to) !== section) return 1;
    const once = entered.get(section) ?? 0;
    const passes = once + (again.get(section) ?? 0);
    return passes === 0 ? 1 : once / passes;
  };
}

/** What a node is called; of an early ending, which is none, its id. */
export function nodeLabel({ nodes }: ForksModel, id: Address): string {
  return nodes.find((node) => node.id === id)?.label ?? readAddress(id).name;
}

/** Routes by what they present. */
export interface RoutesAlong {
  readonly through: readonly (readonly string[])[];
  readonly avoid: readonly string[];
  readonly ending: string | null;
}

/** The routes that go along a ribbon: they present the one and the other, and nothing between. Null where passes hide that. */
export function routesAlong(
  plan: Plan,
  { nodes }: ForksModel,
  { from, to }: ForksRibbon,
): RoutesAlong | null {
  const [source, target] = [from, to].map((id) => nodes.find((node) => node.id === id));
  if (source === undefined) return null;
  const repeated = (node: ForksNode | undefined) =>
    node?.section !== null && node !== undefined && plan.sections[node.section]?.repeat !== null;
  // The items of a repeated section come again with every pass.
  if ([source, target].some((node) => node && nameAt(node.id, 'item') !== null && repeated(node)))
    return null;
  const names = plan.sections.flatMap(({ items }) => items.map(({ item }) => item.name));
  const after = names.indexOf(source.items.at(-1) ?? '') + 1;
  const isEnding = target === undefined || target.section === null;
  const until = isEnding ? names.length : names.indexOf(target.items[0] ?? '');
  return {
    through: isEnding ? [source.items] : [source.items, target.items],
    avoid: names.slice(after, until),
    ending: nameAt(to, 'ending'),
  };
}

/** Those routes, as the analysis is asked for them. */
export function filterAlong({ through, avoid, ending }: RoutesAlong): RouteFilter {
  return { through, avoid, ...(ending === null ? {} : { ending }) };
}

function labelOf({ items }: PlanSection, name: string): string {
  const item = items.find((each) => each.item.name === name)?.item;
  return item?.kind === 'question' ? (item.label ?? item.text) : (item?.text ?? '');
}

function questionsIn({ items }: PlanSection): number {
  return items.filter(({ item }) => item.kind === 'question').length;
}

/** The skips and onward entries that lead straight along a ribbon. */
export function waysAlong(plan: Plan, { nodes }: ForksModel, { from, to }: ForksRibbon): WrittenWay[] {
  const source = nodes.find(({ id }) => id === from);
  const target = nodes.find(({ id }) => id === to);
  if (source === undefined || source.section === null) return [];
  const leads = (aim: PlanTarget): boolean => {
    switch (aim.to) {
      case 'ending':
        return plan.endings[aim.ending]?.ending.id === nameAt(to, 'ending');
      case 'item':
        return target?.items.includes(plan.sections[aim.section]?.items[aim.item]?.item.name ?? '') === true;
      case 'section':
        return (
          target?.section === aim.section &&
          (nameAt(target.id, 'section') !== null ||
            target.items[0] === plan.sections[aim.section]?.items[0]?.item.name)
        );
      default:
        return false;
    }
  };
  const section = plan.sections[source.section];
  if (section === undefined) return [];
  const ofItems = section.items
    .filter(({ item }) => source.items.includes(item.name))
    .flatMap(({ item, skips }) =>
      skips.filter((skip) => leads(skip.to)).map(({ index }) => ({ item: item.name, skip: index })),
    );
  const isLast = source.items.includes(section.items.at(-1)?.item.name ?? '');
  const ofEnd = isLast ? section.onward.filter((entry) => leads(entry.to)) : [];
  return [...ofItems, ...ofEnd.map(({ index }) => ({ section: section.section.id, onward: index }))];
}
