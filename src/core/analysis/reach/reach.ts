/**
 * Who is asked each item, whatever they were shown on the way: a condition over answers and given values, in as few
 * words as can be found. What is possible is brought in only here, and only for the answers that a condition names.
 */
import { holds, UNASKED } from '../../condition/evaluate';
import { parseCondition } from '../../condition/parse';
import { printCondition } from '../../condition/print';
import { readPassKey } from '../../document/addresses';
import type { Plan, PlanSection } from '../../routing/plan';
import { passesOf } from '../../routing/step';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { Limit } from '../answers/drivers';
import { EncodedPlan } from '../conditions/encoded-plan';
import { CachedWork, type AnalysisCache } from '../counting/analysis-cache';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { TooManyNodes, withinMemory, type Caps } from '../diagrams/limits';
import { Coming } from './coming';
import { CountedPicks, type CountedCube } from './counted-picks';
import { coverCubes, type Cube } from './cubes';
import { factored, readsMuch, shortened, type Printed } from './shortening';
import { shortestTest, type Meant, type WordedTest } from './tests-in-words';

/** Who is asked what. Conditions, `always` or `never`. */
export interface WhoIsAsked {
  /**
   * By name of the item. Of a repeated item: in a pass that is run; of a drawn one: who can have it drawn; with quotas:
   * who is asked, or could be with them open.
   */
  readonly items: ReadonlyMap<string, string>;
  /**
   * By id of a repeated section, for each pass: who has it, as from outside the section; where something answered in it
   * leaves the section, who could have it.
   */
  readonly passes: ReadonlyMap<string, readonly string[]>;
  /** Why some of them are missing; none where all are there. */
  readonly limits: readonly Limit[];
}

/** Where it is too much to say who comes to some places, those are left out; where it is for all, nothing is there. */
function reachOf(plan: Plan, work: CachedWork, among: ReadonlySet<string> | null = null): WhoIsAsked {
  const reach = withinMemory(() => reachWithin(plan, work, among));
  if (reach !== null) return reach;
  return { items: new Map(), passes: new Map(), limits: [{ at: {}, message: UNSAID }] };
}

const UNSAID = 'the conditions are too entangled to say of every item from here on who is asked';

function reachWithin(plan: Plan, work: CachedWork, among: ReadonlySet<string> | null): WhoIsAsked {
  const { diagrams, ranks } = work;
  const limits: Limit[] = [];
  const reaching = new Reaching(new EncodedPlan(plan, diagrams, { opaque: true, ranks }), work);
  const said: Printed[] = [];
  const doubtful: Printed[] = [];
  const say = (where: Omit<Printed, 'text'>, text: string, isSure: boolean) => {
    const each = { ...where, text };
    said.push(each);
    if (!isSure || readsMuch(text, plan)) doubtful.push(each);
  };
  for (const { index: section, repeat, items } of plan.sections) {
    const numbers = passNumbers(repeat);
    const wanted = items.filter(({ item }) => among?.has(item.name) ?? true);
    if (wanted.length === 0) continue;
    for (const { index: at, item } of wanted) {
      const found = withinMemory(() => numbers.map((pass) => reaching.askedIn(section, pass, at)));
      if (found === null) {
        if (limits.length === 0) limits.push({ at: { item: item.name }, message: UNSAID });
        continue;
      }
      const text = acrossPasses(found.map((each) => each.text));
      const isSure = found.every((each) => each.isExact && each.text === text);
      say({ of: 'item', section, at }, text, isSure);
    }
    if (repeat === null) continue;
    const having = withinMemory(() => numbers.map((at) => ({ at, ...reaching.whoHas(section, at) })));
    for (const { at, text, isExact } of having ?? []) say({ of: 'pass', section, at }, text, isExact);
  }
  const shorter = shortened(plan, doubtful);
  const reach = { items: new Map<string, string>(), passes: new Map<string, string[]>(), limits };
  for (const each of said) {
    const { section, items } = plan.sections[each.section] as PlanSection;
    const text = shorter.get(each) ?? each.text;
    if (each.of === 'item') reach.items.set(items[each.at]?.item.name ?? '', text);
    else reach.passes.set(section.id, [...(reach.passes.get(section.id) ?? []), text]);
  }
  return reach;
}

