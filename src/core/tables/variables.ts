/** The variables that can be tabulated: which columns hold them, and what their values are called. */
import { columnsOf, type Column, type ValueColumn } from '../coding/columns';
import { hasRows, traitsOf } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { OptionMissing } from '../document/types';
import { sectionLetter } from '../document/variables';
import { ENDINGS } from '../document/vocabularies';
import type { Plan } from '../routing/plan';

export interface Category {
  readonly value: number | string;
  readonly label: string;
  /** Don't know and the like: answered, and yet no answer to the question. */
  readonly missing?: OptionMissing;
}

/** Codes from a list (one, or several picks), numbers, moments in time, or texts in the respondent's words. */
export type TableKind = 'codes' | 'picks' | 'numbers' | 'moments' | 'texts';

export interface TableVariable {
  /** Tells it from all others: the variable's name, with `_PASS` for one pass, or `_all` for all passes together. */
  readonly id: string;
  /** The item it belongs to, whose base it has; null for given and derived variables and the ending. */
  readonly item: string | null;
  readonly label: string;
  /** Where it stands: a section's letter and title; or what kind of variable it is. */
  readonly group: string;
  readonly kind: TableKind;
  readonly categories: readonly Category[];
  /** For each pass that it covers, the columns: one, or one for each option. */
  readonly passes: readonly (readonly { readonly index: number; readonly code: number }[])[];
  /** The pass it is of alone; null for all together, and outside repeated sections. */
  readonly pass: number | null;
  /** Index of the section whose passes it puts together; null for one case a respondent. */
  readonly over: number | null;
}

/** In the order of the data; of a repeated section first all passes together, then each. */
export function tableVariables(plan: Plan, columns: readonly Column[] = columnsOf(plan)): TableVariable[] {
  const found: TableVariable[] = [];
  const repeated = new Map<string, VariableDraft[]>();
  const drafts: VariableDraft[] = [];
  columns.forEach((column, index) => {
    const draft = draftOf(plan, column, index, drafts);
    if (draft === null) return;
    drafts.push(draft);
    if (draft.pass !== null) repeated.set(draft.name, [...(repeated.get(draft.name) ?? []), draft]);
  });
  const done = new Set<string>();
  for (const draft of drafts) {
    const passes = draft.pass === null ? [] : (repeated.get(draft.name) ?? []);
    if (passes.length > 0 && !done.has(draft.name)) {
      done.add(draft.name);
      found.push(variable(draft, `${draft.name}_all`, `${draft.label}, all passes`, passes));
      for (const each of passes)
        found.push(variable(each, `${each.name}_${each.pass}`, `${each.label}, pass ${each.pass}`, [each]));
    } else if (draft.pass === null) found.push(variable(draft, draft.name, draft.label, [draft]));
  }
  return found;
}

interface VariableDraft {
  readonly name: string;
  readonly pass: number | null;
  readonly section: number | null;
  readonly item: string | null;
  readonly label: string;
  readonly group: string;
  readonly kind: TableKind;
  readonly categories: readonly Category[];
  readonly columns: { readonly index: number; readonly code: number }[];
}

function variable(
  of: VariableDraft,
  id: string,
  label: string,
  passes: readonly VariableDraft[],
): TableVariable {
  return {
    id,
    label,
    item: of.item,
    group: of.group,
    kind: of.kind,
    categories: of.categories,
    passes: passes.map(({ columns }) => columns),
    pass: id.endsWith('_all') ? null : of.pass,
    over: passes.length > 1 || id.endsWith('_all') ? of.section : null,
  };
}

/** Null for columns that are part of a variable met before, or that are no variable of their own. */
function draftOf(
  plan: Plan,
  column: Column,
  index: number,
  before: readonly VariableDraft[],
): VariableDraft | null {
  const { document } = plan;
  switch (column.kind) {
    case 'ending':
      return {
        ...PLAIN,
        name: 'ending',
        label: 'Ending',
        group: 'Ending',
        kind: 'codes',
        categories: document.endings.map(({ id, kind }) => ({
          value: id,
          label: `${ENDINGS[kind].word} (${id})`,
        })),
        columns: [{ index, code: 0 }],
      };
    case 'derived': {
      const derived = document.derived?.[column.index];
      const cases =
        derived !== undefined && 'cases' in derived
          ? [...derived.cases, ...(derived.else ? [derived.else] : [])]
          : null;
      const codes = new Map(cases?.map(({ code, label }) => [code, label]) ?? []);
      return {
        ...PLAIN,
        name: column.name,
        label: derived?.label ?? column.name,
        group: 'Derived',
        kind: cases === null ? 'numbers' : 'codes',
        categories: [...codes].map(([value, label]) => ({ value, label })),
        columns: [{ index, code: 0 }],
      };
    }
    case 'remark':
    case 'specify':
      return null;
    default:
      return valueDraft(plan, column, index, before);
  }
}

const PLAIN = { pass: null, section: null, item: null } as const;

function valueDraft(
  plan: Plan,
  column: ValueColumn,
  index: number,
  before: readonly VariableDraft[],
): VariableDraft | null {
  const { source } = column;
  const { answer } = source;
  const pass = source.of === 'item' ? source.pass : null;
  const own = before.findLast((draft) => draft.name === source.variable && draft.pass === pass);
  if (column.kind === 'pick' && own !== undefined) {
    own.columns.push({ index, code: column.code });
    return null;
  }
  const place = column.kind === 'place' ? `_rank${column.code}` : '';
  const where =
    source.of === 'given'
      ? PLAIN
      : { pass, section: source.planItem.section, item: source.planItem.item.name };
  const section = where.section === null ? null : plan.sections[where.section]?.section;
  return {
    ...where,
    name: `${source.variable}${place}`,
    label: `${labelOf(column)}${place === '' ? '' : `, place ${column.code}`}`,
    group: section == null ? 'Given' : `${sectionLetter(where.section ?? 0)} ${section.title}`,
    kind: column.kind === 'pick' ? 'picks' : traitsOf(answer).tabulated,
    categories: optionsOf(answer).map(({ code, label, missing }) => ({
      value: code,
      label,
      ...(missing === undefined ? {} : { missing }),
    })),
    columns: [{ index, code: column.code }],
  };
}

function labelOf({ source }: ValueColumn): string {
  if (source.of === 'given') return source.given.label;
  const { question, row } = source;
  const own = question.label ?? question.text;
  return row !== null && hasRows(question.answer) ? `${own}: ${question.answer.rows[row]?.label}` : own;
}
