/**
 * Hidden states of a respondent who is about to be presented an item, and how answering leads on.
 *
 * A state keeps only what can still matter: readings of drivers read at or after its place, the number of
 * passes begun where it is counted later, and how many questions are still to be drawn. Two respondents in
 * equal states have the same future. Uses the stepping of `routing/step.ts`, so that a listed route means what
 * a walk means.
 */
import { holds, type Environment, type Reading } from '../condition/evaluate';
import type { Answer, Question, Value } from '../document/types';
import { isBlank, partsOf, refusal, type Part, type Shown } from '../routing/answers';
import { questionIndices } from '../routing/draws';
import { itemKey, type Plan, type PlanItem, type PlanSection } from '../routing/plan';
import { PlanEnvironment, readingOf, type ReadingStore } from '../routing/readings';
import { depart, move, shownOf, START, type Cursor, type Surroundings } from '../routing/step';
import { candidatesFor, type Candidates } from './candidates';
import { driversOf, signature, type Driver, type Drivers, type Limit } from './drivers';

/** What can be seen next: an item in a pass, or an ending. Compared by `rank`, which is canonical order. */
export interface Sight {
  readonly rank: number;
  readonly planItem: PlanItem | null;
  readonly pass: number | null;
  /** Index of the ending; -1 for an item. */
  readonly ending: number;
}

/** How a state came about, for witnesses. */
export interface History {
  readonly before: History | null;
  /** Null where the question was left blank. */
  readonly answers: Readonly<Record<string, Value | null>>;
  readonly given?: Readonly<Record<string, Value>>;
  readonly full?: string;
  /** Plan item drawn, with its draw's section and pass. */
  readonly drawn?: { readonly section: number; readonly pass: number; readonly item: number };
}

export interface State {
  readonly sight: Sight;
  readonly readings: ReadonlyMap<string, Reading>;
  readonly passes: ReadonlyMap<number, number>;
  /** Questions still to be drawn in the open pass of a section that draws. */
  readonly toDraw: number;
  /** Equal keys: equal futures. */
  readonly key: string;
  readonly history: History | null;
}

/** A state on its way from one place to the next. */
class Moving implements ReadingStore, Surroundings {
  readonly readings: Map<string, Reading>;
  readonly passes: Map<number, number>;
  toDraw: number;
  /** The question let through by the draw at this moment; others are passed over. */
  letThrough = -1;

  constructor(
    private readonly plan: Plan,
    from: { readings: ReadonlyMap<string, Reading>; passes: ReadonlyMap<number, number>; toDraw: number },
    public history: History | null,
  ) {
    this.readings = new Map(from.readings);
    this.passes = new Map(from.passes);
    this.toDraw = from.toDraw;
  }

  get(key: string): Reading | undefined {
    return this.readings.get(key);
  }

  passesBegun(section: number): number {
    return this.passes.get(section) ?? 0;
  }

  environment(section: number, pass: number | null): Environment {
    return new PlanEnvironment(this.plan, this, section, pass);
  }

  drawn(): ReadonlySet<number> {
    return new Set([this.letThrough]);
  }

  beginPass(section: number, pass: number): void {
    this.passes.set(section, pass);
    this.toDraw = this.plan.sections[section]?.section.draw ?? 0;
  }
}

export class Beliefs {
  readonly drivers: Drivers;
  readonly limits: Limit[] = [];
  private readonly candidates = new Map<string, Candidates>();
  private readonly sights = new Map<string, Sight>();
  private readonly ranks: number[] = [];
  private readonly endingRank: number;

  constructor(private readonly plan: Plan) {
    this.drivers = driversOf(plan);
    let rank = 0;
    for (const section of plan.sections) {
      this.ranks.push(rank);
      rank += section.items.length * (section.repeat?.max ?? 1);
    }
    this.endingRank = rank;
  }

  /** The states before the first item: one for each class of the given values. */
  start(): State[] {
    let beginnings = [new Moving(this.plan, { readings: new Map(), passes: new Map(), toDraw: 0 }, null)];
    for (const given of this.plan.document.given ?? []) {
      const driver = this.drivers.byKey.get(given.name.toLowerCase());
      const values =
        driver === undefined ? [null] : this.classes(driver, given.answer, (value) => value !== null);
      beginnings = beginnings.flatMap((from) =>
        values.map((value) => {
          if (driver === undefined || value === null) return from;
          const next = new Moving(this.plan, from, {
            before: from.history,
            answers: {},
            given: { [given.name]: value },
          });
          next.readings.set(driver.key, { ...readingOf(given.answer, value), presented: false });
          return next;
        }),
      );
    }
    return this.distinct(beginnings.flatMap((from) => this.settle(START, from)));
  }

  /** The states that follow when the item of `states` (all at one sight) has been presented and left. */
  after(states: readonly State[]): State[] {
    return this.distinct(states.flatMap((state) => this.answered(state)));
  }

