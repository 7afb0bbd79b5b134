/**
 * The weights of a circuit that stand for answers: for every class of readings that no test tells apart, its chance in each
 * situation, filled from what is assumed and filled again when something else is.
 */
import { hasRows, isDated, isNumeric } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Assume, Question, Questionnaire, Value } from '../../document/types';
import { gridRowAnswer, refusal } from '../../routing/answers';
import { lineWeights } from '../../routing/assumed';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { Circuit, Weight } from '../diagrams/circuit';
import { chancesIn, spread, type Leaning, type SituationChances, type Sloped } from './situation-chances';
import { areMarked, situationLevel, TooManySituations, type Situations } from './situations';

/** What is assumed of the answers to questions, and of given values, by name. */
export type Assumptions = ReadonlyMap<string, Assume>;

/** Readings with the same truths, weighed together. */
export interface Weighed {
  readonly literals: ReadonlyMap<number, boolean>;
  readonly weight: Weight;
  /** Literals that are not tested first, but after others that stay open. */
  readonly later?: ReadonlyMap<number, boolean>;
  /** Of many options that are gone through from here on: of whom the same is assumed, by the index of their weights. */
  readonly alike?: number;
}

/** Where the value of a weight comes from: chances, all added up. */
type Sources = readonly { readonly situation: number; readonly reading: number }[];

/** What a symbol's weights are filled from. */
interface Filling {
  readonly symbol: AnswerSymbol;
  /** Place of its item; null where it is given beforehand. */
  readonly home: number | null;
  readonly classes: readonly (Weighed & { readonly sources: Sources })[];
  /** The chance of getting past hard checks is minded once for each item. */
  readonly isFirst: boolean;
}

/** In the place of a situation: of whoever is not presented the item at all. */
const NOWHERE = -1;

const CERTAIN: Sloped = { value: 1, slope: 0 };

export class AnswerWeights {
  private readonly fillings = new Map<AnswerSymbol, Filling>();
  private readonly chances = new Map<number, readonly SituationChances[]>();
  private readonly names = new Map<Weight, string>();

  /** `assumed`: by name, as it is at the time of asking. */
  constructor(
    private readonly encoded: EncodedPlan,
    private readonly situations: Situations,
    private readonly circuit: Circuit,
    private readonly assumed: (name: string) => Assume,
  ) {}

  /** Readings with the same truths are one, their chances added up. What cannot be answered is left out. */
  of(symbol: AnswerSymbol): readonly Weighed[] {
    let filling = this.fillings.get(symbol);
    if (filling === undefined) {
      filling = this.filling(symbol);
      this.fillings.set(symbol, filling);
      for (const { weight } of filling.classes) this.names.set(weight, assumedUnder(symbol));
      this.fill(filling);
    }
    return filling.classes;
  }

  refill(): void {
    this.chances.clear();
    for (const filling of this.fillings.values()) this.fill(filling);
  }

  /** How fast each weight changes on the way to other answers to one question. */
  slopesToward(name: string, leaning: Leaning): [Weight, number][] {
    const slopes: [Weight, number][] = [];
    for (const filling of this.fillings.values()) {
      if (assumedUnder(filling.symbol) !== name) continue;
      const chances = this.chancesOf(filling, leaning);
      for (const { weight, sources } of filling.classes)
        slopes.push([weight, summed(chances, filling, sources).slope]);
    }
    return slopes;
  }

  /**
   * Of an answer on a line, the stretches of it between which no test of any pass tells a difference, from the least on; null
   * where nothing hangs on it.
   */
  stretchesOf(name: string): readonly (readonly [from: number | string, to: number | string])[] | null {
    const of = [...this.fillings.values()].filter(({ symbol }) => assumedUnder(symbol) === name);
    const [first] = of;
    if (first === undefined) return null;
    const answer = answerOf(first.symbol);
    if (!isNumeric(answer) && !isDated(answer)) return null;
    const { line } = lineWeights(answer, {});
    const starts = new Set<number>([line.first]);
    for (const { symbol, classes } of of) {
      const classOf = new Map(
        classes.flatMap(({ sources }, n) => sources.map(({ reading }) => [reading, n] as const)),
      );
      const steps = symbol.values
        .map((value, reading) => ({ value, of: classOf.get(reading) }))
        .filter(({ value }) => value !== null && !isSpecial(answer, value))
        .map(({ value, of: n }) => ({ step: Math.ceil(line.stepOf(value as number | string) - 1e-9), n }))
        .sort((a, b) => a.step - b.step);
      steps.forEach(({ step, n }, at) => {
        // Values beyond the limits are tried as well.
        if (at > 0 && steps[at - 1]?.n !== n && step > line.first && step <= line.last) starts.add(step);
      });
    }
    const sorted = [...starts].sort((a, b) => a - b);
    return sorted.map((step, n) => [line.at(step), line.at((sorted[n + 1] ?? line.last + 1) - 1)]);
  }

  nameOf(weight: Weight): string | undefined {
    return this.names.get(weight);
  }

