/** The columns of the codebook put together by the variable and pass that they hold, and a row's cells as its answer. */
import type { Column, ValueColumn } from '../coding/columns';
import { missingCode } from '../coding/row';
import { passKey, readPassKey } from '../document/addresses';
import { traitsOf, type AnswerTraits } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, MissingReason, Question, Value } from '../document/types';
import { isUnasked, UNASKED, type Unasked } from '../document/vocabularies';
import type { Plan, PlanItem } from '../routing/plan';
import type { Runner } from '../routing/runner';
import type { CellReading } from './readings';
import type { CellWritten } from './types';

/** One variable in one pass. */
export interface ColumnGroup {
  readonly kind: AnswerTraits['columns'];
  /** As an answer is given: `name`, or `name#pass`. */
  readonly key: string;
  readonly slot: number;
  /** Null for a given value. */
  readonly planItem: PlanItem | null;
  /** `name` or `name#pass` of the item; empty for a given value. */
  readonly passKey: string;
  readonly pass: number | null;
  readonly question: Question;
  readonly answer: Answer;
  readonly required: boolean;
  /** Of a grid row: its index; else null. */
  readonly row: number | null;
  /** Columns that hold the answer: indices among all columns, with the option's code or the place. */
  readonly columns: readonly { readonly index: number; readonly code: number }[];
  readonly details: readonly { readonly index: number; readonly code: number }[];
  /** Options with `missing`. */
  readonly missing: ReadonlySet<number>;
  readonly hasConditions: boolean;
  codeOf(reason: MissingReason): number;
  /** What is written where nobody was asked, by reason; parallel to the columns. */
  readonly unasked: Readonly<Record<Unasked, readonly CellWritten[]>>;
}

/** In the order of the columns. */
export function groupsOf(plan: Plan, columns: readonly Column[], runner: Runner): ColumnGroup[] {
  const groups = new Map<
    string,
    {
      columns: ColumnGroup['columns'][number][];
      details: ColumnGroup['columns'][number][];
      first: ValueColumn;
    }
  >();
  columns.forEach((column, index) => {
    if (column.kind === 'derived' || column.kind === 'ending' || column.kind === 'remark') return;
    const pass = column.source.of === 'item' ? column.source.pass : null;
    const key = passKey(column.source.variable, pass);
    const group = groups.get(key) ?? { columns: [], details: [], first: column };
    groups.set(key, group);
    (column.kind === 'specify' ? group.details : group.columns).push({ index, code: column.code });
  });
  return [...groups].map(([key, { columns: own, details, first }]) => {
    const { source } = first;
    const { answer } = source;
    const item = source.of === 'item' ? source : null;
    const question: Question =
      item === null
        ? { kind: 'question', name: source.variable, text: '', answer, required: true }
        : item.question;
    const { name, pass } = readPassKey(key);
    const codeOf = (reason: MissingReason) =>
      missingCode(plan.document, item === null ? null : question, reason);
    const cellsOf = (reason: Unasked) => own.map(({ index }) => ({ column: index, value: codeOf(reason) }));
    const unasked = {} as Record<Unasked, readonly CellWritten[]>;
    for (const reason of UNASKED) unasked[reason] = cellsOf(reason);
    return {
      kind: traitsOf(answer).columns,
      key,
      slot: runner.slots.get(passKey(name.toLowerCase(), pass)) ?? -1,
      planItem: item?.planItem ?? null,
      passKey: item === null ? '' : passKey(item.planItem.item.name, item.pass),
      pass: item?.pass ?? null,
      question,
      answer,
      required: question.required === true,
      row: item?.row ?? null,
      columns: own,
      details,
      missing: new Set(optionsOf(answer).flatMap((o) => (o.missing === undefined ? [] : [o.code]))),
      hasConditions: item !== null && item.planItem.optionIf.some((when) => when !== null),
      codeOf,
      unasked,
    };
  });
}

/** What a group's cells come to. */
export interface GroupAnswer {
  /** The answer as the walk takes it; null for none, or for one that cannot be read. */
  readonly value: Value | null;
  /** Somebody was here: an answer, or a code that says it was left blank. */
  readonly touched: boolean;
}

const NOTHING: GroupAnswer = { value: null, touched: false };
const LEFT_BLANK: GroupAnswer = { value: null, touched: true };

/** `readings`: of the whole row, by index of the column. */
export function answerOf(group: ColumnGroup, readings: readonly CellReading[]): GroupAnswer {
  if (group.kind === 'value') {
    const reading = readings[group.columns[0]?.index ?? -1];
    if (reading === undefined) return NOTHING;
    switch (reading.kind) {
      case 'blank':
        return NOTHING;
      case 'reason':
        return isUnasked(reading.reason) ? NOTHING : LEFT_BLANK;
      case 'value':
        return { value: reading.value, touched: true };
      case 'wrong':
        return LEFT_BLANK;
      default:
        return reading satisfies never;
    }
  }
  const value: number[] = [];
  let touched = false;
  for (const { index, code } of group.columns) {
    const reading = readings[index];
    if (reading === undefined || reading.kind === 'blank') continue;
    if (reading.kind === 'reason' && isUnasked(reading.reason)) continue;
    touched = true;
    if (reading.kind !== 'value' || typeof reading.value !== 'number') continue;
    if (group.kind === 'picks') {
      if (reading.value === 1) value.push(code);
    } else value.push(reading.value);
  }
  return { value: value.length === 0 ? null : value, touched };
}

/** Some value, where a given one is missing that a walk cannot do without. */
export function anyAnswer(answer: Answer): Value {
  switch (answer.type) {
    case 'single':
      return answer.options[0]?.code ?? 0;
    case 'multiple':
    case 'rank':
      return [answer.options[0]?.code ?? 0];
    case 'number':
    case 'scale':
      return answer.min;
    case 'text':
    case 'date':
    case 'time':
    case 'datetime':
    case 'grid':
      return 'x';
    default:
      return answer satisfies never;
  }
}
