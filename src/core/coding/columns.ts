/** The columns of the data: which there are, what they are called, in their fixed order. */
import { hasRows, picksMany, ranksOptions } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Answer, Given, Option, Question } from '../document/types';
import { gridRowAnswer } from '../routing/answers';
import type { Plan, PlanItem } from '../routing/plan';

export type Column =
  | ValueColumn
  | { readonly kind: 'derived'; readonly name: string; readonly index: number }
  | { readonly kind: 'ending'; readonly name: 'ending' };

/** A column filled from one variable: a question, a grid row or a given value. */
export interface ValueColumn {
  readonly kind: 'value' | 'pick' | 'place' | 'specify' | 'remark';
  readonly name: string;
  readonly source: ColumnSource;
  /** `pick` and `specify`: the option's code; `place`: the place from 1; else 0. */
  readonly code: number;
}

/** Where a variable's answer comes from. */
export type ColumnSource =
  | {
      readonly of: 'item';
      readonly planItem: PlanItem;
      readonly question: Question;
      /** Index of the grid row; null for the question itself. */
      readonly row: number | null;
      readonly variable: string;
      readonly answer: Answer;
      readonly pass: number | null;
    }
  | { readonly of: 'given'; readonly given: Given; readonly variable: string; readonly answer: Answer };

/** Given values first, then questions in document order (a repeated one pass by pass), derived, the ending. */
export function columnsOf(plan: Plan): Column[] {
  const columns: Column[] = [];
  for (const given of plan.document.given ?? []) {
    columns.push(...valueColumns({ of: 'given', given, variable: given.name, answer: given.answer }, null));
  }
  for (const section of plan.sections) {
    const passes =
      section.repeat === null ? [null] : Array.from({ length: section.repeat.max }, (_, p) => p + 1);
    for (const planItem of section.items) {
      const { item } = planItem;
      if (item.kind === 'statement') continue;
      const grid = hasRows(item.answer) ? item.answer : null;
      const variables = grid
        ? grid.rows.map((row, r) => ({ variable: row.name, row: r, answer: gridRowAnswer(grid) }))
        : [{ variable: item.name, row: null, answer: item.answer }];
      for (const variable of variables) {
        for (const pass of passes) {
          columns.push(...valueColumns({ of: 'item', planItem, question: item, pass, ...variable }, pass));
        }
      }
      if (item.comment === undefined) continue;
      for (const pass of passes) {
        const source: ColumnSource = {
          of: 'item',
          planItem,
          question: item,
          pass,
          variable: item.name,
          row: null,
          answer: item.answer,
        };
        columns.push({ kind: 'remark', name: joined(item.name, pass, 'comment'), source, code: 0 });
      }
    }
  }
  plan.document.derived?.forEach(({ name }, index) => columns.push({ kind: 'derived', name, index }));
  columns.push({ kind: 'ending', name: 'ending' });
  return columns;
}

function joined(variable: string, pass: number | null, ...rest: (string | number)[]): string {
  return [variable, ...(pass === null ? [] : [pass]), ...rest].join('_');
}

function valueColumns(source: ColumnSource, pass: number | null): ValueColumn[] {
  const { variable, answer } = source;
  const texts = optionsOf(answer)
    .filter((option: Option) => option.specify)
    .map(({ code }) => ({
      kind: 'specify' as const,
      name: joined(variable, pass, code, 'text'),
      source,
      code,
    }));
  if (picksMany(answer)) {
    const picks = answer.options.map(({ code }) => ({
      kind: 'pick' as const,
      name: joined(variable, pass, code),
      source,
      code,
    }));
    return [...picks, ...texts];
  }
  if (ranksOptions(answer)) {
    const places = Array.from({ length: answer.top ?? answer.options.length }, (_, p) => ({
      kind: 'place' as const,
      name: joined(variable, pass, `rank${p + 1}`),
      source,
      code: p + 1,
    }));
    return [...places, ...texts];
  }
  return [{ kind: 'value', name: joined(variable, pass), source, code: 0 }, ...texts];
}