  sightOf(section: number, pass: number | null, item: number): Sight {
    const key = `${section}/${pass}/${item}`;
    let sight = this.sights.get(key);
    if (sight === undefined) {
      const of = this.plan.sections[section] as PlanSection;
      const rank = (this.ranks[section] ?? 0) + ((pass ?? 1) - 1) * of.items.length + item;
      sight = { rank, planItem: of.items[item] as PlanItem, pass, ending: -1 };
      this.sights.set(key, sight);
    }
    return sight;
  }

  private endingSight(ending: number): Sight {
    return { rank: this.endingRank + ending, planItem: null, pass: null, ending };
  }

  private distinct(states: readonly State[]): State[] {
    const byKey = new Map<string, State>();
    for (const state of states) if (!byKey.has(state.key)) byKey.set(state.key, state);
    return [...byKey.values()];
  }

  /** Moves on silently to whatever is seen next; several states where a draw decides. */
  private settle(from: Cursor, moving: Moving): State[] {
    const found: State[] = [];
    const open: { cursor: Cursor; moving: Moving }[] = [{ cursor: from, moving }];
    for (let next = open.pop(); next !== undefined; next = open.pop()) {
      const { cursor, moving: at } = next;
      const choice = this.drawAt(cursor);
      if (choice !== null) {
        if (choice.left > at.toDraw) {
          const leave = new Moving(this.plan, at, at.history);
          open.push({ cursor: this.step(cursor, leave, -1) as Cursor, moving: leave });
        }
        if (at.toDraw === 0) continue;
        const drawn = { section: choice.section, pass: choice.pass, item: choice.item };
        const take = new Moving(this.plan, at, { before: at.history, answers: {}, drawn });
        take.toDraw -= 1;
        this.goOn(this.step(cursor, take, choice.item), take, open, found);
      } else {
        this.goOn(this.step(cursor, at, -1), at, open, found);
      }
    }
    return found;
  }

  private step(cursor: Cursor, moving: Moving, letThrough: number) {
    moving.letThrough = letThrough;
    return move(this.plan, cursor, moving);
  }

  private goOn(
    moved: ReturnType<typeof move>,
    moving: Moving,
    open: { cursor: Cursor; moving: Moving }[],
    found: State[],
  ): void {
    if ('at' in moved) open.push({ cursor: moved, moving });
    else if ('ending' in moved) found.push(this.state(this.endingSight(moved.ending), moving));
    else
      found.push(this.state(this.sightOf(moved.planItem.section, moved.pass, moved.planItem.index), moving));
  }

  /** Where a cursor stands before a question that may be drawn: how many are left, this one included. */
  private drawAt(cursor: Cursor): { section: number; pass: number; item: number; left: number } | null {
    if (cursor.at !== 'item') return null;
    const section = this.plan.sections[cursor.section] as PlanSection;
    if (section.section.draw === undefined || section.items[cursor.item]?.item.kind !== 'question')
      return null;
    const left = questionIndices(section).filter((index) => index >= cursor.item).length;
    return { section: cursor.section, pass: cursor.pass, item: cursor.item, left };
  }

  /** Forgets what no longer matters at `sight` and gives the rest a key. */
  private state(sight: Sight, moving: Moving): State {
    const { planItem } = sight;
    const section = planItem?.section ?? this.plan.sections.length;
    const here = planItem === null ? Infinity : this.drivers.orderOf(section, planItem.index);
    const readings = new Map<string, Reading>();
    const parts: string[] = [];
    for (const [key, reading] of moving.readings) {
      const [name = '', pass] = key.split('#');
      const driver = this.drivers.byKey.get(name);
      if (driver === undefined || !this.isLive(driver, pass, sight, here, section)) continue;
      readings.set(key, reading);
      parts.push(`${key}=${this.drivenKey(driver, reading)}`);
    }
    const passes = new Map<number, number>();
    for (const [repeated, begun] of moving.passes) {
      if ((this.drivers.countedSections.get(repeated) ?? -1) < here) continue;
      passes.set(repeated, begun);
      parts.push(`${repeated}:${begun}`);
    }
    const toDraw =
      planItem !== null && this.plan.sections[section]?.section.draw !== undefined ? moving.toDraw : 0;
    return {
      sight,
      readings,
      passes,
      toDraw,
      history: moving.history,
      key: `${sight.rank}|${toDraw}|${parts.sort().join(',')}`,
    };
  }

  private isLive(
    driver: Driver,
    pass: string | undefined,
    sight: Sight,
    here: number,
    section: number,
  ): boolean {
    if (driver.lastUse < here) return false;
    const { variable } = driver;
    if (pass === undefined || (variable.of !== 'question' && variable.of !== 'row')) return true;
    return driver.readAfterRepeat || (variable.section === section && Number(pass) === sight.pass);
  }

  private drivenKey(driver: Driver, reading: Reading): string {
    return reading.value === null ? `-${signature(driver, reading)}` : signature(driver, reading);
  }

