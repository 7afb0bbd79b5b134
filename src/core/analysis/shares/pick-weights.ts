/**
 * The weights of a question with many options, of which the sets of picks are too many to list: each option is picked with its
 * own chance, given that the picks are allowed together.
 */
import { picksMany } from '../../document/answer-types';
import type { Assume } from '../../document/types';
import { pickChances } from '../../routing/assumed';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { Picks } from '../answers/picks';
import type { EncodedPlan } from '../conditions/encoded-plan';
import {
  ONE,
  UNWEIGHTED,
  ZERO,
  type Circuit,
  type Term,
  type Weight,
  type Weighted,
} from '../diagrams/circuit';
import { FALSE, TRUE, type Diagram } from '../diagrams/diagram';
import { answerOf, assumedUnder, type Weighed } from './answer-weights';
import {
  answered,
  blank,
  PickSteps,
  unasked,
  type Alike,
  type PickFilling as Filling,
  type OptionWeights,
  type PickStart,
} from './pick-steps';
import { leaningAmong, type Leaning, type Sloped } from './situation-chances';
import { areMarked, following, situationLevel, TooManySituations, type Situations } from './situations';

export class PickWeights {
  private readonly fillings = new Map<AnswerSymbol, Filling>();
  /** For going through options one by one; none until somebody does. */
  private readonly steps = new Map<Filling, PickSteps>();
  private readonly names = new Map<Weight, string>();

  constructor(
    private readonly encoded: EncodedPlan,
    private readonly situations: Situations,
    private readonly circuit: Circuit,
    private readonly assumed: (name: string) => Assume,
  ) {}

  /** The weight of a diagram that tests such a question first; `weigh` what is left of it. */
  weigh(diagram: Diagram, symbol: AnswerSymbol, picks: Picks, weigh: (rest: Diagram) => Term): Term {
    const { circuit } = this;
    const { diagrams } = this.encoded;
    const filling = this.fillingOf(symbol, picks);
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const situations = home === null ? [] : this.situations.at(home);
    const marked = areMarked(situations) && home !== null;
    if (marked && this.encoded.itemAt(home).checks !== TRUE) throw new TooManySituations();
    const ways = marked
      ? situations.map(({ when, where }, n) => ({ when, where, mark: situationLevel(symbol, n) }))
      : [{ when: TRUE, where: situations[0]?.where ?? null, mark: null }];
    const marks = situations.map((_, n) => situationLevel(symbol, n));
    const restricted = (mark: number | null) =>
      marked
        ? diagrams.forget(
            diagrams.and(diagram, diagrams.cube(marks.map((level) => [level, level === mark]))),
            (level) => marks.includes(level),
          )
        : diagram;
    const parts: Weighted[] = [[UNWEIGHTED, weigh(following(diagrams, restricted(null), unasked(symbol)))]];
    for (const { when, where, mark } of ways) {
      const { assumed, blank: left, notBlank } = alikeIn(filling, where);
      const here = restricted(mark);
      const { legal, mayBeBlank } = this.allowed(symbol, picks, when);
      if (mayBeBlank) parts.push([left, weigh(following(diagrams, here, blank(symbol)))]);
      const some = (weights: readonly OptionWeights[]) => this.among(here, symbol, picks, weights, weigh);
      const all = (weights: readonly OptionWeights[]) => this.among(legal, symbol, picks, weights, isTrue);
      parts.push([
        mayBeBlank ? notBlank : UNWEIGHTED,
        circuit.ratio(some(assumed), all(assumed), some(filling.even), all(filling.even)),
      ]);
    }
    return circuit.sum(parts);
  }

  /** What is decided by one of its variables, for going through the options one by one; see `PickSteps`. */
  choicesAt(level: number, symbol: AnswerSymbol, picks: Picks, alike: number): readonly Weighed[] {
    return this.stepsOf(this.fillingOf(symbol, picks)).choicesAt(level, alike);
  }

  /** By what is assumed, some options cannot be gone through one by one. */
  get isMixed(): boolean {
    return [...this.steps.values()].some((steps) => steps.isMixed);
  }

  refill(): void {
    for (const filling of this.fillings.values()) this.fill(filling);
  }

  /** Once the circuit has been swept: what hangs on what its nodes come to. */
  refillStepwise(): void {
    for (const [filling, steps] of this.steps) this.fillSteps(filling, steps);
  }

  slopesToward(name: string, leaning: Leaning): [Weight, number][] {
    return [...this.fillings.values()]
      .filter(({ symbol }) => assumedUnder(symbol) === name)
      .flatMap((filling) => {
        const own = this.weights(filling, leaning);
        return [...own, ...(this.steps.get(filling)?.weights(own) ?? [])].map(
          ([weight, { slope }]): [Weight, number] => [weight, slope],
        );
      });
  }

  nameOf(weight: Weight): string | undefined {
    return this.names.get(weight);
  }

  /** Which picks are allowed where something holds, and whether none is. */
  private allowed(symbol: AnswerSymbol, picks: Picks, when: Diagram) {
    const { diagrams } = this.encoded;
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const domain = home === null ? this.encoded.given : this.encoded.domainAt(home);
    const own = (level: number) => level >= symbol.level && level < symbol.level + picks.size;
    const legal = diagrams.forget(diagrams.and(domain, when), (level) => !own(level));
    return { legal, mayBeBlank: following(diagrams, legal, blank(symbol)) === TRUE };
  }

