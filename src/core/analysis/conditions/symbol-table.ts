/**
 * Which variables a questionnaire has, and where each is decided: the tests of every answer in every pass, and every
 * hidden choice, in the order of the document.
 */
import { passKey } from '../../document/addresses';
import { routingText } from '../../document/routing-content';
import type { Answer } from '../../document/types';
import { partsAtMost } from '../../routing/answers';
import { questionIndices } from '../../routing/draws';
import type { Plan, PlanItem, PlanSection } from '../../routing/plan';
import { AnswerSymbol, VARIABLES_EACH } from '../answers/answer-symbol';
import type { Driver, Drivers, Limit } from '../answers/drivers';
import type { Diagrams } from '../diagrams/diagram';
import type { Course, Place } from './course';
import { VariableOrder } from './variable-order';

/** What a symbol table looks into; see `EncodingScope`. */
export interface SymbolScope {
  readonly mostValues?: number;
  readonly opaque?: boolean;
  /** Ranks kept from one edit to the next. */
  readonly ranks?: VariableOrder;
  /** Tests made of answers before count still, so that diagrams of both can be compared. */
  readonly keepsTests?: boolean;
  /** Of every repeated section it can be told which passes were begun. */
  readonly everyPass?: boolean;
}

/** Of an answer with more tests than this, its number is told in binary: its values are more than pairs of them. */
const MOST_TESTS = 64;

/** Something that needs a rank, and what to do with it. */
interface Wanted {
  readonly meaning: string;
  /** Where it is decided; null: beforehand. */
  readonly at: number | null;
  readonly take: (rank: number) => void;
}

export class SymbolTable {
  readonly symbols = new Map<string, AnswerSymbol>();
  readonly limits: Limit[] = [];
  /** Level of the variable of a quota's being full, by id. */
  readonly fullLevel = new Map<string, number>();
  /** Levels of the variables of being drawn, by place of the item. */
  readonly drawnLevel = new Map<number, number>();
  /** Levels of the variables of a pass having been begun, by place of its start; of sections that are counted. */
  readonly begunLevel = new Map<number, number>();
  /** By rank. */
  private readonly homes = new Map<number, number | null>();
  private readonly symbolOfRank = new Map<number, AnswerSymbol>();
  private readonly decidedAt = new Map<number, number>();
  private readonly ranks: VariableOrder;
  private readonly wanted: Wanted[] = [];

  /** `more`: other hidden choices decided at a place, each with what to do with its first level. */
  constructor(
    private readonly plan: Plan,
    private readonly diagrams: Diagrams,
    private readonly course: Course,
    private readonly drivers: Drivers,
    private readonly scope: SymbolScope,
    more: (place: Place, at: number) => readonly { meaning: string; take: (level: number) => void }[],
  ) {
    this.ranks = scope.ranks ?? new VariableOrder();
    for (const { name, answer } of plan.document.given ?? []) {
      const driver = drivers.byKey.get(name.toLowerCase());
      if (driver !== undefined) this.wantSymbol(driver, answer, driver.key, { given: name }, null, true);
    }
    course.places.forEach((place, at) => {
      this.wantAt(place, at);
      for (const { meaning, take } of more(place, at)) this.want(meaning, at, take);
    });
    const given = this.ranks.assign(this.wanted.map(({ meaning }) => meaning));
    this.wanted.forEach(({ take, at }, n) => {
      const rank = given[n] as number;
      this.decidedAt.set(rank, at ?? 0);
      take(rank);
    });
  }

  /** Another hidden choice, after all that were named before. */
  hidden(meaning: string): number {
    const rank = this.ranks.next(meaning);
    this.decidedAt.set(rank, 0);
    return rank * VARIABLES_EACH;
  }

  /** The driver that a variable tells something of; undefined for a hidden choice. */
  symbolAt(level: number): AnswerSymbol | undefined {
    return this.symbolOfRank.get(Math.floor(level / VARIABLES_EACH));
  }

  /** The place of the item whose answer a variable tells something of; null where it is given beforehand. */
  homeOf(level: number): number | null | undefined {
    return this.homes.get(Math.floor(level / VARIABLES_EACH));
  }

  /** The place at which a variable is decided. */
  decided(level: number): number {
    return this.decidedAt.get(Math.floor(level / VARIABLES_EACH)) ?? 0;
  }

