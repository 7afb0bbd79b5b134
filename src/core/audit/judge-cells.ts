/** The cells of one row held against what the routing says of them. */
import type { Column } from '../coding/columns';
import { missingCode } from '../coding/row';
import { picksMany } from '../document/answer-types';
import type { MissingReason, Questionnaire } from '../document/types';
import { isUnasked, type Unasked } from '../document/vocabularies';
import { refusal } from '../routing/answers';
import type { Expected } from './expected';
import { answerOf, type ColumnGroup } from './groups';
import type { ProblemKind } from './problems';
import type { AuditLayout } from './layout';
import type { CellReading } from './readings';
import type { AuditOptions, CellWritten } from './types';

export interface CellProblem {
  readonly problem: ProblemKind;
  readonly column: number;
  /** Of the variable whose answer is not known because of it; null where the answer is known. */
  readonly unknown: ColumnGroup | null;
}

export interface Judged {
  readonly problems: CellProblem[];
  /** Variables that were asked and of which the file has no column. */
  readonly absent: ColumnGroup[];
  readonly filled: CellWritten[];
  readonly recoded: CellWritten[];
}

/** `unclear`: items whose draw cannot be told, of which blanks stay blank. */
export function judgeCells(
  layout: AuditLayout,
  readings: readonly CellReading[],
  expected: Expected,
  options: AuditOptions,
  unclear: ReadonlySet<string>,
): Judged {
  const judge = new CellJudge(layout.plan.document, layout.isThere, readings, expected, options, unclear);
  for (const group of layout.groups) judge.group(group);
  for (const { index, passKey } of layout.remarks) judge.text(index, expected.isPresented(passKey));
  for (const key of expected.refused) judge.refused(layout.groups, key);
  judge.followsFrom(layout.columns);
  return judge;
}

class CellJudge implements Judged {
  readonly problems: CellProblem[] = [];
  readonly absent: ColumnGroup[] = [];
  readonly filled: CellWritten[] = [];
  readonly recoded: CellWritten[] = [];

  constructor(
    private readonly document: Questionnaire,
    private readonly isThere: readonly boolean[],
    private readonly readings: readonly CellReading[],
    private readonly expected: Expected,
    private readonly options: AuditOptions,
    private readonly unclear: ReadonlySet<string>,
  ) {}

  group(group: ColumnGroup): void {
    const { expected } = this;
    if (!expected.isAsked(group)) {
      for (let n = 0; n < group.columns.length; n += 1) this.unasked(group, n);
      for (const { index } of group.details) this.text(index, false);
      return;
    }
    const before = this.problems.length;
    if (group.kind === 'value') this.one(group);
    else this.several(group);
    const { value } = group.details.length > 0 ? answerOf(group, this.readings) : { value: null };
    for (const { index, code } of group.details) {
      const picked = Array.isArray(value) ? value.includes(code) : value === code;
      this.text(index, picked || this.problems.length > before || this.absent.includes(group));
    }
  }

  /** `n`: of its columns. */
  private unasked(group: ColumnGroup, n: number): void {
    const index = group.columns[n]?.index ?? -1;
    const reading = this.readings[index] as CellReading;
    const reason: Unasked = this.expected.reasonOf(index);
    if (reading.kind === 'reason' && reading.reason === reason) return;
    if (reading.kind !== 'blank') this.problem('unexpected-answer', index);
    else if (this.unclear.size === 0 || !this.unclear.has(group.passKey)) {
      const cell = group.unasked[reason][n];
      if (cell !== undefined) this.filled.push(cell);
    }
  }

  private one(group: ColumnGroup): void {
    const index = group.columns[0]?.index ?? -1;
    const reading = this.readings[index] as CellReading;
    switch (reading.kind) {
      case 'blank':
      case 'reason':
        this.blank(group, [index], reading);
        return;
      case 'wrong':
        this.problem(reading.problem, index, group);
        return;
      case 'value': {
        const shown = group.hasConditions ? this.expected.shownOf(group.passKey) : null;
        const refused = shown === null ? null : refusal(group.question, group.answer, reading.value, shown);
        if (refused !== null) this.problem('unexpected-answer', index, group);
        else if (reading.recoded) this.recoded.push({ column: index, value: reading.value });
        return;
      }
      default:
        reading satisfies never;
    }
  }