  private filling(symbol: AnswerSymbol): Filling {
    const home = this.encoded.homeOf(symbol.level) ?? null;
    const merged = new Map<
      string,
      { literals: Map<number, boolean>; sources: { situation: number; reading: number }[] }
    >();
    const add = (reading: number, situation: number, marks: readonly [number, boolean][]) => {
      const literals = new Map([...symbol.literals(reading), ...marks]);
      const key = [...literals.values()].map(Number).join('');
      const known = merged.get(key);
      if (known === undefined) merged.set(key, { literals, sources: [{ situation, reading }] });
      else known.sources.push({ situation, reading });
    };
    if (home === null) {
      legalOfGiven(symbol).forEach((legal, reading) => {
        if (legal) add(reading, 0, []);
      });
    } else {
      const situations = this.situations.at(home);
      const marked = areMarked(situations);
      const marks = (wanted: number) =>
        marked ? situations.map((_, n): [number, boolean] => [situationLevel(symbol, n), n === wanted]) : [];
      const unasked = symbol.readings.length - 1;
      situations.forEach(({ parts }, n) => {
        const legal = parts.find((part) => part.symbol === symbol)?.legal;
        legal?.forEach((is, reading) => {
          if (is) add(reading, n, marks(n));
        });
        // A row that is not shown, though the grid is.
        if (marked) add(unasked, n, marks(n));
      });
      add(unasked, NOWHERE, marks(NOWHERE));
    }
    return {
      symbol,
      home,
      classes: [...merged.values()].map((of) => ({ ...of, weight: this.circuit.weight() })),
      isFirst: home !== null && this.encoded.itemAt(home).symbols[0] === symbol,
    };
  }

  private fill(filling: Filling): void {
    const chances = this.chancesOf(filling, null);
    for (const { weight, sources } of filling.classes)
      this.circuit.setWeight(weight, summed(chances, filling, sources).value);
  }

  /** In each situation of the item; `leaning` where slopes are wanted. */
  private chancesOf({ symbol, home }: Filling, leaning: Leaning | null): readonly SituationChances[] {
    const of = leaning ?? { assume: this.assumed(assumedUnder(symbol)) };
    if (home === null) {
      const chances = spread(symbol, answerOf(symbol), withoutBlank(of), legalOfGiven(symbol));
      return [{ chances: new Map([[symbol, chances]]), factor: CERTAIN }];
    }
    const known = leaning === null ? this.chances.get(home) : undefined;
    if (known !== undefined) return known;
    const { diagrams } = this.encoded;
    const found = this.situations.at(home).map((situation) => chancesIn(diagrams, situation, of));
    if (leaning === null) this.chances.set(home, found);
    return found;
  }
}

/** What chances come to together, with that of getting past the checks. */
function summed(
  situations: readonly SituationChances[],
  { symbol, isFirst }: Filling,
  sources: Sources,
): Sloped {
  const unasked = symbol.readings.length - 1;
  let [value, slope] = [0, 0];
  for (const { situation, reading } of sources) {
    const found = situations[situation];
    const chance = reading === unasked ? CERTAIN : found?.chances.get(symbol)?.[reading];
    if (chance === undefined) continue;
    const factor = isFirst && found !== undefined ? found.factor : CERTAIN;
    value += chance.value * factor.value;
    slope += chance.slope * factor.value + chance.value * factor.slope;
  }
  return { value, slope };
}

/** The name that an answer is assumed under: that of the question, also for a row of a grid. */
export function assumedUnder({ driver: { variable } }: AnswerSymbol): string {
  return variable.of === 'question' || variable.of === 'row' ? variable.question.name : variable.name;
}

/** How it is answered by itself. */
export function answerOf({ driver: { variable } }: AnswerSymbol): Answer {
  if (variable.of === 'given') return variable.given.answer;
  if (variable.of !== 'question' && variable.of !== 'row') throw new TooManySituations();
  const { answer } = variable.question;
  return hasRows(answer) ? gridRowAnswer(answer) : answer;
}

function legalOfGiven({ driver: { variable }, values }: AnswerSymbol): readonly boolean[] {
  if (variable.of !== 'given') return [];
  const { name, answer } = variable.given;
  const question: Question = { kind: 'question', name, text: '', answer };
  const all = { options: optionsOf(answer).map(() => true), rows: [] };
  return values.map((value) => value !== null && refusal(question, answer, value, all) === null);
}

/** What is given is never blank. */
function withoutBlank({ assume, toward }: Leaning): Leaning {
  const blank = 0;
  return { assume: { ...assume, blank }, ...(toward ? { toward: { ...toward, blank } } : {}) };
}

function isSpecial(answer: Answer, value: Value): boolean {
  return optionsOf(answer).some(({ code }) => code === value);
}

/** What a document assumes. */
export function assumedIn(document: Questionnaire): Assumptions {
  const assumed = new Map<string, Assume>();
  const note = ({ name, assume }: { readonly name: string; readonly assume?: Assume }) => {
    if (assume !== undefined) assumed.set(name, assume);
  };
  document.given?.forEach(note);
  for (const { items } of document.sections)
    for (const item of items) if (item.kind === 'question') note(item);
  return assumed;
}
