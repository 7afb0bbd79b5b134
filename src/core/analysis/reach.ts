/**
 * Who is asked each item, whatever they were shown on the way: a condition over answers and given values, in as few
 * words as can be found. What is possible is brought in only here, and only for the answers that a condition names.
 */
import { holds, UNASKED } from '../condition/evaluate';
import { parseCondition } from '../condition/parse';
import type { Plan } from '../routing/plan';
import { Coming } from './coming';
import { coverCubes, type Cube } from './cover-cubes';
import { FALSE, TooManyNodes, TRUE, type Diagram, type Diagrams } from './diagram';
import type { Instance } from './predicates';
import { shortestTest } from './tests-in-words';
import { Terrain } from './terrain';
import { Bench } from './workshop';

/** Nodes of diagrams at most. */
const MOST_NODES = 4_000_000;

/**
 * By name: the condition, `always` or `never`. Of a repeated item: in a pass that is run; of a drawn one: who can have
 * it drawn; with quotas: who is asked, or could be with them open.
 */
export function reachOf(plan: Plan, bench = new Bench(MOST_NODES)): ReadonlyMap<string, string> {
  const { diagrams, ranks } = bench;
  const reaching = new Reaching(new Terrain(plan, diagrams, { opaque: true, ranks }), bench);
  const asked = new Map<string, string>();
  for (const section of plan.sections) {
    for (const { item, index } of section.items) {
      const passes = Array.from({ length: section.repeat?.max ?? 1 }, (_, n) => n + 1);
      const texts = passes.map((pass) => reaching.askedIn(section.index, pass, index));
      asked.set(item.name, acrossPasses(texts));
    }
  }
  return asked;
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
      const which = passes.map((pass) => `pass = ${pass}`).join(' or ');
      if (text === 'always') return which;
      return `(${which}) and (${text})`;
    })
    .join(' or ');
}

/** Puts who comes to a place into words. The terrain must be fresh, and have its opaque tests apart. */
export class Reaching {
  private readonly diagrams: Diagrams;
  readonly coming: Coming;
  private readonly inWordsBefore = new Map<string, string>();
  /** Level of the variable of having been asked, of each driver that can be left out. */
  private readonly askedLevel = new Map<Instance, number>();
  /** Those of them that no condition of the questionnaire reads. */
  private readonly addedLevels = new Set<number>();
  /** Levels of hidden choices. */
  private readonly hidden: ReadonlySet<number>;

  constructor(
    private readonly terrain: Terrain,
    private readonly bench: Bench,
  ) {
    this.diagrams = terrain.diagrams;
    for (const instance of terrain.instances.values()) {
      const { size } = instance;
      const asked = instance.predicate(
        ({ presented }) => presented,
        `${instance.driver.variable.name} asked`,
      );
      const [level] = this.diagrams.support(asked);
      if (level === undefined || asked !== this.diagrams.variable(level)) continue;
      this.askedLevel.set(instance, level);
      if (instance.size > size) this.addedLevels.add(level);
    }
    const { fullLevel, drawnLevel, begunLevel } = terrain;
    this.hidden = new Set([...fullLevel.values(), ...drawnLevel.values(), ...begunLevel.values()]);
    this.coming = new Coming(terrain, true);
  }

  /** Who is asked an item in a pass, among those for whom the pass is run. */
  askedIn(section: number, pass: number, item: number): string {
    const { layout } = this.terrain;
    const at = layout.item(section, pass, item);
    const asked = this.coming.presentedAt(at);
    const repeated = this.terrain.plan.sections[section]?.repeat !== null;
    const run = repeated ? this.coming.at(layout.pass(section, pass)) : TRUE;
    try {
      return this.inWords(asked, run, section, this.coming.possibleAround([asked, run]));
    } catch (error) {
      // What is possible at all may be too much to hold: it is said in more words then, for everybody there could be.
      if (!(error instanceof TooManyNodes)) throw error;
      return this.inWords(asked, run, section, TRUE);
    }
  }

