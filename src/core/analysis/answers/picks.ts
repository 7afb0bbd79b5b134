/**
 * The picks of a question with many options that are told apart: a variable for every option, instead of one for
 * every test, since there are too many sets of picks to list.
 */
import type { Option } from '../../document/types';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';

/** Its variables, in this order: having been asked, having been left blank, every option. */
const ASKED = 0;
const BLANK = 1;
const FIRST_OPTION = 2;

export class Picks {
  private readonly placeOf: ReadonlyMap<number, number>;

  constructor(
    private readonly diagrams: Diagrams,
    readonly options: readonly Option[],
    private readonly firstLevel: number,
    private readonly name: string,
  ) {
    // Of two options with one code the first is meant.
    this.placeOf = new Map([...options.entries()].reverse().map(([n, { code }]) => [code, FIRST_OPTION + n]));
  }

  get size(): number {
    return FIRST_OPTION + this.options.length;
  }

  get asked(): Diagram {
    return this.variable(ASKED);
  }

  get blank(): Diagram {
    return this.variable(BLANK);
  }

  /** That an option with this code is picked. */
  picked(code: number): Diagram {
    const index = this.options.findIndex((option) => option.code === code);
    return index < 0 ? FALSE : this.variable(FIRST_OPTION + index);
  }

  levelOf(code: number): number {
    return this.firstLevel + FIRST_OPTION + this.options.findIndex((option) => option.code === code);
  }

  get blankLevel(): number {
    return this.firstLevel + BLANK;
  }

  /** The condition that says that a variable is true. */
  sourceOf(number: number): string {
    if (number === ASKED) return `${this.name} asked`;
    if (number === BLANK) return `${this.name} unanswered`;
    return `${this.name} has ${this.options[number - FIRST_OPTION]?.code ?? ''}`;
  }

  /** The variables that are true of one set of picks; null is a blank, undefined not having been asked. */
  truths(codes: readonly number[] | null | undefined): number[] {
    if (codes === undefined) return [];
    if (codes === null) return [ASKED, BLANK];
    return [ASKED, ...codes.flatMap((code) => this.placeOf.get(code) ?? [])];
  }

  /** A test of the state only: told by what holds of nobody asked, of a blank and of picks. */
  state(ofUnasked: boolean, ofBlank: boolean, ofPicks: boolean): Diagram {
    const { diagrams } = this;
    const constant = (is: boolean) => (is ? TRUE : FALSE);
    const asked = diagrams.choose(this.blank, constant(ofBlank), constant(ofPicks));
    return diagrams.choose(this.asked, asked, constant(ofUnasked));
  }

  any(codes: readonly number[]): Diagram {
    return codes.reduce((some, code) => this.diagrams.or(some, this.picked(code)), FALSE);
  }

  all(codes: readonly number[]): Diagram {
    return codes.reduce((every, code) => this.diagrams.and(every, this.picked(code)), TRUE);
  }

  /** None of them, though something is picked that is a value. */
  none(codes: readonly number[]): Diagram {
    return this.diagrams.and(this.substantive, this.diagrams.not(this.any(codes)));
  }

  /** Something is picked, and no don't-know or the like. */
  get substantive(): Diagram {
    const missing = this.options.filter((option) => option.missing !== undefined).map(({ code }) => code);
    const { diagrams } = this;
    return diagrams.and(diagrams.and(this.asked, diagrams.not(this.blank)), diagrams.not(this.any(missing)));
  }

  /** By number: that just so many of some options are picked. */
  counts(of: (option: Option) => boolean = () => true): Diagram[] {
    const { diagrams } = this;
    let counts: Diagram[] = [TRUE];
    for (const option of [...this.options].reverse()) {
      if (!of(option)) continue;
      const picked = this.picked(option.code);
      counts = [...counts, FALSE].map((without, count) =>
        diagrams.choose(picked, counts[count - 1] ?? FALSE, without),
      );
    }
    return counts;
  }

  /** That at least so many options are picked for which a section has a pass. */
  ordinaryAtLeast(count: number): Diagram {
    return this.counts(isOrdinary).reduce(
      (some, when, n) => (n >= count ? this.diagrams.or(some, when) : some),
      FALSE,
    );
  }

  /** Codes with when they are the one whose pass it is. */
  inPass(pass: number): { readonly value: number; readonly when: Diagram }[] {
    const ordinary = this.options.filter(isOrdinary);
    return ordinary.map(({ code }, n) => {
      const before = new Set(ordinary.slice(0, n));
      const earlier = this.counts((option) => before.has(option))[pass - 1] ?? FALSE;
      return { value: code, when: this.diagrams.and(this.picked(code), earlier) };
    });
  }

  /**
   * What an item allows: nothing hidden, within the limits of picks, which shrink to what is shown, or one that stands
   * alone. `shown` is parallel to the options.
   */
  domain(
    limits: { readonly least: number; readonly most: number; readonly blank: boolean },
    shown: readonly Diagram[],
  ): Diagram {
    const { diagrams, options } = this;
    const visible = options.reduce(
      (all, { code }, n) => diagrams.and(all, diagrams.or(diagrams.not(this.picked(code)), shown[n] ?? TRUE)),
      TRUE,
    );
    const aloneCounts = this.counts((option) => !isOrdinary(option));
    const ordinaryCounts = this.counts(isOrdinary);
    const allShown = options.reduce(
      (all, option, n) =>
        isOrdinary(option)
          ? diagrams.and(all, diagrams.or(this.picked(option.code), diagrams.not(shown[n] ?? TRUE)))
          : all,
      TRUE,
    );
    const among = ordinaryCounts.reduce((some, when, count) => {
      if (count < 1 || count > limits.most) return some;
      return diagrams.or(some, count >= limits.least ? when : diagrams.and(when, allShown));
    }, FALSE);
    const together = diagrams.and(aloneCounts[0] ?? TRUE, among);
    const alone = diagrams.and(aloneCounts[1] ?? FALSE, ordinaryCounts[0] ?? TRUE);
    const some = diagrams.and(diagrams.and(diagrams.or(together, alone), visible), diagrams.not(this.blank));
    const nothing = diagrams.and(this.blank, diagrams.not(this.any(options.map(({ code }) => code))));
    return diagrams.and(this.asked, limits.blank ? diagrams.or(some, nothing) : some);
  }

  private variable(number: number): Diagram {
    return this.diagrams.variable(this.firstLevel + number);
  }
}

/** Neither “none of these” nor a don’t-know: it can be picked together with others. */
export function isOrdinary(option: Option): boolean {
  return !option.exclusive && option.missing === undefined;
}

/** Some sets of picks that the checks look at one by one: every option alone, every two, and all. */
export function samplePicks(options: readonly Option[], most: number): number[][] {
  const ordinary = options.filter(isOrdinary).map(({ code }) => code);
  const pairs = ordinary.flatMap((one, n) => ordinary.slice(n + 1).map((other) => [one, other]));
  return [
    ...options.map(({ code }) => [code]),
    ...(most >= 2 ? pairs : []),
    ...(most >= ordinary.length ? [ordinary] : []),
  ];
}
