/**
 * All conditions of a questionnaire as diagrams, place by place: who passes a gate, is asked an item, may answer
 * it how, and is taken on by which skip.
 *
 * Every variable is noted with the last moment at which it matters, so that it can be forgotten after it.
 */
import type { Answer, GridAnswer, Question, Value } from '../document/types';
import { optionsOf } from '../document/shape';
import { printCondition } from '../condition/print';
import type { Condition } from '../condition/syntax';
import { gridRowAnswer, refusal } from '../routing/answers';
import { questionIndices } from '../routing/draws';
import { itemKey, type Plan, type PlanItem, type PlanSection, type PlanSkip } from '../routing/plan';
import { whenAllowed } from './allowed';
import { candidatesFor } from './candidates';
import { FALSE, TRUE, type Diagram, type Diagrams } from './diagram';
import { countKey, driversOf, pipedBy, variablesIn, type Driver, type Drivers, type Limit } from './drivers';
import { Encoder, type Standing } from './encode';
import { layoutOf, type Layout, type Place } from './layout';
import type { Variable } from '../document/variables';
import { Instance, VARIABLES_EACH } from './predicates';

/** An option (a special) or a row, by its index, with when it is shown. */
export interface Shown {
  readonly of: 'option' | 'row';
  readonly index: number;
  readonly when: Diagram;
}

/** A way on from a place, tried after those before it. */
export interface Way {
  readonly when: Diagram;
  /** What was written: index in the item's quotas, its skips or the section's onward; null for what goes of itself. */
  readonly by: { readonly list: 'quota' | 'skip' | 'onward'; readonly index: number } | null;
  /** Number of the place it leads to. */
  readonly to: number;
}

/** What a terrain looks into, besides what steers the routes. */
export interface TerrainScope {
  /** Values tried of an answer that is compared with another one; all by default. */
  readonly mostValues?: number;
  /** Tests of several drivers at once are not looked into, but each stands for itself; see `opaqueTests`. */
  readonly opaque?: boolean;
  /** Of answers that are compared with each other every value is told apart, not just their order. */
  readonly everyValue?: boolean;
  /** The conditions of the endings' messages too. */
  readonly messages?: boolean;
  /**
   * Every part of a condition has its own diagram, and of every answer that conditions or pipes use it can be told
   * at that place whether it was asked for and whether it was left blank; see `askedOf`, `valueOf`.
   */
  readonly parts?: boolean;
}

export interface ItemTerrain {
  /** Presented to those of whom this holds, as far as they come here; what is drawn included. */
  readonly asked: Diagram;
  /** The item's own ask-if. */
  readonly askIf: Diagram;
  /** By option and row that has one, the diagram of its ask-if. */
  readonly shown: readonly Shown[];
  /** Quotas, each with the variable of its being full, then skips. */
  readonly ways: readonly Way[];
  /** No route runs through a hard check that holds. */
  readonly checks: Diagram;
  readonly instances: readonly Instance[];
  readonly planItem: PlanItem;
  readonly pass: number | null;
}

export class Terrain {
  readonly layout: Layout;
  readonly drivers: Drivers;
  readonly limits: Limit[] = [];
  readonly instances = new Map<string, Instance>();
  /** Level of the variable of a quota's being full, by id. */
  readonly fullLevel = new Map<string, number>();
  /** Levels of the variables of being drawn, by place of the item. */
  readonly drawnLevel = new Map<number, number>();
  /** Levels of the variables of a pass having been begun, by place of its start; of sections that are counted. */
  readonly begunLevel = new Map<number, number>();
  private readonly items = new Map<number, ItemTerrain>();
  private readonly gates = new Map<number, { readonly askIf: Diagram; readonly somePass: Diagram }>();
  private readonly beyond = new Map<number, Diagram>();
  private readonly messages = new Map<number, readonly Diagram[]>();
  private readonly ends = new Map<number, readonly Way[]>();
  private readonly domains = new Map<number, Diagram>();
  private readonly unaskedAt = new Map<number, Diagram>();
  private readonly lastUse = new Map<number, number>();
  private readonly encoder: Encoder;
  private readonly settled = new Map<number, Diagram>();
  private readonly parts = new Map<number, readonly Diagram[]>();
  private readonly optionTests = new Map<number, readonly Diagram[]>();
  /** Levels of the variables of what is counted, by what and pass, and where it is settled. */
  private readonly tallyHomes = new Map<number, number>();
  private readonly tallies = new Map<string, { readonly at: number; readonly levels: readonly number[] }>();
  /** Place of the item, or null for a given value, of the variables with a rank. */
  private readonly homes: (number | null)[] = [];
  private readonly instanceOfRank: (Instance | undefined)[] = [];
  /** Place at which a variable with a rank is decided. */
  private readonly decidedAt: number[] = [];
  private rank = 0;