  private wantAt(place: Place, at: number): void {
    if (place.kind === 'pass') {
      const planSection = this.plan.sections[place.section] as PlanSection;
      const { section } = planSection;
      const pass = `${section.id} #${place.pass}`;
      if (
        this.drivers.countedSections.has(place.section) ||
        (this.scope.everyPass && planSection.repeat !== null)
      )
        this.want(`begun ${pass}`, at, (level) => this.begunLevel.set(at, level));
      if (section.draw === undefined) return;
      for (const index of questionIndices(planSection)) {
        const item = this.course.item(place.section, place.pass, index);
        const name = planSection.items[index]?.item.name ?? '';
        this.want(`drawn ${name} ${pass}`, at, (level) => this.drawnLevel.set(item, level));
      }
    } else if (place.kind === 'item') {
      const section = this.plan.sections[place.section] as PlanSection;
      const planItem = section.items[place.item] as PlanItem;
      for (const { name, answer } of partsAtMost(planItem)) {
        const driver = this.driverOf(name, planItem);
        const key = passKey(name.toLowerCase(), section.repeat === null ? null : place.pass);
        const { item } = planItem;
        const required = item.kind === 'question' && item.required === true;
        if (driver !== undefined) this.wantSymbol(driver, answer, key, { item: item.name }, at, required);
      }
      for (const { id } of planItem.quotas)
        this.want(`full ${id} ${place.pass}`, at, (level) => this.fullLevel.set(id, level));
    }
  }

  private want(meaning: string, at: number, take: (level: number) => void): void {
    this.wanted.push({ meaning, at, take: (rank) => take(rank * VARIABLES_EACH) });
  }

  private wantSymbol(
    driver: Driver,
    answer: Answer,
    key: string,
    at: Limit['at'],
    home: number | null,
    required: boolean,
  ): void {
    const inBinary =
      !this.scope.opaque && (driver.keepAll || driver.group.length > 1 || driver.atoms.length > MOST_TESTS);
    const make = (rank: number) =>
      new AnswerSymbol(this.diagrams, driver, answer, key, rank, this.scope.mostValues ?? Infinity, inBinary);
    // Without ranks that are kept nobody asks what a variable meant before.
    const kept = this.scope.ranks !== undefined;
    const meaning = kept ? meaningOf(make(0), answer, required, inBinary) : key;
    const take = (rank: number) => {
      const known = this.ranks.symbols.get(meaning);
      const symbol = known?.rank === rank ? known : make(rank);
      if (symbol === known) symbol.renew(driver, this.scope.keepsTests);
      else this.ranks.symbols.set(meaning, symbol);
      this.symbols.set(key, symbol);
      this.homes.set(rank, home);
      this.symbolOfRank.set(rank, symbol);
      const { incomplete } = symbol;
      if (incomplete !== null && !this.limits.some(({ message }) => message === incomplete))
        this.limits.push({ at, message: incomplete });
    };
    this.wanted.push({ meaning, at: home, take });
  }

  /** The driver of a variable; where a grid is asked about as a whole, each of its rows is one. */
  private driverOf(name: string, { item }: PlanItem): Driver | undefined {
    const own = this.drivers.byKey.get(name.toLowerCase());
    const whole = this.drivers.byKey.get(item.name.toLowerCase());
    if (own !== undefined || whole === undefined) return own;
    return { ...IDLE, variable: this.plan.variables.get(name.toLowerCase()) ?? IDLE.variable };
  }
}

/** While the classes of its values are the same, so is what every test of an answer stands for. */
function meaningOf(
  { key, driver, values, incomplete }: AnswerSymbol,
  answer: Answer,
  required: boolean,
  inBinary: boolean,
): string {
  const { name, of } = driver.variable;
  return JSON.stringify([key, name, of, required, inBinary, incomplete, routingText(answer), values]);
}

/** An answer that steers nothing. */
export const IDLE: Driver = {
  variable: {
    of: 'derived',
    name: '',
    kind: 'number',
    codes: null,
    derived: { name: '', label: '', value: '0' },
    index: -1,
  },
  key: '',
  atoms: [],
  keepAll: false,
  boundaries: [],
  group: [],
  copies: 1,
  repeats: 0,
};
