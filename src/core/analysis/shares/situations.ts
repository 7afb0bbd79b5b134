/**
 * The situations in which an item is answered: which options are shown, of whom other answers are assumed than of the rest, and
 * which answers a hard check lets through. In each
 * the chances of its readings are others, so each has a variable of its own. What the chances are is for
 * `situation-chances.ts`: situations stay as they are when other answers are assumed.
 */
import type { EncodedItem } from '../conditions/exits';
import { passKey } from '../../document/addresses';
import type { Answer } from '../../document/types';
import { partsAtMost } from '../../routing/answers';
import { whenAllowed } from '../answers/allowed';
import { TooMuch } from '../diagrams/limits';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { VARIABLES_EACH, type AnswerSymbol } from '../answers/answer-symbol';
import type { EncodedPlan } from '../conditions/encoded-plan';

/** More situations than these are not told apart at one item. */
const MOST_SITUATIONS = 512;

/** Thrown where the chances of an answer depend on too much. */
export class TooManySituations extends TooMuch {}

/** A part of an item that is answered by itself, with which of its values can be given. */
export interface SituatedPart {
  readonly symbol: AnswerSymbol;
  readonly answer: Answer;
  /** Parallel to the symbol's values; null for a row that is not shown. */
  readonly legal: readonly boolean[] | null;
}

/** Where an item is presented: what holds there, and what can be answered. */
export interface Situation {
  readonly when: Diagram;
  /** Which of the shares that are assumed of some counts; null for those of the rest. */
  readonly where: number | null;
  readonly parts: readonly SituatedPart[];
  /** The answers that get past the hard checks; null where there are none. */
  readonly passing: Diagram | null;
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
    const whens = this.assumedApart(
      this.refined(
        [TRUE],
        item.shown.map(({ when }) => when),
      ),
      item.assumedIf,
    );
    const { diagrams, encoded } = this;
    const allowed = diagrams.and(encoded.domainAt(place), item.checks);
    found = whens.flatMap(({ when, where }): Situation[] => {
      const parts = this.partsIn(item, when);
      if (item.checks === TRUE) return [{ when, where, parts, passing: null }];
      return [...this.byEarlier(diagrams.and(allowed, when), place)].map(([passing, here]) => ({
        when: diagrams.and(when, here),
        where,
        parts,
        passing,
      }));
    });
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

  /** Each situation divided by the first of some conditions that holds in it, if any does. */
  private assumedApart(situations: readonly Diagram[], assumedIf: readonly Diagram[]) {
    const { diagrams } = this;
    return situations.flatMap((situation) => {
      let rest = situation;
      const apart = assumedIf.map((condition, where): { when: Diagram; where: number | null } => {
        const when = diagrams.and(rest, condition);
        rest = diagrams.and(rest, diagrams.not(condition));
        return { when, where };
      });
      return [...apart, { when: rest, where: null }].filter(({ when }) => when !== FALSE);
    });
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

  private partsIn({ planItem, pass }: EncodedItem, when: Diagram): SituatedPart[] {
    const { diagrams, encoded } = this;
    const { item } = planItem;
    if (item.kind === 'statement') return [];
    const shown = encoded.optionsShown(planItem, pass);
    const rows = encoded.rowsShown(planItem, pass);
    return partsAtMost(planItem).flatMap(({ name, answer }, row): SituatedPart[] => {
      const symbol = encoded.symbols.get(passKey(name.toLowerCase(), pass));
      if (symbol === undefined) return [];
      if (diagrams.and(when, rows[row] ?? TRUE) === FALSE) return [{ symbol, answer, legal: null }];
      const legal = symbol.values.map(
        (value) => diagrams.and(when, whenAllowed(diagrams, item, answer, value, shown)) !== FALSE,
      );
      return [{ symbol, answer, legal }];
    });
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
  return situations.length > 1 || (situations[0]?.passing ?? null) !== null;
}

/** From the end of the driver's own levels. */
export function situationLevel({ level }: AnswerSymbol, situation: number): number {
  return level - (level % VARIABLES_EACH) + VARIABLES_EACH - 1 - situation;
}