  /** An asked variable all of whose columns are blank, or hold one missing code. */
  private blank(group: ColumnGroup, columns: readonly number[], reading: CellReading): void {
    const [first] = columns;
    if (first === undefined) return;
    if (reading.kind === 'blank') {
      if (!columns.some((index) => this.isThere[index])) {
        this.absent.push(group);
        return;
      }
      if (this.options.codeBlanks && !group.required)
        for (const column of columns) this.filled.push({ column, value: group.codeOf('no_answer') });
      else this.problem('missing-answer', first, group);
      return;
    }
    const reason = reading.kind === 'reason' ? reading.reason : '';
    if (isUnasked(reason)) this.problem('missing-answer', first, group);
    else if (reason === 'no_answer' && group.required && !this.stoppedAt(group))
      this.problem('missing-answer', first, group);
  }

  private stoppedAt({ passKey }: ColumnGroup): boolean {
    const { came } = this.expected;
    return came.to === 'stop' && came.at === passKey;
  }

  /** Picks or places: several columns for one answer. */
  private several(group: ColumnGroup): void {
    const { readings } = this;
    const indices = group.columns.map(({ index }) => index);
    const own = indices.map((index) => readings[index] as CellReading);
    const [first] = own;
    if (first === undefined) return;
    const alike = own.every(
      (r) =>
        r.kind === first.kind &&
        (r.kind !== 'reason' || first.kind !== 'reason' || r.reason === first.reason),
    );
    if (alike && (first.kind === 'blank' || first.kind === 'reason')) {
      this.blank(group, indices, first);
      return;
    }
    if (group.kind === 'picks') this.picks(group, own);
    else this.places(group, own);
  }

  private picks(group: ColumnGroup, own: readonly CellReading[]): void {
    const picked = group.columns.filter((_, n) => isValue(own[n], 1)).map(({ code }) => code);
    const carried = picked.length === 1 && group.missing.has(picked[0] ?? NaN) ? (picked[0] ?? null) : null;
    const before = this.problems.length;
    own.forEach((reading, n) => {
      const column = group.columns[n]?.index ?? -1;
      if (reading.kind === 'wrong') this.problem('unknown-code', column, group);
      else if (reading.kind === 'reason') this.problem('missing-answer', column, group);
      else if (reading.kind === 'value') {
        const { value, recoded } = reading;
        if (value !== 0 && value !== 1 && value !== carried)
          this.problem('contradictory-picks', column, group);
        else if (recoded) this.recoded.push({ column, value });
      } else if (!this.isThere[column]) return;
      else if (carried !== null) this.filled.push({ column, value: carried });
      else if (this.options.blankPicks && picked.length > 0) this.filled.push({ column, value: 0 });
      else this.problem('missing-answer', column, group);
    });
    if (this.problems.length > before) return;
    const [first] = group.columns;
    if (first === undefined) return;
    if (picked.length === 0) {
      this.problem('missing-answer', first.index, group);
      return;
    }
    const shown = this.expected.shownOf(group.passKey);
    const refused = shown === null ? null : refusal(group.question, group.answer, picked, shown);
    if (refused === null) return;
    if (refused.reason === 'picks') {
      const many = picksMany(group.answer) && picked.length > (group.answer.maxPicks ?? Infinity);
      this.problem(many ? 'too-many-picks' : 'too-few-picks', first.index, group);
      return;
    }
    const options = 'options' in group.answer ? group.answer.options : [];
    const hidden = (code: number) => shown?.options[options.findIndex((o) => o.code === code)] === false;
    const alone = (code: number) =>
      options.some((o) => o.code === code && (o.exclusive || o.missing !== undefined));
    const contradiction = refused.reason === 'contradiction';
    const at = picked.find(contradiction ? alone : hidden);
    const column = group.columns.find(({ code }) => code === at)?.index ?? first.index;
    this.problem(contradiction ? 'contradictory-picks' : 'unexpected-answer', column, group);
  }

