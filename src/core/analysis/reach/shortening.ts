/**
 * Printed conditions made shorter where they read several answers at once, or count over passes.
 *
 * Such tests stand for themselves while a condition is put into words, so what they have to do with each other is not
 * seen there. Here every part of the printed text is worked out exactly, and what can be left out, is.
 */
import { parseCondition } from '../../condition/parse';
import { printCondition } from '../../condition/print';
import { eachName, mentionsPass, type Condition } from '../../condition/syntax';
import type { Plan } from '../../routing/plan';
import type { Viewpoint } from '../conditions/answers-read';
import { MOST_HIDDEN } from '../conditions/domains';
import { EncodedPlan } from '../conditions/encoded-plan';
import { Diagrams, FALSE, TRUE, type Diagram } from '../diagrams/diagram';
import { withinMemory } from '../diagrams/limits';
import { Coming } from './coming';
import { wordiness } from './tests-in-words';

/** What was printed for an item, or for a pass of a repeated section. */
export interface Printed {
  readonly of: 'item' | 'pass';
  /** Index of the section. */
  readonly section: number;
  /** Index of the item among the section's plan items, or number of the pass. */
  readonly at: number;
  readonly text: string;
}

const MOST_NODES = 3_000_000;
/** Longer texts than this are left as they are. */
const MOST_PARTS = 60;
/** With more tests than this something shorter is looked for. */
const MANY_TESTS = 5;

/** Whether a text has tests of several answers at once, of derived values, or of other passes. */
export function readsMuch(text: string, plan: Plan): boolean {
  if (text === 'always' || text === 'never') return false;
  const parsed = parseCondition(text);
  if (!parsed.ok) return false;
  const tests = testsIn(parsed.tree);
  if (tests.length > MANY_TESTS) return true;
  const several = tests.length > 1;
  return tests.some((test) => isLong(test) || readsSeveral(test, plan) || (several && isOfMany(test, plan)));
}

function isLong(test: Condition): boolean {
  return (
    (test.kind === 'has' && test.values.length > MANY_TESTS) ||
    (test.kind === 'in' && test.members.length > MANY_TESTS)
  );
}

/** A pick of a question with so many options that not all of what hides them is minded while putting it into words. */
function isOfMany(test: Condition, { variables }: Plan): boolean {
  if (test.kind !== 'has') return false;
  return (variables.get(test.name.name.toLowerCase())?.codes?.length ?? 0) > MOST_HIDDEN;
}

function readsSeveral(test: Condition, plan: Plan): boolean {
  if (mentionsPass(test) || /"count-passes"/.test(JSON.stringify(test))) return true;
  const names = new Set<string>();
  let derived = false;
  eachName(test, ({ name }) => {
    names.add(name.toLowerCase());
    derived ||= plan.variables.get(name.toLowerCase())?.of === 'derived';
  });
  return derived || names.size > 1;
}

function testsIn(node: Condition): Condition[] {
  if (node.kind === 'and' || node.kind === 'or') return node.parts.flatMap(testsIn);
  return node.kind === 'not' ? testsIn(node.part) : [node];
}

/** The shorter texts, for those that have one; all as they are where the whole is too entangled. */
export function shortened(plan: Plan, said: readonly Printed[]): ReadonlyMap<Printed, string> {
  const found = new Map<Printed, string>();
  if (said.length === 0) return found;
  withinMemory(() => {
    const shortener = new Shortener(plan, said);
    for (const each of said) {
      const text = withinMemory(() => shortener.shortest(each));
      if (text !== null && text !== each.text) found.set(each, text);
    }
  });
  return found;
}

/** Between which bounds a condition has to lie in a pass. */
interface Between {
  readonly standing: Viewpoint;
  readonly lower: Diagram;
  readonly upper: Diagram;
}

class Shortener {
  private readonly diagrams = new Diagrams(MOST_NODES);
  private readonly encoded: EncodedPlan;
  private readonly coming: Coming;
  private readonly hidden: ReadonlySet<number>;
  private readonly trees = new Map<Printed, { tree: Condition; others: readonly Condition[] }>();

  constructor(
    private readonly plan: Plan,
    said: readonly Printed[],
  ) {
    this.encoded = new EncodedPlan(plan, this.diagrams, { everyPass: true });
    // Every test that will be asked about has to be known before what is possible is worked out.
    for (const symbol of this.encoded.symbols.values()) symbol.predicate(({ presented }) => presented);
    for (const each of said) {
      const parsed = parseCondition(each.text);
      if (!parsed.ok) continue;
      const others = writtenFor(plan, each);
      this.trees.set(each, { tree: parsed.tree, others });
      for (const standing of this.standingsOf(each))
        for (const tree of [parsed.tree, ...others, ...countsFor(parsed.tree)]) this.meaning(tree, standing);
    }
    const { fullLevel, drawnLevel } = this.encoded;
    this.hidden = new Set([...fullLevel.values(), ...drawnLevel.values()]);
    this.coming = new Coming(this.encoded);
  }

