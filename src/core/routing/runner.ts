/**
 * Walks many respondents fast: everything about a questionnaire is worked out beforehand, and one respondent's walk
 * leaves nothing behind. Goes the ways of `walk.ts`, without its record of what was passed over and why.
 */
import {
  compileCalculation,
  compileTest,
  type CompileScope,
  type Meaning,
  type Memory,
  type CompiledTest,
} from '../condition/compile';
import { eachName, type Condition } from '../condition/syntax';
import { passKey } from '../document/addresses';
import { answeredNames, hasRows, picksMany } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Value } from '../document/types';
import { isRepeated, type Variable } from '../document/variables';
import { isBlank, normalValue, partsAtMost, type ShownParts } from './answers';
import type { Plan, PlanItem, PlanRepeat, PlanSection, PlanTarget } from './plan';

/** One variable that an item asks for. */
export interface RunnerPart {
  readonly name: string;
  readonly answer: Answer;
  readonly slot: number;
  /** Null where always shown. */
  readonly shown: CompiledTest | null;
  /** Codes of options or specials with `missing`. */
  readonly missing: ReadonlySet<number>;
  readonly isDated: boolean;
}

/** An item in a pass. */
export interface RunnerItem {
  readonly planItem: PlanItem;
  /** Null outside a repeated section. */
  readonly pass: number | null;
  readonly key: string;
  readonly parts: readonly RunnerPart[];
  readonly askIf: CompiledTest | null;
  /** Presented to everybody who comes to it. */
  readonly isPlain: boolean;
  /** It has quotas or skips. */
  readonly leads: boolean;
  /** Of a question that has to be drawn: its draw key. */
  readonly drawKey: string | null;
  readonly options: readonly (CompiledTest | null)[];
  readonly hasConditionalOptions: boolean;
  readonly required: boolean;
  readonly hardChecks: readonly CompiledTest[];
  readonly quotas: readonly { readonly id: string; readonly when: CompiledTest; readonly to: PlanTarget }[];
  readonly skips: readonly { readonly when: CompiledTest | null; readonly to: PlanTarget }[];
}

interface RunnerSection {
  readonly gate: CompiledTest | null;
  readonly repeat: ((memory: Memory) => number) | null;
  /** By pass, from 0. */
  readonly passes: readonly (readonly RunnerItem[])[];
  readonly onward: readonly { readonly when: CompiledTest | null; readonly to: PlanTarget }[];
}

/** One respondent. */
export interface Respondent {
  /** Answers to an item that is presented; parallel to its parts, null for blanks. */
  answer(item: RunnerItem, part: RunnerPart, index: number): Value | null;
  /** Whether a question is drawn. */
  isDrawn(item: RunnerItem): boolean;
  /** Whether a quota is full. */
  isFull?(quota: string): boolean;
  /** Told before an item is answered; again, with the number of times before, where a hard check holds, until false. */
  meets?(item: RunnerItem, shown: ShownParts, tries: number): boolean;
}

export class Runner {
  readonly memory: Memory;
  /** Items presented in the last run; only the first `count` of them. */
  readonly presented: RunnerItem[] = [];
  count = 0;
  /** Items left out by a draw in the last run; only the first `undrawnCount` of them. */
  readonly undrawn: RunnerItem[] = [];
  undrawnCount = 0;
  /** Lenient: items presented in the last run at which a hard check held. */
  readonly refused: RunnerItem[] = [];
  /** By key, `name` or `name#pass`. */
  readonly slots = new Map<string, number>();
  private readonly sections: readonly RunnerSection[];
  private readonly given: readonly {
    readonly slot: number;
    readonly answer: Answer;
    readonly missing: ReadonlySet<number>;
  }[];

  /** Lenient: walks on where a required answer is missing or a hard check holds. */
  constructor(
    readonly plan: Plan,
    private readonly lenient = false,
  ) {
    const given = plan.document.given ?? [];
    for (const { name } of given) this.slotOf(name.toLowerCase());
    for (const { items, repeat } of plan.sections) {
      for (const { item } of items) {
        if (item.kind !== 'question') continue;
        const names = answeredNames(item);
        for (const name of names)
          for (const pass of passesIn(repeat)) this.slotOf(passKey(name.toLowerCase(), pass));
      }
    }
    const { size } = this.slots;
    this.memory = {
      values: new Array<Value | null>(size).fill(null),
      missing: new Uint8Array(size),
      asked: new Uint8Array(size),
      begun: new Int32Array(plan.sections.length),
    };
    this.given = given.map(({ name, answer }) => ({
      slot: this.slotOf(name.toLowerCase()),
      answer,
      missing: missingCodes(answer),
    }));
    this.sections = plan.sections.map((section) => this.section(section));
  }

