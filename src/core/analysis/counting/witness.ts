/**
 * One respondent who takes a route.
 *
 * The route is gone along once with nothing forgotten. From its end backwards, values of the predicates are
 * chosen that fit every step; from its start forwards, each answer is one that has the chosen values.
 */
import type { Reading } from '../../condition/evaluate';
import { passKey } from '../../document/addresses';
import { hasRows } from '../../document/answer-types';
import { optionsOf } from '../../document/shape';
import type { Answer, Answers, Option, Value } from '../../document/types';
import { partsOf, refusal } from '../../routing/answers';
import { drawKey, questionIndices } from '../../routing/draws';
import type { PlanItem } from '../../routing/plan';
import { PlanEnvironment, readingOf, type ReadingStore } from '../../routing/readings';
import { shownOf } from '../../routing/step';
import type { AnswerSymbol } from '../answers/answer-symbol';
import { isOrdinary, type Picks } from '../answers/picks';
import { plausibleAnswer } from '../answers/plausible';
import type { EncodedPlan } from '../conditions/encoded-plan';
import type { Diagram, Diagrams } from '../diagrams/diagram';
import type { Beliefs, Emission } from './belief';
import type { Observation } from './observations';

export interface Witness {
  readonly answers: Answers;
  readonly draws?: Readonly<Record<string, readonly string[]>>;
  readonly given?: Answers;
  readonly full?: readonly string[];
}

/** Null where no respondent sees just this. */
export function witnessOf(beliefs: Beliefs, observations: readonly Observation[]): Witness | null {
  const { encoded } = beliefs;
  const emissions = emissionsAlong(beliefs, observations);
  if (emissions === null) return null;
  const steps = emissions.map(({ mass, observation }) => ({
    mass,
    // Of an item with many hidden options, which were hidden is forgotten in the masses that follow.
    answered:
      observation.planItem !== null && encoded.domainParts(observation.rank).length > 1
        ? observation.rank
        : null,
  }));
  const presented = observations.flatMap(({ planItem, pass }) =>
    planItem === null ? [] : [{ planItem, pass }],
  );
  if (steps.every(({ answered }) => answered === null))
    return respondentOf(
      encoded,
      steps.map(({ mass }) => mass),
      presented,
    );
  const values = new Map<number, boolean>();
  for (const { mass, answered } of [...steps].reverse()) {
    if (answered !== null) chooseAnswer(encoded, answered, mass, values);
    if (!chooseFor(encoded.diagrams, mass, values)) return null;
  }
  return answersBy(encoded, values, presented);
}

/** An answer to an item with many hidden options: one that fits the values chosen and what was true before it. */
function chooseAnswer(encoded: EncodedPlan, at: number, mass: Diagram, values: Map<number, boolean>): void {
  const { diagrams } = encoded;
  const parts = [...encoded.domainParts(at), encoded.itemAt(at).checks];
  for (const symbol of encoded.itemAt(at).symbols) {
    const fits = symbol.readings.findIndex((_, reading) => {
      if (reading === symbol.readings.length - 1) return false;
      const literals = symbol.literals(reading);
      if (literals.some(([level, value]) => (values.get(level) ?? value) !== value)) return false;
      const with_ = new Map([...values, ...literals]);
      const all = parts.reduce(
        (so, part) => diagrams.and(so, diagrams.restrict(part, with_)),
        diagrams.restrict(mass, with_),
      );
      const more = diagrams.satisfy(all);
      if (more === null) return false;
      for (const [level, value] of [...literals, ...more]) values.set(level, value);
      return true;
    });
    if (fits < 0) {
      // With many options only some sets of picks were tried, and none fits: a set is read off the diagram instead.
      const all = parts.reduce(
        (so, part) => diagrams.and(so, diagrams.restrict(part, values)),
        diagrams.restrict(mass, values),
      );
      for (const [level, value] of diagrams.satisfy(all) ?? []) values.set(level, value);
    }
  }
}

export interface Presented {
  readonly planItem: PlanItem;
  readonly pass: number | null;
}

/**
 * A respondent of whom every mass is true, each being what was true at a step before anything was forgotten; answers
 * what is presented. Null where there is none.
 */
