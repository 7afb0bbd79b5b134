/**
 * The probability of a diagram, when every answer has its assumed chances (weighted model counting; Chavira and
 * Darwiche, "On probabilistic inference by weighted model counting", 2008).
 *
 * Diagrams are turned into a circuit, in which only the weights are the assumed chances: other assumptions are worked out by
 * one sweep, and what a probability hangs on by another.
 *
 * All variables of one answer are weighed together, reading by reading. The chances of a reading can depend on what
 * came before: which options are shown, and which answers a hard check lets through. Such situations have a variable
 * of their own.
 */
import type { EncodedPlan, EncodingScope } from '../conditions/encoded-plan';
import { Circuit, ONE, UNWEIGHTED, ZERO, type Term, type Weight, type Weighted } from '../diagrams/circuit';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { Coming, type Fact } from '../reach/coming';
import { AnswerWeights, assumedIn, type Assumptions, type Weighed } from './answer-weights';
import { choose } from './chances';
import { PickWeights } from './pick-weights';
import type { Leaning } from './situation-chances';
import { following, Situations } from './situations';

/** What an encoding has to look into for answers to be weighed. */
export const WEIGHED_SCOPE = { everyValue: true, assumed: true } as const satisfies EncodingScope;

export class Weighing {
  readonly coming: Coming;
  readonly circuit = new Circuit();
  private readonly diagrams: Diagrams;
  private readonly situations: Situations;
  private readonly answers: AnswerWeights;
  private readonly picks: PickWeights;
  private readonly known = new Map<Diagram, Term>();
  private readonly fullLevels: ReadonlySet<number>;
  private readonly inDocument: Assumptions;
  private assumptions: Assumptions = new Map();

  /** The encoded plan must be fresh: that each question was asked at all becomes one of its tests. */
  constructor(readonly encoded: EncodedPlan) {
    this.diagrams = encoded.diagrams;
    this.situations = new Situations(encoded);
    this.inDocument = assumedIn(encoded.plan.document);
    const assumed = (name: string) => this.assumptions.get(name) ?? this.inDocument.get(name) ?? {};
    this.answers = new AnswerWeights(encoded, this.situations, this.circuit, assumed);
    this.picks = new PickWeights(encoded, this.situations, this.circuit, assumed);
    for (const symbol of encoded.symbols.values()) symbol.predicate(({ presented }) => presented);
    this.fullLevels = new Set(encoded.fullLevel.values());
    this.coming = new Coming(encoded);
  }

  /** The share of the sample of whom a diagram is true, with all quotas open. */
  shareOf(diagram: Diagram): number {
    return this.circuit.valueOf(this.termOf(diagram));
  }

  /** The same as a node of the circuit, which follows when something else is assumed. */
  termOf(diagram: Diagram): Term {
    const { diagrams } = this;
    if (diagram === FALSE) return ZERO;
    const all = diagrams.and(diagram, this.coming.possible([diagram], this.held));
    // Of the questions of a section, every set of so many is as likely to be drawn.
    const draws = new Set(diagrams.support(all).flatMap((level) => this.coming.passDrawnIn(level) ?? []));
    let sets = 1;
    for (const at of draws) sets *= this.setsDrawn(at);
    const term = this.weigh(all);
    return sets === 1 ? term : this.circuit.sum([[this.circuit.weight(1 / sets), term]]);
  }

  private readonly held = (place: number, asked: Diagram) => this.situations.hold(place, asked);

  /** What is true of everybody, as far as some diagrams hang on it. */
  facts(about: readonly Diagram[]): readonly Fact[] {
    return this.coming.facts(about, this.held);
  }

  /**
   * What is decided where a variable is tested first, for going through answers one by one: each way with its weight. `alike`:
   * what was chosen of many options before.
   */
  choicesAt(level: number, alike = 0): readonly Weighed[] {
    const symbol = this.encoded.symbolAt(level);
    if (symbol === undefined) return this.hidden(level);
    return symbol.picks === null
      ? this.answers.of(symbol)
      : this.picks.choicesAt(level, symbol, symbol.picks, alike);
  }

  /** By what is assumed, answers cannot be gone through one by one. */
  get isMixed(): boolean {
    return this.picks.isMixed;
  }

  /** From now on other answers are assumed of some questions; of the rest, again what the document says. */
  assume(assumptions: Assumptions): void {
    this.assumptions = assumptions;
    this.answers.refill();
    this.picks.refill();
    this.circuit.sweep();
    this.picks.refillStepwise();
  }

  /**
   * How fast the weights change at the start of a way from what is assumed of a question (in other words, maybe) to something
   * else, the way being 1 long; times the slopes of a term, added up, the exact derivative of its share.
   */
  slopesToward(name: string, leaning: Leaning): readonly [Weight, number][] {
    return [...this.answers.slopesToward(name, leaning), ...this.picks.slopesToward(name, leaning)].filter(
      ([, slope]) => slope !== 0,
    );
  }

  /** The question, or given value, whose answer a weight is a chance of; undefined for the chances of a draw. */
  nameOfWeight(weight: Weight): string | undefined {
    return this.answers.nameOf(weight) ?? this.picks.nameOf(weight);
  }

  /** The stretches of a number or date between which no test tells a difference; null for others, and where nothing hangs on it. */
  stretchesOf(name: string): readonly (readonly [from: number | string, to: number | string])[] | null {
    return this.answers.stretchesOf(name);
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

  private weigh(diagram: Diagram): Term {
    if (diagram <= TRUE) return diagram === TRUE ? ONE : ZERO;
    const before = this.known.get(diagram);
    if (before !== undefined) return before;
    const { diagrams } = this;
    const level = diagrams.topOf(diagram);
    const symbol = this.encoded.symbolAt(level);
    const term =
      symbol !== undefined && symbol.picks !== null
        ? this.picks.weigh(diagram, symbol, symbol.picks, (rest) => this.weigh(rest))
        : this.circuit.sum(
            (symbol === undefined ? this.hidden(level) : this.answers.of(symbol)).map(
              ({ literals, weight }): Weighted => [
                weight,
                this.weigh(following(diagrams, diagram, literals)),
              ],
            ),
          );
    this.known.set(diagram, term);
    return term;
  }

  /** Of a variable that is no answer. All quotas are open. */
  private hidden(level: number): Weighed[] {
    return (this.fullLevels.has(level) ? [false] : [false, true]).map((is) => ({
      literals: new Map([[level, is]]),
      weight: UNWEIGHTED,
    }));
  }
}
