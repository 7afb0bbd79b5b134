/**
 * The probability of a diagram, when every answer has its assumed chances (weighted model counting; Chavira and
 * Darwiche, "On probabilistic inference by weighted model counting", 2008).
 *
 * All variables of one answer are weighed together, reading by reading. The chances of a reading can depend on what
 * came before: which options are shown, and which answers a hard check lets through. Such situations have a variable
 * of their own.
 */
import type { EncodedItem } from '../conditions/exits';
import { passKey } from '../../document/addresses';
import { hasRows, picksMany } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Assume, Question, Value } from '../../document/types';
import { gridRowAnswer, partsAtMost, refusal } from '../../routing/answers';
import { pickChances } from '../../routing/assumed';
import { whenAllowed } from '../answers/allowed';
import { chancesOf, choose } from './chances';
import { TooMuch } from '../diagrams/limits';
import { Coming } from '../reach/coming';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import type { Picks } from '../answers/picks';
import { VARIABLES_EACH, type AnswerSymbol } from '../answers/answer-symbol';
import type { EncodedPlan } from '../conditions/encoded-plan';

/** More situations than these are not told apart at one item. */
const MOST_SITUATIONS = 512;

/** Thrown where the chances of an answer depend on too much. */
export class TooManySituations extends TooMuch {}

/** Where an item is presented: what holds there, and the chances of the readings of each of its symbols. */
interface Situation {
  readonly when: Diagram;
  /** By symbol, parallel to its readings. */
  readonly chances: ReadonlyMap<AnswerSymbol, readonly number[]>;
  /** One over the chance of getting past the hard checks. */
  readonly factor: number;
}

interface Weighed {
  readonly literals: ReadonlyMap<number, boolean>;
  readonly weight: number;
}

export class Weighing {
  readonly coming: Coming;
  private readonly diagrams: Diagrams;
  private readonly situations = new Map<number, readonly Situation[]>();
  private readonly blocks = new Map<AnswerSymbol, readonly Weighed[]>();
  private readonly known = new Map<Diagram, number>();
  private readonly fullLevels: ReadonlySet<number>;

  /** The encoded plan must be fresh: that each question was asked at all becomes one of its tests. */
  constructor(private readonly encoded: EncodedPlan) {
    this.diagrams = encoded.diagrams;
    for (const symbol of encoded.symbols.values()) symbol.predicate(({ presented }) => presented);
    this.fullLevels = new Set(encoded.fullLevel.values());
    this.coming = new Coming(encoded);
  }

  /** The share of the sample of whom a diagram is true, with all quotas open. */
  shareOf(diagram: Diagram): number {
    const { diagrams } = this;
    if (diagram === FALSE) return 0;
    const possible = this.coming.possible([diagram], (place, asked) => this.situationsHold(place, asked));
    const all = diagrams.and(diagram, possible);
    // Of the questions of a section, every set of so many is as likely to be drawn.
    const draws = new Set(diagrams.support(all).flatMap((level) => this.coming.passDrawnIn(level) ?? []));
    let sets = 1;
    for (const at of draws) sets *= this.setsDrawn(at);
    return this.weigh(all) / sets;
  }

  private setsDrawn(at: number): number {
    const { course, plan, drawnLevel } = this.encoded;
    const place = course.places[at];
    if (place?.kind !== 'pass') return 1;
    const section = plan.sections[place.section];
    const questions = section?.items.filter(({ index }) =>
      drawnLevel.has(course.item(place.section, place.pass, index)),
    );
    return choose(questions?.length ?? 0, section?.section.draw ?? 0);
  }

  private weigh(diagram: Diagram): number {
    if (diagram <= TRUE) return diagram;
    const before = this.known.get(diagram);
    if (before !== undefined) return before;
    const { diagrams } = this;
    const level = diagrams.topOf(diagram);
    const symbol = this.encoded.symbolAt(level);
    let weight = 0;
    if (symbol !== undefined && symbol.picks !== null)
      weight = this.weighPicks(diagram, symbol, symbol.picks);
    else if (symbol !== undefined) {
      for (const reading of this.blockOf(symbol)) {
        const rest = this.following(diagram, reading.literals);
        if (rest !== FALSE) weight += reading.weight * this.weigh(rest);
      }
    } else {
      weight = this.weigh(diagrams.lowOf(diagram));
      if (!this.fullLevels.has(level)) weight += this.weigh(diagrams.highOf(diagram));
    }
    this.known.set(diagram, weight);
    return weight;
  }

