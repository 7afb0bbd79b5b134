/**
 * A question with many options gone through option by option: first whether it is answered at all, with what makes the rest add
 * up to 1, then each option with its chance.
 */
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { Picks } from '../answers/picks';
import { UNWEIGHTED, type Circuit, type Term, type Weight } from '../diagrams/circuit';
import type { Weighed } from './answer-weights';
import type { Sloped } from './situation-chances';

export interface OptionWeights {
  readonly picked: Weight;
  readonly left: Weight;
}

/** The weights of those of whom the same is assumed. */
export interface Alike {
  /** Of which of the document's conditions they are, by its index; null: of the rest. */
  readonly where: number | null;
  readonly assumed: readonly OptionWeights[];
  readonly blank: Weight;
  readonly notBlank: Weight;
}

/** What the weights of such a question are filled from. */
export interface PickFilling {
  readonly symbol: AnswerSymbol;
  readonly picks: Picks;
  readonly alike: readonly Alike[];
  /** For where no set of picks is possible by what is assumed. */
  readonly even: readonly OptionWeights[];
}

/** How picking begins in a situation. */
export interface PickStart {
  /** Of whom it is, by the index among those of whom the same is assumed. */
  readonly alike: number;
  readonly mayBeBlank: boolean;
  /** What all picks that are allowed come to, none left out. */
  readonly all: { readonly assumed: Term; readonly even: Term };
  /** Level of the variable of the situation; null where there is but one. */
  readonly mark: number | null;
}

export class PickSteps {
  /** By those of whom the same is assumed. */
  private readonly options: readonly (readonly OptionWeights[])[];
  /** Parallel to the starts. */
  private readonly begun: readonly Weight[];

  constructor(
    private readonly circuit: Circuit,
    private readonly filling: PickFilling,
    private readonly starts: readonly PickStart[],
  ) {
    const { alike, picks } = filling;
    this.options = alike.map(() =>
      picks.options.map(() => ({ picked: circuit.weight(), left: circuit.weight() })),
    );
    this.begun = starts.map(() => circuit.weight());
  }

  get ownWeights(): readonly Weight[] {
    return [...this.options.flat().flatMap(({ picked, left }) => [picked, left]), ...this.begun];
  }

  /** What one of its variables decides; `among`: of whom it is, once picking has begun. */
  choicesAt(level: number, among: number): readonly Weighed[] {
    const { symbol, picks, alike } = this.filling;
    const whom = (of: number) => (alike.length > 1 ? { alike: of } : {});
    const option = picks.options.findIndex(({ code }) => picks.levelOf(code) === level);
    const weights = this.options[among]?.[option];
    if (weights !== undefined)
      return [
        { literals: new Map([[level, false]]), weight: weights.left },
        { literals: new Map([[level, true]]), weight: weights.picked },
      ];
    return [
      { literals: unasked(symbol), weight: UNWEIGHTED, later: this.marks(null) },
      ...this.starts.flatMap(({ mayBeBlank, mark, alike: of }, n): Weighed[] => {
        const later = this.marks(mark);
        return [
          ...(mayBeBlank ? [{ literals: blank(symbol), weight: (alike[of] as Alike).blank, later }] : []),
          { literals: answered(symbol, picks), weight: this.begun[n] as Weight, later, ...whom(of) },
        ];
      }),
    ];
  }

  /** Which situation it is: nobody's with null. */
  private marks(of: number | null): ReadonlyMap<number, boolean> {
    return new Map(this.starts.flatMap(({ mark }) => (mark === null ? [] : [[mark, mark === of] as const])));
  }

  /** In some situation no picks are possible by what is assumed, and in another they are: options have weights for either. */
  get isMixed(): boolean {
    return this.filling.alike.some((_, of) => {
      const possible = this.possible(of);
      return possible.includes(true) && possible.includes(false);
    });
  }

  private possible(of: number): readonly boolean[] {
    return this.starts
      .filter(({ alike }) => alike === of)
      .map(({ all }) => this.circuit.valueOf(all.assumed) > 0);
  }

  /** What its own weights come to, by those of the filling. */
  weights(filled: readonly [Weight, Sloped][]): [Weight, Sloped][] {
    const { circuit } = this;
    const { alike, even } = this.filling;
    const byWeight = new Map(filled);
    const of = (weight: Weight) => byWeight.get(weight) ?? CERTAIN;
    const isPossible = alike.map((_, n) => this.possible(n).includes(true));
    return [
      ...this.starts.map(({ mayBeBlank, all, alike: among }, n): [Weight, Sloped] => {
        const weight = this.begun[n] as Weight;
        const total = isPossible[among] ? all.assumed : all.even;
        const value = circuit.valueOf(total);
        if (value === 0) return [weight, { value: 0, slope: 0 }];
        let slope = 0;
        for (const [each, by] of circuit.slopes(total)) slope += by * of(each).slope;
        const whole = mayBeBlank ? of((alike[among] as Alike).notBlank) : CERTAIN;
        return [
          weight,
          { value: whole.value / value, slope: (whole.slope * value - whole.value * slope) / value ** 2 },
        ];
      }),
      ...this.options.flatMap((own, among) => {
        const from = isPossible[among] ? (alike[among] as Alike).assumed : even;
        return own.flatMap(({ picked, left }, n): [Weight, Sloped][] => {
          const same = from[n] as OptionWeights;
          return [
            [picked, of(same.picked)],
            [left, of(same.left)],
          ];
        });
      }),
    ];
  }
}

const CERTAIN: Sloped = { value: 1, slope: 0 };

/** The literals of nobody asked, of a blank, and of something picked (whichever options). */
export function unasked(symbol: AnswerSymbol): ReadonlyMap<number, boolean> {
  return new Map(symbol.literals(symbol.readings.length - 1));
}

export function blank(symbol: AnswerSymbol): ReadonlyMap<number, boolean> {
  return new Map(symbol.literals(symbol.readings.length - 2));
}

export function answered(symbol: AnswerSymbol, picks: Picks): ReadonlyMap<number, boolean> {
  return new Map(symbol.literals(0).slice(0, picks.size - picks.options.length));
}