function passNumbers(repeat: PlanSection['repeat']): number[] {
  return Array.from({ length: repeat?.max ?? 1 }, (_, n) => n + 1);
}

/** One condition for all passes: the same in each, or told apart by `pass`. */
function acrossPasses(texts: readonly string[]): string {
  const [first] = texts;
  if (first === undefined) return 'never';
  if (texts.every((text) => text === first)) return first;
  const groups = new Map<string, number[]>();
  texts.forEach((text, n) => groups.set(text, [...(groups.get(text) ?? []), n + 1]));
  return [...groups]
    .filter(([text]) => text !== 'never')
    .map(([text, passes]) => {
      const which = passesInWords(passes, texts.length);
      if (text === 'always') return which;
      const [one, other] = [which, text].map((part) => (/ or /.test(part) ? `(${part})` : part));
      return `${one} and ${other}`;
    })
    .join(' or ');
}

function passesInWords(passes: readonly number[], most: number): string {
  const [first = 1] = passes;
  const last = passes.at(-1) ?? first;
  const closed = last - first === passes.length - 1;
  if (passes.length === 1) return `pass = ${first}`;
  if (closed && first === 1) return `pass <= ${last}`;
  if (closed && last === most) return `pass >= ${first}`;
  return passes.map((pass) => `pass = ${pass}`).join(' or ');
}

interface InWords {
  readonly text: string;
  /** Whether no test that stands for itself has to do with it. */
  readonly isExact: boolean;
}

/** Where a condition is printed for. */
interface WhereAsked {
  readonly section: number;
  /** Null: from outside any pass; `any`: in whichever pass of the section. */
  readonly pass: number | null | 'any';
}

/** Puts who comes to a place into words. The encoded plan must be fresh, and have its opaque tests apart. */
export class Reaching {
  private readonly diagrams: Diagrams;
  readonly coming: Coming;
  private readonly products: CountedPicks;
  private readonly inWordsBefore = new Map<string, WordedTest>();
  /** Level of the variable of having been asked, of each driver that can be left out. */
  private readonly askedLevel = new Map<AnswerSymbol, number>();
  /** Those of them that no condition of the questionnaire reads. */
  private readonly addedLevels = new Set<number>();
  /** Levels of hidden choices. */
  private readonly hidden: ReadonlySet<number>;

  constructor(
    private readonly encoded: EncodedPlan,
    private readonly work: CachedWork,
  ) {
    this.diagrams = encoded.diagrams;
    for (const symbol of encoded.symbols.values()) {
      const { size } = symbol;
      const asked = symbol.predicate(({ presented }) => presented, `${symbol.driver.variable.name} asked`);
      const [level] = this.diagrams.support(asked);
      if (level === undefined || asked !== this.diagrams.variable(level)) continue;
      this.askedLevel.set(symbol, level);
      if (symbol.size > size) this.addedLevels.add(level);
    }
    const { fullLevel, drawnLevel, begunLevel } = encoded;
    this.hidden = new Set([...fullLevel.values(), ...drawnLevel.values(), ...begunLevel.values()]);
    this.coming = new Coming(encoded, true);
    this.products = new CountedPicks(encoded, (...bounds) => this.cubesBetween(...bounds));
  }

  /** Who is asked an item in a pass, among those for whom the pass is run. */
  askedIn(section: number, pass: number, item: number): InWords {
    const { course } = this.encoded;
    const at = course.item(section, pass, item);
    const asked = this.coming.presentedAt(at);
    const repeated = this.encoded.plan.sections[section]?.repeat !== null;
    const run = repeated ? this.coming.at(course.pass(section, pass)) : TRUE;
    return this.inFewWords(asked, run, { section, pass: repeated ? pass : null });
  }

  /** Who has a pass of a repeated section, or could have it. */
  whoHas(section: number, pass: number): InWords {
    const run = this.coming.at(this.encoded.course.pass(section, pass));
    return this.inFewWords(run, TRUE, { section, pass: null });
  }

