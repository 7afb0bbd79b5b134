/**
 * A plan made ready to be run by many respondents: conditions compiled to one code over slots of a memory, a slot for every
 * variable in every pass.
 */
import { compileCalculation, compileTest, type CompileScope, type Meaning } from '../condition/compile';
import { isMissingIn, newMemory, picksAt, valueIn, type Memory, type Picks } from '../condition/memory';
import { eachName, type Condition } from '../condition/syntax';
import { HOLDS, TestCode, type Entry } from '../condition/test-code';
import { passKey } from '../document/addresses';
import { hasRows, isNumeric, picksMany, picksOne, ranksOptions } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer } from '../document/types';
import { isRepeated, type Variable } from '../document/variables';
import { partsAtMost, type ShownParts } from './answers';
import { itemTable, type ItemTable } from './item-table';
import type { Plan, PlanItem, PlanRepeat, PlanSection, PlanTarget } from './plan';

/** One variable that an item asks for. */
export interface RunnerPart {
  readonly name: string;
  readonly answer: Answer;
  readonly slot: number;
  /** When it is on show, as an entry of the program's tests. */
  readonly shown: Entry;
}

/** What a slot holds. */
export interface RunnerSlot {
  readonly answer: Answer;
  /** Codes of options or specials with `missing`: few, so that looking through them is fast. */
  readonly missing: readonly number[];
  /** Of a list of which several can be picked. */
  readonly picks: Picks | null;
}

interface Lead {
  readonly when: Entry;
  readonly to: PlanTarget;
}

/** An item in a pass. Conditions are entries of the program's tests; `HOLDS` where there is none. */
export interface RunnerItem {
  /** Among the items of the program. */
  readonly index: number;
  readonly planItem: PlanItem;
  /** Null outside a repeated section. */
  readonly pass: number | null;
  readonly key: string;
  readonly parts: readonly RunnerPart[];
  readonly askIf: Entry;
  /** Of a question that has to be drawn: its draw key. */
  readonly drawKey: string | null;
  readonly options: readonly Entry[];
  readonly hasConditionalOptions: boolean;
  /** What is on show where everything is. */
  readonly allShown: ShownParts;
  readonly required: boolean;
  readonly hardChecks: readonly Entry[];
  /** Of whom other answers are assumed, the first of these that holds. */
  readonly assumedIf: readonly Entry[];
  readonly quotas: readonly (Lead & { readonly id: string })[];
  readonly skips: readonly Lead[];
}

export interface RunnerSection {
  readonly gate: Entry;
  readonly repeat: ((memory: Memory) => number) | null;
  /** By pass, from 0: index of the first item in `RunnerProgram.items`. */
  readonly passes: readonly number[];
  /** How many items a pass has. */
  readonly count: number;
  readonly onward: readonly Lead[];
}

export class RunnerProgram {
  /** By key, `name` or `name#pass`. */
  readonly slots = new Map<string, number>();
  /** By slot. */
  readonly held: RunnerSlot[] = [];
  /** Slots of the given values, in the document's order. */
  readonly given: readonly number[];
  readonly tests = new TestCode();
  readonly sections: readonly RunnerSection[];
  /** In every pass, one pass after the other. */
  readonly items: RunnerItem[] = [];
  readonly table: ItemTable;
  private words = 0;

  constructor(readonly plan: Plan) {
    const given = plan.document.given ?? [];
    this.given = given.map(({ name, answer }) => this.newSlot(name.toLowerCase(), answer));
    for (const { items, repeat } of plan.sections)
      for (const planItem of items)
        for (const { name, answer } of partsAtMost(planItem))
          for (const pass of passesIn(repeat)) this.newSlot(passKey(name.toLowerCase(), pass), answer);
    this.sections = plan.sections.map((section) => this.section(section));
    this.table = itemTable(this.items);
  }

  /** A memory in which nothing has been answered. */
  newMemory(): Memory {
    return newMemory(this.held.length, this.words, this.plan.sections.length);
  }

  /** Of two parts of one name, which a snag tells of, the first says what is held. */
  private newSlot(key: string, answer: Answer): number {
    const known = this.slots.get(key);
    if (known !== undefined) return known;
    const slot = this.held.length;
    this.slots.set(key, slot);
    this.held.push({ answer, missing: missingCodes(answer), picks: this.picksOf(answer) });
    return slot;
  }

  private picksOf(answer: Answer): Picks | null {
    if (!picksMany(answer) && !ranksOptions(answer)) return null;
    const word = this.words;
    const codes = optionsOf(answer).map(({ code }) => code);
    this.words += Math.ceil(codes.length / 32);
    return picksAt(word, codes);
  }

  private section(section: PlanSection): RunnerSection {
    const outside = this.scope(section.index, null);
    const test = (condition: Condition | null) =>
      condition === null ? HOLDS : compileTest(condition, outside);
    return {
      gate: test(section.gate),
      repeat: section.repeat === null ? null : this.passCount(section.repeat, section.index),
      passes: passesIn(section.repeat).map((pass) => {
        const first = this.items.length;
        for (const item of section.items) this.items.push(this.item(section, item, pass));
        return first;
      }),
      count: section.items.length,
      onward: section.onward.map(({ if: when, to }) => ({ when: test(when), to })),
    };
  }

  private item(section: PlanSection, planItem: PlanItem, pass: number | null): RunnerItem {
    const { item } = planItem;
    const scope = this.scope(section.index, pass);
    const test = (condition: Condition | null) =>
      condition === null ? HOLDS : compileTest(condition, scope);
    const part = (name: string, answer: Answer, shown: Condition | null): RunnerPart => ({
      name,
      answer,
      slot: this.slots.get(passKey(name.toLowerCase(), pass)) ?? -1,
      shown: test(shown),
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
      index: this.items.length,
      planItem,
      pass,
      key: passKey(item.name, pass),
      parts,
      askIf: test(planItem.askIf),
      drawKey: drawn ? passKey(section.section.id, pass) : null,
      options: planItem.optionIf.map(test),
      hasConditionalOptions,
      allShown: { options: planItem.optionIf.map(() => true), rows: parts.map(() => true) },
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
    return (memory) => {
      const picks = isMissingIn(memory, slot) ? null : valueIn(memory, slot);
      if (!Array.isArray(picks)) return [];
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
      tests: this.tests,
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
    if (slot === undefined) return { of: 'nothing' };
    const { answer, picks } = this.held[slot] as RunnerSlot;
    return { of: 'slot', slot, isNumeric: picksOne(answer) || isNumeric(answer), picks };
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
      const value = (memory: Memory) =>
        cases.find(({ when }) => this.tests.holds(when, memory))?.code ?? otherwise;
      return { of: 'derived', value };
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

function missingCodes(answer: Answer): readonly number[] {
  return optionsOf(answer).flatMap(({ code, missing }) => (missing === undefined ? [] : [code]));
}
