/**
 * The walk of one respondent through a plan: what is presented, in order, and where it ends.
 *
 * A pure function of the plan and the input. Answers to questions that are not presented are ignored.
 */
import { holds, type Environment, type Reading } from '../condition/evaluate';
import { passKey, readPassKey } from '../document/addresses';
import { answeredNames, hasRows, picksMany, picksOne } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answers, Given, Question, Value } from '../document/types';
import { isBlank, partsOf, refusal, type AskedVariable, type Refusal, type ShownParts } from './answers';
import { drawGiven, drawKey, drawQuestions, readDraws } from './draws';
import type { Plan, PlanItem, PlanSection, PlanSkip } from './plan';
import { PlanEnvironment, readingOf, type ReadingStore } from './readings';
import {
  arrive,
  depart,
  START,
  timeOut,
  type Arrival,
  type Departure,
  type PassedOver,
  type Surroundings,
} from './step';

export interface WalkInput {
  readonly answers: Answers;
  readonly given?: Answers;
  /** Names drawn, by section id (`id#pass` in a repeat). Sections left out draw by the seed. */
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  /** Ids of the quotas that are full. */
  readonly full?: readonly string[];
  /** The last item presented. */
  readonly stoppedAt?: string;
  /** Items (`name#pass` in a repeat) at which the time of their section ran out: the rest of it is not reached. */
  readonly timedOut?: readonly string[];
  /** For draws, and for given values with `random`; those are refused without one. */
  readonly seed?: number;
  /**
   * Walk on where a required answer is missing, an answer is not allowed or a hard check holds, taking it
   * for a blank: what a page shows before it is sent.
   */
  readonly lenient?: boolean;
  /**
   * Called when an item is presented, before its answers are read, to put them into `answers`; again where a hard
   * check holds, with the number of times it was called before, until it returns false.
   */
  readonly respond?: (planItem: PlanItem, pass: number | null, shown: ShownParts, tries: number) => boolean;
}

/** An item presented. */
export interface WalkStep extends Arrival {
  /** `name`, or `name#pass`. */
  readonly key: string;
  /** What it asks for: nothing for a statement, one part for most questions, the shown rows of a grid. */
  readonly parts: readonly AskedVariable[];
  /** How the walk went on; null where it stopped here. */
  readonly departure: Departure | null;
  readonly faults: readonly Fault[];
}

/** Why a respondent cannot go on from an item, or is asked to confirm. */
export type Fault =
  | { readonly kind: 'required'; readonly part: string; readonly message: string }
  | {
      readonly kind: 'not-allowed';
      readonly part: string;
      readonly message: string;
      readonly refusal: Refusal;
    }
  | { readonly kind: 'hard' | 'soft'; readonly part: string; readonly message: string }
  /** An answer asks to be specified, and is not: pages do not go on, though the walk does. `part`: the text's name. */
  | { readonly kind: 'unspecified'; readonly part: string; readonly message: string };

export interface PassedOverRecord {
  readonly section: number;
  readonly pass: number | null;
  /** Null: the whole section. */
  readonly item: number | null;
  readonly why: PassedOver;
  /** How many items had been presented by then. */
  readonly after: number;
}

/** A section left past its last item. */
export interface LeftRecord {
  readonly section: number;
  /** What led on from there; null: nothing, so the next section. */
  readonly onward: PlanSkip | null;
  /** How many items had been presented by then. */
  readonly after: number;
}

export interface Walk {
  readonly steps: readonly WalkStep[];
  /** Index among the endings; null where the walk stopped part-way. */
  readonly ending: number | null;
  /** Why it stopped, where it did. */
  readonly stop: 'asked-to' | 'fault' | null;
  readonly passedOver: readonly PassedOverRecord[];
  readonly left: readonly LeftRecord[];
  readonly readings: ReadonlyMap<string, Reading>;
  /** Passes begun, by section index. */
  readonly passes: ReadonlyMap<number, number>;
  /** Drawn plan items by draw key. */
  readonly drawn: ReadonlyMap<string, ReadonlySet<number>>;
  readonly given: Answers;
  /** What conditions see once the walk is over. */
  environment(section: number, pass: number | null): Environment;
}

export type WalkResult =
  { readonly ok: true; readonly walk: Walk } | { readonly ok: false; readonly problem: string };

/** Walks; refuses input that names what is not there, or lacks a given value. */
export function walk(plan: Plan, input: WalkInput): WalkResult {
  const given = readGiven(plan, input);
  if (!given.ok) return given;
  const draws = readDraws(plan, input.draws ?? {});
  if (!draws.ok) return draws;
  const problem = unknownQuota(plan, input.full ?? []) ?? unknownStop(plan, input.stoppedAt);
  if (problem !== null) return { ok: false, problem };
  return { ok: true, walk: new RespondentWalk(plan, input, given.values, draws.drawn).run() };
}