export function respondentOf(
  encoded: EncodedPlan,
  masses: readonly Diagram[],
  presented: readonly Presented[],
): Witness | null {
  const values = valuesAlong(encoded.diagrams, masses);
  return values === null ? null : answersBy(encoded, values, presented);
}

function answersBy(
  encoded: EncodedPlan,
  values: Map<number, boolean>,
  presented: readonly Presented[],
): Witness | null {
  const given: Record<string, Value> = {};
  for (const entry of encoded.plan.document.given ?? []) {
    const { name, answer } = entry;
    const symbol = encoded.symbols.get(name.toLowerCase());
    const all = { options: optionsOf(answer).map(() => true), rows: [] };
    const question = { kind: 'question', name, text: '', answer } as const;
    const value =
      symbol === undefined
        ? plausibleAnswer(question, answer, all)
        : readingFor(symbol, values, (v) => v !== null && refusal(question, answer, v, all) === null);
    if (value === undefined) return null;
    if (value !== null) given[name] = value;
  }
  const full = [...encoded.fullLevel].filter(([, level]) => values.get(level) === true).map(([id]) => id);
  const draws = drawsOf(encoded, values);
  const answering = new Answering(encoded, values, given);
  if (!presented.every(({ planItem, pass }) => answering.answer(planItem, pass))) return null;
  return {
    answers: answering.answers,
    ...(Object.keys(draws).length > 0 ? { draws } : {}),
    ...(Object.keys(given).length > 0 ? { given } : {}),
    ...(full.length > 0 ? { full } : {}),
  };
}

function emissionsAlong(beliefs: Beliefs, observations: readonly Observation[]): Emission[] | null {
  return following(beliefs, observations, ({ observation }, { rank }) => observation.rank === rank);
}

/** What was true at each step of the route with these items (`name#pass` in a repeat); null where there is none. */
export function emissionsTo(
  beliefs: Beliefs,
  { items, ending }: { readonly items: readonly string[]; readonly ending: string },
): Emission[] | null {
  const { endings } = beliefs.encoded.plan;
  return following(beliefs, [...items, null], ({ observation: { planItem, pass, ending: e } }, key) =>
    planItem === null
      ? key === null && endings[e]?.ending.id === ending
      : key === passKey(planItem.item.name, pass),
  );
}

function following<Step>(
  beliefs: Beliefs,
  steps: readonly Step[],
  is: (emission: Emission, step: Step) => boolean,
): Emission[] | null {
  const along: Emission[] = [];
  let offered = beliefs.start();
  for (const step of steps) {
    const found = offered.find((emission) => is(emission, step));
    if (found === undefined) return null;
    if (found.observation.planItem !== null) offered = beliefs.after(beliefs.settle(found));
    along.push(found);
  }
  return along;
}

/**
 * Values of variables that make every mass true, the last one first; what is left out does not matter. Null where no
 * values do.
 */
export function valuesAlong(diagrams: Diagrams, masses: readonly Diagram[]): Map<number, boolean> | null {
  const values = new Map<number, boolean>();
  return [...masses].reverse().every((mass) => chooseFor(diagrams, mass, values)) ? values : null;
}

/** Chooses more values, so that one more mass is true; false where those chosen leave none, and they stay as they are. */
export function chooseFor(diagrams: Diagrams, mass: Diagram, values: Map<number, boolean>): boolean {
  const more = diagrams.satisfy(diagrams.restrict(mass, values));
  if (more === null) return false;
  for (const [level, value] of more) values.set(level, value);
  return true;
}

/** The first value whose reading has the chosen truths, which are then chosen too; undefined where none has. */
function readingFor(
  symbol: AnswerSymbol,
  values: Map<number, boolean>,
  allowed: (value: Value | null) => boolean,
): Value | null | undefined {
  if (symbol.picks !== null) return picksFor(symbol.picks, values, allowed);
  const index = symbol.values.findIndex(
    (value, reading) =>
      allowed(value) &&
      symbol.literals(reading).every(([level, truth]) => (values.get(level) ?? truth) === truth),
  );
  if (index < 0) return undefined;
  for (const [level, truth] of symbol.literals(index)) values.set(level, truth);
  return symbol.values[index] ?? null;
}

