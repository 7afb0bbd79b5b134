/**
 * The probability of a diagram, when every answer has its assumed chances (weighted model counting; Chavira and
 * Darwiche, "On probabilistic inference by weighted model counting", 2008).
 *
 * All variables of one answer are weighed together, reading by reading. The chances of a reading can depend on what
 * came before: which options are shown, and which answers a hard check lets through. Such situations have a variable
 * of their own.
 */
import { hasRows, picksMany } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Assume, Question } from '../../document/types';
import { gridRowAnswer, refusal } from '../../routing/answers';
import { pickChances } from '../../routing/assumed';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { Picks } from '../answers/picks';
import type { EncodedPlan } from '../conditions/encoded-plan';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { Coming } from '../reach/coming';
import { choose } from './chances';
import { areMarked, following, situationLevel, Situations, spread, TooManySituations } from './situations';

interface Weighed {
  readonly literals: ReadonlyMap<number, boolean>;
  readonly weight: number;
}

export class Weighing {
  readonly coming: Coming;
  private readonly diagrams: Diagrams;
  private readonly situations: Situations;
  private readonly blocks = new Map<AnswerSymbol, readonly Weighed[]>();
  private readonly known = new Map<Diagram, number>();
  private readonly fullLevels: ReadonlySet<number>;

  /** The encoded plan must be fresh: that each question was asked at all becomes one of its tests. */
  constructor(private readonly encoded: EncodedPlan) {
    this.diagrams = encoded.diagrams;
    this.situations = new Situations(encoded);
    for (const symbol of encoded.symbols.values()) symbol.predicate(({ presented }) => presented);
    this.fullLevels = new Set(encoded.fullLevel.values());
    this.coming = new Coming(encoded);
  }

  /** The share of the sample of whom a diagram is true, with all quotas open. */
  shareOf(diagram: Diagram): number {
    const { diagrams } = this;
    if (diagram === FALSE) return 0;
    const possible = this.coming.possible([diagram], (place, asked) => this.situations.hold(place, asked));
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
        const rest = following(this.diagrams, diagram, reading.literals);
        if (rest !== FALSE) weight += reading.weight * this.weigh(rest);
      }
    } else {
      weight = this.weigh(diagrams.lowOf(diagram));
      if (!this.fullLevels.has(level)) weight += this.weigh(diagrams.highOf(diagram));
    }
    this.known.set(diagram, weight);
    return weight;
  }

  /** Of a question with many options: each is picked with its own chance, given that the picks are allowed. */
  private weighPicks(diagram: Diagram, symbol: AnswerSymbol, picks: Picks): number {
    const { diagrams } = this;
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const { answer, assume = {}, blank = 0 } = this.assumedOf(symbol);
    if (!picksMany(answer)) throw new TooManySituations();
    const own = (level: number) => level >= symbol.level && level < symbol.level + picks.size;
    const situations = home === null ? [] : this.situations.at(home);
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
    let weight = this.weigh(following(this.diagrams, restricted(null), unasked));
    const left = new Map(symbol.literals(symbol.readings.length - 2));
    for (const { when, mark } of ways) {
      const here = restricted(mark);
      const legal = diagrams.forget(diagrams.and(domain, when), (level) => !own(level));
      const blankIs = following(this.diagrams, legal, left) === TRUE ? blank : 0;
      weight += blankIs * this.weigh(following(this.diagrams, here, left));
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
    return from(following(this.diagrams, diagram, state), 0);
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
      const situations = this.situations.at(home);
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
}