  private places(group: ColumnGroup, own: readonly CellReading[]): void {
    const before = this.problems.length;
    const last = own.findLastIndex(({ kind }) => kind === 'value' || kind === 'wrong');
    const seen = new Set<unknown>();
    own.forEach((reading, n) => {
      const column = group.columns[n]?.index ?? -1;
      if (reading.kind === 'wrong') this.problem('unknown-code', column, group);
      else if (reading.kind === 'value') {
        if (seen.has(reading.value)) this.problem('contradictory-picks', column, group);
        else if (reading.recoded) this.recoded.push({ column, value: reading.value });
        seen.add(reading.value);
      } else if (n < last) this.problem('missing-answer', column, group);
      else if (reading.kind === 'reason') {
        if (reading.reason !== 'no_answer') this.problem('missing-answer', column, group);
      } else if (!this.isThere[column]) return;
      else if (this.options.codeBlanks) this.filled.push({ column, value: group.codeOf('no_answer') });
      else this.problem('missing-answer', column);
    });
    if (this.problems.length > before) return;
    const shown = this.expected.shownOf(group.passKey);
    const value = answerOf(group, this.readings).value;
    const refused =
      shown === null || value === null ? null : refusal(group.question, group.answer, value, shown);
    if (refused === null) return;
    const kind = refused.reason === 'contradiction' ? 'contradictory-picks' : 'unexpected-answer';
    this.problem(kind, group.columns[0]?.index ?? -1, group);
  }

  /** A text that is there only where its option was picked, or its item presented. */
  text(index: number, open: boolean): void {
    const reading = this.readings[index];
    if (!open && reading !== undefined && reading.kind !== 'blank') this.problem('unexpected-answer', index);
  }

  /** A hard check holds, so that nobody could have gone on with these answers. */
  refused(groups: readonly ColumnGroup[], key: string): void {
    const own = groups.filter(({ passKey }) => passKey === key);
    const columns = new Set(own.flatMap((group) => group.columns.map(({ index }) => index)));
    if (this.problems.some(({ column }) => columns.has(column))) return;
    const [first] = columns;
    if (first !== undefined) this.problem('out-of-limits', first);
  }

  /** Derived variables and the ending, which follow from the rest. */
  followsFrom(columns: readonly Column[]): void {
    const { readings } = this;
    const known = !this.problems.some(({ unknown }) => unknown !== null);
    columns.forEach((column, index) => {
      const reading = readings[index] as CellReading;
      if (column.kind === 'derived') {
        if (!known) return;
        const derived = this.expected.derived(column.index, index);
        const cell = typeof derived === 'number' ? derived : missingCode(this.document, null, derived);
        if (reading.kind === 'blank') this.filled.push({ column: index, value: cell });
        else if (reading.kind === 'value' && reading.value === derived) {
          if (reading.recoded) this.recoded.push({ column: index, value: cell });
        } else if (reading.kind !== 'reason' || reading.reason !== derived)
          this.problem('unexpected-answer', index);
      } else if (column.kind === 'ending') this.ending(index, reading);
    });
  }

  private ending(index: number, reading: CellReading): void {
    const { came } = this.expected;
    const id = came.to === 'stop' ? null : (this.document.endings[came.ending]?.id ?? null);
    if (reading.kind === 'blank') {
      const stopped: MissingReason = 'not_reached';
      this.filled.push({ column: index, value: id ?? missingCode(this.document, null, stopped) });
      return;
    }
    const says = reading.kind === 'value' ? reading.value : reading.kind === 'reason' ? null : undefined;
    if (says !== id) this.problem('wrong-ending', index);
    else if (reading.kind === 'value' && reading.recoded)
      this.recoded.push({ column: index, value: id ?? '' });
  }

  problem(problem: ProblemKind, column: number, unknown: ColumnGroup | null = null): void {
    this.problems.push({ problem, column, unknown });
  }
}

function isValue(reading: CellReading | undefined, value: number): boolean {
  return reading?.kind === 'value' && reading.value === value;
}
