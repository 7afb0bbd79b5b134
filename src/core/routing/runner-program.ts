/**
 * A plan made ready to be run by many respondents: conditions compiled to functions over slots of a memory, a slot for every
 * variable in every pass.
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
import { answeredNames, hasRows, isDated, picksMany } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Value } from '../document/types';
import { isRepeated, type Variable } from '../document/variables';
import { partsAtMost } from './answers';
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
  /** Of whom other answers are assumed, the first of these that holds. */
  readonly assumedIf: readonly CompiledTest[];
  readonly quotas: readonly { readonly id: string; readonly when: CompiledTest; readonly to: PlanTarget }[];
  readonly skips: readonly { readonly when: CompiledTest | null; readonly to: PlanTarget }[];
}

export interface RunnerSection {
  readonly gate: CompiledTest | null;
  readonly repeat: ((memory: Memory) => number) | null;
  /** By pass, from 0. */
  readonly passes: readonly (readonly RunnerItem[])[];
  readonly onward: readonly { readonly when: CompiledTest | null; readonly to: PlanTarget }[];
}

export interface RunnerGiven {
  readonly slot: number;
  readonly answer: Answer;
  readonly missing: ReadonlySet<number>;
}

export class RunnerProgram {
  /** By key, `name` or `name#pass`. */
  readonly slots = new Map<string, number>();
  readonly given: readonly RunnerGiven[];
  readonly sections: readonly RunnerSection[];

  constructor(readonly plan: Plan) {
    const given = plan.document.given ?? [];
    for (const { name } of given) this.slotOf(name.toLowerCase());
    for (const { items, repeat } of plan.sections) {
      for (const { item } of items) {
        if (item.kind !== 'question') continue;
        for (const name of answeredNames(item))
          for (const pass of passesIn(repeat)) this.slotOf(passKey(name.toLowerCase(), pass));
      }
    }
    this.given = given.map(({ name, answer }) => ({
      slot: this.slotOf(name.toLowerCase()),
      answer,
      missing: missingCodes(answer),
    }));
    this.sections = plan.sections.map((section) => this.section(section));
  }

  /** A memory in which nothing has been answered. */
  newMemory(): Memory {
    const { size } = this.slots;
    return {
      values: new Array<Value | null>(size).fill(null),
      missing: new Uint8Array(size),
      asked: new Uint8Array(size),
      begun: new Int32Array(this.plan.sections.length),
    };
  }

  private slotOf(key: string): number {
    let slot = this.slots.get(key);
    if (slot === undefined) {
      slot = this.slots.size;
      this.slots.set(key, slot);
    }
    return slot;
  }

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
      isDated: isDated(answer),
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
      assumedIf: planItem.assumedIf.map((condition) => compileTest(condition, scope)),
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
