/**
 * Walks many respondents fast: everything about a questionnaire is worked out beforehand, and one respondent's walk
 * leaves nothing behind. Goes the ways of `walk.ts`, without its record of what was passed over and why.
 */
import { ASKED, bitOf, GIVEN, UNSEEN, type Memory, type Picks } from '../condition/memory';
import { HOLDS, type Entry } from '../condition/test-code';
import type { Value } from '../document/types';
import { isBlank, normalValue, type ShownParts } from './answers';
import { ITEM, ITEM_WIDTH, LEADS, RARE, REQUIRED, type ItemTable } from './item-table';
import type { Plan, PlanTarget } from './plan';
import { RunnerProgram, type RunnerItem, type RunnerPart, type RunnerSlot } from './runner-program';

/** One respondent, whose answers are put into slots before they are needed. */
export interface Respondent {
  /** Whether a question is drawn. */
  isDrawn(item: RunnerItem): boolean;
  /** Whether a quota is full. */
  isFull?(quota: string): boolean;
  /**
   * Told before an item is answered, to put its answers; again, with the number of times before, where a hard check
   * holds, until false.
   */
  meets?(item: RunnerItem, shown: ShownParts, tries: number): boolean;
  /** Told what is on show of an item with options or rows that not everybody sees, as it is presented. */
  shows?(item: RunnerItem, shown: ShownParts): void;
}

/** One for a plan, walked by one respondent after the other. */
export class Runner {
  readonly memory: Memory;
  /** Items presented in the last run, by their index in the program; only the first `count` of them. */
  readonly presented: Int32Array;
  count = 0;
  /** Items left out by a draw in the last run; only the first `undrawnCount` of them. */
  readonly undrawn: RunnerItem[] = [];
  undrawnCount = 0;
  /** Lenient: items presented in the last run at which a hard check held. */
  readonly refused: RunnerItem[] = [];
  private readonly program: RunnerProgram;
  /** By slot: codes of options or specials with `missing`; null where there are none. */
  private readonly missing: readonly (readonly number[] | null)[];

  /** `HOLDS` or a test of the program, on what is known. */
  private readonly holds = (entry: Entry): boolean =>
    entry === HOLDS || this.program.tests.holds(entry, this.memory);

  /** Lenient: walks on where a required answer is missing or a hard check holds. */
  constructor(
    readonly plan: Plan,
    private readonly lenient = false,
  ) {
    this.program = new RunnerProgram(plan);
    this.memory = this.program.newMemory();
    this.missing = this.program.held.map(({ missing }) => (missing.length === 0 ? null : missing));
    // An item can be presented once in each of its passes.
    this.presented = new Int32Array(this.program.items.length);
  }

  /** The items presented in the last run, in order. */
  itemsPresented(): RunnerItem[] {
    const items: RunnerItem[] = [];
    for (let n = 0; n < this.count; n += 1) items.push(this.items[this.presented[n] as number] as RunnerItem);
    return items;
  }

  /** In every pass; `presented` counts them. */
  get items(): readonly RunnerItem[] {
    return this.program.items;
  }

  /** How what is picked in a slot is held; null where it is no list. */
  picksIn(slot: number): Picks | null {
    return this.program.held[slot]?.picks ?? null;
  }

  get table(): ItemTable {
    return this.program.table;
  }

  /** By key, `name` or `name#pass`, where the memory has its value. */
  get slots(): ReadonlyMap<string, number> {
    return this.program.slots;
  }

  /** Slots of the given values, in the document's order. */
  get given(): readonly number[] {
    return this.program.given;
  }

  /** No answers: before another respondent, of whom not every slot is put. */
  clear(): void {
    const { codes, numbers, picks } = this.memory;
    codes.fill(NaN);
    numbers.fill(NaN);
    picks.fill(0);
  }

  /** An answer for when it is asked for; null for a blank. Answers to what is not presented are never seen. */
  put(slot: number, value: Value | null): void {
    const { codes, numbers, values, texts } = this.memory;
    values[slot] = value;
    if (typeof value === 'number') {
      codes[slot] = value;
      numbers[slot] = this.missing[slot]?.includes(value) ? NaN : value;
      return;
    }
    const { answer, missing, picks } = this.program.held[slot] as RunnerSlot;
    if (value === null || isBlank(value)) {
      codes[slot] = NaN;
      numbers[slot] = NaN;
      if (picks !== null) this.putBits(picks, []);
    } else if (typeof value === 'string') {
      codes[slot] = Infinity;
      numbers[slot] = NaN;
      texts[slot] = String(normalValue(answer, value));
    } else {
      const isMissing = missing.length > 0 && value.some((code) => missing.includes(code));
      codes[slot] = value.length;
      numbers[slot] = isMissing ? NaN : value.length;
      if (picks !== null) this.putBits(picks, value);
    }
  }

  private putBits(list: Picks, picked: readonly number[]): void {
    const { picks } = this.memory;
    const { word, codes } = list;
    for (let at = word; at < word + Math.ceil(codes.length / 32); at += 1) picks[at] = 0;
    for (let n = 0; n < picked.length; n += 1) {
      const bit = bitOf(list, picked[n] as number);
      if (bit >= 0) picks[word + (bit >> 5)] = (picks[word + (bit >> 5)] as number) | (1 << (bit & 31));
    }
  }

  /** Whether a variable was asked for in the last run. */
  isAsked(slot: number): boolean {
    return this.memory.seen[slot] === ASKED;
  }

  /** The value of a derived variable once the walk is over. */
  derivedValue(index: number): (memory: Memory) => number | null {
    return this.program.derivedValue(index);
  }