  shortest(said: Printed): string {
    const found = this.trees.get(said);
    if (found === undefined) return said.text;
    const { tree, others } = found;
    if (testsIn(tree).length > MOST_PARTS) return said.text;
    const counts = countsFor(tree);
    const bounds = this.boundsOf(said, [tree, ...others, ...counts]);
    const fits = (candidate: Condition) =>
      bounds.every(({ standing, lower, upper }) => {
        const is = this.meaning(candidate, standing);
        const { diagrams } = this;
        return (
          diagrams.and(lower, diagrams.not(is)) === FALSE && diagrams.and(is, diagrams.not(upper)) === FALSE
        );
      });
    if (!fits(tree)) return said.text;
    const tried = [tree, ...counts, ...others].filter(fits).map((candidate) => pruned(candidate, fits));
    const texts = tried.map((candidate) => printCondition(factored(candidate)));
    return texts.sort((a, b) => wordiness(a) - wordiness(b))[0] ?? said.text;
  }

  private standingsOf({ of, section }: Printed): Viewpoint[] {
    const repeat = this.plan.sections[section]?.repeat ?? null;
    if (repeat === null || of === 'pass') return [{ section, pass: null }];
    return Array.from({ length: repeat.max }, (_, n) => ({ section, pass: n + 1 }));
  }

  private boundsOf(said: Printed, about: readonly Condition[]): Between[] {
    const { diagrams, encoded, coming } = this;
    const { course } = encoded;
    const inside = (level: number) => {
      const home = encoded.homeOf(level);
      const place = home == null ? undefined : course.places[home];
      return place?.kind === 'item' && place.section === said.section;
    };
    const unsaid = (level: number) => this.hidden.has(level) || (said.of === 'pass' && inside(level));
    return this.standingsOf(said).map((standing) => {
      const inPass = course.pass(said.section, said.of === 'pass' ? said.at : (standing.pass ?? 1));
      const asked =
        said.of === 'pass'
          ? coming.at(inPass)
          : coming.presentedAt(course.item(said.section, standing.pass ?? 1, said.at));
      const run = standing.pass === null ? TRUE : coming.at(inPass);
      // Of every test by itself: together they may say nothing, as “>= 2 or <> 2” does, where one alone would do.
      const tests = about.flatMap(testsIn).map((test) => this.meaning(test, standing));
      const facts = coming.possible([asked, run, ...tests]);
      const here = diagrams.and(facts, run);
      const lower = diagrams.forget(diagrams.and(here, asked), unsaid);
      const open = diagrams.cube([...encoded.fullLevel.values()].map((full) => [full, false]));
      const possible = diagrams.forget(diagrams.and(here, open), unsaid);
      return { standing, lower, upper: diagrams.or(lower, diagrams.not(possible)) };
    });
  }

  private meaning(node: Condition, standing: Viewpoint): Diagram {
    const { diagrams } = this;
    switch (node.kind) {
      case 'and':
        return node.parts.reduce((all, part) => diagrams.and(all, this.meaning(part, standing)), TRUE);
      case 'or':
        return node.parts.reduce((any, part) => diagrams.or(any, this.meaning(part, standing)), FALSE);
      case 'not':
        return diagrams.not(this.meaning(node.part, standing));
      default:
        return this.encoded.conditionAt(node, standing);
    }
  }
}

/** What an author would say of it: its own condition, that of its section, and what gives the section its passes. */
function writtenFor({ sections }: Plan, { of, section, at }: Printed): Condition[] {
  const planSection = sections[section];
  const { repeat = null, gate = null } = planSection ?? {};
  const found: (Condition | null)[] = [];
  if (of === 'item') found.push(planSection?.items[at]?.askIf ?? null);
  else if (repeat?.driver != null) {
    const { name } = repeat.driver;
    const parsed = parseCondition(repeat.kind === 'times' ? `${name} >= ${at}` : `count(${name}) >= ${at}`);
    if (parsed.ok) found.push(parsed.tree);
  }
  return found.flatMap((each) => {
    if (each === null || each.kind === 'constant') return [];
    return gate === null || gate.kind === 'constant' ? [each] : [each, and([gate, each], each.span)];
  });
}