  /** Of those of whom `within` is true, whom `condition` takes: a condition, `always` or `never`; read in a section. */
  whoOf(condition: Diagram, within: Diagram, section: number): string {
    const facts = this.coming.possibleAround([condition, within]);
    return this.inWords(condition, within, section, facts);
  }

  private inWords(condition: Diagram, within: Diagram, section: number, facts: Diagram): string {
    const { diagrams } = this;
    // Quotas full or open and lots drawn could go either way: what chance or others decide is in no condition.
    const hidden = (level: number) => this.hidden.has(level);
    const about = diagrams.and(facts, within);
    const possible = diagrams.forget(about, hidden);
    const lower = diagrams.forget(diagrams.and(condition, about), hidden);
    if (lower === FALSE) return 'never';
    const upper = diagrams.or(lower, diagrams.not(possible));
    if (upper === TRUE) return 'always';
    const { words } = this.bench;
    const key = `${lower} ${upper} ${possible} ${this.terrain.plan.sections[section]?.section.id ?? ''}`;
    let text = words.get(key);
    if (text === undefined) {
      const cubes = this.withFewerDrivers(this.cubesBetween(lower, upper), lower, upper);
      text = this.print(cubes, possible, section);
      words.set(key, text);
    }
    return text;
  }

  /** Without the variables that were added, where that can be: the questionnaire itself does not speak of them. */
  private cubesBetween(lower: Diagram, upper: Diagram): Cube[] {
    const { diagrams } = this;
    const added = (level: number) => this.addedLevels.has(level);
    const below = diagrams.forget(lower, added);
    const above = diagrams.not(diagrams.forget(diagrams.not(upper), added));
    const fits = diagrams.and(below, diagrams.not(above)) === FALSE;
    return fits ? coverCubes(diagrams, below, above) : coverCubes(diagrams, lower, upper);
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
      for (const instance of [...this.driversOf(cube)].reverse()) {
        const asked = this.askedLevel.get(instance);
        if (asked === undefined) continue;
        const candidate = this.droppingDrivers(new Map([...cube, [asked, true]]), instance, upper);
        if (this.driversOf(candidate).size >= this.driversOf(best).size) continue;
        const others = left.filter((_, other) => other !== index);
        const union = [...others, candidate].reduce((any, c) => diagrams.or(any, diagrams.cube(c)), FALSE);
        if (diagrams.and(lower, diagrams.not(union)) === FALSE) best = candidate;
      }
      left[index] = best;
    });
    return left;
  }

  private droppingDrivers(cube: Cube, keep: Instance, upper: Diagram): Cube {
    const { diagrams, terrain } = this;
    const not = diagrams.not(upper);
    let kept = cube;
    for (const instance of this.driversOf(cube)) {
      if (instance === keep) continue;
      const fewer = new Map([...kept].filter(([level]) => terrain.instanceAt(level) !== instance));
      if (diagrams.and(diagrams.cube(fewer), not) === FALSE) kept = fewer;
    }
    return kept;
  }

  private driversOf(cube: Cube): Set<Instance> {
    const levels = [...cube.keys()].sort((a, b) => a - b);
    return new Set(levels.flatMap((level) => this.terrain.instanceAt(level) ?? []));
  }

  private print(cubes: readonly Cube[], possible: Diagram, section: number): string {
    const terms = joined(cubes.map((cube) => this.termOf(cube, section)));
    const parts = terms.map((term) => {
      const tests = [...term.readings].map(([instance, wanted]) => {
        const may = instance.readings.map(
          (_, reading) =>
            instance.legal[reading] !== false && this.diagrams.meets(instance.cube(reading), possible),
        );
        const test = this.shortest(instance, wanted, may, term.literals.get(instance) ?? []);
        return test === '' ? '' : this.fromOutside(test, instance, section);
      });
      return [...tests, ...term.opaque].filter((test) => test !== '');
    });
    if (parts.some((tests) => tests.length === 0)) return 'always';
    return parts
      .map((tests) =>
        tests.map((test) => (tests.length > 1 && / or /.test(test) ? `(${test})` : test)).join(' and '),
      )
      .join(' or ');
  }

  /** Many items are asked by the same tests: each is put into words once. */
  private shortest(
    instance: Instance,
    wanted: readonly boolean[],
    may: readonly boolean[],
    literals: readonly (readonly [level: number, value: boolean])[],
  ): string {
    const bits = (of: readonly boolean[]) => of.map(Number).join('');
    const key = `${instance.key} ${bits(wanted)} ${bits(may)} ${literals.join(' ')}`;
    let text = this.inWordsBefore.get(key);
    if (text === undefined) {
      text = shortestTest(instance, wanted, may, literals);
      this.inWordsBefore.set(key, text);
    }
    return text;
  }

  private opaqueText(level: number, section: number): string {
    const found = this.terrain.opaqueTests.get(level);
    if (found === undefined) return 'never';
    const { text, at } = found;
    return at.pass === null || at.section === section ? text : this.counted(text, at.section, at.pass);
  }

  /** A test of one pass of another section, which can only be counted there. */
  private fromOutside(test: string, { driver: { variable }, key }: Instance, section: number): string {
    const placed = variable.of === 'question' || variable.of === 'row';
    if (!placed || variable.section === section) return test;
    return this.counted(test, variable.section, Number(key.split('#')[1] ?? 1));
  }

  /** That a test holds in a pass, or, where it holds of those not asked, that the pass is not one in which it fails. */
  private counted(test: string, section: number, pass: number): string {
    const repeat = this.terrain.plan.sections[section]?.repeat;
    if (!repeat) return test;
    const which = repeat.max === 1 ? '' : ` and pass = ${pass}`;
    const parsed = parseCondition(test);
    const ofNobody =
      parsed.ok && holds(parsed.tree, { read: () => UNASKED, pass, each: null, passesOver: () => [] });
    return ofNobody ? `not count(not (${test})${which}) >= 1` : `count((${test})${which}) >= 1`;
  }

  private termOf(cube: Cube, section: number): Term {
    const term: Term = { readings: new Map(), literals: new Map(), opaque: [] };
    for (const [level, value] of [...cube].sort((a, b) => a[0] - b[0])) {
      const instance = this.terrain.instanceAt(level);
      if (instance === undefined) {
        const test = this.opaqueText(level, section);
        term.opaque.push(value ? test : `not (${test})`);
        continue;
      }
      if (instance.picks !== null) {
        const source = instance.sourceOf(level);
        term.opaque.push(this.fromOutside(value ? source : `not (${source})`, instance, section));
        continue;
      }
      const before = term.readings.get(instance);
      const here = instance.readingsWith(level, value);
      term.readings.set(
        instance,
        before === undefined ? here : here.map((is, n) => is && before[n] === true),
      );
      term.literals.set(instance, [...(term.literals.get(instance) ?? []), [level, value]]);
    }
    return term;
  }
}

interface Term {
  /** Wanted readings of each driver, parallel to its readings. */
  readonly readings: Map<Instance, boolean[]>;
  /** The literals they were made from; empty where terms were joined. */
  readonly literals: Map<Instance, (readonly [level: number, value: boolean])[]>;
  readonly opaque: string[];
}

/** Terms that differ in the readings of one driver only become one. */
function joined(terms: readonly Term[]): Term[] {
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
function differingDriver(a: Term, b: Term): Instance | null {
  if (a.opaque.join() !== b.opaque.join() || a.readings.size !== b.readings.size) return null;
  let found: Instance | null = null;
  for (const [instance, readings] of a.readings) {
    const others = b.readings.get(instance);
    if (others === undefined) return null;
    if (readings.every((is, n) => is === others[n])) continue;
    if (found !== null || !isPlain(instance)) return null;
    found = instance;
  }
  return found;
}

/** Holds one value, whose readings can be listed as codes and ranges. */
function isPlain({ driver }: Instance): boolean {
  return !['set', 'order', 'text'].includes(driver.variable.kind);
}
