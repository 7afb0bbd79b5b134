/**
 * All conditions of a plan as diagrams, place by place: who passes a gate, is asked an item, may answer it how, and is
 * taken on by which skip. Made once and never changed; whatever counts, weighs or words goes along it.
 *
 * Every variable is noted with the last moment at which it matters, so that it can be forgotten after it.
 */
import type { Condition } from '../../condition/syntax';
import { optionsOf } from '../../document/shape';
import type { Question, Value } from '../../document/types';
import type { Variable } from '../../document/variables';
import { refusal } from '../../routing/answers';
import { questionIndices } from '../../routing/draws';
import type { Plan, PlanItem, PlanSection } from '../../routing/plan';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { driversOf, type Drivers, type Limit } from '../answers/drivers';
import type { Via } from '../answers/via';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { exactly } from '../diagrams/exactly';
import type { Viewpoint } from './answers-read';
import { courseOf, type Course, type Place } from './course';
import { Domains, limitsOf } from './domains';
import { Encoder } from './encoder';
import type { EncodedItem, Exit } from './exits';
import { ItemEncoder } from './item-encoder';
import { LastUse } from './last-use';
import { OpaqueTests, type OpaqueTest } from './opaque-tests';
import { RunningCounts, type PassesTold } from './running-counts';
import { SymbolTable } from './symbol-table';
import { TimedConditions } from './timed-conditions';
import type { VariableOrder } from './variable-order';
import { ViaDiagrams } from './via-diagrams';

/**
 * That so many are drawn takes about as many nodes as `draw` times the others; which of them it were is forgotten one after
 * the other, and each time that takes as many steps as there are nodes, times this (measured).
 */
const STEPS_TO_FORGET_DRAWN = 3;

/** What an encoding looks into, besides what steers the routes. */
export interface EncodingScope {
  /** Values tried of an answer that is compared with another one; all by default. */
  readonly mostValues?: number;
  /** Tests of several drivers at once are not looked into, but each stands for itself; see `opaqueTests`. */
  readonly opaque?: boolean;
  /** Of answers that are compared with each other every value is told apart, not just their order. */
  readonly everyValue?: boolean;
  /** Only those are left who take each of these ways, in some pass. */
  readonly via?: readonly Via[];
  /** Ranks kept from one edit to the next. */
  readonly ranks?: VariableOrder;
  /** Tests made of answers before count still; see `SymbolScope`. */
  readonly keepsTests?: boolean;
  /** The conditions of the endings' messages too. */
  readonly messages?: boolean;
  /**
   * Every part of a condition has its own diagram, and of every answer that conditions or pipes use it can be told
   * at that place whether it was asked for and whether it was left blank; see `statesOf`.
   */
  readonly parts?: boolean;
  /** The conditions under which other answers are assumed too. */
  readonly assumed?: boolean;
  /** Of every repeated section it can be told which passes were begun, not only of those that are counted. */
  readonly everyPass?: boolean;
  /** Versions that are held against each other; see `DriverScope`. */
  readonly versions?: readonly Plan[];
}

export class EncodedPlan {
  readonly course: Course;
  readonly drivers: Drivers;
  private readonly items = new Map<number, EncodedItem>();
  private readonly gates = new Map<number, { readonly askIf: Diagram; readonly somePass: Diagram }>();
  private readonly beyond = new Map<number, Diagram>();
  private readonly messages = new Map<number, readonly Diagram[]>();
  private readonly ends = new Map<number, readonly Exit[]>();
  private readonly unaskedAt = new Map<number, Diagram>();
  private readonly lastUse: LastUse;
  private readonly encoder: Encoder;
  private readonly conditions: TimedConditions;
  private readonly itemEncoder: ItemEncoder;
  private readonly opaque: OpaqueTests;
  private readonly settled = new Map<number, Diagram>();
  private readonly table: SymbolTable;
  private readonly counts: RunningCounts;
  private readonly domains: Domains;
  private readonly taken: readonly ViaDiagrams[];