function picksFor(
  picks: Picks,
  values: Map<number, boolean>,
  allowed: (value: Value | null) => boolean,
): Value | null | undefined {
  const level = ({ code }: Option) => picks.levelOf(code);
  const chosen = picks.options.filter((option) => values.get(level(option)) === true);
  const free = picks.options.filter((option) => isOrdinary(option) && !values.has(level(option)));
  const blank = values.get(picks.blankLevel) !== false && chosen.length === 0 && allowed(null);
  // What does not matter is left alone, unless there would be too few picks.
  const codes = chosen.map(({ code }) => code);
  for (const option of free) {
    if (blank || (codes.length > 0 && allowed(codes))) break;
    codes.push(option.code);
  }
  const value = blank ? null : picks.options.map(({ code }) => code).filter((code) => codes.includes(code));
  if (!allowed(value)) return undefined;
  for (const option of picks.options) values.set(level(option), value?.includes(option.code) ?? false);
  return value;
}

function drawsOf({ plan, course, drawnLevel }: EncodedPlan, values: ReadonlyMap<number, boolean>) {
  const draws: Record<string, string[]> = {};
  for (const section of plan.sections) {
    if (section.section.draw === undefined) continue;
    for (let pass = 1; pass <= (section.repeat?.max ?? 1); pass += 1) {
      const drawn = questionIndices(section).filter(
        (item) => values.get(drawnLevel.get(course.item(section.index, pass, item)) as number) === true,
      );
      if (drawn.length !== section.section.draw) continue;
      draws[drawKey(section, pass)] = drawn.map((item) => section.items[item]?.item.name ?? '');
    }
  }
  return draws;
}

/** What the respondent has answered so far, as conditions read it. */
class Answering implements ReadingStore {
  readonly answers: Record<string, Value> = {};
  private readonly readings = new Map<string, Reading>();

  constructor(
    private readonly encoded: EncodedPlan,
    private readonly values: Map<number, boolean>,
    given: Answers,
  ) {
    for (const { name, answer } of encoded.plan.document.given ?? []) {
      this.readings.set(name.toLowerCase(), { ...readingOf(answer, given[name]), presented: false });
    }
  }

  get(key: string): Reading | undefined {
    return this.readings.get(key);
  }

  /** Pages do not go on from a required answer that is not specified. */
  private specify(name: string, answer: Answer, pass: number | null, value: Value | null): void {
    const codes: readonly unknown[] = typeof value === 'object' && value !== null ? value : [value];
    for (const { code, specify } of optionsOf(answer))
      if (specify && codes.includes(code))
        this.answers[passKey(`${name}_${code}_text`, pass)] = 'Something else';
  }

  passesBegun(section: number): number {
    const { course, begunLevel, plan } = this.encoded;
    let pass = 0;
    while (pass < (plan.sections[section]?.repeat?.max ?? 0)) {
      const level = begunLevel.get(course.pass(section, pass + 1));
      if (level === undefined || this.values.get(level) !== true) break;
      pass += 1;
    }
    return pass;
  }

  /** Blanks that steer stay blank; what does not steer is given a plausible answer. False where no answer fits. */
  answer(planItem: PlanItem, pass: number | null): boolean {
    const { item, section } = planItem;
    if (item.kind === 'statement') return true;
    const shown = shownOf(planItem, new PlanEnvironment(this.encoded.plan, this, section, pass));
    let answered = false;
    for (const { name, answer } of partsOf(planItem, shown)) {
      const key = passKey(name, pass);
      const symbol = this.encoded.symbols.get(key.toLowerCase());
      const allowed = (value: Value | null) =>
        value === null ? item.required !== true : refusal(item, answer, value, shown) === null;
      const value =
        symbol === undefined
          ? plausibleAnswer(item, answer, shown)
          : readingFor(symbol, this.values, allowed);
      if (value === undefined) return false;
      if (value !== null) this.answers[key] = value;
      this.specify(name, answer, pass, value);
      this.readings.set(key.toLowerCase(), readingOf(answer, value));
      answered ||= value !== null;
    }
    if (!hasRows(item.answer) || planItem.namesakes.has(item.name)) return true;
    const whole = passKey(item.name.toLowerCase(), pass);
    this.readings.set(whole, { presented: true, value: answered ? [] : null, missing: false });
    return true;
  }
}