  private answered(state: State): State[] {
    const { planItem, pass } = state.sight;
    if (planItem === null) return [];
    const base = new Moving(this.plan, state, state.history);
    const shown = shownOf(planItem, base.environment(planItem.section, pass));
    const found: State[] = [];
    for (const reply of this.replies(planItem, pass, shown)) {
      const moving = new Moving(this.plan, state, { before: state.history, answers: reply.answers });
      for (const [key, reading] of reply.readings) moving.readings.set(key, reading);
      const environment = moving.environment(planItem.section, pass);
      if (planItem.checks.some((check) => check.kind === 'hard' && holds(check.if, environment))) continue;
      for (const full of this.quotaOutcomes(planItem, environment)) {
        const next =
          full === null
            ? moving
            : new Moving(this.plan, moving, { before: moving.history, answers: {}, full });
        const { cursor } = depart(this.plan, { planItem, pass, shown }, next, (id) => id === full);
        found.push(...this.settle(cursor, next));
      }
    }
    return found;
  }

  /** No quota full, or each of those that could be the first full one. */
  private quotaOutcomes({ quotas }: PlanItem, environment: Environment): (string | null)[] {
    return [null, ...quotas.filter((quota) => holds(quota.if, environment)).map(({ id }) => id)];
  }

  /** Every class of answers to the item that is allowed as shown. */
  private replies(planItem: PlanItem, pass: number | null, shown: Shown): Reply[] {
    const { item } = planItem;
    let replies: Reply[] = [{ answers: {}, readings: [] }];
    if (item.kind === 'statement') return replies;
    for (const part of this.decidingParts(planItem, shown)) {
      const driver = this.drivers.byKey.get(part.name.toLowerCase());
      const legal = (value: Value | null) => isAllowed(item, part.answer, value, shown);
      const values =
        driver === undefined ? someAndNone(part.answer, legal) : this.classes(driver, part.answer, legal);
      const key = itemKey(part.name, pass);
      replies = replies.flatMap((reply) =>
        values.map((value) => ({
          answers: { ...reply.answers, [key]: value },
          readings: [...reply.readings, [key.toLowerCase(), readingOf(part.answer, value)] as const],
        })),
      );
    }
    if (item.answer.type !== 'grid' || !this.drivers.byKey.has(item.name.toLowerCase())) return replies;
    const whole = itemKey(item.name.toLowerCase(), pass);
    return replies.map((reply) => {
      const value = reply.readings.some(([, reading]) => reading.value !== null) ? [] : null;
      return {
        ...reply,
        readings: [...reply.readings, [whole, { presented: true, value, missing: false }] as const],
      };
    });
  }

  /** The variables whose answers steer; for a grid asked about as a whole, one other row stands for the rest. */
  private decidingParts(planItem: PlanItem, shown: Shown): Part[] {
    const parts = partsOf(planItem, shown);
    const steering = parts.filter(({ name }) => this.drivers.byKey.has(name.toLowerCase()));
    const { item } = planItem;
    if (item.kind !== 'question' || item.answer.type !== 'grid') return steering;
    if (!this.drivers.byKey.has(item.name.toLowerCase())) return steering;
    const other = parts.find((part) => !steering.includes(part));
    return other === undefined ? steering : [...steering, other];
  }

  /** One allowed value of every class of the driver, plausible ones first. */
  private classes(driver: Driver, answer: Answer, legal: (value: Value | null) => boolean): (Value | null)[] {
    let known = this.candidates.get(driver.key);
    if (known === undefined) {
      known = candidatesFor(driver, answer);
      this.candidates.set(driver.key, known);
      if (known.incomplete !== null) {
        const at =
          driver.variable.of === 'given' ? { given: driver.variable.name } : { item: itemName(driver) };
        this.limits.push({ at, message: known.incomplete });
      }
    }
    const bySignature = new Map<string, Value | null>();
    for (const value of known.values) {
      const reading = readingOf(answer, value);
      const of = driver.variable.of === 'given' ? { ...reading, presented: false } : reading;
      const key = this.drivenKey(driver, of);
      if (!bySignature.has(key) && legal(value)) bySignature.set(key, value);
    }
    return [...bySignature.values()];
  }
}

interface Reply {
  readonly answers: Readonly<Record<string, Value | null>>;
  readonly readings: readonly (readonly [string, Reading])[];
}

function itemName({ variable }: Driver): string {
  return variable.of === 'question' || variable.of === 'row' ? variable.question.name : variable.name;
}

function isAllowed(question: Question, answer: Answer, value: Value | null, shown: Shown): boolean {
  if (value === null || isBlank(value)) return question.required !== true;
  return refusal(question, answer, value, shown) === null;
}

/** For a grid row that no test reads: answered, or blank. */
function someAndNone(answer: Answer, legal: (value: Value | null) => boolean): (Value | null)[] {
  const options = 'options' in answer ? answer.options : [];
  const some = options.map(({ code }) => (answer.type === 'multiple' ? [code] : code)).find(legal);
  return [...(some === undefined ? [] : [some]), ...(legal(null) ? [null] : [])];
}