  constructor(
    readonly plan: Plan,
    readonly diagrams: Diagrams,
    private readonly scope: EncodingScope = {},
  ) {
    this.course = courseOf(plan);
    this.lastUse = new LastUse(diagrams);
    this.drivers = driversOf(plan, scope);
    this.counts = new RunningCounts(plan, diagrams, this.drivers);
    this.taken = (scope.via ?? []).map((way) => new ViaDiagrams(plan, diagrams, this.course, way));
    this.table = new SymbolTable(plan, diagrams, this.course, this.drivers, scope, (place, at) => [
      ...(place.kind === 'end' && !scope.opaque ? this.counts.wantedAt(place, at) : []),
      ...this.taken.flatMap((way) => way.wantedAt(at)),
    ]);
    this.opaque = new OpaqueTests(plan, diagrams, (meaning) => this.table.hidden(meaning));
    const opaqueTest = scope.opaque ? (test: Condition, at: Viewpoint) => this.opaque.test(test, at) : null;
    const tallied = (section: number, condition: Condition) => this.counts.total(section, condition);
    const begun = (section: number, pass: number) => this.begun(section, pass);
    this.encoder = new Encoder(plan, diagrams, this.symbols, { begun, tallied }, opaqueTest);
    this.conditions = new TimedConditions(
      plan,
      this.symbols,
      this.encoder,
      this.lastUse,
      scope.parts === true,
    );
    this.itemEncoder = new ItemEncoder(
      plan,
      diagrams,
      this.course,
      this.table,
      this.encoder,
      this.conditions,
      this.lastUse,
      scope.assumed === true,
    );
    this.domains = new Domains(diagrams, {
      symbols: this.symbols,
      itemAt: (at) => this.itemAt(at),
      optionsShown: ({ planItem, pass }) => this.optionsShown(planItem, pass),
      rowsShown: ({ planItem, pass }) => this.rowsShown(planItem, pass),
      isPastAt: (at) => this.isPastAt(at),
    });
    this.course.places.forEach((place, at) => this.encode(place, at));
    if (scope.parts) this.conditions.pipesMatter(this.course);
    for (const way of this.taken) this.lead(way);
  }

  get symbols(): ReadonlyMap<string, AnswerSymbol> {
    return this.table.symbols;
  }

  get limits(): readonly Limit[] {
    return this.table.limits;
  }

  /** Level of the variable of a quota's being full, by id. */
  get fullLevel(): ReadonlyMap<string, number> {
    return this.table.fullLevel;
  }

  /** Levels of the variables of being drawn, by place of the item. */
  get drawnLevel(): ReadonlyMap<number, number> {
    return this.table.drawnLevel;
  }

  /** Levels of the variables of a pass having been begun, by place of its start; of sections that are counted. */
  get begunLevel(): ReadonlyMap<number, number> {
    return this.table.begunLevel;
  }

  private begun(section: number, pass: number): Diagram {
    const level = this.begunLevel.get(this.course.pass(section, pass));
    return level === undefined ? FALSE : this.diagrams.variable(level);
  }

  itemAt(at: number): EncodedItem {
    return this.items.get(at) as EncodedItem;
  }

  /** Those who enter at a gate. */
  gateAt(at: number): Diagram {
    const { askIf, somePass } = this.gateParts(at);
    return this.diagrams.and(askIf, somePass);
  }

  /** What entering takes: the section's ask-if, and a pass to run. */
  gateParts(at: number): { readonly askIf: Diagram; readonly somePass: Diagram } {
    return this.gates.get(at) ?? { askIf: TRUE, somePass: TRUE };
  }

  /** That a repeat is asked for more passes than it runs; only where parts are looked into. */
  beyondPassesAt(at: number): Diagram {
    return this.beyond.get(at) ?? FALSE;
  }

  /** When each message of the ending at a place holds; none where messages are not looked into. */
  messagesAt(at: number): readonly Diagram[] {
    return this.messages.get(at) ?? [];
  }

  /** Ways on from the end of a pass, the last of which takes everybody. */
  endAt(at: number): readonly Exit[] {
    return this.ends.get(at) ?? [];
  }

  /** What is true of everybody at the start of a pass: that it was begun, and how many are drawn in it. */
  passAt(at: number): Diagram {
    const begun = this.begunLevel.get(at);
    const started = begun === undefined ? TRUE : this.diagrams.variable(begun);
    return this.diagrams.and(started, this.drawnIn(at));
  }

  /** That as many questions are drawn at the start of a pass as the section says. */
  drawnIn(at: number): Diagram {
    const place = this.course.places[at];
    if (place?.kind !== 'pass') return TRUE;
    const section = this.plan.sections[place.section] as PlanSection;
    const { draw } = section.section;
    if (draw === undefined) return TRUE;
    const levels = questionIndices(section).map(
      (item) => this.drawnLevel.get(this.course.item(place.section, place.pass, item)) as number,
    );
    // Whoever looks into parts follows everybody or nobody; counting still has one route of each way where it stops short.
    if (this.scope.parts) {
      const size = draw * (levels.length - draw);
      this.diagrams.foresee(STEPS_TO_FORGET_DRAWN * levels.length * size);
    }
    return exactly(this.diagrams, draw, levels);
  }