  /** What is left of a diagram for one reading of the driver that it asks about first. */
  private following(diagram: Diagram, literals: ReadonlyMap<number, boolean>): Diagram {
    const { diagrams } = this;
    let at = diagram;
    for (let truth = literals.get(diagrams.topOf(at)); truth !== undefined;) {
      at = truth ? diagrams.highOf(at) : diagrams.lowOf(at);
      truth = literals.get(diagrams.topOf(at));
    }
    return at;
  }

  /** Of a question with many options: each is picked with its own chance, given that the picks are allowed. */
  private weighPicks(diagram: Diagram, symbol: AnswerSymbol, picks: Picks): number {
    const { diagrams } = this;
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const { answer, assume = {}, blank = 0 } = this.assumedOf(symbol);
    if (!picksMany(answer)) throw new TooManySituations();
    const own = (level: number) => level >= symbol.level && level < symbol.level + picks.size;
    const situations = home === null ? [] : this.situationsAt(home);
    const marked = areMarked(situations) && home !== null;
    const domain = home === null ? this.encoded.given : this.encoded.domainAt(home);
    const ways: readonly { readonly when: Diagram; readonly mark: number | null }[] = marked
      ? situations.map(({ when }, n) => ({ when, mark: situationLevel(symbol, n) }))
      : [{ when: TRUE, mark: null }];
    if (marked && home !== null && this.encoded.itemAt(home).checks !== TRUE) throw new TooManySituations();
    const marks = situations.map((_, n) => situationLevel(symbol, n));
    const restricted = (mark: number | null) =>
      marked
        ? diagrams.forget(
            diagrams.and(diagram, diagrams.cube(marks.map((level) => [level, level === mark]))),
            (level) => marks.includes(level),
          )
        : diagram;
    const unasked = new Map(symbol.literals(symbol.readings.length - 1));
    let weight = this.weigh(this.following(restricted(null), unasked));
    const left = new Map(symbol.literals(symbol.readings.length - 2));
    for (const { when, mark } of ways) {
      const here = restricted(mark);
      const legal = diagrams.forget(diagrams.and(domain, when), (level) => !own(level));
      const blankIs = this.following(legal, left) === TRUE ? blank : 0;
      weight += blankIs * this.weigh(this.following(here, left));
      for (const as of [assume, {}]) {
        const chances = pickChances(picks.options, as);
        const all = this.picksIn(legal, symbol, picks, chances, (rest) => (rest === TRUE ? 1 : 0));
        if (all === 0) continue;
        const some = this.picksIn(here, symbol, picks, chances, (rest) => this.weigh(rest));
        weight += ((1 - blankIs) * some) / all;
        break;
      }
    }
    return weight;
  }

  /** The weight of all picks that are not blank, each option with its chance; `weigh` what is left of the diagram. */
  private picksIn(
    diagram: Diagram,
    symbol: AnswerSymbol,
    picks: Picks,
    chances: readonly number[],
    weigh: (rest: Diagram) => number,
  ): number {
    const { diagrams } = this;
    const state = new Map(symbol.literals(0).slice(0, picks.size - picks.options.length));
    const known = picks.options.map(() => new Map<Diagram, number>());
    const from = (at: Diagram, option: number): number => {
      if (at === FALSE) return 0;
      const chance = chances[option];
      const code = picks.options[option]?.code;
      if (chance === undefined || code === undefined) return weigh(at);
      const before = known[option]?.get(at);
      if (before !== undefined) return before;
      const tested = diagrams.topOf(at) === picks.levelOf(code);
      const [without, withIt] = tested ? [diagrams.lowOf(at), diagrams.highOf(at)] : [at, at];
      const weight =
        (chance === 1 ? 0 : (1 - chance) * from(without, option + 1)) +
        (chance === 0 ? 0 : chance * from(withIt, option + 1));
      known[option]?.set(at, weight);
      return weight;
    };
    return from(this.following(diagram, state), 0);
  }

  private assumedOf(symbol: AnswerSymbol): { answer?: Answer; assume?: Assume; blank?: number } {
    const { variable } = symbol.driver;
    if (variable.of === 'given') return { answer: variable.given.answer, assume: variable.given.assume };
    if (variable.of !== 'question' && variable.of !== 'row') return {};
    const { assume, required, answer } = variable.question;
    const own = hasRows(answer) ? gridRowAnswer(answer) : answer;
    return { answer: own, assume, blank: required ? 0 : (assume?.blank ?? 0) };
  }