  constructor(
    readonly plan: Plan,
    readonly diagrams: Diagrams,
    private readonly scope: TerrainScope = {},
  ) {
    this.layout = layoutOf(plan);
    this.drivers = driversOf(plan, scope);
    this.name();
    const begun = (section: number, pass: number) => {
      const level = this.begunLevel.get(this.layout.pass(section, pass));
      return level === undefined ? FALSE : diagrams.variable(level);
    };
    const opaqueTest = scope.opaque ? (test: Condition, at: Standing) => this.opaqueTest(test, at) : null;
    const tallied = (section: number, condition: Condition) =>
      this.tally(countKey(section, condition), plan.sections[section]?.repeat?.max ?? 1);
    this.encoder = new Encoder(plan, diagrams, this.instances, begun, tallied, opaqueTest);
    this.layout.places.forEach((place, at) => this.encode(place, at));
    if (scope.parts) this.partsMatter();
  }

  itemAt(at: number): ItemTerrain {
    return this.items.get(at) as ItemTerrain;
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
  endAt(at: number): readonly Way[] {
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
    const place = this.layout.places[at];
    if (place?.kind !== 'pass') return TRUE;
    const section = this.plan.sections[place.section] as PlanSection;
    if (section.section.draw === undefined) return TRUE;
    const levels = questionIndices(section).map(
      (item) => this.drawnLevel.get(this.layout.item(place.section, place.pass, item)) as number,
    );
    return this.exactly(section.section.draw, levels);
  }

  /** The answers that an item allows, given what came before. */
  domainAt(at: number): Diagram {
    let domain = this.domains.get(at);
    if (domain === undefined) {
      domain = this.domain(this.itemAt(at));
      this.domains.set(at, domain);
    }
    return domain;
  }

  /**
   * The same as several facts, which together say it: where many options are hidden by earlier answers, to hold it all
   * as one would tell every set of them apart. The first says what could be answered if nothing were hidden.
   */
  domainParts(at: number): readonly Diagram[] {
    let parts = this.parts.get(at);
    if (parts === undefined) {
      const item = this.itemAt(at);
      const tests = this.optionTests.get(at);
      parts =
        tests === undefined
          ? [this.domainAt(at)]
          : [
              this.domain(item, () => TRUE),
              ...item.shown.flatMap(({ index, when }) =>
                this.diagrams.or(this.diagrams.not(tests[index] ?? FALSE), when),
              ),
            ];
      this.parts.set(at, parts);
    }
    return parts;
  }

  /** Those of whom something is true who answer an item as it allows; what only its hidden options read is forgotten. */
  answering(known: Diagram, at: number): Diagram {
    const parts = this.domainParts(at);
    if (parts.length === 1) return this.diagrams.and(known, this.domainAt(at));
    const { checks, ways } = this.itemAt(at);
    const isPast = this.isPastAt(at + 1);
    const left = parts.map((part) => new Set(this.diagrams.support(part)));
    const leaving = [checks, ...ways.map(({ when }) => when)];
    const read = new Set(leaving.flatMap((diagram) => this.diagrams.support(diagram)));
    return parts.reduce((so, part, n) => {
      const needed = left.slice(n + 1);
      const gone = (level: number) =>
        isPast(level) && !read.has(level) && !needed.some((support) => support.has(level));
      return this.diagrams.forget(this.diagrams.and(so, part), gone);
    }, known);
  }

  /** Of an item with many options that earlier answers hide: by option, that it is picked. */
  private testOptions({ planItem, pass, shown }: ItemTerrain, at: number): void {
    const { item } = planItem;
    if (item.kind === 'statement' || item.answer.type === 'grid' || shown.length <= MOST_HIDDEN) return;
    // With a least number of picks, how many are hidden counts.
    if (item.answer.type === 'multiple' && (item.answer.minPicks ?? 0) > 1) return;
    const instance = this.instances.get(itemKey(item.name.toLowerCase(), pass));
    if (instance === undefined) return;
    const { picks } = instance;
    this.optionTests.set(
      at,
      optionsOf(item.answer).map(({ code }) =>
        picks === null
          ? instance.predicate(
              ({ presented, value }) =>
                presented &&
                (value === code || (Array.isArray(value) && (value as readonly number[]).includes(code))),
            )
          : picks.picked(code),
      ),
    );
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
    for (const instance of this.items.get(at)?.instances ?? []) {
      result = this.diagrams.and(result, instance.unasked);
    }
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
      const instance = this.instances.get(name.toLowerCase());
      if (instance === undefined) continue;
      const question: Question = { kind: 'question', name, text: '', answer };
      const all = { options: optionsOf(answer).map(() => true), rows: [] };
      const allowed = (value: Value | null) =>
        value !== null && refusal(question, answer, value, all) === null ? TRUE : FALSE;
      const domain =
        instance.picks === null
          ? instance.domain(allowed)
          : instance.picks.domain(limitsOf(answer, true), []);
      result = this.diagrams.and(result, domain);
    }
    return result;
  }