/** Without the parts that it can be without, the longest ones left out first. */
function pruned(tree: Condition, fits: (candidate: Condition) => boolean): Condition {
  let left = tree;
  for (;;) {
    const shorter = withoutOne(left)
      .map((candidate) => ({ candidate, length: printCondition(candidate).length }))
      .sort((a, b) => a.length - b.length)
      .find(({ candidate }) => fits(candidate));
    if (shorter === undefined) return left;
    left = shorter.candidate;
  }
}

/** What holds instead, where both sides have a value. */
const OPPOSITE = { '=': '<>', '<>': '=', '<': '>=', '>=': '<', '>': '<=', '<=': '>' } as const;

/** A condition with one of its parts left out, or a comparison turned round, for each of them. */
function withoutOne(node: Condition): Condition[] {
  const constant = (value: boolean): Condition => ({ kind: 'constant', value, span: node.span });
  switch (node.kind) {
    case 'and':
    case 'or':
      return node.parts.flatMap((part, n) => {
        const rest = node.parts.filter((_, other) => other !== n);
        const [only] = rest;
        const without = rest.length === 1 && only !== undefined ? only : { ...node, parts: rest };
        const inner = withoutOne(part).map((changed): Condition => ({
          ...node,
          parts: node.parts.map((each, other) => (other === n ? changed : each)),
        }));
        return [without, ...inner.filter((each) => !hasConstant(each))];
      });
    case 'not': {
      const { part } = node;
      const turned: Condition[] =
        part.kind === 'compare' ? [{ ...part, operator: OPPOSITE[part.operator] }] : [];
      const inner = withoutOne(part)
        .filter((each) => !hasConstant(each))
        .map((each): Condition => ({ ...node, part: each }));
      return [constant(true), constant(false), ...turned, ...inner];
    }
    case 'constant':
      return [];
    default:
      return [constant(true), constant(false)];
  }
}

function hasConstant(node: Condition): boolean {
  return testsIn(node).some(({ kind }) => kind === 'constant');
}

/**
 * The same with one count over all passes in the place of a test of each: all that fail in every pass, or any that holds
 * in one.
 */
function countsFor(tree: Condition): Condition[] {
  const text = printCondition(tree);
  const inner = new Set<string>();
  for (const [, test] of text.matchAll(/count\((.+?) and pass = \d+\) >= 1/g)) if (test) inner.add(test);
  const found: Condition[] = [];
  for (const test of inner) {
    const bare = /^\((.*)\)$/.exec(test)?.[1] ?? test;
    for (const by of [`count(${bare}) >= 1`, `count(${bare}) = 0`, `count(${bare}) < 1`]) {
      const replaced = replacing(tree, (node) => {
        const printed = printCondition(node);
        const isOne = printed.includes(`count(${test} and pass = `);
        if (!isOne || !(node.kind === 'compare' || (node.kind === 'not' && node.part.kind === 'compare')))
          return null;
        const parsed = parseCondition(by);
        return parsed.ok ? parsed.tree : null;
      });
      found.push(replaced);
    }
  }
  return found;
}

function replacing(node: Condition, by: (node: Condition) => Condition | null): Condition {
  const other = by(node);
  if (other !== null) return other;
  switch (node.kind) {
    case 'and':
    case 'or':
      return { ...node, parts: node.parts.map((part) => replacing(part, by)) };
    case 'not':
      return { ...node, part: replacing(node.part, by) };
    default:
      return node;
  }
}

/** What all parts of a sum have in common is said once. */
export function factored(node: Condition): Condition {
  if (node.kind !== 'or') return node;
  const terms = node.parts.map((part) => (part.kind === 'and' ? part.parts : [part]));
  const [first = []] = terms;
  const texts = terms.map((term) => term.map(printCondition));
  const common = first.filter((part) => texts.every((term) => term.includes(printCondition(part))));
  if (common.length === 0) return node;
  const shared = new Set(common.map(printCondition));
  const { span } = node;
  const rests = terms.map((term) => term.filter((part) => !shared.has(printCondition(part))));
  // A term that is nothing but the shared part is implied by all others, so the shared part is the whole.
  if (rests.some((rest) => rest.length === 0)) return and(common, span);
  const parts = rests
    .map((rest) => and(rest, span))
    .flatMap((rest) => (rest.kind === 'or' ? rest.parts : [rest]));
  return and([...common, { kind: 'or', parts, span }], span);
}

function and(parts: readonly Condition[], span: Condition['span']): Condition {
  const [only] = parts;
  return parts.length === 1 && only !== undefined ? only : { kind: 'and', parts, span };
}