  /** Readings with the same truths are one, their chances added up. */
  private blockOf(symbol: AnswerSymbol): readonly Weighed[] {
    let block = this.blocks.get(symbol);
    if (block !== undefined) return block;
    const home = this.encoded.homeOf(symbol.level);
    const merged = new Map<string, { literals: Map<number, boolean>; weight: number }>();
    const add = (reading: number, weight: number, situation: readonly [number, boolean][]) => {
      if (weight === 0) return;
      const literals = new Map([...symbol.literals(reading), ...situation]);
      const key = [...literals.values()].map(Number).join('');
      const known = merged.get(key);
      if (known === undefined) merged.set(key, { literals, weight });
      else known.weight += weight;
    };
    if (home === null || home === undefined) {
      this.chancesGiven(symbol).forEach((weight, reading) => add(reading, weight, []));
    } else {
      const situations = this.situationsAt(home);
      const first = this.encoded.itemAt(home).symbols[0] === symbol;
      const marks = (wanted: number | null) =>
        !areMarked(situations)
          ? []
          : situations.map((_, n): [number, boolean] => [situationLevel(symbol, n), n === wanted]);
      const unasked = symbol.readings.length - 1;
      situations.forEach(({ chances, factor }, n) => {
        chances.get(symbol)?.forEach((weight, reading) => {
          add(reading, first ? weight * factor : weight, marks(n));
        });
        // A row that is not shown, though the grid is.
        if (areMarked(situations)) add(unasked, first ? factor : 1, marks(n));
      });
      add(unasked, 1, marks(null));
    }
    block = [...merged.values()];
    this.blocks.set(symbol, block);
    return block;
  }

  private chancesGiven(symbol: AnswerSymbol): readonly number[] {
    const { variable } = symbol.driver;
    const entry = this.encoded.plan.document.given?.find(({ name }) => name === variable.name);
    if (entry === undefined) return [];
    const { answer, assume = {} } = entry;
    const question: Question = { kind: 'question', name: entry.name, text: '', answer };
    const all = { options: optionsOf(answer).map(() => true), rows: [] };
    const legal = symbol.values.map(
      (value) => value !== null && refusal(question, answer, value, all) === null,
    );
    return spread(symbol, answer, { ...assume, blank: 0 }, legal);
  }

  /** That the variables of the situations say which one it is. */
  private situationsHold(place: number, asked: Diagram): Diagram {
    const { diagrams } = this;
    const situations = this.situationsAt(place);
    if (!areMarked(situations)) return TRUE;
    let result = TRUE;
    for (const symbol of this.encoded.itemAt(place).symbols) {
      situations.forEach(({ when }, n) => {
        const here = diagrams.and(asked, when);
        const mark = diagrams.variable(situationLevel(symbol, n));
        result = diagrams.and(result, diagrams.choose(here, mark, diagrams.not(mark)));
      });
    }
    return result;
  }

  private situationsAt(place: number): readonly Situation[] {
    let found = this.situations.get(place);
    if (found !== undefined) return found;
    const item = this.encoded.itemAt(place);
    const parts = partsAtMost(item.planItem);
    const whens = this.refined(
      [TRUE],
      item.shown.map(({ when }) => when),
    );
    const { diagrams, encoded } = this;
    const allowed = diagrams.and(encoded.domainAt(place), item.checks);
    found =
      item.checks === TRUE
        ? whens.map((when) => ({ when, chances: this.chancesIn(item, parts, when, 'assumed'), factor: 1 }))
        : whens.flatMap((when) =>
            [...this.byEarlier(diagrams.and(allowed, when), place)].map(([own, here]) =>
              this.passingChecks(item, parts, diagrams.and(when, here), own),
            ),
          );
    if (found.length > MOST_SITUATIONS) throw new TooManySituations();
    this.situations.set(place, found);
    return found;
  }

  private refined(situations: readonly Diagram[], by: readonly Diagram[]): readonly Diagram[] {
    return by.reduce<readonly Diagram[]>((all, when) => {
      const split = all.flatMap((each) =>
        [this.diagrams.and(each, when), this.diagrams.and(each, this.diagrams.not(when))].filter(
          (part) => part !== FALSE,
        ),
      );
      if (split.length > MOST_SITUATIONS) throw new TooManySituations();
      return split;
    }, situations);
  }

