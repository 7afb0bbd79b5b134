/**
 * Rows that have nothing wrong, judged at once: one walk by what the row says, and every column held against it. Of most
 * files these are nearly all rows. Whatever would be a problem, or would have to be tried, is left to the `Auditor`; of
 * the others it says the same.
 */
import { missingCode } from '../coding/row';
import { ASKED } from '../condition/memory';
import type { Value } from '../document/types';
import { refusal } from '../routing/answers';
import type { PlanSection } from '../routing/plan';
import type { RunnerItem } from '../routing/runner-program';
import { CELL, CellClasses } from './cell-classes';
import { cleanGroup, tableOf, type CleanGroup, type GroupTable } from './clean-groups';
import type { AuditLayout } from './layout';
import type { AuditOptions, CellWritten, RowJudgement } from './types';

/** A pass of a section that draws, and its questions. */
interface Draw {
  readonly wanted: number;
  readonly items: readonly number[];
}

const NOTHING: readonly number[] = [];

export class CleanRows {
  private readonly cells: CellClasses;
  private readonly groups: readonly CleanGroup[];
  private readonly table: GroupTable;
  /** By column: what is written where nobody was asked. */
  private readonly notApplicable: (CellWritten | undefined)[] = [];
  private readonly notDrawn: (CellWritten | undefined)[] = [];
  private readonly remarks: readonly { readonly index: number; readonly item: number }[];
  private readonly endingIds: readonly string[];
  private readonly endingColumn: number;
  private readonly draws = new Map<string, Draw>();
  /** By item: whether the row has anything of it but codes for those who were not asked. */
  private readonly touched: Uint8Array;
  /** Draw keys that the last walk met. */
  private readonly drawsMet = new Set<string>();
  /** Two questions of one name cannot be told apart by their columns. */
  private readonly areNamesUnique: boolean;

  constructor(
    private readonly layout: AuditLayout,
    private readonly options: AuditOptions,
  ) {
    const { plan, runner, rowRun, columns, groups } = layout;
    this.cells = new CellClasses(layout.readers);
    this.groups = groups.map((group) => cleanGroup(group, layout));
    this.table = tableOf(this.groups);
    for (const { unasked } of groups) {
      for (const cell of unasked.not_applicable) this.notApplicable[cell.column] = cell;
      for (const cell of unasked.not_drawn) this.notDrawn[cell.column] = cell;
    }
    this.remarks = layout.remarks.map(({ index, passKey }) => ({ index, item: rowRun.itemAt(passKey) }));
    this.endingIds = plan.endings.map(({ ending }) => ending.id);
    this.endingColumn = columns.length - 1;
    this.touched = new Uint8Array(runner.items.length);
    this.areNamesUnique =
      new Set(runner.items.map(({ key }) => key.toLowerCase())).size === runner.items.length &&
      new Set(groups.map(({ slot }) => slot)).size === groups.length &&
      groups.every(({ slot }) => slot >= 0);
    for (const item of runner.items) this.addToDraw(item);
  }

  private addToDraw({ drawKey, planItem, index }: RunnerItem): void {
    if (drawKey === null) return;
    const { section } = this.layout.plan.sections[planItem.section] as PlanSection;
    const known = this.draws.get(drawKey)?.items ?? [];
    this.draws.set(drawKey, { wanted: section.draw ?? 0, items: [...known, index] });
  }

  /** Null where a row has to be looked at more closely. `texts`: parallel to the columns. */
  judge(texts: readonly string[]): RowJudgement | null {
    const { cells, layout } = this;
    if (!this.areNamesUnique || !cells.read(texts, this.endingColumn)) return null;
    this.putAnswers();
    const ending = this.walk();
    if (layout.runner.refused.length > 0 || !this.areDrawsRight()) return null;
    const filled: CellWritten[] = [];
    if (!this.areGroupsClean(filled)) return null;
    for (const { index, item } of this.remarks)
      if (cells.classes[index] !== CELL.blank && layout.rowRun.presented[item] !== 1) return null;
    if (!this.followsFrom(ending, texts, filled)) return null;
    return { problems: [], filled, recoded: [], came: { to: 'ending', ending } };
  }

  /** Puts the answers for the walk, and notes of which items there are any. */
  private putAnswers(): void {
    const { table, touched } = this;
    const { runner } = this.layout;
    const { classes, numbers, texts } = this.cells;
    runner.clear();
    touched.fill(0);
    for (let g = 0; g < table.count; g += 1) {
      if (table.isList[g] === 1) {
        this.putList(this.groups[g] as CleanGroup);
        continue;
      }
      const column = table.columns[g] as number;
      const found = classes[column] as number;
      if (found === CELL.value) runner.put(table.slots[g] as number, numbers[column] as number);
      else if (found === CELL.text) runner.put(table.slots[g] as number, texts[column] as string);
      else if (!isTouched(found)) continue;
      const item = table.items[g] as number;
      if (item >= 0) touched[item] = 1;
    }
  }

