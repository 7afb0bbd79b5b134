/** Tables as rows of cells: for a file, or to be pasted into a document. */
import type { Cross } from '../tables/cross';
import type { Frequency } from '../tables/frequency';
import { percentOf } from '../tables/shares';

export type SheetCells = readonly (readonly (string | number)[])[];

export function frequencySheet(title: string, about: string, frequency: Frequency): SheetCells {
  const { rows, missing, all, asked, answered, several } = frequency;
  const line = ({
    label,
    code,
    count,
    ofAll,
    ofAsked,
    ofAnswered,
    cumulative,
  }: Frequency['rows'][number]) => [
    code,
    label,
    count,
    ...[ofAll, ofAsked, ofAnswered, ...(several ? [] : [cumulative])].map(rounded),
  ];
  return [
    [title],
    [about],
    [
      'code',
      'label',
      'count',
      '% of all',
      '% of those asked',
      '% of those who answered',
      ...(several ? [] : ['cumulative %']),
    ],
    ...rows.map(line),
    ['', several ? 'Answered, with one pick or more' : 'Answered', answered],
    ...missing.map(line),
    ['', 'Asked', asked],
    ['', 'All', all],
  ];
}

export type CrossFigures = 'counts' | 'row' | 'column';

/** Figures of a cross-table: counts, or percent along a row or down a column; null where there is no base. */
export function crossFigures(
  { counts, rowCases, columnCases }: Cross,
  figures: CrossFigures,
): (number | null)[][] {
  return counts.map((row, n) =>
    row.map((count, m) => {
      if (figures === 'counts') return count;
      return percentOf(count, (figures === 'row' ? rowCases[n] : columnCases[m]) ?? 0);
    }),
  );
}

/** What stands below and beside such figures: percent of all cases where those are, and otherwise the cases they are of. */
export function crossMargins(
  { rowCases, columnCases, cases }: Cross,
  figures: CrossFigures,
): { readonly below: readonly (number | null)[]; readonly beside: readonly (number | null)[] } {
  const ofAll = (counts: readonly number[]) => counts.map((count) => percentOf(count, cases));
  return {
    below: figures === 'row' ? ofAll(columnCases) : columnCases,
    beside: figures === 'column' ? ofAll(rowCases) : rowCases,
  };
}

export function crossSheet(title: string, about: string, cross: Cross, figures: CrossFigures): SheetCells {
  const body = crossFigures(cross, figures);
  return [
    [title],
    [about],
    ['', ...cross.columns, 'cases'],
    ...cross.rows.map((label, n) => [label, ...(body[n] ?? []).map(rounded), cross.rowCases[n] ?? 0]),
    ['cases', ...cross.columnCases, cross.cases],
  ];
}

/** To one digit after the point, as a number. */
function rounded(figure: number | null): number | '' {
  return figure === null ? '' : Math.round(figure * 10) / 10;
}
