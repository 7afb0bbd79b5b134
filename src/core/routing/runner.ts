/**
 * Walks many respondents fast: everything about a questionnaire is worked out beforehand, and one respondent's walk
 * leaves nothing behind. Goes the ways of `walk.ts`, without its record of what was passed over and why.
 */
import type { Memory } from '../condition/compile';
import { isDated } from '../document/answer-types';
import type { Answer, Value } from '../document/types';
import { isBlank, normalValue, type ShownParts } from './answers';
import type { Plan, PlanItem, PlanTarget } from './plan';
import { RunnerProgram, type RunnerItem, type RunnerPart } from './runner-program';

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

/** One for a plan, walked by one respondent after the other. */
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
  private readonly program: RunnerProgram;

  /** Lenient: walks on where a required answer is missing or a hard check holds. */
  constructor(
    readonly plan: Plan,
    private readonly lenient = false,
  ) {
    this.program = new RunnerProgram(plan);
    this.memory = this.program.newMemory();
  }

  /** By key, `name` or `name#pass`, where the memory has its value. */
  get slots(): ReadonlyMap<string, number> {
    return this.program.slots;
  }

  /** The value of a derived variable once the walk is over. */
  derivedValue(index: number): (memory: Memory) => number | null {
    return this.program.derivedValue(index);
  }

  /**
   * Walks one respondent; `given` is parallel to the document's given values. The index of the ending, or -1 where
   * they stop at a required question or a hard check.
   */
  run(respondent: Respondent, given: readonly (Value | null)[] = []): number {
    this.begin(given);
    const { memory } = this;
    const { sections } = this.program;
    let s = 0;
    let pass = 1;
    let i = 0;
    let entering = true;
    for (;;) {
      const section = sections[s];
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
    this.program.given.forEach(({ slot, answer, missing }, n) =>
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

  /** Which of the shares that are assumed of some counts now; null: those of the rest. */
  assumedOf({ assumedIf }: RunnerItem): number | null {
    const where = assumedIf.findIndex((test) => test(this.memory));
    return where < 0 ? null : where;
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
    dated = isDated(answer),
  ): void {
    const { memory } = this;
    if (typeof value === 'number' && !dated) {
      memory.values[slot] = value;
      if (missing.size > 0) memory.missing[slot] = missing.has(value) ? 1 : 0;
      return;
    }
    if (value === null || isBlank(value)) {
      memory.values[slot] = null;
      memory.missing[slot] = 0;
      return;
    }
    memory.values[slot] = dated ? normalValue(answer, value) : value;
    memory.missing[slot] = missing.size > 0 && isMissing(value, missing) ? 1 : 0;
  }
}

function isMissing(value: Value, codes: ReadonlySet<number>): boolean {
  if (typeof value === 'number') return codes.has(value);
  return typeof value === 'object' && value.some((code) => codes.has(code));
}
