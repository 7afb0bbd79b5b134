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
import type { Leaning, Sloped } from './situation-chances';
import { areMarked, following, situationLevel, TooManySituations, type Situations } from './situations';

interface OptionWeights {
  readonly picked: Weight;
  readonly left: Weight;
}

interface Filling {
  readonly symbol: AnswerSymbol;
  readonly picks: Picks;
  readonly assumed: readonly OptionWeights[];
  /** For where no set of picks is possible by what is assumed. */
  readonly even: readonly OptionWeights[];
  readonly blank: Weight;
  readonly notBlank: Weight;
  /** For going through the options one by one; null until somebody does. */
  stepwise: Stepwise | null;
}

/** The weights of options, assumed or even, and, for each situation, what makes them add up to 1. */
interface Stepwise {
  readonly options: readonly OptionWeights[];
  readonly starts: readonly Start[];
  /** What is true of nobody asked: that it is none of the situations. */
  readonly nowhere: ReadonlyMap<number, boolean>;
}

interface Start {
  readonly weight: Weight;
  readonly mayBeBlank: boolean;
  readonly all: { readonly assumed: Term; readonly even: Term };
  readonly marks: ReadonlyMap<number, boolean>;
}

export class PickWeights {
  private readonly fillings = new Map<AnswerSymbol, Filling>();
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
    const ways: readonly { readonly when: Diagram; readonly mark: number | null }[] = marked
      ? situations.map(({ when }, n) => ({ when, mark: situationLevel(symbol, n) }))
      : [{ when: TRUE, mark: null }];
    const marks = situations.map((_, n) => situationLevel(symbol, n));
    const restricted = (mark: number | null) =>
      marked
        ? diagrams.forget(
            diagrams.and(diagram, diagrams.cube(marks.map((level) => [level, level === mark]))),
            (level) => marks.includes(level),
          )
        : diagram;
    const parts: Weighted[] = [[UNWEIGHTED, weigh(following(diagrams, restricted(null), unasked(symbol)))]];
    for (const { when, mark } of ways) {
      const here = restricted(mark);
      const { legal, mayBeBlank } = this.allowed(symbol, picks, when);
      if (mayBeBlank) parts.push([filling.blank, weigh(following(diagrams, here, blank(symbol)))]);
      const some = (weights: readonly OptionWeights[]) => this.among(here, symbol, picks, weights, weigh);
      const all = (weights: readonly OptionWeights[]) => this.among(legal, symbol, picks, weights, isTrue);
      const { assumed, even } = filling;
      parts.push([
        mayBeBlank ? filling.notBlank : UNWEIGHTED,
        circuit.ratio(some(assumed), all(assumed), some(even), all(even)),
      ]);
    }
    return circuit.sum(parts);
  }

  /**
   * What is decided by one of its variables, for going through the options one by one: first whether it is answered at all,
   * with what makes the rest add up to 1, then each option.
   */
  choicesAt(level: number, symbol: AnswerSymbol, picks: Picks): readonly Weighed[] {
    const filling = this.fillingOf(symbol, picks);
    const stepwise = (filling.stepwise ??= this.stepwise(filling));
    const option = picks.options.findIndex(({ code }) => picks.levelOf(code) === level);
    const weights = stepwise.options[option];
    if (weights !== undefined)
      return [
        { literals: new Map([[level, false]]), weight: weights.left },
        { literals: new Map([[level, true]]), weight: weights.picked },
      ];
    return [
      { literals: unasked(symbol), weight: UNWEIGHTED, later: stepwise.nowhere },
      ...stepwise.starts.flatMap(({ weight, mayBeBlank, marks }): Weighed[] => [
        ...(mayBeBlank ? [{ literals: blank(symbol), weight: filling.blank, later: marks }] : []),
        { literals: answered(symbol, picks), weight, later: marks },
      ]),
    ];
  }

  /** In some situation no picks are possible by what is assumed, and in another they are: options have weights for either. */
  get isMixed(): boolean {
    return [...this.fillings.values()].some(({ stepwise }) => {
      const possible = stepwise?.starts.map(({ all }) => this.circuit.valueOf(all.assumed) > 0) ?? [];
      return possible.includes(true) && possible.includes(false);
    });
  }

  refill(): void {
    for (const filling of this.fillings.values()) this.fill(filling);
  }

  /** Once the circuit has been swept: what hangs on what its nodes come to. */
  refillStepwise(): void {
    for (const filling of this.fillings.values())
      if (filling.stepwise !== null) this.fillStepwise(filling, filling.stepwise);
  }

  slopesToward(name: string, leaning: Leaning): [Weight, number][] {
    return [...this.fillings.values()]
      .filter(({ symbol }) => assumedUnder(symbol) === name)
      .flatMap((filling) => {
        const own = this.weights(filling, leaning);
        const { stepwise } = filling;
        return [...own, ...(stepwise === null ? [] : this.stepwiseWeights(filling, stepwise, own))].map(
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
      assumed: weights(),
      even: weights(),
      blank: circuit.weight(),
      notBlank: circuit.weight(),
      stepwise: null,
    };
    this.fillings.set(symbol, filling);
    for (const [weight] of this.weights(filling, { assume: {} }))
      this.names.set(weight, assumedUnder(symbol));
    this.fill(filling);
    return filling;
  }

  private optionWeights(picks: Picks): readonly OptionWeights[] {
    return picks.options.map(() => ({ picked: this.circuit.weight(), left: this.circuit.weight() }));
  }

  private fill(filling: Filling): void {
    const leaning = { assume: this.assumed(assumedUnder(filling.symbol)) };
    for (const [weight, { value }] of this.weights(filling, leaning)) this.circuit.setWeight(weight, value);
  }

  private weights(
    { symbol, picks, assumed, even, blank: left, notBlank }: Filling,
    { assume, toward = assume }: Leaning,
  ): [Weight, Sloped][] {
    const chances = (of: Assume) => pickChances(picks.options, of);
    const { variable } = symbol.driver;
    const maySkip = (variable.of === 'question' || variable.of === 'row') && !variable.question.required;
    const blankNow = maySkip ? (assume.blank ?? 0) : 0;
    const slope = maySkip ? (toward.blank ?? 0) - blankNow : 0;
    return [
      ...ofOptions(assumed, chances(assume), chances(toward)),
      ...ofOptions(even, chances({}), chances({})),
      [left, { value: blankNow, slope }],
      [notBlank, { value: 1 - blankNow, slope: -slope }],
    ];
  }

  private stepwise(filling: Filling): Stepwise {
    const { symbol, picks, assumed, even } = filling;
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const situations = home === null ? [] : this.situations.at(home);
    const marked = areMarked(situations);
    if (marked && home !== null && this.encoded.itemAt(home).checks !== TRUE) throw new TooManySituations();
    const marks = (wanted: number | null) =>
      new Map(marked ? situations.map((_, n) => [situationLevel(symbol, n), n === wanted] as const) : []);
    const starts = (marked ? situations.map(({ when }) => when) : [TRUE]).map((when, n): Start => {
      const { legal, mayBeBlank } = this.allowed(symbol, picks, when);
      const all = (weights: readonly OptionWeights[]) => this.among(legal, symbol, picks, weights, isTrue);
      const weight = this.circuit.weight();
      return { weight, mayBeBlank, all: { assumed: all(assumed), even: all(even) }, marks: marks(n) };
    });
    const stepwise = { options: this.optionWeights(picks), starts, nowhere: marks(null) };
    const weights = stepwise.options.flatMap(({ picked, left }) => [picked, left]);
    for (const weight of [...weights, ...starts.map((start) => start.weight)])
      this.names.set(weight, assumedUnder(symbol));
    this.fillStepwise(filling, stepwise);
    return stepwise;
  }

  private fillStepwise(filling: Filling, stepwise: Stepwise): void {
    const own = this.weights(filling, { assume: this.assumed(assumedUnder(filling.symbol)) });
    for (const [weight, { value }] of this.stepwiseWeights(filling, stepwise, own))
      this.circuit.setWeight(weight, value);
  }

  private stepwiseWeights(
    { assumed, even, notBlank }: Filling,
    { options, starts }: Stepwise,
    own: readonly [Weight, Sloped][],
  ): [Weight, Sloped][] {
    const { circuit } = this;
    const byWeight = new Map(own);
    const of = (weight: Weight) => byWeight.get(weight) ?? CERTAIN;
    const isPossible = starts.some(({ all }) => circuit.valueOf(all.assumed) > 0);
    const from = isPossible ? assumed : even;
    return [
      ...starts.map(({ weight, mayBeBlank, all }): [Weight, Sloped] => {
        const total = isPossible ? all.assumed : all.even;
        const value = circuit.valueOf(total);
        if (value === 0) return [weight, { value: 0, slope: 0 }];
        let slope = 0;
        for (const [each, by] of circuit.slopes(total)) slope += by * of(each).slope;
        const whole = mayBeBlank ? of(notBlank) : CERTAIN;
        return [
          weight,
          { value: whole.value / value, slope: (whole.slope * value - whole.value * slope) / value ** 2 },
        ];
      }),
      ...options.flatMap(({ picked, left }, n): [Weight, Sloped][] => {
        const same = from[n] as OptionWeights;
        return [
          [picked, of(same.picked)],
          [left, of(same.left)],
        ];
      }),
    ];
  }
}

const CERTAIN: Sloped = { value: 1, slope: 0 };

const isTrue = (rest: Diagram): Term => (rest === TRUE ? ONE : ZERO);

/** The literals of nobody asked, of a blank, and of something picked (whichever options). */
function unasked(symbol: AnswerSymbol): ReadonlyMap<number, boolean> {
  return new Map(symbol.literals(symbol.readings.length - 1));
}

function blank(symbol: AnswerSymbol): ReadonlyMap<number, boolean> {
  return new Map(symbol.literals(symbol.readings.length - 2));
}

function answered(symbol: AnswerSymbol, picks: Picks): ReadonlyMap<number, boolean> {
  return new Map(symbol.literals(0).slice(0, picks.size - picks.options.length));
}

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
