/**
 * All conditions of a questionnaire as diagrams, place by place: who passes a gate, is asked an item, may answer
 * it how, and is taken on by which skip.
 *
 * Every variable is noted with the last moment at which it matters, so that it can be forgotten after it.
 */
import type { EncodedItem, ConditionalPart, Exit } from './exits';
import type { Via } from '../answers/via';
import { printCondition } from '../../condition/print';
import { eachName, mentionsPass, type Condition } from '../../condition/syntax';
import { passKey } from '../../document/addresses';
import { hasRows } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Question, Value } from '../../document/types';
import type { Variable } from '../../document/variables';
import { partsAtMost, refusal } from '../../routing/answers';
import { questionIndices } from '../../routing/draws';
import type { Plan, PlanItem, PlanSection, PlanSkip } from '../../routing/plan';
import { FALSE, TRUE, type Diagram, type Diagrams } from '../diagrams/diagram';
import { Domains, limitsOf } from './domains';
import { driversOf, pipedBy, variablesIn, type Drivers, type Limit } from '../answers/drivers';
import { Encoder, type Viewpoint } from './encoder';
import { courseOf, type Course, type Place } from './course';
import type { AnswerSymbol } from '../answers/answer-symbol';
import type { VariableOrder } from './variable-order';
import { SymbolTable } from './symbol-table';
import { ViaDiagrams } from './via-diagrams';
import { RunningCounts, type PassesTold } from './running-counts';

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
   * at that place whether it was asked for and whether it was left blank; see `askedOf`, `valueOf`.
   */
  readonly parts?: boolean;
  /** Of every repeated section it can be told which passes were begun, not only of those that are counted. */
  readonly everyPass?: boolean;
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
  private readonly lastUse = new Map<number, number>();
  private readonly encoder: Encoder;
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
    this.drivers = driversOf(plan, scope);
    this.counts = new RunningCounts(plan, diagrams, this.drivers);
    this.taken = (scope.via ?? []).map((way) => new ViaDiagrams(plan, diagrams, this.course, way));
    this.table = new SymbolTable(plan, diagrams, this.course, this.drivers, scope, (place, at) => [
      ...(place.kind === 'end' && !scope.opaque ? this.counts.wantedAt(place, at) : []),
      ...this.taken.flatMap((way) => way.wantedAt(at)),
    ]);
    const opaqueTest = scope.opaque ? (test: Condition, at: Viewpoint) => this.opaqueTest(test, at) : null;
    const tallied = (section: number, condition: Condition) => this.counts.total(section, condition);
    const begun = (section: number, pass: number) => this.begun(section, pass);
    this.encoder = new Encoder(plan, diagrams, this.symbols, begun, tallied, opaqueTest);
    this.domains = new Domains(diagrams, {
      symbols: this.symbols,
      itemAt: (at) => this.itemAt(at),
      optionsShown: ({ planItem, pass }) => this.optionsShown(planItem, pass),
      rowsShown: ({ planItem, pass }) => this.rowsShown(planItem, pass),
      isPastAt: (at) => this.isPastAt(at),
    });
    this.course.places.forEach((place, at) => this.encode(place, at));
    if (scope.parts) this.partsMatter();
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
    if (section.section.draw === undefined) return TRUE;
    const levels = questionIndices(section).map(
      (item) => this.drawnLevel.get(this.course.item(place.section, place.pass, item)) as number,
    );
    return this.exactly(section.section.draw, levels);
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
    return (level) => (this.lastUse.get(level) ?? -1) < 2 * at;
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
    return (level) => (this.lastUse.get(level) ?? -1) <= 2 * at;
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
    return Math.floor((this.lastUse.get(level) ?? 0) / 2) - this.table.decided(level);
  }

  /** Tests of several drivers at once, by the level that stands for each; `pass` null where all passes see the same. */
  readonly opaqueTests = new Map<number, { readonly text: string; readonly at: Viewpoint }>();
  private readonly opaqueLevels = new Map<string, number>();

  private opaqueTest(test: Condition, from: Viewpoint): Diagram {
    const text = printCondition(test);
    const at = readsPass(test, from, this.plan) ? from : { ...from, pass: null };
    const inPass = at.pass === null ? '' : passKey(this.plan.sections[at.section]?.section.id ?? '', at.pass);
    const key = `${text} ${inPass}`;
    const level = this.opaqueLevels.get(key) ?? this.table.hidden(`test ${key}`);
    this.opaqueLevels.set(key, level);
    this.opaqueTests.set(level, { text, at });
    return this.diagrams.variable(level);
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
      this.used(way.missedAt(at), 2 * at + 1);
      if (way.isOnward) {
        const ways = this.endAt(at);
        const taken = way.takenAt(at, ways);
        const on = ways.find(({ by }) => by?.list === 'onward' && by.index === way.index);
        this.ends.set(at, on === undefined ? [] : [{ ...on, when: this.used(taken, 2 * at) }]);
      } else {
        const item = this.itemAt(at);
        const { section } = item.planItem;
        const answered = way.answers && this.condition(way.answers, { section, pass: item.pass }, 2 * at + 1);
        const ways = answered === null ? item.ways : [way.answered(answered, at)];
        const checks = this.diagrams.and(item.checks, this.used(way.takenAt(at, ways), 2 * at + 1));
        this.items.set(at, { ...item, checks });
      }
    }
    // Those who pass it by say so up to the end.
    this.unaskedAt.clear();
  }

  private itemOf(place: Place & { kind: 'item' }): { planItem: PlanItem; pass: number | null } {
    const section = this.plan.sections[place.section] as PlanSection;
    const planItem = section.items[place.item] as PlanItem;
    return { planItem, pass: section.repeat === null ? null : place.pass };
  }

  private encode(place: Place, at: number): void {
    switch (place.kind) {
      case 'gate': {
        const { gate, repeat } = this.plan.sections[place.section] as PlanSection;
        const outside = { section: place.section, pass: null };
        const askIf = gate === null ? TRUE : this.condition(gate, outside, 2 * at);
        const somePass =
          repeat === null ? TRUE : this.used(this.encoder.passesAtLeast(repeat, place.section, 1), 2 * at);
        this.gates.set(at, { askIf, somePass });
        if (this.scope.parts && repeat !== null) {
          this.beyond.set(at, this.used(this.encoder.passesBeyond(repeat, place.section), 2 * at));
          if (repeat.driver !== null) this.matters(repeat.driver, outside, 2 * at);
        }
        return;
      }
      case 'item':
        this.items.set(at, this.encodeItem(place, at));
        this.domains.prepare(at);
        return;
      case 'end':
        this.ends.set(at, this.encodeEnd(place, at));
        this.settled.set(at, this.used(this.counts.settle(place, this.told), 2 * at));
        if (this.scope.parts) this.countedMatter(place, at);
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
      condition === null ? TRUE : this.condition(condition, outside, 2 * at),
    );
  }

  private encodeItem(place: Place & { kind: 'item' }, at: number): EncodedItem {
    const { planItem, pass } = this.itemOf(place);
    const standing = { section: place.section, pass };
    const [arriving, leaving] = [2 * at, 2 * at + 1];
    const askIf = planItem.askIf === null ? TRUE : this.condition(planItem.askIf, standing, arriving);
    const drawn = this.drawnLevel.get(at);
    const inDraw = drawn === undefined ? TRUE : this.used(this.diagrams.variable(drawn), arriving);
    const answerable = this.used(this.answerable(planItem, standing), arriving);
    this.useShown(planItem, standing, leaving);
    const checks = planItem.checks
      .filter(({ kind }) => kind === 'hard')
      .reduce((all, check) => {
        const fails = this.condition(check.if, standing, leaving);
        return this.diagrams.and(all, this.diagrams.not(fails));
      }, TRUE);
    const quotas = planItem.quotas.map(({ id, if: condition, to }, index): Exit => {
      const full = this.used(this.diagrams.variable(this.fullLevel.get(id) as number), leaving);
      return {
        when: this.diagrams.and(this.condition(condition, standing, leaving), full),
        by: { list: 'quota', index },
        to: this.course.aim(to, place.section, place.pass),
      };
    });
    const skips = planItem.skips.map((skip) => this.way(skip, 'skip', place, standing, leaving));
    const symbols = partsAtMost(planItem).flatMap(
      ({ name }) => this.symbols.get(passKey(name.toLowerCase(), pass)) ?? [],
    );
    return {
      asked: this.diagrams.and(this.diagrams.and(askIf, inDraw), answerable),
      askIf,
      shown: this.conditional(planItem, standing),
      ways: [...quotas, ...skips],
      checks,
      symbols,
      planItem,
      pass,
    };
  }

  private encodeEnd(place: Place & { kind: 'end' }, at: number): Exit[] {
    const section = this.plan.sections[place.section] as PlanSection;
    const outside = { section: place.section, pass: null };
    const { repeat, index } = section;
    if (repeat !== null && place.pass < repeat.max) {
      const more = this.encoder.passesAtLeast(repeat, index, place.pass + 1);
      return [
        { when: this.used(more, 2 * at), by: null, to: this.course.pass(index, place.pass + 1) },
        // Past all passes that could have been, so that what follows knows they were not begun.
        { when: TRUE, by: null, to: this.course.end(index, repeat.max) },
      ];
    }
    const ways = section.onward.map((skip) => this.way(skip, 'onward', place, outside, 2 * at));
    return [...ways, { when: TRUE, by: null, to: this.course.gate(index + 1) }];
  }

  private way(
    { index, if: condition, to }: PlanSkip,
    list: 'skip' | 'onward',
    from: { readonly section: number; readonly pass: number },
    standing: Viewpoint,
    moment: number,
  ): Exit {
    return {
      when: condition === null ? TRUE : this.condition(condition, standing, moment),
      by: { list, index },
      to: this.course.aim(to, from.section, from.pass),
    };
  }

  private condition(node: Condition, standing: Viewpoint, moment: number): Diagram {
    if (this.scope.parts) {
      const parts =
        node.kind === 'and' || node.kind === 'or' ? node.parts : node.kind === 'not' ? [node.part] : [];
      for (const part of parts) this.condition(part, standing, moment);
      for (const variable of variablesIn(node, this.plan)) this.matters(variable, standing, moment);
    }
    return this.used(this.encoder.condition(node, standing), moment);
  }

  /** The diagram of a condition, or a part of one, that the questionnaire has at this place. */
  conditionAt(node: Condition, standing: Viewpoint): Diagram {
    return this.encoder.condition(node, standing);
  }

  /** The key under which `symbols` has a variable as it is seen from a place. */
  keyOf(variable: Variable, standing: Viewpoint): string {
    return this.encoder.keyOf(variable, standing);
  }

  /** Of a variable as it is seen from a place: that it was asked for, and that it was then left blank. */
  statesOf(
    variable: Variable,
    standing: Viewpoint,
  ): { readonly asked: Diagram; readonly blank: Diagram } | null {
    const symbol = this.symbols.get(this.keyOf(variable, standing));
    return symbol === undefined
      ? null
      : {
          asked: symbol.predicate(({ presented }) => presented, `${variable.name} asked`),
          blank: symbol.predicate(
            ({ presented, value }) => presented && value === null,
            `${variable.name} unanswered`,
          ),
        };
  }

  /** Where parts matter: whether a variable was asked for and left blank can be told at a moment. */
  private matters(variable: Variable, standing: Viewpoint, moment: number): void {
    const states = this.statesOf(variable, standing);
    if (states === null) return;
    this.used(states.asked, moment);
    this.used(states.blank, moment);
  }

  /** What is counted over passes is read at the end of each. */
  private countedMatter({ section, pass }: Place & { kind: 'end' }, at: number): void {
    for (const count of this.drivers.counts.values()) {
      if (count.section !== section) continue;
      for (const variable of variablesIn(count.condition, this.plan))
        this.matters(variable, { section, pass }, 2 * at);
    }
  }

  /** What pipes and derived values use, at the places where it shows. */
  private partsMatter(): void {
    this.course.places.forEach((place, at) => {
      if (place.kind === 'item') {
        const { planItem, pass } = this.itemOf(place);
        for (const variable of pipedBy(this.plan, planItem))
          this.matters(variable, { section: place.section, pass }, 2 * at);
      } else if (place.kind === 'ending') {
        const outside = { section: this.plan.sections.length, pass: null };
        for (const { value, inputs } of this.plan.derived) {
          if (value === null) continue;
          for (const { variable, overPasses } of inputs)
            if (!overPasses) this.matters(variable, outside, 2 * at);
        }
      }
    });
  }

  /** Notes that the variables of a diagram matter at a moment: twice a place, and one more on leaving it. */
  private used(diagram: Diagram, moment: number): Diagram {
    for (const level of this.diagrams.support(diagram)) {
      if ((this.lastUse.get(level) ?? -1) < moment) this.lastUse.set(level, moment);
    }
    return diagram;
  }

  /** Something but `missing` options is left to answer with. */
  private answerable({ item, optionIf, rowIf }: PlanItem, standing: Viewpoint): Diagram {
    if (item.kind === 'statement' || !('options' in item.answer)) return TRUE;
    const any = (conditions: readonly (Condition | null)[], counts: (index: number) => boolean) =>
      conditions.reduce(
        (some, condition, index) =>
          counts(index) ? this.diagrams.or(some, this.shown(condition, standing)) : some,
        FALSE,
      );
    const { answer } = item;
    const options = any(optionIf, (index) => answer.options[index]?.missing === undefined);
    return hasRows(answer)
      ? this.diagrams.and(
          options,
          any(rowIf, () => true),
        )
      : options;
  }

  private shown(condition: Condition | null, standing: Viewpoint): Diagram {
    return condition === null ? TRUE : this.encoder.condition(condition, standing);
  }

  /** When each option (or special) of an item is shown. */
  optionsShown({ optionIf, section }: PlanItem, pass: number | null): Diagram[] {
    return optionIf.map((condition) => this.shown(condition, { section, pass }));
  }

  rowsShown({ rowIf, section }: PlanItem, pass: number | null): Diagram[] {
    return rowIf.map((condition) => this.shown(condition, { section, pass }));
  }

  private conditional({ optionIf, rowIf }: PlanItem, standing: Viewpoint): ConditionalPart[] {
    const of = (kind: ConditionalPart['of'], conditions: readonly (Condition | null)[]) =>
      conditions.flatMap((condition, index): ConditionalPart[] =>
        condition === null ? [] : [{ of: kind, index, when: this.shown(condition, standing) }],
      );
    return [...of('option', optionIf), ...of('row', rowIf)];
  }

  private useShown({ optionIf, rowIf }: PlanItem, standing: Viewpoint, moment: number): void {
    for (const condition of [...optionIf, ...rowIf])
      if (condition !== null) this.condition(condition, standing, moment);
  }

  /** Exactly so many of the variables are true. */
  private exactly(count: number, levels: readonly number[]): Diagram {
    let rows: Diagram[] = Array.from({ length: count + 1 }, (_, left) => (left === 0 ? TRUE : FALSE));
    for (const level of [...levels].reverse()) {
      const drawn = this.diagrams.variable(level);
      rows = rows.map((without, left) => this.diagrams.choose(drawn, rows[left - 1] ?? FALSE, without));
    }
    return rows[count] ?? FALSE;
  }
}

/** Whether a test can come out differently from pass to pass: by the number of the pass, its code, or its answers. */
function readsPass(test: Condition, { section, pass }: Viewpoint, plan: Plan): boolean {
  if (pass === null) return false;
  if (mentionsPass(test)) return true;
  let found = false;
  eachName(test, ({ name }) => {
    const variable = plan.variables.get(name.toLowerCase());
    found ||= (variable?.of === 'question' || variable?.of === 'row') && variable.section === section;
  });
  return found;
}