  /** What a diagram leaves to the item at a place, with the earlier answers for which it does so. */
  private byEarlier(diagram: Diagram, place: number): Map<Diagram, Diagram> {
    const { diagrams } = this;
    const isOwn = (a: Diagram) => a <= TRUE || this.encoded.homeOf(diagrams.topOf(a)) === place;
    const known = new Map<Diagram, Map<Diagram, Diagram>>();
    const visit = (a: Diagram): Map<Diagram, Diagram> => {
      if (isOwn(a)) return new Map([[a, TRUE]]);
      const before = known.get(a);
      if (before !== undefined) return before;
      const found = new Map<Diagram, Diagram>();
      const test = diagrams.variable(diagrams.topOf(a));
      for (const [branch, side] of [
        [diagrams.lowOf(a), diagrams.not(test)],
        [diagrams.highOf(a), test],
      ] as const) {
        for (const [own, when] of visit(branch))
          found.set(own, diagrams.or(found.get(own) ?? FALSE, diagrams.and(side, when)));
      }
      known.set(a, found);
      return found;
    };
    const found = visit(diagram);
    found.delete(FALSE);
    return found;
  }

  /** Answers that a hard check refuses are given up for others, in proportion. */
  private passingChecks(item: EncodedItem, parts: AskedVariables, when: Diagram, own: Diagram): Situation {
    for (const assumption of ['assumed', 'even', 'any'] as const) {
      const chances = this.chancesIn(item, parts, when, assumption);
      const passing = this.passing(own, item, chances);
      if (passing > 0) return { when, chances, factor: 1 / passing };
    }
    return { when, chances: new Map(), factor: 1 };
  }

  private passing(
    own: Diagram,
    { symbols }: EncodedItem,
    chances: ReadonlyMap<AnswerSymbol, readonly number[]>,
  ): number {
    const [symbol, ...others] = symbols;
    if (own === FALSE) return 0;
    if (symbol === undefined) return 1;
    const rest = { symbols: others } as unknown as EncodedItem;
    const unasked = symbol.readings.length - 1;
    const weights = [...(chances.get(symbol) ?? []), 0];
    // A row that is not shown has no other reading.
    if (!weights.some((weight) => weight > 0)) weights[unasked] = 1;
    return weights.reduce((sum, weight, reading) => {
      if (weight === 0) return sum;
      const left = this.following(own, new Map(symbol.literals(reading)));
      return sum + weight * this.passing(left, rest, chances);
    }, 0);
  }

  private chancesIn(
    { planItem, pass }: EncodedItem,
    parts: AskedVariables,
    when: Diagram,
    assumption: 'assumed' | 'even' | 'any',
  ): ReadonlyMap<AnswerSymbol, readonly number[]> {
    const { diagrams, encoded } = this;
    const { item } = planItem;
    const chances = new Map<AnswerSymbol, readonly number[]>();
    if (item.kind === 'statement') return chances;
    const shown = encoded.optionsShown(planItem, pass);
    const rows = encoded.rowsShown(planItem, pass);
    parts.forEach(({ name, answer }, row) => {
      const symbol = encoded.symbols.get(passKey(name.toLowerCase(), pass));
      if (symbol === undefined) return;
      if (diagrams.and(when, rows[row] ?? TRUE) === FALSE) {
        chances.set(symbol, []);
        return;
      }
      const legal = symbol.values.map(
        (value) => diagrams.and(when, whenAllowed(diagrams, item, answer, value, shown)) !== FALSE,
      );
      const assume = assumption === 'assumed' ? (item.assume ?? {}) : {};
      chances.set(symbol, assumption === 'any' ? evenly(legal) : spread(symbol, answer, assume, legal));
    });
    return chances;
  }
}

/** Whether it has to be known which situation it is, if any. */
function areMarked(situations: readonly Situation[]): boolean {
  return situations.length > 1 || situations[0]?.factor !== 1;
}

type AskedVariables = readonly { readonly name: string; readonly answer: Answer }[];

/** From the end of the driver's own levels. */
function situationLevel({ level }: AnswerSymbol, situation: number): number {
  return level - (level % VARIABLES_EACH) + VARIABLES_EACH - 1 - situation;
}

/** Chances that add up to 1: a blank has its own, what is allowed besides has the rest in proportion. */
function spread(
  symbol: AnswerSymbol,
  answer: Answer,
  assume: Assume,
  legal: readonly boolean[],
): readonly number[] {
  const isBlank = (value: Value | null) => value === null;
  const blankIs = symbol.values.findIndex(isBlank);
  for (const as of [assume, {}]) {
    const weights = chancesOf(symbol, answer, as).map((weight, n) => (legal[n] ? weight : 0));
    const total = weights.reduce((sum, weight) => sum + weight, 0);
    if (total === 0) continue;
    const blank = legal[blankIs] ? (assume.blank ?? 0) : 0;
    return weights.map((weight, n) => (n === blankIs ? blank : ((1 - blank) * weight) / total));
  }
  return evenly(legal);
}

function evenly(legal: readonly boolean[]): number[] {
  const count = legal.filter(Boolean).length;
  return legal.map((is) => (is ? 1 / count : 0));
}