  /**
   * Walks one respondent; `given` is parallel to the document's given values. The index of the ending, or -1 where
   * they stop at a required question or a hard check.
   */
  run(respondent: Respondent, given: readonly (Value | null)[] = []): number {
    this.begin(given);
    const { memory } = this;
    let s = 0;
    let pass = 1;
    let i = 0;
    let entering = true;
    for (;;) {
      const section = this.sections[s];
      if (section === undefined) return this.plan.lastEnding;
      if (entering) {
        entering = false;
        const passes = section.gate !== null && !section.gate(memory) ? 0 : (section.repeat?.(memory) ?? 1);
        if (passes === 0) {
          s += 1;
          i = 0;
          entering = true;
          continue;
        }
        pass = 1;
        memory.begun[s] = 1;
      }
      const items = section.passes[pass - 1] as readonly RunnerItem[];
      let to: PlanTarget | null = null;
      while (i < items.length) {
        const item = items[i] as RunnerItem;
        i += 1;
        if (!item.isPlain && !this.isMet(item, respondent)) continue;
        if (!this.present(item, respondent)) return -1;
        if (!item.leads) continue;
        to = this.leads(item, respondent);
        if (to === null) continue;
        if (to.to !== 'item' || to.section !== s) break;
        i = to.item;
        to = null;
      }
      if (to === null || to.to === 'next-pass') {
        if (section.repeat !== null && pass < section.repeat(memory)) {
          pass += 1;
          memory.begun[s] = pass;
          i = 0;
          continue;
        }
        to = section.onward.find(({ when }) => when === null || when(memory))?.to ?? null;
      }
      if (to?.to === 'ending') return to.ending;
      i = to?.to === 'item' ? to.item : 0;
      s = to === null || to.to === 'next-pass' ? s + 1 : to.section;
      entering = true;
    }
  }

  private begin(given: readonly (Value | null)[]): void {
    const { memory } = this;
    memory.values.fill(null);
    memory.missing.fill(0);
    memory.asked.fill(0);
    memory.begun.fill(0);
    this.count = 0;
    this.undrawnCount = 0;
    this.refused.length = 0;
    this.given.forEach(({ slot, answer, missing }, n) =>
      this.remember(slot, given[n] ?? null, answer, missing),
    );
  }

  private isMet(item: RunnerItem, respondent: Respondent): boolean {
    const { memory } = this;
    if (item.drawKey !== null && !respondent.isDrawn(item)) {
      this.undrawn[this.undrawnCount] = item;
      this.undrawnCount += 1;
      return false;
    }
    if (item.askIf !== null && !item.askIf(memory)) return false;
    if (!item.hasConditionalOptions) return true;
    const { item: of } = item.planItem;
    if (of.kind !== 'question') return true;
    const some =
      'options' in of.answer
        ? of.answer.options.some((o, n) => o.missing === undefined && item.options[n]?.(memory) !== false)
        : true;
    return some && item.parts.some(({ shown }) => shown === null || shown(memory));
  }

  /** False where they cannot go on. */
  private present(item: RunnerItem, respondent: Respondent): boolean {
    const { memory } = this;
    this.presented[this.count] = item;
    this.count += 1;
    for (let tries = 0; ; tries += 1) {
      const again = respondent.meets !== undefined && respondent.meets(item, this.shownOf(item), tries);
      for (let n = 0; n < item.parts.length; n += 1) {
        const part = item.parts[n] as RunnerPart;
        if (part.shown !== null && !part.shown(memory)) continue;
        memory.asked[part.slot] = 1;
        const value = respondent.answer(item, part, n);
        if (item.required && !this.lenient && typeof value !== 'number' && isBlank(value)) return false;
        this.remember(part.slot, value, part.answer, part.missing, part.isDated);
      }
      if (item.hardChecks.length === 0) return true;
      if (!item.hardChecks.some((check) => check(memory))) return true;
      if (this.lenient) {
        this.refused.push(item);
        return true;
      }
      if (!again) return false;
    }
  }

  private leads(item: RunnerItem, respondent: Respondent): PlanTarget | null {
    const { memory } = this;
    for (let n = 0; n < item.quotas.length; n += 1) {
      const { id, when, to } = item.quotas[n] as RunnerItem['quotas'][number];
      if (respondent.isFull?.(id) && when(memory)) return to;
    }
    for (let n = 0; n < item.skips.length; n += 1) {
      const { when, to } = item.skips[n] as RunnerItem['skips'][number];
      if (when === null || when(memory)) return to;
    }
    return null;
  }

