/**
 * Sums of products in which how many options are picked can be told, of questions whose options are told apart one by
 * one: “at least four of thirty” is one test, and 27,405 products of picks.
 *
 * In: the bounds that a function has to lie between. Out: products of variables, each with the counts that have to hold
 * with it.
 */
import { parseCondition } from '../../condition/parse';
import { readPassKey } from '../../document/addresses';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { EncodedPlan } from '../conditions/encoded-plan';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { TooManyNodes } from '../diagrams/limits';
import { countsInWords } from './counts-in-words';
import type { Cube } from './cubes';

/** So many products are still read; with more of them, counts are looked for. */
const FEW = 12;
/** More than this are no help to anybody, and take long to find. */
const MOST = 5_000;

/** A test of how many options are picked, as read in the section (and the pass) of the question. */
export interface CountTest {
  readonly symbol: AnswerSymbol;
  readonly text: string;
  readonly is: Diagram;
}

/** A product, true where its variables have their values and all of its counts hold. */
export interface CountedCube {
  readonly cube: Cube;
  readonly counts: readonly CountTest[];
}

/** Products of variables alone between two bounds; null where there would be more than `most`. */
type Cover = (lower: Diagram, upper: Diagram, most: number) => readonly Cube[] | null;

export class CountedPicks {
  private readonly diagrams: Diagrams;
  private readonly numbers = new Map<AnswerSymbol, readonly Diagram[]>();

  constructor(
    private readonly encoded: EncodedPlan,
    private readonly cover: Cover,
  ) {
    this.diagrams = encoded.diagrams;
  }

  /**
   * Products whose union holds wherever `lower` does and nowhere that `upper` does not.
   * @throws TooManyNodes where that takes more of them than anybody would read.
   */
  between(lower: Diagram, upper: Diagram): CountedCube[] {
    const few = this.cover(lower, upper, FEW);
    if (few !== null) return plain(few);
    const counted = this.symbolsIn([lower, upper]);
    const found = this.together(counted, lower, upper) ?? this.besides(counted, lower, upper);
    if (found !== null) return found;
    const all = this.cover(lower, upper, MOST);
    if (all === null) throw new TooManyNodes(`more than ${MOST} products`);
    return plain(all);
  }

  private symbolsIn(bounds: readonly Diagram[]): AnswerSymbol[] {
    const levels = bounds.flatMap((bound) => this.diagrams.support(bound));
    const symbols = new Set(levels.flatMap((level) => this.encoded.symbolAt(level) ?? []));
    return [...symbols].filter(({ picks }) => picks !== null);
  }

  /** Where how many are picked is settled by what has to hold: a few products, together with that. */
  private together(symbols: readonly AnswerSymbol[], lower: Diagram, upper: Diagram): CountedCube[] | null {
    const { diagrams } = this;
    const counts = symbols.flatMap((symbol) => this.test(symbol, (is) => diagrams.meets(is, lower), upper));
    const among = (tests: readonly CountTest[]) =>
      tests.reduce<Diagram>((all, { is }) => diagrams.and(all, is), TRUE);
    const cubes = this.few(lower, diagrams.or(upper, diagrams.not(among(counts))));
    if (cubes === null) return null;
    const any = cubes.reduce<Diagram>((some, cube) => diagrams.or(some, diagrams.cube(cube)), FALSE);
    const needed = counts.reduce((left, test) => {
      const others = left.filter((other) => other !== test);
      return this.implies(diagrams.and(any, among(others)), upper) ? others : left;
    }, counts);
    return cubes.map((cube) => ({ cube, counts: needed }));
  }

  /** Where how many are picked is enough for some: those, and what is left as products. */
  private besides(symbols: readonly AnswerSymbol[], lower: Diagram, upper: Diagram): CountedCube[] | null {
    const { diagrams } = this;
    const alone = symbols.flatMap((symbol) =>
      this.test(symbol, (is) => diagrams.meets(is, lower) && this.implies(is, upper), upper),
    );
    if (alone.length === 0) return null;
    const left = alone.reduce((rest, { is }) => diagrams.and(rest, diagrams.not(is)), lower);
    const cubes = this.few(left, upper);
    const others = cubes === null ? this.together(symbols, left, upper) : plain(cubes);
    return (
      others && [...others, ...alone.map((test) => ({ cube: new Map<number, boolean>(), counts: [test] }))]
    );
  }

  private few(lower: Diagram, upper: Diagram): readonly Cube[] | null {
    return this.single(lower, upper) ?? this.cover(lower, upper, FEW);
  }

  /**
   * One product, where there is one. Of four picks the fourth is settled by the rest: a cover found variable by variable
   * may do without it, and name all of the rest instead.
   */
  private single(lower: Diagram, upper: Diagram): readonly Cube[] | null {
    const { diagrams } = this;
    const sure = diagrams.support(lower).flatMap((level): [number, boolean][] => {
      const is = diagrams.variable(level);
      if (this.implies(lower, is)) return [[level, true]];
      return diagrams.meets(lower, is) ? [] : [[level, false]];
    });
    const fits = (literals: typeof sure) => this.implies(diagrams.cube(literals), upper);
    if (!fits(sure)) return null;
    const needed = sure.reduceRight((left, literal) => {
      const others = left.filter((other) => other !== literal);
      return fits(others) ? others : left;
    }, sure);
    return [new Map(needed)];
  }

  /** That one of the numbers is picked that are `meant`; of numbers that do not matter, whatever is shorter to say. */
  private test(symbol: AnswerSymbol, meant: (is: Diagram) => boolean, upper: Diagram): CountTest[] {
    const numbers = this.numbersOf(symbol);
    const wanted = numbers.map((is) => (meant(is) ? true : this.implies(is, upper) ? null : false));
    if (!wanted.includes(true) || !wanted.includes(false)) return [];
    const { name } = symbol.driver.variable;
    const text = countsInWords(name, wanted);
    return [{ symbol, text, is: this.meaning(symbol, text) }];
  }

  /** By number: that just so many are picked; first of all, none or no value. */
  private numbersOf(symbol: AnswerSymbol): readonly Diagram[] {
    const { diagrams } = this;
    let numbers = this.numbers.get(symbol);
    if (numbers === undefined) {
      const { name } = symbol.driver.variable;
      const some = (symbol.picks?.options ?? []).map((_, n) =>
        this.meaning(symbol, `count(${name}) = ${n + 1}`),
      );
      numbers = [diagrams.not(some.reduce((any, is) => diagrams.or(any, is), FALSE)), ...some];
      this.numbers.set(symbol, numbers);
    }
    return numbers;
  }

  /** A condition on an answer as it is read in its own section and pass. */
  private meaning(symbol: AnswerSymbol, text: string): Diagram {
    const { variable } = symbol.driver;
    const placed = variable.of === 'question' || variable.of === 'row';
    const parsed = parseCondition(text);
    if (!parsed.ok) throw new Error(`not a condition: ${text}`);
    return this.encoded.conditionAt(parsed.tree, {
      section: placed ? variable.section : 0,
      pass: readPassKey(symbol.key).pass,
    });
  }

  private implies(one: Diagram, other: Diagram): boolean {
    return this.diagrams.and(one, this.diagrams.not(other)) === FALSE;
  }
}

function plain(cubes: readonly Cube[]): CountedCube[] {
  return cubes.map((cube) => ({ cube, counts: [] }));
}