  /** The weight of all picks that are not blank, each option with its chance; `weigh` what is left of the diagram. */
  private among(
    diagram: Diagram,
    symbol: AnswerSymbol,
    picks: Picks,
    weights: readonly OptionWeights[],
    weigh: (rest: Diagram) => Term,
  ): Term {
    const { diagrams } = this.encoded;
    const known = picks.options.map(() => new Map<Diagram, Term>());
    const from = (at: Diagram, option: number): Term => {
      if (at === FALSE) return ZERO;
      const weight = weights[option];
      const code = picks.options[option]?.code;
      if (weight === undefined || code === undefined) return weigh(at);
      const before = known[option]?.get(at);
      if (before !== undefined) return before;
      const tested = diagrams.topOf(at) === picks.levelOf(code);
      const [without, withIt] = tested ? [diagrams.lowOf(at), diagrams.highOf(at)] : [at, at];
      const term = this.circuit.sum([
        [weight.left, from(without, option + 1)],
        [weight.picked, from(withIt, option + 1)],
      ]);
      known[option]?.set(at, term);
      return term;
    };
    return from(following(diagrams, diagram, answered(symbol, picks)), 0);
  }

  private fillingOf(symbol: AnswerSymbol, picks: Picks): Filling {
    let filling = this.fillings.get(symbol);
    if (filling !== undefined) return filling;
    if (!picksMany(answerOf(symbol))) throw new TooManySituations();
    const { circuit } = this;
    const weights = () => this.optionWeights(picks);
    filling = {
      symbol,
      picks,
      alike: this.wheresAt(symbol).map((where) => ({
        where,
        assumed: weights(),
        blank: circuit.weight(),
        notBlank: circuit.weight(),
      })),
      even: weights(),
    };
    this.fillings.set(symbol, filling);
    for (const [weight] of this.weights(filling, { assume: {} }))
      this.names.set(weight, assumedUnder(symbol));
    this.fill(filling);
    return filling;
  }

  /** Whom answers are assumed of apart, by the index of their shares. */
  private wheresAt(symbol: AnswerSymbol): readonly (number | null)[] {
    const home = this.encoded.homeOf(symbol.level) ?? null;
    return home === null ? [null] : [...new Set(this.situations.at(home).map(({ where }) => where))];
  }

  private optionWeights(picks: Picks): readonly OptionWeights[] {
    return picks.options.map(() => ({ picked: this.circuit.weight(), left: this.circuit.weight() }));
  }

  private fill(filling: Filling): void {
    const leaning = { assume: this.assumed(assumedUnder(filling.symbol)) };
    for (const [weight, { value }] of this.weights(filling, leaning)) this.circuit.setWeight(weight, value);
  }

  private weights({ symbol, picks, alike, even }: Filling, leaning: Leaning): [Weight, Sloped][] {
    return [
      ...alike.flatMap((of) => this.weightsAmong(symbol, picks, of, leaningAmong(leaning, of.where))),
      ...ofOptions(even, pickChances(picks.options, {}), pickChances(picks.options, {})),
    ];
  }

  private weightsAmong(
    symbol: AnswerSymbol,
    picks: Picks,
    { assumed, blank: left, notBlank }: Alike,
    { assume, toward = assume }: Leaning,
  ): [Weight, Sloped][] {
    const chances = (of: Assume) => pickChances(picks.options, of);
    const { variable } = symbol.driver;
    const maySkip = (variable.of === 'question' || variable.of === 'row') && !variable.question.required;
    const blankNow = maySkip ? (assume.blank ?? 0) : 0;
    const slope = maySkip ? (toward.blank ?? 0) - blankNow : 0;
    return [
      ...ofOptions(assumed, chances(assume), chances(toward)),
      [left, { value: blankNow, slope }],
      [notBlank, { value: 1 - blankNow, slope: -slope }],
    ];
  }

  private stepsOf(filling: Filling): PickSteps {
    let steps = this.steps.get(filling);
    if (steps !== undefined) return steps;
    const { symbol, picks, alike, even } = filling;
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const situations = home === null ? [] : this.situations.at(home);
    const marked = areMarked(situations);
    if (marked && home !== null && this.encoded.itemAt(home).checks !== TRUE) throw new TooManySituations();
    const ways = marked ? situations : [{ when: TRUE, where: situations[0]?.where ?? null }];
    const starts = ways.map(({ when, where }, n): PickStart => {
      const { legal, mayBeBlank } = this.allowed(symbol, picks, when);
      const all = (weights: readonly OptionWeights[]) => this.among(legal, symbol, picks, weights, isTrue);
      const own = alikeIn(filling, where);
      return {
        alike: alike.indexOf(own),
        mayBeBlank,
        all: { assumed: all(own.assumed), even: all(even) },
        mark: marked ? situationLevel(symbol, n) : null,
      };
    });
    steps = new PickSteps(this.circuit, filling, starts);
    this.steps.set(filling, steps);
    for (const weight of steps.ownWeights) this.names.set(weight, assumedUnder(symbol));
    this.fillSteps(filling, steps);
    return steps;
  }

  private fillSteps(filling: Filling, steps: PickSteps): void {
    const own = this.weights(filling, { assume: this.assumed(assumedUnder(filling.symbol)) });
    for (const [weight, { value }] of steps.weights(own)) this.circuit.setWeight(weight, value);
  }
}

function alikeIn({ alike }: Filling, of: number | null): Alike {
  return alike.find(({ where }) => where === of) as Alike;
}

const isTrue = (rest: Diagram): Term => (rest === TRUE ? ONE : ZERO);

function ofOptions(
  weights: readonly OptionWeights[],
  now: readonly number[],
  ahead: readonly number[],
): [Weight, Sloped][] {
  return weights.flatMap(({ picked, left }, n): [Weight, Sloped][] => {
    const value = now[n] as number;
    const slope = (ahead[n] as number) - value;
    return [
      [picked, { value, slope }],
      [left, { value: 1 - value, slope: -slope }],
    ];
  });
}