  /** Gives every driver and hidden choice its place in the order of variables. */
  private name(): void {
    for (const { name, answer } of this.plan.document.given ?? []) {
      const driver = this.drivers.byKey.get(name.toLowerCase());
      if (driver !== undefined) this.addInstance(driver, answer, driver.key, { given: name }, null);
    }
    this.layout.places.forEach((place, at) => {
      if (place.kind === 'pass') {
        const { section } = this.plan.sections[place.section] as PlanSection;
        if (this.drivers.countedSections.has(place.section)) this.begunLevel.set(at, this.hidden(at));
        if (section.draw === undefined) return;
        for (const item of questionIndices(this.plan.sections[place.section] as PlanSection)) {
          this.drawnLevel.set(this.layout.item(place.section, place.pass, item), this.hidden(at));
        }
      } else if (place.kind === 'item') {
        const { planItem, pass } = this.itemOf(place);
        for (const { name, answer } of partsAtMost(planItem)) {
          const driver = this.driverOf(name, planItem);
          const key = itemKey(name.toLowerCase(), pass);
          if (driver !== undefined) this.addInstance(driver, answer, key, { item: planItem.item.name }, at);
        }
        for (const { id } of planItem.quotas) this.fullLevel.set(id, this.hidden(at));
      } else if (place.kind === 'end') this.nameCounts(place, at);
    });
  }

  /** A tally for what is counted over passes: variables for it having come to 1, 2, … by the end of a pass. */
  private nameCounts({ section, pass }: Place & { kind: 'end' }, at: number): void {
    const most = this.plan.sections[section]?.repeat?.max ?? 1;
    if (this.scope.opaque) return;
    for (const [key, count] of this.drivers.counts) {
      if (count.section !== section) continue;
      const steps = Math.max(1, Math.min(most, Math.floor(count.most) + 1));
      const first = this.hidden(at);
      this.tallies.set(`${key} #${pass}`, {
        at,
        levels: Array.from({ length: Math.min(steps, pass) }, (_, n) => first + n),
      });
      this.tallyHomes.set(this.rank, at);
    }
  }

  /** By number from 0: that a tally has come to as much by the end of a pass; null where there is none. */
  private tally(key: string, pass: number): Diagram[] | null {
    const found = this.tallies.get(`${key} #${pass}`);
    return found === undefined ? null : [TRUE, ...found.levels.map((level) => this.diagrams.variable(level))];
  }

  /** What the tallies have come to at the end of a pass, whether it was run or passed over. */
  settledAt(at: number): Diagram {
    return this.settled.get(at) ?? TRUE;
  }