  private putList(group: CleanGroup): void {
    const { columns, slot, item } = group;
    const { classes } = this.cells;
    const picked = this.pickedIn(group);
    for (let n = 0; n < columns.length; n += 1)
      if (item >= 0 && isTouched(classes[columns[n] as number] as number)) this.touched[item] = 1;
    if (picked.length > 0) this.layout.runner.put(slot, picked);
  }

  /** Codes of a list that the row has picked or placed. */
  private pickedIn({ kind, columns, codes }: CleanGroup): readonly number[] {
    const { classes, numbers } = this.cells;
    let picked: number[] | null = null;
    for (let n = 0; n < columns.length; n += 1) {
      const column = columns[n] as number;
      if (classes[column] !== CELL.value) continue;
      if (kind === 'picks') {
        if (numbers[column] === 1) (picked ??= []).push(codes[n] as number);
      } else (picked ??= []).push(numbers[column] as number);
    }
    return picked ?? NOTHING;
  }

  private walk(): number {
    const { touched, drawsMet } = this;
    if (drawsMet.size > 0) drawsMet.clear();
    return this.layout.rowRun.run({
      // Who answered as many as are drawn was drawn those; others are looked at more closely.
      isDrawn: ({ index, drawKey }) => {
        if (drawKey !== null) drawsMet.add(drawKey);
        return touched[index] === 1;
      },
      isFull: () => false,
    });
  }

  private areDrawsRight(): boolean {
    for (const key of this.drawsMet) {
      const draw = this.draws.get(key);
      if (draw?.items.filter((item) => this.touched[item] === 1).length !== draw?.wanted) return false;
    }
    return true;
  }

  private areGroupsClean(filled: CellWritten[]): boolean {
    const { table } = this;
    const { seen } = this.layout.runner.memory;
    const { undrawn } = this.layout.rowRun;
    const { classes } = this.cells;
    for (let g = 0; g < table.count; g += 1) {
      const item = table.items[g] as number;
      const isAsked = item < 0 || seen[table.slots[g] as number] === ASKED;
      if (table.isPlain[g] === 1) {
        const column = table.columns[g] as number;
        const found = classes[column] as number;
        if (isAsked) {
          if (found === CELL.value || found === CELL.text) continue;
        } else if (undrawn[item] !== 1) {
          if (found === CELL.notApplicable) continue;
          if (found !== CELL.blank) return false;
          filled.push(this.notApplicable[column] as CellWritten);
          continue;
        }
      }
      const group = this.groups[g] as CleanGroup;
      if (!(isAsked ? this.isAskedClean(group, filled) : this.isUnasked(group, filled))) return false;
    }
    return true;
  }

  private isAskedClean(group: CleanGroup, filled: CellWritten[]): boolean {
    const { columns, kind } = group;
    const isAnswered = this.isAlike(columns)
      ? this.isAlikeClean(group, filled)
      : kind === 'picks'
        ? this.arePicksClean(group, filled)
        : this.arePlacesClean(group);
    return isAnswered && (group.details.length === 0 || this.areDetailsClean(group));
  }

  /** Not asked: blank, or the code that says why. */
  private isUnasked({ columns, item, details }: CleanGroup, filled: CellWritten[]): boolean {
    const { classes } = this.cells;
    const isLeftOut = this.layout.rowRun.undrawn[item] === 1;
    const code = isLeftOut ? CELL.notDrawn : CELL.notApplicable;
    const written = isLeftOut ? this.notDrawn : this.notApplicable;
    for (let n = 0; n < columns.length; n += 1) {
      const column = columns[n] as number;
      const found = classes[column];
      if (found === code) continue;
      if (found !== CELL.blank) return false;
      const cell = written[column];
      if (cell !== undefined) filled.push(cell);
    }
    return details.every(({ index }) => classes[index] === CELL.blank);
  }

  /** Whether all columns hold the same, so that there is one answer, or one reason for none. */
  private isAlike(columns: Int32Array): boolean {
    if (columns.length === 1) return true;
    const { classes, numbers } = this.cells;
    const [first = 0] = columns;
    const found = classes[first];
    if (found === CELL.value) return false;
    for (let n = 1; n < columns.length; n += 1) {
      const column = columns[n] as number;
      if (classes[column] !== found || (found !== CELL.blank && numbers[column] !== numbers[first]))
        return false;
    }
    return true;
  }

