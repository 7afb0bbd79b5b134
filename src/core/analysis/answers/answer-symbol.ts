/**
 * What can be told of one answer: every test of a driver is one Boolean variable, a predicate.
 *
 * A predicate is known by its truth for each reading the driver can have (one for every class of values, a
 * blank, and not having been asked); tests with the same truths, or opposite ones, share a variable.
 */
import { UNASKED, type Reading } from '../../condition/evaluate';
import { picksMany, ranksOptions } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Value } from '../../document/types';
import { readingOf } from '../../routing/readings';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { TooManyNodes } from '../diagrams/limits';
import { candidatesFor, optionsApart, type Candidates } from './candidates';
import type { Driver } from './drivers';
import { Picks, samplePicks } from './picks';

/** Variables of one driver at most; the level of a variable is its driver's rank times this, and its own number. */
export const VARIABLES_EACH = 4096;

/** Trying a test on a reading takes about as long as so many steps of a diagram. */
const STEPS_TO_TRY = 3;

const decoder = new TextDecoder();

/** A text for each list of truths: of tens of thousands it is made in no time. */
const textOf = (truth: Uint8Array): string => decoder.decode(truth);

/** Domains of one answer, by the tests that were in use. */
interface SettledDomain {
  readonly answer: Answer;
  readonly required: boolean;
  readonly byUse: Map<string, Diagram>;
  legal: readonly boolean[];
}

/** One driver, in one pass where its section repeats. */
export class AnswerSymbol {
  /** Values a respondent may give, plausible ones first; null is a blank. Parallel to all but the last reading. */
  readonly values: readonly (Value | null)[];
  /** Ends with not having been asked. */
  readonly readings: readonly Reading[];
  /** Why some class may lack a value; null where none can. */
  readonly incomplete: string | null;
  /** Which readings somebody may have, as far as `domain` has been asked; parallel to them. */
  readonly legal: boolean[] = [];
  private readonly truths: Uint8Array[] = [];
  /** Which of its variables a test has been made of since it was made or renewed; parallel to `truths`. */
  private readonly inUse: boolean[] = [];
  /** By reading, its number, if the reading is a number in binary: for those of which every value counts. */
  private readonly codes: Int32Array | null;
  /** The picks, if there are too many sets of them to list; `values` and `readings` are then but samples. */
  readonly picks: Picks | null;
  /** By the truths of a test, its variable; or, in binary, its diagram. */
  private readonly byTruth = new Map<string, number>();
  private readonly sources: string[] = [];
  /** By reading, its diagram by the tests in use; made anew once those are others. */
  private cubes: Diagram[] = [];
  /** What was found by `domainOf`, of the answer as it was then. */
  private settled: SettledDomain | null = null;

  constructor(
    private readonly diagrams: Diagrams,
    /** That of the questionnaire as it is now; see `renew`. */
    public driver: Driver,
    answer: Answer,
    readonly key: string,
    readonly rank: number,
    mostValues: number,
    inBinary: boolean,
  ) {
    this.picks = isWide(driver, answer)
      ? new Picks(diagrams, optionsOf(answer), rank * VARIABLES_EACH, driver.variable.name)
      : null;
    const { values: all, incomplete } = this.picks ? sampled(answer) : candidatesFor(driver, answer);
    const cut = driver.keepAll && all.length > mostValues;
    const values = cut ? [...all.slice(0, mostValues), null] : all;
    this.values = values;
    this.incomplete = cut
      ? `“${driver.variable.name}” has ${all.length} values, too many to be compared with other answers one by one`
      : incomplete;
    const given = driver.variable.of === 'given';
    const answered = values.map((value) => readingOf(answer, value));
    this.readings = [...(given ? answered.map((r) => ({ ...r, presented: false })) : answered), UNASKED];
    this.codes = inBinary && this.picks === null ? this.numbered() : null;
    if (this.picks !== null) this.takePicks(this.picks);
  }

  /** Takes it up again after an edit that left its values as they were: of its tests only those made anew count, or all. */
  renew(driver: Driver, keepsTests = false): void {
    this.driver = driver;
    if (keepsTests || this.codes !== null || this.picks !== null) return;
    this.inUse.fill(false);
    this.cubes = [];
    this.sources.fill('');
  }

