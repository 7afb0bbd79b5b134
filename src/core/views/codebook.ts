/** The codebook as rows: one for each column of the data, with what it can hold and who it is asked of. */
import { columnsOf, type Column, type ValueColumn } from '../coding/columns';
import { missingCode } from '../coding/row';
import { hasRows, traitsOf, type Measure } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import {
  MISSING_REASONS,
  type Answer,
  type MissingCode,
  type Option,
  type Question,
} from '../document/types';
import { sectionLetter } from '../document/variables';
import type { Plan } from '../routing/plan';

export interface BookRow {
  readonly column: string;
  /** The item whose base it has; null for given and derived variables and the ending. */
  readonly item: string | null;
  /** Of a repeated question: the pass whose column it is. */
  readonly pass: number | null;
  /** Where the question stands in the document; null for what is no question's. */
  readonly place: { readonly section: number; readonly item: number } | null;
  /** Whether it is the first column of its question, where its label and codes are changed. */
  readonly isFirst: boolean;
  readonly label: string;
  /** What of the question the column holds: its row, option or place; empty where it holds all of it. */
  readonly part: string;
  readonly text: string;
  readonly group: string;
  readonly type: string;
  readonly measure: Measure;
  /** Codes that stand for answers, with what they mean. */
  readonly values: readonly {
    readonly code: number | string;
    readonly label: string;
    readonly missing: boolean;
  }[];
  /** Where values are not listed: their limits, in words. */
  readonly range: string;
  readonly missing: readonly (MissingCode & { readonly isOwn: boolean })[];
}

/** In the order of the columns of the data. */
export function codebook(plan: Plan): BookRow[] {
  const seen = new Set<string>();
  return columnsOf(plan).map((column) => rowOf(plan, column, seen));
}

function rowOf(plan: Plan, column: Column, seen: Set<string>): BookRow {
  switch (column.kind) {
    case 'ending':
      return endingRow(plan, column.name);
    case 'derived':
      return derivedRow(plan, column.name, column.index);
    default:
      return answerRow(plan, column, seen);
  }
}

/** Of a column that belongs to no item. */
const OF_NO_ITEM = {
  item: null,
  pass: null,
  place: null,
  isFirst: false,
  range: '',
  text: '',
  part: '',
} as const;

function plannedCodes({ missing }: Plan['document']): BookRow['missing'] {
  return missing.map((entry) => ({ ...entry, isOwn: false }));
}

function endingRow({ document }: Plan, column: string): BookRow {
  return {
    ...OF_NO_ITEM,
    column,
    label: 'Ending',
    group: 'Ending',
    type: 'ending',
    measure: 'nominal',
    values: document.endings.map(({ id, kind }) => ({
      code: id,
      label: kind.replace('_', ' '),
      missing: false,
    })),
    missing: plannedCodes(document).filter(({ reason }) => reason === 'not_reached'),
  };
}

function derivedRow({ document }: Plan, column: string, index: number): BookRow {
  const derived = document.derived?.[index];
  const cases =
    derived !== undefined && 'cases' in derived
      ? [...derived.cases, ...(derived.else ? [derived.else] : [])]
      : [];
  return {
    ...OF_NO_ITEM,
    column,
    label: derived?.label ?? '',
    text: derived !== undefined && 'value' in derived ? derived.value : '',
    group: 'Derived',
    type: 'derived',
    measure: cases.length > 0 ? 'nominal' : 'ratio',
    values: cases.map(({ code, label }) => ({ code, label, missing: false })),
    missing: plannedCodes(document),
  };
}

function answerRow(plan: Plan, column: ValueColumn, seen: Set<string>): BookRow {
  const { document } = plan;
  const { source } = column;
  const { answer } = source;
  const given = source.of === 'given';
  const question = given ? null : source.question;
  const first = question !== null && !seen.has(question.name);
  if (question !== null) seen.add(question.name);
  const own = question?.missingCodes ?? {};
  const optional = column.kind === 'specify' || column.kind === 'remark';
  const section = given ? null : plan.sections[source.planItem.section]?.section;
  const rowLabel =
    !given && source.row !== null && hasRows(question?.answer)
      ? question.answer.rows[source.row]?.label
      : undefined;
  const detail = detailOf(column, question);
  return {
    column: column.name,
    item: question?.name ?? null,
    pass: given ? null : source.pass,
    place: given ? null : { section: source.planItem.section, item: source.planItem.place },
    isFirst: first,
    label: joined([given ? source.given.label : question?.label, rowLabel, detail]),
    part: joined([rowLabel, detail]),
    text: question?.text ?? '',
    group: section == null || given ? 'Given' : `${sectionLetter(source.planItem.section)} ${section.title}`,
    type: optional ? 'text' : traitsOf(question?.answer ?? answer).words,
    measure: column.kind === 'pick' ? 'nominal' : (question?.measure ?? traitsOf(answer).measure),
    values: optional ? [] : valuesOf(column.kind, answer),
    range: optional ? '' : rangeWords(answer),
    missing: optional
      ? []
      : document.missing.map((entry) => ({
          ...entry,
          code: own[entry.reason] ?? codeOf(plan, question, entry),
          isOwn: own[entry.reason] !== undefined,
        })),
  };
}

/** What of its question a column holds, where it is not all of it. */
function detailOf({ kind, code, source }: ValueColumn, question: Question | null): string | undefined {
  const option = optionsOf(source.answer).find((each) => each.code === code);
  switch (kind) {
    case 'pick':
      return option?.label;
    case 'place':
      return `place ${code}`;
    case 'specify':
      return `${option?.label}, in their words`;
    case 'remark':
      return question?.comment;
    default:
      return undefined;
  }
}

function joined(parts: readonly (string | undefined)[]): string {
  return parts.filter((part) => part !== undefined && part !== '').join(': ');
}

function codeOf(plan: Plan, question: Question | null, { reason, code }: MissingCode): number {
  const known = MISSING_REASONS.find((each) => each === reason);
  return known === undefined ? code : missingCode(plan.document, question, known);
}

function valuesOf(kind: Column['kind'], answer: Answer): BookRow['values'] {
  const listed = (options: readonly Option[]) =>
    options.map(({ code, label, missing }) => ({ code, label, missing: missing !== undefined }));
  if (kind !== 'pick') return listed(optionsOf(answer));
  const apart = optionsOf(answer).filter(({ missing }) => missing !== undefined);
  return [
    { code: 0, label: 'not picked', missing: false },
    { code: 1, label: 'picked', missing: false },
    ...listed(apart),
  ];
}

function rangeWords(answer: Answer): string {
  switch (answer.type) {
    case 'number':
      return `${answer.min} to ${answer.max}${answer.unit === undefined ? '' : ` ${answer.unit}`}`;
    case 'scale':
      return `${answer.min} to ${answer.max}`;
    case 'date':
    case 'time':
    case 'datetime':
      return [answer.min && `from ${answer.min}`, answer.max && `to ${answer.max}`].filter(Boolean).join(' ');
    case 'single':
    case 'multiple':
    case 'text':
    case 'grid':
    case 'rank':
      return '';
    default:
      return answer satisfies never;
  }
}
