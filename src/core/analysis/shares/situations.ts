/**
 * The situations in which an item is answered: which options are shown, and which answers a hard check lets through. In each
 * the chances of its readings are others, so each has a variable of its own.
 */
import type { EncodedItem } from '../conditions/exits';
import { passKey } from '../../document/addresses';
import type { Answer, Assume, Value } from '../../document/types';
import { partsAtMost } from '../../routing/answers';
import { whenAllowed } from '../answers/allowed';
import { chancesOf } from './chances';
import { TooMuch } from '../diagrams/limits';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { VARIABLES_EACH, type AnswerSymbol } from '../answers/answer-symbol';
import type { EncodedPlan } from '../conditions/encoded-plan';

/** More situations than these are not told apart at one item. */
const MOST_SITUATIONS = 512;

/** Thrown where the chances of an answer depend on too much. */
export class TooManySituations extends TooMuch {}

/** Where an item is presented: what holds there, and the chances of the readings of each of its symbols. */
export interface Situation {
  readonly when: Diagram;
  /** By symbol, parallel to its readings. */
  readonly chances: ReadonlyMap<AnswerSymbol, readonly number[]>;
  /** One over the chance of getting past the hard checks. */
  readonly factor: number;
}

export class Situations {
  private readonly diagrams: Diagrams;
  private readonly known = new Map<number, readonly Situation[]>();

  constructor(private readonly encoded: EncodedPlan) {
    this.diagrams = encoded.diagrams;
  }

  /** That the variables of the situations say which one it is. */
  hold(place: number, asked: Diagram): Diagram {
    const { diagrams } = this;
    const situations = this.at(place);
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

  at(place: number): readonly Situation[] {
    let found = this.known.get(place);
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
    this.known.set(place, found);
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
      const left = following(this.diagrams, own, new Map(symbol.literals(reading)));
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

/** What is left of a diagram for one reading of the driver that it asks about first. */
export function following(
  diagrams: Diagrams,
  diagram: Diagram,
  literals: ReadonlyMap<number, boolean>,
): Diagram {
  let at = diagram;
  for (let truth = literals.get(diagrams.topOf(at)); truth !== undefined;) {
    at = truth ? diagrams.highOf(at) : diagrams.lowOf(at);
    truth = literals.get(diagrams.topOf(at));
  }
  return at;
}

/** Whether it has to be known which situation it is, if any. */
export function areMarked(situations: readonly Situation[]): boolean {
  return situations.length > 1 || situations[0]?.factor !== 1;
}

type AskedVariables = readonly { readonly name: string; readonly answer: Answer }[];

/** From the end of the driver's own levels. */
export function situationLevel({ level }: AnswerSymbol, situation: number): number {
  return level - (level % VARIABLES_EACH) + VARIABLES_EACH - 1 - situation;
}

/** Chances that add up to 1: a blank has its own, what is allowed besides has the rest in proportion. */
export function spread(
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