  /** The answers that an item allows, given what came before. */
  domainAt(at: number): Diagram {
    return this.domains.at(at);
  }

  /** The same as several facts; see `Domains.partsAt`. */
  domainParts(at: number): readonly Diagram[] {
    return this.domains.partsAt(at);
  }

  /** Those of whom something is true who answer an item as it allows; see `Domains.answering`. */
  answering(known: Diagram, at: number): Diagram {
    return this.domains.answering(known, at);
  }

  /** What is true of those who go straight to an ending from a place: nothing of the rest matters there any more. */
  endingFrom(from: number): Diagram {
    return this.taken.reduce((all, way) => this.diagrams.and(all, way.missedAfter(from)), TRUE);
  }

  /** What is true of those who are not presented what stands at places after `from` and before `to`. */
  passedOver(from: number, to: number): Diagram {
    let result = TRUE;
    for (let at = to - 1; at > from; at -= 1) {
      const here = this.diagrams.and(this.unasked(at), this.settledAt(at));
      if (here !== TRUE) result = this.diagrams.and(here, result);
    }
    return result;
  }

  /** Whether a variable matters to nobody who comes to a place, or has gone by it. */
  isPastAt(at: number): (level: number) => boolean {
    return this.lastUse.isPastAt(at);
  }

  unasked(at: number): Diagram {
    let result = this.unaskedAt.get(at);
    if (result !== undefined) return result;
    result = TRUE;
    const begun = this.begunLevel.get(at);
    if (begun !== undefined) result = this.diagrams.not(this.diagrams.variable(begun));
    for (const symbol of this.items.get(at)?.symbols ?? []) {
      result = this.diagrams.and(result, symbol.unasked);
    }
    for (const way of this.taken) result = this.diagrams.and(result, way.missedAt(at));
    this.unaskedAt.set(at, result);
    return result;
  }

  /** Whether a variable matters to nobody who has been presented the item at a place. */
  isDeadAt(at: number): (level: number) => boolean {
    return this.lastUse.isDeadAt(at);
  }

  /** The given values, as far as they drive anything. */
  get given(): Diagram {
    let result = TRUE;
    for (const { name, answer } of this.plan.document.given ?? []) {
      const symbol = this.symbols.get(name.toLowerCase());
      if (symbol === undefined) continue;
      const question: Question = { kind: 'question', name, text: '', answer };
      const all = { options: optionsOf(answer).map(() => true), rows: [] };
      const allowed = (value: Value | null) =>
        value !== null && refusal(question, answer, value, all) === null ? TRUE : FALSE;
      const domain =
        symbol.picks === null ? symbol.domain(allowed) : symbol.picks.domain(limitsOf(answer, true), []);
      result = this.diagrams.and(result, domain);
    }
    for (const way of this.taken) result = this.diagrams.and(result, way.somewhere);
    return result;
  }

  /** What the counts have come to at the end of a pass, whether it was run or passed over. */
  settledAt(at: number): Diagram {
    return this.settled.get(at) ?? TRUE;
  }

  /** The driver that a variable tells something of; undefined for a hidden choice. */
  symbolAt(level: number): AnswerSymbol | undefined {
    return this.table.symbolAt(level);
  }

  /** The place of the item whose answer a variable tells something of; null where it is given beforehand. */
  homeOf(level: number): number | null | undefined {
    return this.table.homeOf(level);
  }

  /** Where the variable of a tally is settled; undefined for others. */
  settledWith(level: number): number | undefined {
    return this.counts.settledWith(level);
  }

  /** For how many places a variable matters, from where it is decided. */
  spanOf(level: number): number {
    return this.lastUse.lastPlaceOf(level) - this.table.decided(level);
  }

  /** How the end of a pass tells what a counted condition comes to in it. */
  private readonly told: PassesTold = {
    begun: (section, pass) => {
      const level = this.begunLevel.get(this.course.pass(section, pass));
      return level === undefined ? TRUE : this.diagrams.variable(level);
    },
    condition: (condition, section, pass) => this.encoder.condition(condition, { section, pass }),
  };