  private settle({ section, pass }: Place & { kind: 'end' }, at: number): Diagram {
    let result = TRUE;
    for (const [key, count] of this.drivers.counts) {
      const now = this.tally(key, pass);
      if (count.section !== section || now === null) continue;
      const before = this.tally(key, pass - 1) ?? [TRUE];
      const begun = this.begunLevel.get(this.layout.pass(section, pass));
      const holds = this.diagrams.and(
        begun === undefined ? TRUE : this.diagrams.variable(begun),
        this.encoder.condition(count.condition, { section, pass }),
      );
      now.forEach((reached, n) => {
        if (n === 0) return;
        const more = this.diagrams.and(holds, before[n - 1] ?? FALSE);
        const is = this.diagrams.or(before[n] ?? FALSE, more);
        result = this.diagrams.and(result, this.diagrams.choose(is, reached, this.diagrams.not(reached)));
      });
    }
    return this.used(result, 2 * at);
  }

  /** The driver of a variable; where a grid is asked about as a whole, each of its rows is one. */
  private driverOf(name: string, { item }: PlanItem): Driver | undefined {
    const own = this.drivers.byKey.get(name.toLowerCase());
    const whole = this.drivers.byKey.get(item.name.toLowerCase());
    if (own !== undefined || whole === undefined) return own;
    return { ...IDLE, variable: this.plan.variables.get(name.toLowerCase()) ?? IDLE.variable };
  }

  /** Tests of several drivers at once, by the level that stands for each. */
  readonly opaqueTests = new Map<number, { readonly text: string; readonly at: Standing }>();
  private readonly opaqueLevels = new Map<string, number>();

  private opaqueTest(test: Condition, at: Standing): Diagram {
    const text = printCondition(test);
    const key = `${text} ${at.pass === null ? '' : `${at.section}#${at.pass}`}`;
    const level = this.opaqueLevels.get(key) ?? this.hidden(0);
    this.opaqueLevels.set(key, level);
    this.opaqueTests.set(level, { text, at });
    return this.diagrams.variable(level);
  }

  /** The driver that a variable tells something of; undefined for a hidden choice. */
  instanceAt(level: number): Instance | undefined {
    return this.instanceOfRank[Math.floor(level / VARIABLES_EACH)];
  }

  /** The place of the item whose answer a variable tells something of; null where it is given beforehand. */
  homeOf(level: number): number | null | undefined {
    return this.homes[Math.floor(level / VARIABLES_EACH)];
  }

  /** Where the variable of a tally is settled; undefined for others. */
  settledWith(level: number): number | undefined {
    return this.tallyHomes.get(Math.floor(level / VARIABLES_EACH));
  }

  /** For how many places a variable matters, from where it is decided. */
  spanOf(level: number): number {
    const decided = this.decidedAt[Math.floor(level / VARIABLES_EACH)] ?? 0;
    return Math.floor((this.lastUse.get(level) ?? 0) / 2) - decided;
  }

  private hidden(at: number): number {
    this.rank += 1;
    this.decidedAt[this.rank] = at;
    return this.rank * VARIABLES_EACH;
  }