  /** What of an item is on show now. */
  shownOf(item: RunnerItem): ShownParts {
    if (!item.hasConditionalOptions) return this.allShown(item);
    const { memory } = this;
    return {
      options: item.options.map((when) => when === null || when(memory)),
      rows: item.parts.map(({ shown }) => shown === null || shown(memory)),
    };
  }

  private readonly shownWhole = new Map<PlanItem, ShownParts>();

  private allShown({ planItem, options, parts }: RunnerItem): ShownParts {
    let shown = this.shownWhole.get(planItem);
    if (shown === undefined) {
      shown = { options: options.map(() => true), rows: parts.map(() => true) };
      this.shownWhole.set(planItem, shown);
    }
    return shown;
  }

  private remember(
    slot: number,
    value: Value | null,
    answer: Answer,
    missing: ReadonlySet<number>,
    isDated = isDate(answer),
  ): void {
    const { memory } = this;
    if (typeof value === 'number' && !isDated) {
      memory.values[slot] = value;
      if (missing.size > 0) memory.missing[slot] = missing.has(value) ? 1 : 0;
      return;
    }
    if (value === null || isBlank(value)) {
      memory.values[slot] = null;
      memory.missing[slot] = 0;
      return;
    }
    memory.values[slot] = isDated ? normalValue(answer, value) : value;
    memory.missing[slot] = missing.size > 0 && isMissing(value, missing) ? 1 : 0;
  }

  private slotOf(key: string): number {
    let slot = this.slots.get(key);
    if (slot === undefined) {
      slot = this.slots.size;
      this.slots.set(key, slot);
    }
    return slot;
  }

  // Compiling

  private section(section: PlanSection): RunnerSection {
    const outside = this.scope(section.index, null);
    const test = (condition: Condition | null) =>
      condition === null ? null : compileTest(condition, outside);
    return {
      gate: test(section.gate),
      repeat: section.repeat === null ? null : this.passCount(section.repeat, section.index),
      passes: passesIn(section.repeat).map((pass) =>
        section.items.map((item) => this.item(section, item, pass)),
      ),
      onward: section.onward.map(({ if: when, to }) => ({ when: test(when), to })),
    };
  }

  private item(section: PlanSection, planItem: PlanItem, pass: number | null): RunnerItem {
    const { item } = planItem;
    const scope = this.scope(section.index, pass);
    const test = (condition: Condition | null) => (condition === null ? null : compileTest(condition, scope));
    const part = (name: string, answer: Answer, shown: Condition | null): RunnerPart => ({
      name,
      answer,
      slot: this.slotOf(passKey(name.toLowerCase(), pass)),
      shown: test(shown),
      missing: missingCodes(answer),
      isDated: isDate(answer),
    });
    const answer = item.kind === 'question' ? item.answer : null;
    const parts = partsAtMost(planItem).map(({ name, answer: own, row }) =>
      part(name, own, row === null ? null : (planItem.rowIf[row] ?? null)),
    );
    const drawn = section.section.draw !== undefined && item.kind === 'question';
    const hasConditionalOptions =
      [...planItem.optionIf, ...planItem.rowIf].some((when) => when !== null) ||
      (answer !== null && 'options' in answer && answer.options.every((o) => o.missing !== undefined));
    return {
      planItem,
      isPlain: !drawn && planItem.askIf === null && !hasConditionalOptions,
      leads: planItem.quotas.length + planItem.skips.length > 0,
      pass,
      key: passKey(item.name, pass),
      parts,
      askIf: test(planItem.askIf),
      drawKey: drawn ? passKey(section.section.id, pass) : null,
      options: planItem.optionIf.map(test),
      hasConditionalOptions,
      required: item.kind === 'question' && item.required === true,
      hardChecks: planItem.checks
        .filter(({ kind }) => kind === 'hard')
        .map((check) => compileTest(check.if, scope)),
      quotas: planItem.quotas.map(({ id, if: when, to }) => ({ id, when: compileTest(when, scope), to })),
      skips: planItem.skips.map(({ if: when, to }) => ({ when: test(when), to })),
    };
  }

  private passCount({ driver, kind, max }: PlanRepeat, section: number): (memory: Memory) => number {
    if (driver === null) return () => 0;
    if (kind === 'each') {
      const codes = this.codes(driver, max);
      return (memory) => codes(memory).length;
    }
    const value = compileCalculation(
      { kind: 'name', name: driver.name, span: { from: 0, to: 0 } },
      this.scope(section, null),
    );
    return (memory) => {
      const times = value(memory);
      return typeof times === 'number' ? Math.min(max, Math.max(0, Math.trunc(times))) : 0;
    };
  }