const namesOf = new WeakMap<Plan, ReadonlySet<string>>();

/** The names answers may be given under (without `#pass`): variables, specify texts and remarks. */
export function answerNames(plan: Plan): ReadonlySet<string> {
  const known = namesOf.get(plan);
  if (known !== undefined) return known;
  const names = new Set<string>();
  namesOf.set(plan, names);
  for (const { items } of plan.sections) {
    for (const { item } of items) {
      if (item.kind === 'statement') continue;
      const { answer } = item;
      if (item.comment !== undefined) names.add(`${item.name}_comment`);
      const variables = answeredNames(item);
      for (const variable of variables) {
        names.add(variable);
        for (const option of optionsOf(answer))
          if (option.specify) names.add(`${variable}_${option.code}_text`);
      }
    }
  }
  return names;
}

class RespondentWalk implements Surroundings, ReadingStore {
  private readonly readings = new Map<string, Reading>();
  private readonly passes = new Map<number, number>();
  private readonly drawnHere = new Map<string, ReadonlySet<number>>();
  private readonly steps: WalkStep[] = [];
  private readonly records: PassedOverRecord[] = [];
  private readonly lefts: LeftRecord[] = [];

  constructor(
    private readonly plan: Plan,
    private readonly input: WalkInput,
    private readonly given: Answers,
    private readonly named: ReadonlyMap<string, ReadonlySet<number>>,
  ) {
    for (const entry of plan.document.given ?? []) {
      const reading = readingOf(entry.answer, given[entry.name]);
      this.readings.set(entry.name.toLowerCase(), { ...reading, presented: false });
    }
  }