  /**
   * Walks one respondent, whose given values have been put like answers. The index of the ending, or -1 where they
   * stop at a required question or a hard check.
   */
  run(respondent: Respondent): number {
    this.begin();
    const { memory, holds, lenient } = this;
    const { seen, codes } = memory;
    const { sections, tests, table, items } = this.program;
    const { rows } = table;
    // Whoever is told of every item is told of those too that everybody sees alike.
    const isTold = respondent.meets !== undefined;
    let s = 0;
    let pass = 1;
    let i = 0;
    let entering = true;
    for (;;) {
      const section = sections[s];
      if (section === undefined) return this.plan.lastEnding;
      if (entering) {
        entering = false;
        const passes = !holds(section.gate) ? 0 : (section.repeat?.(memory) ?? 1);
        if (passes === 0) {
          s += 1;
          i = 0;
          entering = true;
          continue;
        }
        pass = 1;
        memory.begun[s] = 1;
      }
      const first = section.passes[pass - 1] ?? 0;
      let to: PlanTarget | null = null;
      for (let at = first + i; at < first + section.count; at += 1) {
        const row = at * ITEM_WIDTH;
        const marks = rows[row + ITEM.marks] as number;
        if (isTold || (marks & RARE) !== 0) {
          const item = items[at] as RunnerItem;
          if (!this.isMet(item, respondent)) continue;
          this.noteAt(at);
          if (!this.present(item, respondent)) return -1;
        } else {
          const askIf = rows[row + ITEM.askIf] as number;
          if (askIf !== HOLDS && !tests.holds(askIf, memory)) continue;
          this.noteAt(at);
          const slot = rows[row + ITEM.slot] as number;
          if (slot >= 0) seen[slot] = ASKED;
          if ((marks & REQUIRED) !== 0 && !lenient && Number.isNaN(codes[slot])) return -1;
        }
        if ((marks & LEADS) === 0) continue;
        to = this.leads(items[at] as RunnerItem, respondent);
        if (to === null) continue;
        if (to.to !== 'item' || to.section !== s) break;
        at = first + to.item - 1;
        to = null;
      }
      if (to === null || to.to === 'next-pass') {
        if (section.repeat !== null && pass < section.repeat(memory)) {
          pass += 1;
          memory.begun[s] = pass;
          i = 0;
          continue;
        }
        to = section.onward.find(({ when }) => holds(when))?.to ?? null;
      }
      if (to?.to === 'ending') return to.ending;
      i = to?.to === 'item' ? to.item : 0;
      s = to === null || to.to === 'next-pass' ? s + 1 : to.section;
      entering = true;
    }
  }

  private noteAt(at: number): void {
    this.presented[this.count] = at;
    this.count += 1;
  }

  private begin(): void {
    const { seen, begun } = this.memory;
    seen.fill(UNSEEN);
    begun.fill(0);
    this.count = 0;
    this.undrawnCount = 0;
    this.refused.length = 0;
    for (const slot of this.program.given) seen[slot] = GIVEN;
  }

  private isMet(item: RunnerItem, respondent: Respondent): boolean {
    const { holds } = this;
    if (item.drawKey !== null && !respondent.isDrawn(item)) {
      this.undrawn[this.undrawnCount] = item;
      this.undrawnCount += 1;
      return false;
    }
    if (!holds(item.askIf)) return false;
    if (!item.hasConditionalOptions) return true;
    const { item: of } = item.planItem;
    if (of.kind !== 'question') return true;
    const some =
      'options' in of.answer
        ? of.answer.options.some((o, n) => o.missing === undefined && holds(item.options[n] ?? HOLDS))
        : true;
    return some && item.parts.some(({ shown }) => holds(shown));
  }

  /** False where they cannot go on. */
  private present(item: RunnerItem, respondent: Respondent): boolean {
    const { memory, holds } = this;
    if (item.hasConditionalOptions) respondent.shows?.(item, this.shownOf(item));
    for (let tries = 0; ; tries += 1) {
      const again = respondent.meets !== undefined && respondent.meets(item, this.shownOf(item), tries);
      for (let n = 0; n < item.parts.length; n += 1) {
        const part = item.parts[n] as RunnerPart;
        if (!holds(part.shown)) continue;
        memory.seen[part.slot] = ASKED;
        if (item.required && !this.lenient && Number.isNaN(memory.codes[part.slot])) return false;
      }
      if (item.hardChecks.length === 0) return true;
      if (!item.hardChecks.some(holds)) return true;
      if (this.lenient) {
        this.refused.push(item);
        return true;
      }
      if (!again) return false;
    }
  }

  private leads({ quotas, skips }: RunnerItem, respondent: Respondent): PlanTarget | null {
    for (const { id, when, to } of quotas) if (respondent.isFull?.(id) && this.holds(when)) return to;
    for (const { when, to } of skips) if (this.holds(when)) return to;
    return null;
  }

  /** Of the quotas at the items presented in the last run, those that the respondent counts towards. */
  quotasMet(): string[] {
    const met: string[] = [];
    for (let n = 0; n < this.count; n += 1)
      for (const { id, when } of (this.items[this.presented[n] as number] as RunnerItem).quotas)
        if (this.holds(when)) met.push(id);
    return met;
  }

  /** Which of the shares that are assumed of some counts now; null: those of the rest. */
  assumedOf({ assumedIf }: RunnerItem): number | null {
    const where = assumedIf.findIndex(this.holds);
    return where < 0 ? null : where;
  }

  /** What of an item is on show now. */
  shownOf(item: RunnerItem): ShownParts {
    if (!item.hasConditionalOptions) return item.allShown;
    const { holds } = this;
    return {
      options: item.options.map(holds),
      rows: item.parts.map(({ shown }) => holds(shown)),
    };
  }
}