  private addInstance(
    driver: Driver,
    answer: Answer,
    key: string,
    at: Limit['at'],
    home: number | null,
  ): void {
    this.rank += 1;
    const instance = new Instance(
      this.diagrams,
      driver,
      answer,
      key,
      this.rank,
      this.scope.mostValues ?? Infinity,
      !this.scope.opaque && (driver.keepAll || driver.group.length > 1),
    );
    this.instances.set(key, instance);
    this.homes[this.rank] = home;
    this.decidedAt[this.rank] = home ?? 0;
    this.instanceOfRank[this.rank] = instance;
    const { incomplete } = instance;
    if (incomplete !== null && !this.limits.some(({ message }) => message === incomplete))
      this.limits.push({ at, message: incomplete });
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
        this.testOptions(this.itemAt(at), at);
        return;
      case 'end':
        this.ends.set(at, this.encodeEnd(place, at));
        this.settled.set(at, this.settle(place, at));
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

  private encodeItem(place: Place & { kind: 'item' }, at: number): ItemTerrain {
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
    const quotas = planItem.quotas.map(({ id, if: condition, to }, index): Way => {
      const full = this.used(this.diagrams.variable(this.fullLevel.get(id) as number), leaving);
      return {
        when: this.diagrams.and(this.condition(condition, standing, leaving), full),
        by: { list: 'quota', index },
        to: this.layout.aim(to, place.section, place.pass),
      };
    });
    const skips = planItem.skips.map((skip) => this.way(skip, 'skip', place, standing, leaving));
    const instances = partsAtMost(planItem).flatMap(
      ({ name }) => this.instances.get(itemKey(name.toLowerCase(), pass)) ?? [],
    );
    return {
      asked: this.diagrams.and(this.diagrams.and(askIf, inDraw), answerable),
      askIf,
      shown: this.conditional(planItem, standing),
      ways: [...quotas, ...skips],
      checks,
      instances,
      planItem,
      pass,
    };
  }

  private encodeEnd(place: Place & { kind: 'end' }, at: number): Way[] {
    const section = this.plan.sections[place.section] as PlanSection;
    const outside = { section: place.section, pass: null };
    const { repeat, index } = section;
    if (repeat !== null && place.pass < repeat.max) {
      const more = this.encoder.passesAtLeast(repeat, index, place.pass + 1);
      return [
        { when: this.used(more, 2 * at), by: null, to: this.layout.pass(index, place.pass + 1) },
        // Past all passes that could have been, so that what follows knows they were not begun.
        { when: TRUE, by: null, to: this.layout.end(index, repeat.max) },
      ];
    }
    const ways = section.onward.map((skip) => this.way(skip, 'onward', place, outside, 2 * at));
    return [...ways, { when: TRUE, by: null, to: this.layout.gate(index + 1) }];
  }

  private way(
    { index, if: condition, to }: PlanSkip,
    list: 'skip' | 'onward',
    from: { readonly section: number; readonly pass: number },
    standing: Standing,
    moment: number,
  ): Way {
    return {
      when: condition === null ? TRUE : this.condition(condition, standing, moment),
      by: { list, index },
      to: this.layout.aim(to, from.section, from.pass),
    };
  }

  private condition(node: Condition, standing: Standing, moment: number): Diagram {
    if (this.scope.parts) {
      const parts =
        node.kind === 'and' || node.kind === 'or' ? node.parts : node.kind === 'not' ? [node.part] : [];
      for (const part of parts) this.condition(part, standing, moment);
      for (const variable of variablesIn(node, this.plan)) this.matters(variable, standing, moment);
    }
    return this.used(this.encoder.condition(node, standing), moment);
  }

  /** The diagram of a condition, or a part of one, that the questionnaire has at this place. */
  conditionAt(node: Condition, standing: Standing): Diagram {
    return this.encoder.condition(node, standing);
  }

  /** The key under which `instances` has a variable as it is seen from a place. */
  keyOf(variable: Variable, standing: Standing): string {
    return this.encoder.keyOf(variable, standing);
  }

  /** Of a variable as it is seen from a place: that it was asked for, and that it was then left blank. */
  statesOf(
    variable: Variable,
    standing: Standing,
  ): { readonly asked: Diagram; readonly blank: Diagram } | null {
    const instance = this.instances.get(this.keyOf(variable, standing));
    return instance === undefined
      ? null
      : {
          asked: instance.predicate(({ presented }) => presented, `${variable.name} asked`),
          blank: instance.predicate(
            ({ presented, value }) => presented && value === null,
            `${variable.name} unanswered`,
          ),
        };
  }

  /** Where parts matter: whether a variable was asked for and left blank can be told at a moment. */
  private matters(variable: Variable, standing: Standing, moment: number): void {
    const states = this.statesOf(variable, standing);
    if (states === null) return;
    this.used(states.asked, moment);
    this.used(states.blank, moment);
  }

  /** What pipes and derived values use, at the places where it shows. */
  private partsMatter(): void {
    this.layout.places.forEach((place, at) => {
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
  private answerable({ item, optionIf, rowIf }: PlanItem, standing: Standing): Diagram {
    if (item.kind === 'statement' || !('options' in item.answer)) return TRUE;
    const any = (conditions: readonly (Condition | null)[], counts: (index: number) => boolean) =>
      conditions.reduce(
        (some, condition, index) =>
          counts(index) ? this.diagrams.or(some, this.shown(condition, standing)) : some,
        FALSE,
      );
    const { answer } = item;
    const options = any(optionIf, (index) => answer.options[index]?.missing === undefined);
    return answer.type === 'grid'
      ? this.diagrams.and(
          options,
          any(rowIf, () => true),
        )
      : options;
  }

  private shown(condition: Condition | null, standing: Standing): Diagram {
    return condition === null ? TRUE : this.encoder.condition(condition, standing);
  }

  /** When each option (or special) of an item is shown. */
  optionsShown({ optionIf, section }: PlanItem, pass: number | null): Diagram[] {
    return optionIf.map((condition) => this.shown(condition, { section, pass }));
  }

  rowsShown({ rowIf, section }: PlanItem, pass: number | null): Diagram[] {
    return rowIf.map((condition) => this.shown(condition, { section, pass }));
  }

  private conditional({ optionIf, rowIf }: PlanItem, standing: Standing): Shown[] {
    const of = (kind: Shown['of'], conditions: readonly (Condition | null)[]) =>
      conditions.flatMap((condition, index): Shown[] =>
        condition === null ? [] : [{ of: kind, index, when: this.shown(condition, standing) }],
      );
    return [...of('option', optionIf), ...of('row', rowIf)];
  }

  private useShown({ optionIf, rowIf }: PlanItem, standing: Standing, moment: number): void {
    for (const condition of [...optionIf, ...rowIf])
      if (condition !== null) this.condition(condition, standing, moment);
  }

  private domain(
    { planItem, pass }: ItemTerrain,
    as: (shown: Diagram) => Diagram = (shown) => shown,
  ): Diagram {
    const { item } = planItem;
    if (item.kind === 'statement') return TRUE;
    const shown = this.optionsShown(planItem, pass).map(as);
    const rows = this.rowsShown(planItem, pass);
    let domain = TRUE;
    partsAtMost(planItem).forEach(({ name, answer }, row) => {
      const allowed = (value: Value | null) => whenAllowed(this.diagrams, item, answer, value, shown);
      const instance = this.instances.get(itemKey(name.toLowerCase(), pass));
      const asked = item.answer.type === 'grid' ? (rows[row] ?? TRUE) : TRUE;
      const answers =
        instance === undefined
          ? this.someAnswer(answer, allowed)
          : instance.picks === null
            ? instance.domain(allowed)
            : instance.picks.domain(limitsOf(answer, item.required === true), shown);
      domain = this.diagrams.and(domain, this.diagrams.choose(asked, answers, instance?.unasked ?? TRUE));
    });
    return domain;
  }

  /** Of a question that drives nothing: that there is a way to answer it, or to leave it. */
  private someAnswer(answer: Answer, allowed: (value: Value | null) => Diagram): Diagram {
    const blank = allowed(null);
    if (blank === TRUE) return TRUE;
    return candidatesFor(IDLE, answer).values.reduce<Diagram>(
      (some, value) => (some === TRUE ? some : this.diagrams.or(some, allowed(value))),
      blank,
    );
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

/** With more hidden options than this, each is minded by itself. */
const MOST_HIDDEN = 8;

const IDLE: Driver = {
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

/** Fewest and most picks, before they shrink to what is shown. */
function limitsOf(answer: Answer, required: boolean) {
  const multiple = answer.type === 'multiple' ? answer : null;
  const most = answer.type === 'rank' ? answer.top : multiple?.maxPicks;
  return { least: multiple?.minPicks ?? 0, most: most ?? Infinity, blank: !required };
}

/** The variables an item can ask for, all rows of a grid shown. */
export function partsAtMost({ item }: PlanItem): { name: string; answer: Answer }[] {
  if (item.kind === 'statement') return [];
  if (item.answer.type !== 'grid') return [{ name: item.name, answer: item.answer }];
  const grid: GridAnswer = item.answer;
  return grid.rows.map(({ name }) => ({ name, answer: gridRowAnswer(grid) }));
}