  run(): Walk {
    let cursor = START;
    for (;;) {
      const arrival = arrive(this.plan, cursor, this);
      if ('ending' in arrival) return this.result(arrival.ending, null);
      const step = this.presentAndAnswer(arrival);
      const asked = step.key === this.input.stoppedAt;
      const stops = ({ kind }: Fault) => kind !== 'soft' && kind !== 'unspecified';
      const blocked = !this.input.lenient && step.faults.some(stops);
      if (asked || blocked) {
        this.steps.push({ ...step, departure: null });
        return this.result(null, blocked && !asked ? 'fault' : 'asked-to');
      }
      const { cursor: next, departure } = this.input.timedOut?.includes(step.key)
        ? timeOut(this.plan, arrival)
        : depart(this.plan, arrival, this, this.isFull);
      this.steps.push({ ...step, departure });
      cursor = next;
    }
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

  drawn(section: number, pass: number): ReadonlySet<number> {
    const of = this.plan.sections[section] as PlanSection;
    const key = drawKey(of, pass);
    const known =
      this.drawnHere.get(key) ?? this.named.get(key) ?? drawQuestions(of, pass, this.input.seed ?? 1);
    this.drawnHere.set(key, known);
    return known;
  }

  beginPass(section: number, pass: number): void {
    this.passes.set(section, pass);
  }

  passedOver(section: number, pass: number | null, item: number | null, why: PassedOver): void {
    this.records.push({ section, pass, item, why, after: this.steps.length });
  }

  leaveSection(section: number, onward: PlanSkip | null): void {
    this.lefts.push({ section, onward, after: this.steps.length });
  }

  private readonly isFull = (quota: string): boolean => this.input.full?.includes(quota) ?? false;

  private presentAndAnswer(arrival: Arrival): Omit<WalkStep, 'departure'> {
    const { respond } = this.input;
    let answered = respond?.(arrival.planItem, arrival.pass, arrival.shown, 0) ?? false;
    let step = this.present(arrival);
    for (let tries = 1; answered && step.faults.some(({ kind }) => kind === 'hard'); tries += 1) {
      answered = respond?.(arrival.planItem, arrival.pass, arrival.shown, tries) ?? false;
      step = this.present(arrival);
    }
    return step;
  }

  private present(arrival: Arrival): Omit<WalkStep, 'departure'> {
    const { planItem, pass, shown } = arrival;
    const { item } = planItem;
    const parts = partsOf(planItem, shown);
    const faults: Fault[] = [];
    if (item.kind === 'question') {
      for (const part of parts) {
        const value = this.input.answers[passKey(part.name, pass)] ?? null;
        const fault = this.partFault(planItem, arrival, part, value);
        if (fault !== null) faults.push(fault);
        else faults.push(...this.unspecified(item, part, pass, value));
        const usable = fault?.kind === 'not-allowed' ? null : value;
        this.readings.set(passKey(part.name.toLowerCase(), pass), readingOf(part.answer, usable));
      }
      if (hasRows(item.answer) && !planItem.namesakes.has(item.name)) this.readGrid(planItem, parts, pass);
      faults.push(...this.checkFaults(planItem, pass));
    }
    return { ...arrival, key: passKey(item.name, pass), parts, faults };
  }

  private partFault(
    planItem: PlanItem,
    arrival: Arrival,
    part: AskedVariable,
    value: Value | null,
  ): Fault | null {
    const { item } = planItem;
    if (item.kind !== 'question') return null;
    if (isBlank(value)) {
      const message = item.requiredMessage ?? 'Please answer this question.';
      return item.required ? { kind: 'required', part: part.name, message } : null;
    }
    const refused = refusal(item, part.answer, value as Value, arrival.shown);
    return refused === null
      ? null
      : { kind: 'not-allowed', part: part.name, message: refused.message, refusal: refused };
  }

  /** The texts that a required answer asks for and that are still empty. */
  private unspecified(
    item: Question,
    part: AskedVariable,
    pass: number | null,
    value: Value | null,
  ): Fault[] {
    // Only lists of options have a field to write in beside an option.
    const isListed = picksOne(part.answer) || picksMany(part.answer);
    if (item.required !== true || value === null || !isListed || hasRows(item.answer)) return [];
    const codes: readonly unknown[] = typeof value === 'object' ? value : [value];
    return optionsOf(part.answer)
      .filter(({ code, specify, specifyOptional }) => specify && !specifyOptional && codes.includes(code))
      .map(({ code, label }) => ({ name: `${part.name}_${code}_text`, label }))
      .filter(({ name }) => isEmpty(this.input.answers[passKey(name, pass)]))
      .map(({ name, label }) => ({
        kind: 'unspecified' as const,
        part: name,
        message: item.requiredMessage ?? `Please write what you mean by “${label}”.`,
      }));
  }

  /** A grid as a whole is answered where any of its rows is. */
  private readGrid({ item }: PlanItem, parts: readonly AskedVariable[], pass: number | null): void {
    const answered = parts.some(
      ({ name }) => this.readings.get(passKey(name.toLowerCase(), pass))?.value !== null,
    );
    this.readings.set(passKey(item.name.toLowerCase(), pass), {
      presented: true,
      value: answered ? [] : null,
      missing: false,
    });
  }

  private checkFaults({ item, section, checks }: PlanItem, pass: number | null): Fault[] {
    const environment = this.environment(section, pass);
    return checks
      .filter((check) => holds(check.if, environment))
      .map(({ kind, message }) => ({ kind, part: item.name, message }));
  }

  private result(ending: number | null, stop: Walk['stop']): Walk {
    return {
      steps: this.steps,
      ending,
      stop,
      passedOver: this.records,
      left: this.lefts,
      readings: this.readings,
      passes: this.passes,
      drawn: this.drawnHere,
      given: this.given,
      environment: (section, pass) => this.environment(section, pass),
    };
  }
}

const ALL_SHOWN = (given: Given) => ({
  options: optionsOf(given.answer).map(() => true),
  rows: [],
});

function readGiven(
  plan: Plan,
  input: WalkInput,
): { ok: true; values: Answers } | { ok: false; problem: string } {
  const known = plan.document.given ?? [];
  const values: Record<string, Value | null> = {};
  for (const name of Object.keys(input.given ?? {})) {
    if (!known.some((given) => given.name === name)) {
      return { ok: false, problem: `given.${name}: the questionnaire has no given value of that name` };
    }
  }
  for (const given of known) {
    let value = input.given?.[given.name] ?? null;
    if (value === null && given.random && input.seed !== undefined) value = drawGiven(given, input.seed);
    if (value === null) {
      return {
        ok: false,
        problem: `given.${given.name}: this value is known before the start, so a walk needs it`,
      };
    }
    const refused = refusal(
      { kind: 'question', name: given.name, text: '', answer: given.answer },
      given.answer,
      value,
      ALL_SHOWN(given),
    );
    if (refused !== null) return { ok: false, problem: `given.${given.name}: ${refused.message}` };
    values[given.name] = value;
  }
  return { ok: true, values };
}

function unknownQuota(plan: Plan, full: readonly string[]): string | null {
  const unknown = full.find((id) => !plan.document.quotas?.some((quota) => quota.id === id));
  return unknown === undefined ? null : `full: there is no quota "${unknown}"`;
}

function unknownStop(plan: Plan, stoppedAt: string | undefined): string | null {
  if (stoppedAt === undefined) return null;
  const { name, pass } = readPassKey(stoppedAt);
  const section = plan.sections.find(({ items }) => items.some(({ item }) => item.name === name));
  if (section === undefined) return `stoppedAt: there is no item "${name}"`;
  const repeated = section.repeat !== null;
  if (repeated === (pass !== null)) return null;
  return `stoppedAt: write ${repeated ? `"${name}#pass", since its section repeats` : `"${name}" without a pass`}`;
}

/** Spaces alone specify nothing. */
function isEmpty(value: Value | null | undefined): boolean {
  return isBlank(typeof value === 'string' ? value.trim() : value);
}