  /** The codes that have a pass. */
  private codes(driver: Variable, max: number): (memory: Memory) => readonly number[] {
    const slot = this.slots.get(driver.name.toLowerCase()) ?? -1;
    const answer =
      driver.of === 'question' ? driver.question.answer : driver.of === 'given' ? driver.given.answer : null;
    const codes = (picksMany(answer) ? answer.options : [])
      .filter((option) => !option.exclusive && option.missing === undefined)
      .map(({ code }) => code);
    return ({ values, missing }) => {
      const picks = values[slot];
      if (!Array.isArray(picks) || missing[slot] === 1) return [];
      return codes.filter((code) => (picks as readonly number[]).includes(code)).slice(0, max);
    };
  }

  private scope(section: number, pass: number | null): CompileScope {
    const { plan } = this;
    const repeat = plan.sections[section]?.repeat ?? null;
    const codes =
      pass !== null && repeat?.kind === 'each' && repeat.driver !== null
        ? this.codes(repeat.driver, repeat.max)
        : null;
    return {
      pass,
      each: codes === null ? () => null : (memory) => codes(memory)[(pass ?? 0) - 1] ?? null,
      meaning: (name) => this.meaning(name, section, pass),
      passes: (condition) => {
        const over = this.repeatedIn(condition, section, pass);
        return over === null
          ? null
          : {
              section: over,
              scopes: passesIn(plan.sections[over]?.repeat ?? null).map((p) => this.scope(over, p)),
            };
      },
    };
  }

  private repeatedIn(condition: Condition, section: number, pass: number | null): number | null {
    let found: number | null = null;
    eachName(condition, ({ name }) => {
      const variable = this.plan.variables.get(name.toLowerCase());
      if (variable?.of !== 'question' && variable?.of !== 'row') return;
      const home = this.plan.document.sections[variable.section];
      if (home && isRepeated(home) && !(variable.section === section && pass !== null))
        found ??= variable.section;
    });
    return found;
  }

  private meaning(name: string, section: number, pass: number | null): Meaning {
    const variable = this.plan.variables.get(name.toLowerCase());
    if (variable === undefined) return { of: 'nothing' };
    const key = (own: string, home: number) => passKey(own.toLowerCase(), home === section ? pass : null);
    switch (variable.of) {
      case 'derived':
        return this.derived(variable.index, section);
      case 'given':
        return this.slot(name.toLowerCase());
      case 'row':
        return this.slot(key(variable.name, variable.section));
      case 'question': {
        const { answer } = variable.question;
        if (!hasRows(answer)) return this.slot(key(variable.name, variable.section));
        const slots = answer.rows.flatMap((row) => this.slots.get(key(row.name, variable.section)) ?? []);
        return { of: 'rows', slots };
      }
      default:
        return variable satisfies never;
    }
  }

  private slot(key: string): Meaning {
    const slot = this.slots.get(key);
    return slot === undefined ? { of: 'nothing' } : { of: 'slot', slot };
  }

  /** Worked out as from outside: a derived variable holds one value, not one for each pass. */
  private derived(index: number, section: number): Meaning {
    const derived = this.plan.derived[index];
    const outside = this.scope(section, null);
    if (derived?.cases) {
      const cases = derived.cases.map((entry) => ({
        when: compileTest(entry.if, outside),
        code: entry.code,
      }));
      const otherwise = ('else' in derived.derived ? derived.derived.else?.code : undefined) ?? null;
      return { of: 'derived', value: (memory) => cases.find(({ when }) => when(memory))?.code ?? otherwise };
    }
    if (!derived?.value) return { of: 'nothing' };
    const value = compileCalculation(derived.value, outside);
    return {
      of: 'derived',
      value: (memory) => {
        const result = value(memory);
        return typeof result === 'number' ? result : null;
      },
    };
  }

  /** The value of a derived variable once the walk is over. */
  derivedValue(index: number): (memory: Memory) => number | null {
    const meaning = this.derived(index, 0);
    if (meaning.of !== 'derived') return () => null;
    return (memory) => {
      const value = meaning.value(memory);
      return typeof value === 'number' ? value : null;
    };
  }
}

function passesIn(repeat: PlanRepeat | null): (number | null)[] {
  return repeat === null ? [null] : Array.from({ length: repeat.max }, (_, n) => n + 1);
}

function missingCodes(answer: Answer): ReadonlySet<number> {
  return new Set(optionsOf(answer).flatMap(({ code, missing }) => (missing === undefined ? [] : [code])));
}

function isMissing(value: Value, codes: ReadonlySet<number>): boolean {
  if (typeof value === 'number') return codes.has(value);
  return typeof value === 'object' && value.some((code) => codes.has(code));
}

function isDate({ type }: Answer): boolean {
  return type === 'date' || type === 'time' || type === 'datetime';
}