  /** The truths of the samples for the variables of the picks. */
  private takePicks(picks: Picks): void {
    const truths = Array.from({ length: picks.size }, () => new Uint8Array(this.readings.length));
    this.readings.forEach(({ presented, value }, reading) => {
      const isUnasked = reading === this.readings.length - 1 && !presented;
      const codes = isUnasked ? undefined : Array.isArray(value) ? (value as readonly number[]) : null;
      for (const number of picks.truths(codes)) (truths[number] as Uint8Array)[reading] = 1;
    });
    truths.forEach((truth, number) => {
      this.add(truth, picks.sourceOf(number));
    });
  }

  /** Readings numbered by their values, and a variable for every digit, the first one first. */
  private numbered(): Int32Array {
    const order = this.readings
      .map((_, reading) => reading)
      .sort((a, b) => compareReadings(this.readings[a] as Reading, this.readings[b] as Reading) || a - b);
    const codes = new Int32Array(order.length);
    order.forEach((reading, code) => (codes[reading] = code));
    const digits = Math.max(1, Math.ceil(Math.log2(order.length)));
    for (let digit = digits - 1; digit >= 0; digit -= 1) {
      this.add(
        Uint8Array.from(codes, (code) => (code >> digit) & 1),
        '',
      );
    }
    return codes;
  }

  /** The diagram of "the reading is one of those for which `holds`"; `source` says so in the condition language. */
  predicate(holds: (reading: Reading) => boolean, source = ''): Diagram {
    if (this.picks !== null) return this.stateOf(this.picks, holds);
    this.diagrams.spend(this.readings.length * STEPS_TO_TRY);
    const truth = new Uint8Array(this.readings.length);
    this.readings.forEach((reading, n) => {
      if (holds(reading)) truth[n] = 1;
    });
    if (!truth.includes(1)) return FALSE;
    if (!truth.includes(0)) return TRUE;
    const asText = textOf(truth);
    if (this.codes !== null) return this.binary(truth, asText);
    const known = this.byTruth.get(asText);
    if (known !== undefined && this.inUse[known]) return this.diagrams.variable(this.levelOf(known));
    const opposite = this.byTruth.get(textOf(truth.map((bit) => 1 - bit)));
    if (opposite !== undefined && this.inUse[opposite])
      return this.diagrams.not(this.diagrams.variable(this.levelOf(opposite)));
    const number = known ?? this.add(truth, source);
    this.inUse[number] = true;
    this.cubes = [];
    this.sources[number] = source;
    this.byTruth.set(asText, number);
    return this.diagrams.variable(this.levelOf(number));
  }

  private add(truth: Uint8Array, source: string): number {
    const number = this.truths.push(truth) - 1;
    if (number >= VARIABLES_EACH) throw new TooManyNodes(`more than ${VARIABLES_EACH} tests of ${this.key}`);
    this.inUse.push(true);
    this.cubes = [];
    this.sources.push(source);
    return number;
  }

  /** Of many picks, a test here can only be one of having been asked, or left blank. */
  private stateOf(picks: Picks, holds: (reading: Reading) => boolean): Diagram {
    const [unasked, blank] = [this.readings.length - 1, this.readings.length - 2];
    const of = (reading: number) => holds(this.readings[reading] as Reading);
    return picks.state(of(unasked), of(blank), of(0));
  }

  private binary(truth: Uint8Array, asText: string): Diagram {
    const known = this.byTruth.get(asText);
    if (known !== undefined) return known;
    const byCode = new Uint8Array(truth.length);
    truth.forEach((is, reading) => (byCode[this.codes?.[reading] ?? 0] = is));
    const digits = this.truths.length;
    const from = (digit: number, prefix: number): Diagram => {
      // Numbers beyond the readings stand for nothing: what they give is free, so as the last reading does.
      if (digit === digits) return byCode[Math.min(prefix, byCode.length - 1)] === 1 ? TRUE : FALSE;
      const [low, high] = [from(digit + 1, prefix * 2), from(digit + 1, prefix * 2 + 1)];
      return this.diagrams.choose(this.diagrams.variable(this.levelOf(digit)), high, low);
    };
    const made = from(0, 0);
    this.byTruth.set(asText, made);
    return made;
  }

  /** Its first variable, whether or not there is one yet. */
  get level(): number {
    return this.levelOf(0);
  }