  /** Leaves but those who take a way, in some pass. */
  private lead(way: ViaDiagrams): void {
    for (const at of way.places) {
      // Whether it was chosen matters to those who pass by as well.
      this.lastUse.used(way.missedAt(at), 2 * at + 1);
      if (way.isOnward) {
        const ways = this.endAt(at);
        const taken = way.takenAt(at, ways);
        const on = ways.find(({ by }) => by?.list === 'onward' && by.index === way.index);
        this.ends.set(at, on === undefined ? [] : [{ ...on, when: this.lastUse.used(taken, 2 * at) }]);
      } else {
        const item = this.itemAt(at);
        const { section } = item.planItem;
        const answered =
          way.answers && this.conditions.condition(way.answers, { section, pass: item.pass }, 2 * at + 1);
        const ways = answered === null ? item.ways : [way.answered(answered, at)];
        const checks = this.diagrams.and(item.checks, this.lastUse.used(way.takenAt(at, ways), 2 * at + 1));
        this.items.set(at, { ...item, checks });
      }
    }
    // What is true of those who are not asked has changed with the way: worked out anew when it is next needed.
    this.unaskedAt.clear();
  }

  private encode(place: Place, at: number): void {
    switch (place.kind) {
      case 'gate': {
        const { gate, repeat } = this.plan.sections[place.section] as PlanSection;
        const outside = { section: place.section, pass: null };
        const askIf = gate === null ? TRUE : this.conditions.condition(gate, outside, 2 * at);
        const somePass =
          repeat === null
            ? TRUE
            : this.lastUse.used(this.encoder.passesAtLeast(repeat, place.section, 1), 2 * at);
        this.gates.set(at, { askIf, somePass });
        if (this.scope.parts && repeat !== null) {
          this.beyond.set(at, this.lastUse.used(this.encoder.passesBeyond(repeat, place.section), 2 * at));
          if (repeat.driver !== null) this.conditions.matters(repeat.driver, outside, 2 * at);
        }
        return;
      }
      case 'item':
        this.items.set(at, this.itemEncoder.encode(place, at));
        this.domains.prepare(at);
        return;
      case 'end':
        this.ends.set(at, this.encodeEnd(place, at));
        this.settled.set(at, this.lastUse.used(this.counts.settle(place, this.told), 2 * at));
        if (this.scope.parts) this.conditions.countedMatter(this.drivers, place, at);
        return;
      case 'pass':
        // Which passes were begun, and what is drawn, matter as long as something reads them.
        return;
      case 'ending':
        if (this.scope.messages || this.scope.parts)
          this.messages.set(at, this.encodeMessages(place.ending, at));
        return;
      default:
        place satisfies never;
    }
  }

  private encodeMessages(ending: number, at: number): Diagram[] {
    const outside = { section: this.plan.sections.length, pass: null };
    return (this.plan.endings[ending]?.messages ?? []).map(({ if: condition }) =>
      condition === null ? TRUE : this.conditions.condition(condition, outside, 2 * at),
    );
  }

  private encodeEnd(place: Place & { kind: 'end' }, at: number): Exit[] {
    const section = this.plan.sections[place.section] as PlanSection;
    const outside = { section: place.section, pass: null };
    const { repeat, index } = section;
    if (repeat !== null && place.pass < repeat.max) {
      const more = this.encoder.passesAtLeast(repeat, index, place.pass + 1);
      return [
        { when: this.lastUse.used(more, 2 * at), by: null, to: this.course.pass(index, place.pass + 1) },
        // To the end of the last pass there could be: on the way it is noted that those between were not begun.
        { when: TRUE, by: null, to: this.course.end(index, repeat.max) },
      ];
    }
    const ways = section.onward.map((skip) => this.itemEncoder.exit(skip, 'onward', place, outside, 2 * at));
    return [...ways, { when: TRUE, by: null, to: this.course.gate(index + 1) }];
  }

  /** The diagram of a condition, or a part of one, that the questionnaire has at this place. */
  conditionAt(node: Condition, standing: Viewpoint): Diagram {
    return this.encoder.condition(node, standing);
  }

  /** Tests of several answers at once, by the level that stands for each. */
  get opaqueTests(): ReadonlyMap<number, OpaqueTest> {
    return this.opaque.byLevel;
  }

  /** Of a variable as it is seen from a place: that it was asked for, and that it was then left blank. */
  statesOf(variable: Variable, from: Viewpoint) {
    return this.conditions.statesOf(variable, from);
  }

  /** When each option (or special) of an item is shown. */
  optionsShown(planItem: PlanItem, pass: number | null): Diagram[] {
    return this.itemEncoder.optionsShown(planItem, pass);
  }

  rowsShown(planItem: PlanItem, pass: number | null): Diagram[] {
    return this.itemEncoder.rowsShown(planItem, pass);
  }

  /** The key under which `symbols` has a variable as it is seen from a place. */
  keyOf(variable: Variable, standing: Viewpoint): string {
    return this.encoder.keyOf(variable, standing);
  }
}