  private inFewWords(condition: Diagram, within: Diagram, where: WhereAsked): InWords {
    const { diagrams, encoded } = this;
    try {
      const facts = this.coming.possibleAround([condition, within]);
      const text = this.inWords(condition, within, where, facts);
      const read = [condition, within, facts].flatMap((each) => diagrams.support(each));
      return { text, isExact: !read.some((level) => encoded.opaqueTests.has(level)) };
    } catch (error) {
      // What is possible at all may be too much to hold: it is said in more words then, for everybody there could be.
      if (!(error instanceof TooManyNodes)) throw error;
      return { text: this.inWords(condition, within, where, TRUE), isExact: true };
    }
  }

  /**
   * Of those of whom `within` is true, whom `condition` takes: a condition, `always` or `never`; read in a section, and in one
   * pass of it or in whichever.
   */
  whoOf(
    condition: Diagram,
    within: Diagram,
    section: number,
    pass: Exclude<WhereAsked['pass'], null> = 'any',
  ): string {
    const facts = this.coming.possibleAround([condition, within]);
    return this.inWords(condition, within, { section, pass }, facts);
  }

  private inWords(condition: Diagram, within: Diagram, where: WhereAsked, facts: Diagram): string {
    const { diagrams } = this;
    // Quotas full or open and lots drawn could go either way: what chance or others decide is in no condition. Nor, from
    // outside, is what is answered in passes.
    const unsaid = (level: number) =>
      this.hidden.has(level) || (where.pass === null && this.isElsewhere(level, where));
    const about = diagrams.and(facts, within);
    // Whom a full quota leads away, the condition may take or not: they could be asked with it open.
    const open = diagrams.and(
      about,
      diagrams.cube([...this.encoded.fullLevel.values()].map((full) => [full, false])),
    );
    const possible = diagrams.forget(open, unsaid);
    const lower = diagrams.forget(diagrams.and(condition, about), unsaid);
    if (lower === FALSE) return 'never';
    const upper = diagrams.or(lower, diagrams.not(possible));
    if (upper === TRUE) return 'always';
    const { words } = this.work;
    const key = `${lower} ${upper} ${possible} ${this.encoded.plan.sections[where.section]?.section.id ?? ''} ${where.pass ?? ''}`;
    let text = words.get(key);
    if (text === undefined) {
      const [below, above] = this.withoutElsewhere(lower, upper, where);
      text = this.print(this.products.between(below, above), possible, where);
      words.set(key, text);
    }
    return text;
  }

  /** Whether a variable tells of the section in another pass than the one in hand; of any, from outside. */
  private isElsewhere(level: number, { section, pass }: WhereAsked): boolean {
    if (pass === 'any' || this.encoded.plan.sections[section]?.repeat == null) return false;
    const opaque = this.encoded.opaqueTests.get(level);
    if (opaque !== undefined)
      return opaque.at.pass !== null && opaque.at.section === section && opaque.at.pass !== pass;
    const symbol = this.encoded.symbolAt(level);
    const variable = symbol?.driver.variable;
    if (variable?.of !== 'question' && variable?.of !== 'row') return false;
    return variable.section === section && passIn(symbol) !== pass;
  }

  /**
   * The bounds without what was answered in other passes, which cannot be named in this one: where it decides, they hold for more
   * people than those who are meant, as nothing that can be said tells them apart.
   */
  private withoutElsewhere(lower: Diagram, upper: Diagram, where: WhereAsked): [Diagram, Diagram] {
    const { diagrams } = this;
    const elsewhere = (level: number) => this.isElsewhere(level, where);
    if (![lower, upper].some((bound) => diagrams.support(bound).some(elsewhere))) return [lower, upper];
    const below = diagrams.forget(lower, elsewhere);
    const above = diagrams.not(diagrams.forget(diagrams.not(upper), elsewhere));
    return [below, diagrams.or(below, above)];
  }

  /** Without the variables that were added, where that can be: the questionnaire itself does not speak of them. */
  private cubesBetween(lower: Diagram, upper: Diagram, most: number): readonly Cube[] | null {
    const { diagrams } = this;
    const added = (level: number) => this.addedLevels.has(level);
    const below = diagrams.forget(lower, added);
    const above = diagrams.not(diagrams.forget(diagrams.not(upper), added));
    const fits = diagrams.and(below, diagrams.not(above)) === FALSE;
    const cubes = fits ? coverCubes(diagrams, below, above, most) : coverCubes(diagrams, lower, upper, most);
    return cubes && this.withFewerDrivers(cubes, lower, upper);
  }

