/** The codebook as a workbook: a sheet of the columns, and one of the codes. */
import type { Analysis } from '../../analysis';
import type { Plan } from '../../routing/plan';
import { codebook } from '../../views/codebook';
import { bookBases } from '../book-bases';
import { workbook, type Sheet } from './workbook';

export async function codebookWorkbook(
  plan: Plan,
  analysis: Pick<Analysis, 'asked' | 'passes'>,
  version: string,
): Promise<Uint8Array> {
  return workbook(plan.document.title, version, codebookSheets(plan, analysis));
}

export function codebookSheets(plan: Plan, analysis: Pick<Analysis, 'asked' | 'passes'>): Sheet[] {
  const rows = codebook(plan);
  const baseIn = bookBases(plan, analysis);
  return [
    {
      name: 'Columns',
      head: ['column', 'label', 'question', 'section', 'type', 'measure', 'range', 'asked'],
      widths: [22, 34, 60, 24, 14, 12, 18, 44],
      rows: rows.map((row) => [
        row.column,
        row.label,
        row.text,
        row.group,
        row.type,
        row.measure,
        row.range,
        baseIn(row),
      ]),
    },
    {
      name: 'Codes',
      head: ['column', 'code', 'label', 'no answer because'],
      widths: [22, 12, 60, 22],
      rows: rows.flatMap(({ column, values, missing }) => [
        ...values.map(({ code, label, missing: none }) => [column, code, label, none ? 'chosen' : '']),
        ...missing.map(({ code, label, reason }) => [column, code, label, reason]),
      ]),
    },
  ];
}
