/** The codebook as rows: one for each column of the data, with what it can hold and who it is asked of. */
import { columnsOf, type Column } from '../coding/columns';
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

export function codebook(plan: Plan): BookRow[] {
  const seen = new Set<string>();
  return columnsOf(plan).map((column) => rowOf(plan, column, seen));
}

function rowOf(plan: Plan, column: Column, seen: Set<string>): BookRow {
  const { document } = plan;
  const planned = document.missing.map((entry) => ({ ...entry, isOwn: false }));
  const plain = {
    item: null,
    pass: null,
    place: null,
    isFirst: false,
    range: '',
    missing: planned,
    text: '',
    part: '',
  } as const;
  if (column.kind === 'ending')
    return {
      ...plain,
      column: column.name,
      label: 'Ending',
      group: 'Ending',
      type: 'ending',
      measure: 'nominal',
      values: document.endings.map(({ id, kind }) => ({
        code: id,
        label: kind.replace('_', ' '),
        missing: false,
      })),
      missing: planned.filter(({ reason }) => reason === 'not_reached'),
    };
  if (column.kind === 'derived') {
    const derived = document.derived?.[column.index];
    const cases =
      derived !== undefined && 'cases' in derived
        ? [...derived.cases, ...(derived.else ? [derived.else] : [])]
        : [];
    return {
      ...plain,
      column: column.name,
      label: derived?.label ?? '',
      text: derived !== undefined && 'value' in derived ? derived.value : '',
      group: 'Derived',
      type: 'derived',
      measure: cases.length > 0 ? 'nominal' : 'ratio',
      values: cases.map(({ code, label }) => ({ code, label, missing: false })),
    };
  }
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
  const option = optionsOf(answer).find(({ code }) => code === column.code);
  const detail =
    column.kind === 'pick'
      ? option?.label
      : column.kind === 'place'
        ? `place ${column.code}`
        : column.kind === 'specify'
          ? `${option?.label}, in their words`
          : column.kind === 'remark'
            ? question?.comment
            : undefined;
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