  /**
   * Having been asked a question often says all that led to it: where a cube that adds so needs fewer drivers, it
   * is taken instead.
   */
  private withFewerDrivers(cubes: readonly Cube[], lower: Diagram, upper: Diagram): Cube[] {
    const { diagrams } = this;
    const left = [...cubes];
    if (left.length > 12) return left;
    left.forEach((cube, index) => {
      let best = cube;
      for (const symbol of [...this.driversOf(cube)].reverse()) {
        const asked = this.askedLevel.get(symbol);
        if (asked === undefined) continue;
        const candidate = this.droppingDrivers(new Map([...cube, [asked, true]]), symbol, upper);
        if (this.driversOf(candidate).size >= this.driversOf(best).size) continue;
        const others = left.filter((_, other) => other !== index);
        const union = [...others, candidate].reduce((any, c) => diagrams.or(any, diagrams.cube(c)), FALSE);
        if (diagrams.and(lower, diagrams.not(union)) === FALSE) best = candidate;
      }
      left[index] = best;
    });
    return left;
  }

  private droppingDrivers(cube: Cube, keep: AnswerSymbol, upper: Diagram): Cube {
    const { diagrams, encoded } = this;
    const not = diagrams.not(upper);
    let kept = cube;
    for (const symbol of this.driversOf(cube)) {
      if (symbol === keep) continue;
      const fewer = new Map([...kept].filter(([level]) => encoded.symbolAt(level) !== symbol));
      if (diagrams.and(diagrams.cube(fewer), not) === FALSE) kept = fewer;
    }
    return kept;
  }

  private driversOf(cube: Cube): Set<AnswerSymbol> {
    const levels = [...cube.keys()].sort((a, b) => a - b);
    return new Set(levels.flatMap((level) => this.encoded.symbolAt(level) ?? []));
  }

  private print(cubes: readonly CountedCube[], possible: Diagram, where: WhereAsked): string {
    const terms = joined(cubes.map((cube) => this.termOf(cube, where)));
    const parts = terms.map((term) => {
      // What is meant of one driver is seen among those of whom the rest of the term is true.
      const meant = new Map([...term.readings].map(([of, wanted]) => [of, this.anyOf(of, wanted)]));
      const apart = term.counts.reduce(
        (all, { is }) => this.diagrams.and(all, is),
        this.diagrams.and(possible, this.diagrams.cube([...term.others])),
      );
      const tests = [...term.readings].map(([symbol, wanted]) => {
        const rest = [...meant].reduce(
          (all, [of, is]) => (of === symbol ? all : this.diagrams.and(all, is)),
          apart,
        );
        const may = symbol.readings.map(
          (reading, n) =>
            // What is given is always known, whatever tests tell apart.
            !(symbol.driver.variable.of === 'given' && reading.value === null) &&
            symbol.legal[n] !== false &&
            this.diagrams.meets(symbol.cube(n), rest),
        );
        const literals = term.literals.get(symbol) ?? [];
        const test = this.shortest(symbol, { wanted, may, literals }, where);
        if (test.text === '') meant.delete(symbol);
        else meant.set(symbol, this.anyOf(symbol, test.holds));
        return test.text === '' ? '' : this.fromOutside(test.text, symbol, where.section);
      });
      return [...tests, ...picksTogether(term.opaque)].filter((test) => test !== '');
    });
    if (parts.some((tests) => tests.length === 0)) return 'always';
    const text = anyPick(parts)
      .map((tests) =>
        tests.map((test) => (tests.length > 1 && / or /.test(test) ? `(${test})` : test)).join(' and '),
      )
      .join(' or ');
    const parsed = parts.length > 1 ? parseCondition(text) : null;
    return parsed?.ok ? printCondition(factored(parsed.tree)) : text;
  }

  private anyOf(symbol: AnswerSymbol, wanted: readonly boolean[]): Diagram {
    const { diagrams } = this;
    return wanted.reduce<Diagram>((any, is, n) => (is ? diagrams.or(any, symbol.cube(n)) : any), FALSE);
  }