  /** A variable of the same answer at another rank, as a diagram of its own variables. */
  sameAs(level: number, other: AnswerSymbol): Diagram {
    // Picks and digits are numbered alike, whichever of them are in use.
    if (this.picks !== null || this.codes !== null)
      return this.diagrams.variable(this.levelOf(level % VARIABLES_EACH));
    const wanted = other.readingsWith(level, true);
    const places = new Map(this.readings.map((reading, n) => [reading, n]));
    return this.predicate((reading) => wanted[places.get(reading) ?? -1] === true);
  }

  /** How many variables it has. */
  get size(): number {
    return this.inUse.filter(Boolean).length;
  }

  /** The condition that one of its variables was made for. */
  sourceOf(level: number): string {
    return this.sources[level % VARIABLES_EACH] ?? '';
  }

  /** The readings for which one of its variables has a value. */
  readingsWith(level: number, value: boolean): boolean[] {
    const truth = this.truths[level % VARIABLES_EACH];
    return this.readings.map((_, reading) => (truth?.[reading] === 1) === value);
  }

  /** The truth of each of its variables for one reading. */
  literals(reading: number): [level: number, value: boolean][] {
    this.diagrams.spend(this.truths.length);
    const literals: [level: number, value: boolean][] = [];
    this.truths.forEach((truth, number) => {
      if (this.inUse[number]) literals.push([this.levelOf(number), truth[reading] === 1]);
    });
    return literals;
  }

  cube(reading: number): Diagram {
    return (this.cubes[reading] ??= this.diagrams.cube(this.literals(reading)));
  }

  /** The diagram of not having been asked. */
  get unasked(): Diagram {
    return this.cube(this.readings.length - 1);
  }

  /**
   * The same where nothing but the answer and whether it is required decides: kept for as long as both are the same, by the
   * tests in use.
   */
  domainOf(answer: Answer, required: boolean, allowed: (value: Value | null) => Diagram): Diagram {
    if (this.settled?.answer !== answer || this.settled.required !== required)
      this.settled = { answer, required, byUse: new Map(), legal: [] };
    const { byUse, legal } = this.settled;
    const use = this.inUse.map(Number).join('');
    const known = byUse.get(use);
    if (known !== undefined) {
      legal.forEach((is, reading) => (this.legal[reading] = is));
      return known;
    }
    const domain = this.domain(allowed);
    this.settled.legal = [...this.legal];
    byUse.set(use, domain);
    return domain;
  }

  /** The diagram of the readings allowed, each where its condition holds. Readings alike to every test are joined. */
  domain(allowed: (value: Value | null) => Diagram): Diagram {
    const byTruth = new Map<string, { reading: number; when: Diagram }>();
    this.values.forEach((value, reading) => {
      const when = allowed(value);
      this.legal[reading] = when !== FALSE;
      if (when === FALSE) return;
      const key = this.truths.map((truth, number) => (this.inUse[number] ? truth[reading] : '')).join('');
      const known = byTruth.get(key);
      if (known === undefined) byTruth.set(key, { reading, when });
      else known.when = this.diagrams.or(known.when, when);
    });
    let domain = FALSE;
    for (const { reading, when } of byTruth.values()) {
      domain = this.diagrams.or(domain, this.diagrams.and(this.cube(reading), when));
    }
    return domain;
  }

  private levelOf(number: number): number {
    return this.rank * VARIABLES_EACH + number;
  }
}

/** Numbers and texts in order, then the rest as they stand. */
function compareReadings(a: Reading, b: Reading): number {
  const rank = ({ presented, value, missing }: Reading) =>
    !missing && (typeof value === 'number' || typeof value === 'string') ? 0 : presented ? 1 : 2;
  const [left, right] = [rank(a), rank(b)];
  if (left !== right || left > 0 || a.value === null || b.value === null) return left - right;
  return a.value < b.value ? -1 : a.value > b.value ? 1 : 0;
}

/** More options than this are not told apart by listing sets of picks. */
const MOST_LISTED = 9;

function isWide(driver: Driver, answer: Answer): boolean {
  const lists = picksMany(answer) || ranksOptions(answer);
  return lists && optionsApart(driver, answer.options).told.length > MOST_LISTED;
}

function sampled(answer: Answer): Candidates {
  const options = optionsOf(answer);
  const most = picksMany(answer)
    ? (answer.maxPicks ?? options.length)
    : ranksOptions(answer)
      ? (answer.top ?? options.length)
      : 0;
  return { values: [...samplePicks(options, most), null], incomplete: null };
}
