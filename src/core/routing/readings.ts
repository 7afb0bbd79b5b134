/** What is known at one moment of a walk, as conditions see it: readings by variable and pass. */
import { holds, UNASKED, valueOf, type Environment, type Reading } from '../condition/evaluate';
import { eachName, type Condition } from '../condition/syntax';
import { passKey } from '../document/addresses';
import { optionsOf } from '../document/shape';
import type { Answer, Value } from '../document/types';
import { isRepeated, type DerivedVariable } from '../document/variables';
import { isBlank, isMissingAnswer, normalValue } from './answers';
import type { Plan, PlanSection } from './plan';
import { passesOf } from './step';

/** The reading of a question that was presented and answered, or left blank. */
export function readingOf(answer: Answer, value: Value | null | undefined): Reading {
  if (value === null || value === undefined || isBlank(value))
    return { presented: true, value: null, missing: false };
  return {
    presented: true,
    value: normalValue(answer, value),
    missing: isMissingAnswer(optionsOf(answer), value),
  };
}

/** Readable store of readings; keys are lower-case names, with `#pass` in a repeated section. */
export interface ReadingStore {
  get(key: string): Reading | undefined;
  /** How many passes of a repeated section were begun. */
  passesBegun(section: number): number;
}

export class PlanEnvironment implements Environment {
  readonly each: number | null;

  constructor(
    private readonly plan: Plan,
    private readonly store: ReadingStore,
    private readonly section: number,
    readonly pass: number | null,
  ) {
    this.each = pass === null ? null : this.codeOfPass(pass);
  }

  read(name: string): Reading {
    const variable = this.plan.variables.get(name);
    if (variable === undefined) return UNASKED;
    if (variable.of === 'derived') return this.derived(variable);
    const own =
      this.pass !== null &&
      (variable.of === 'question' || variable.of === 'row') &&
      variable.section === this.section;
    return this.store.get(passKey(name, own ? this.pass : null)) ?? UNASKED;
  }

  *passesOver(condition: Condition): Iterable<Environment> {
    const section = this.repeatedSectionIn(condition);
    if (section === null) return;
    for (let pass = 1; pass <= this.store.passesBegun(section); pass += 1) {
      yield new PlanEnvironment(this.plan, this.store, section, pass);
    }
  }

  /** The repeated section whose passes a counted condition goes over; null where there is none. */
  repeatedSectionIn(condition: Condition): number | null {
    let found: number | null = null;
    eachName(condition, ({ name }) => {
      const variable = this.plan.variables.get(name.toLowerCase());
      if (variable?.of !== 'question' && variable?.of !== 'row') return;
      const section = this.plan.document.sections[variable.section];
      if (section && isRepeated(section) && !(variable.section === this.section && this.pass !== null)) {
        found ??= variable.section;
      }
    });
    return found;
  }

  private derived(variable: DerivedVariable): Reading {
    const derived = this.plan.derived[variable.index];
    // Worked out as from outside: a derived variable holds one value, not one for each pass.
    const outside =
      this.pass === null ? this : new PlanEnvironment(this.plan, this.store, this.section, null);
    let value: number | null = null;
    if (derived?.cases) {
      const hit = derived.cases.find((entry) => holds(entry.if, outside));
      const otherwise = 'else' in derived.derived ? derived.derived.else?.code : undefined;
      value = hit?.code ?? otherwise ?? null;
    } else if (derived?.value) {
      const result = valueOf(derived.value, outside);
      value = typeof result === 'number' ? result : null;
    }
    return { presented: false, value, missing: false };
  }

  private codeOfPass(pass: number): number | null {
    const { repeat } = this.plan.sections[this.section] as PlanSection;
    if (repeat?.kind !== 'each') return null;
    const outside = new PlanEnvironment(this.plan, this.store, this.section, null);
    return passesOf(repeat, outside).codes[pass - 1] ?? null;
  }
}