  /** Many items are asked by the same tests: each is put into words once. */
  private shortest(symbol: AnswerSymbol, meant: Omit<Meant, 'each'>, where: WhereAsked): WordedTest {
    const bits = (of: readonly boolean[]) => of.map(Number).join('');
    const each = this.eachFor(symbol, where);
    const inPass = each === null ? '' : `in ${where.section} ${where.pass ?? ''}`;
    const key = `${symbol.key} ${bits(meant.wanted)} ${bits(meant.may)} ${(meant.literals ?? []).join(' ')} ${inPass}`;
    let test = this.inWordsBefore.get(key);
    if (test === undefined) {
      test = shortestTest(symbol, each === null ? meant : { ...meant, each });
      this.inWordsBefore.set(key, test);
    }
    return test;
  }

  /** Where the section has a pass for each pick of this driver: the code of the pass, by reading. */
  private eachFor(symbol: AnswerSymbol, { section, pass }: WhereAsked): (number | null)[] | null {
    const repeat = this.encoded.plan.sections[section]?.repeat;
    if (typeof pass !== 'number' || repeat?.kind !== 'each') return null;
    if (repeat.driver?.name.toLowerCase() !== symbol.key) return null;
    return symbol.readings.map((reading) => {
      const environment = { read: () => reading, pass: null, each: null, passesOver: () => [] };
      return passesOf(repeat, environment).codes[pass - 1] ?? null;
    });
  }

  private opaqueText(level: number, section: number): string {
    const found = this.encoded.opaqueTests.get(level);
    if (found === undefined) return 'never';
    const { text, at } = found;
    return at.pass === null || at.section === section ? text : this.counted(text, at.section, at.pass);
  }

  /** A test of one pass of another section, which can only be counted there. */
  private fromOutside(test: string, { driver: { variable }, key }: AnswerSymbol, section: number): string {
    const placed = variable.of === 'question' || variable.of === 'row';
    if (!placed || variable.section === section) return test;
    return this.counted(test, variable.section, readPassKey(key).pass ?? 1);
  }

  /** That a test holds in a pass, or, where it holds of those not asked, that the pass is not one in which it fails. */
  private counted(test: string, section: number, pass: number): string {
    const repeat = this.encoded.plan.sections[section]?.repeat;
    if (!repeat) return test;
    const which = repeat.max === 1 ? '' : ` and pass = ${pass}`;
    const parsed = parseCondition(test);
    const ofNobody =
      parsed.ok && holds(parsed.tree, { read: () => UNASKED, pass, each: null, passesOver: () => [] });
    return ofNobody ? `not count(not (${test})${which}) >= 1` : `count((${test})${which}) >= 1`;
  }

  private termOf({ cube, counts }: CountedCube, { section }: WhereAsked): Term {
    const term: Term = { readings: new Map(), literals: new Map(), opaque: [], others: new Map(), counts };
    for (const [level, value] of [...cube].sort((a, b) => a[0] - b[0])) {
      const symbol = this.encoded.symbolAt(level);
      if (symbol === undefined || symbol.picks !== null) term.others.set(level, value);
      if (symbol === undefined) {
        const test = this.opaqueText(level, section);
        term.opaque.push(value ? test : `not (${test})`);
        continue;
      }
      if (symbol.picks !== null) {
        const source = symbol.sourceOf(level);
        term.opaque.push(this.fromOutside(value ? source : `not ${source}`, symbol, section));
        continue;
      }
      const before = term.readings.get(symbol);
      const here = symbol.readingsWith(level, value);
      term.readings.set(symbol, before === undefined ? here : here.map((is, n) => is && before[n] === true));
      term.literals.set(symbol, [...(term.literals.get(symbol) ?? []), [level, value]]);
    }
    term.opaque.push(...counts.map(({ text, symbol }) => this.fromOutside(text, symbol, section)));
    return term;
  }
}

interface Term {
  /** Wanted readings of each driver, parallel to its readings. */
  readonly readings: Map<AnswerSymbol, boolean[]>;
  /** The literals they were made from; empty where terms were joined. */
  readonly literals: Map<AnswerSymbol, (readonly [level: number, value: boolean])[]>;
  /** Tests that stand for themselves, in words, and the values of their variables. */
  readonly opaque: string[];
  readonly others: Map<number, boolean>;
  /** How many options are picked; their words are among the opaque ones. */
  readonly counts: CountedCube['counts'];
}

