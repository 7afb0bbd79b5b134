/** The columns of the data as other programs want them told: what each holds, its limits, codes and reasons for no answer. */
import { columnsOf, type Column } from '../../coding/columns';
import { isDated, isNumeric, traitsOf, type Measure } from '../../document/answer-types';
import type { Answer } from '../../document/types';
import type { Plan } from '../../routing/plan';
import { codebook, type BookRow } from '../../views/codebook';

/** What the answers in a column are; codes are whole numbers. */
export type Holds = 'whole' | 'number' | 'date' | 'time' | 'datetime' | 'text';

export interface MissingValue {
  readonly code: number;
  readonly label: string;
  /** A reason of the missing plan; `option` for don't know and the like, which are chosen as answers are. */
  readonly reason: string;
}

export interface DataField {
  readonly name: string;
  readonly label: string;
  /** The question's words; empty where there is none. */
  readonly question: string;
  readonly holds: Holds;
  readonly measure: Measure;
  /** Codes of answers; empty where they are not listed. */
  readonly values: readonly { readonly code: number | string; readonly label: string }[];
  readonly missing: readonly MissingValue[];
  readonly least: number | string | null;
  readonly most: number | string | null;
  readonly row: BookRow;
}

/** One for each column, in the order of the data. */
export function dataFields(plan: Plan): DataField[] {
  const rows = codebook(plan);
  return columnsOf(plan).map((column, at) => fieldOf(plan, column, rows[at] as BookRow));
}

function fieldOf(plan: Plan, column: Column, row: BookRow): DataField {
  const answers = row.values.filter(({ missing }) => !missing);
  const chosen = row.values.flatMap(({ code, label, missing }) =>
    missing && typeof code === 'number' ? [{ code, label, reason: 'option' }] : [],
  );
  // A code that is an answer here is read as one, whatever the plan says of it.
  const taken = new Set<number | string>(row.values.map(({ code }) => code));
  const planned = row.missing.flatMap(({ code, label, reason }) =>
    taken.has(code) ? [] : [{ code, label, reason }],
  );
  return {
    name: column.name,
    label: row.label === '' ? row.text : row.label,
    question: row.text,
    ...holdingOf(plan, column),
    measure: row.measure,
    values: answers.map(({ code, label }) => ({ code, label })),
    missing: [...chosen, ...planned],
    row,
  };
}

type Holding = Pick<DataField, 'holds' | 'least' | 'most'>;
const holding = (holds: Holds): Holding => ({ holds, least: null, most: null });

function holdingOf(plan: Plan, column: Column): Holding {
  switch (column.kind) {
    case 'ending':
    case 'specify':
    case 'remark':
      return holding('text');
    case 'derived': {
      const derived = plan.document.derived?.[column.index];
      return holding(derived !== undefined && 'value' in derived ? 'number' : 'whole');
    }
    case 'pick':
    case 'place':
      return holding('whole');
    case 'value':
      return ofAnswer(column.source.answer);
    default:
      return column satisfies never;
  }
}

function ofAnswer(answer: Answer): Holding {
  if (isNumeric(answer)) return { ...limited(answer), holds: isWhole(answer) ? 'whole' : 'number' };
  if (isDated(answer)) return { ...limited(answer), holds: answer.type };
  return holding(traitsOf(answer).tabulated === 'texts' ? 'text' : 'whole');
}

function limited({ min, max }: { readonly min?: number | string; readonly max?: number | string }) {
  return { least: min ?? null, most: max ?? null };
}

function isWhole(answer: Extract<Answer, { readonly min: number }>): boolean {
  if ('decimals' in answer) return (answer.decimals ?? 0) === 0;
  const step = 'step' in answer ? (answer.step ?? 1) : 1;
  return Number.isInteger(answer.min) && Number.isInteger(step);
}

/** Whether its values are a list that is known from the start. */
export function isCoded({ values, holds }: DataField): boolean {
  return values.length > 0 && (holds === 'whole' || holds === 'text');
}