  private isAlikeClean(group: CleanGroup, filled: CellWritten[]): boolean {
    const { required, question, answer, hasConditions } = group.group;
    const column = group.columns[0] as number;
    switch (this.cells.classes[column]) {
      case CELL.blank:
        // Of columns that the file lacks it is told once.
        if (!group.isAnyThere) return true;
        if (!this.options.codeBlanks || required) return false;
        filled.push(...group.noAnswer);
        return true;
      case CELL.noAnswer:
        return !required;
      case CELL.otherReason:
        return true;
      case CELL.value:
      case CELL.text: {
        if (group.kind === 'picks') return this.arePicksClean(group, filled);
        if (group.kind === 'places') return this.arePlacesClean(group);
        const shown = hasConditions ? this.layout.rowRun.shownAt(group.item) : null;
        const value = this.layout.runner.memory.values[group.slot] as Value;
        return shown === null || refusal(question, answer, value, shown) === null;
      }
      default:
        return false;
    }
  }

  private arePicksClean(group: CleanGroup, filled: CellWritten[]): boolean {
    const { classes, numbers } = this.cells;
    const { columns, limits, alone } = group;
    const { question, answer, missing } = group.group;
    const picked = this.pickedIn(group);
    if (picked.length === 0) return false;
    const carried = picked.length === 1 && missing.has(picked[0] as number) ? (picked[0] as number) : null;
    for (let n = 0; n < columns.length; n += 1) {
      const column = columns[n] as number;
      const number = numbers[column] as number;
      if (classes[column] === CELL.value) {
        if (number !== 0 && number !== 1 && number !== carried) return false;
      } else if (classes[column] !== CELL.blank) return false;
      else if (this.layout.isThere[column] !== true) continue;
      else if (carried !== null) filled.push({ column, value: carried });
      else if (this.options.blankPicks) filled.push({ column, value: 0 });
      else return false;
    }
    if (limits === null) {
      const shown = this.layout.rowRun.shownAt(group.item);
      return shown === null || refusal(question, answer, picked, shown) === null;
    }
    if (picked.some((code) => alone.has(code))) return picked.length === 1;
    return picked.length >= limits.least && picked.length <= limits.most;
  }

  /** Places from the first on, and after them the code for no answer. */
  private arePlacesClean(group: CleanGroup): boolean {
    const { classes } = this.cells;
    const { question, answer } = group.group;
    const picked = this.pickedIn(group);
    for (let n = 0; n < group.columns.length; n += 1) {
      const found = classes[group.columns[n] as number];
      if (found !== (n < picked.length ? CELL.value : CELL.noAnswer)) return false;
    }
    const shown = this.layout.rowRun.shownAt(group.item);
    return (
      new Set(picked).size === picked.length &&
      (shown === null || refusal(question, answer, picked, shown) === null)
    );
  }

  /** Words are there only beside an option that was picked. */
  private areDetailsClean(group: CleanGroup): boolean {
    const { classes, numbers } = this.cells;
    if (!group.isAnyThere) return true;
    const column = group.columns[0] as number;
    const one = group.kind === 'value' && classes[column] === CELL.value ? numbers[column] : null;
    const picked = group.kind === 'value' ? null : this.pickedIn(group);
    return group.details.every(
      ({ index, code }) => classes[index] === CELL.blank || code === one || picked?.includes(code) === true,
    );
  }

  /** Derived variables and the ending. */
  private followsFrom(ending: number, texts: readonly string[], filled: CellWritten[]): boolean {
    const { layout, cells } = this;
    const { classes, numbers } = cells;
    const first = this.endingColumn - layout.derivedValues.length;
    for (let n = 0; n < layout.derivedValues.length; n += 1) {
      const column = first + n;
      const value = layout.derivedValues[n]?.(layout.runner.memory) ?? null;
      const isAsked = value === null && layout.isFromAsked(n);
      if (classes[column] === CELL.blank)
        filled.push({
          column,
          value: value ?? missingCode(layout.plan.document, null, isAsked ? 'no_answer' : 'not_applicable'),
        });
      else if (value === null) {
        if (classes[column] !== (isAsked ? CELL.noAnswer : CELL.notApplicable)) return false;
      } else if (classes[column] !== CELL.value || numbers[column] !== value) return false;
    }
    const id = this.endingIds[ending] ?? '';
    const says = texts[this.endingColumn] ?? '';
    if (says !== '') return says === id;
    if (!this.isLastAnswered()) return false;
    filled.push({ column: this.endingColumn, value: id });
    return true;
  }

  /** Whether the row holds something of the last question presented: whoever stopped would have stopped there. */
  private isLastAnswered(): boolean {
    const { runner } = this.layout;
    for (let n = runner.count - 1; n >= 0; n -= 1) {
      const at = runner.presented[n] as number;
      if ((runner.items[at]?.parts.length ?? 0) > 0) return this.touched[at] === 1;
    }
    return false;
  }
}

function isTouched(found: number): boolean {
  return found === CELL.value || found === CELL.text || found === CELL.noAnswer || found === CELL.otherReason;
}