/** Terms that differ in the readings of one driver only become one. */
function joined(terms: readonly Term[]): Term[] {
  // Only those with the same opaque tests can be: of thousands of sets of picks there is one of each.
  const alike = new Map<string, Term[]>();
  for (const term of terms) {
    const key = term.opaque.join();
    const group = alike.get(key);
    if (group === undefined) alike.set(key, [term]);
    else group.push(term);
  }
  const left = new Set([...alike.values()].flatMap(joinedAlike));
  return terms.filter((term) => left.has(term));
}

function joinedAlike(terms: readonly Term[]): Term[] {
  const left = [...terms];
  for (let a = 0; a < left.length; a += 1) {
    for (let b = a + 1; b < left.length; b += 1) {
      const one = left[a] as Term;
      const other = left[b] as Term;
      const differs = differingDriver(one, other);
      if (differs === null) continue;
      const union = (one.readings.get(differs) ?? []).map(
        (is, n) => is || other.readings.get(differs)?.[n] === true,
      );
      one.readings.set(differs, union);
      one.literals.delete(differs);
      left.splice(b, 1);
      b = a;
    }
  }
  return left;
}

/** The only driver whose wanted readings differ; null where more differ, or one kind of driver cannot be joined. */
function differingDriver(a: Term, b: Term): AnswerSymbol | null {
  if (a.readings.size !== b.readings.size) return null;
  let found: AnswerSymbol | null = null;
  for (const [symbol, readings] of a.readings) {
    const others = b.readings.get(symbol);
    if (others === undefined) return null;
    if (readings.every((is, n) => is === others[n])) continue;
    if (found !== null || !isPlain(symbol)) return null;
    found = symbol;
  }
  return found;
}

/** Any of its readings can be put into words together. */
function isPlain({ driver, picks }: AnswerSymbol): boolean {
  return picks === null && driver.variable.kind !== 'text';
}

/** In which pass an answer is given; null outside repeated sections. */
function passIn(symbol: AnswerSymbol | undefined): number | null {
  return symbol === undefined ? null : readPassKey(symbol.key).pass;
}

/** “X has 1” and “X has 2” as “X has all (1, 2)”, and likewise what is not picked. */
function picksTogether(tests: readonly string[]): string[] {
  const groups = new Map<string, string[]>();
  for (const test of tests) {
    const [, not = '', name = '', code = ''] = /^(not )?(\w+) has (-?\d+)$/.exec(test) ?? [];
    const key = name === '' ? test : `${not}${name}`;
    groups.set(key, [...(groups.get(key) ?? []), code]);
  }
  return [...groups].map(([key, codes]) => {
    if (codes[0] === '') return key;
    if (codes.length === 1) return `${key} has ${codes[0]}`;
    return `${key} has ${key.startsWith('not ') ? 'any' : 'all'} (${codes.join(', ')})`;
  });
}

/** Terms of nothing but one pick each, of one question, as one: “X has any (1, 2)”. */
function anyPick(terms: readonly (readonly string[])[]): string[][] {
  const codes = new Map<string, string[]>();
  const left: (readonly string[])[] = [];
  for (const term of terms) {
    const [, name = '', code = ''] = (term.length === 1 && /^(\w+) has (-?\d+)$/.exec(term[0] ?? '')) || [];
    if (name === '') left.push(term);
    else codes.set(name, [...(codes.get(name) ?? []), code]);
  }
  const any = [...codes].map(([name, list]) => [
    list.length === 1 ? `${name} has ${list[0]}` : `${name} has any (${list.join(', ')})`,
  ]);
  return [...any, ...left.map((term) => [...term])];
}

/** Who is asked what, found again where an edit has not touched it; anew where that room is too small. */
export function askedOf(plan: Plan, caps: Caps, cache: AnalysisCache | null): WhoIsAsked {
  const work = cache?.work('asked', caps);
  const again = work && reachOf(plan, work);
  if (again?.limits.length === 0) return again;
  cache?.clear('asked');
  return reachOf(plan, new CachedWork(caps));
}

/** The same of some items alone, by name. */
export function askedAmong(plan: Plan, caps: Caps, among: ReadonlySet<string>): WhoIsAsked {
  return reachOf(plan, new CachedWork(caps), among);
}
