/** The pieces of a file put together: rows counted through, cases that come twice, and what was found in all. */
import { raggedProblem } from '../audit/matching';
import type { ProblemKind } from '../audit/problems';
import { newCounts, type AuditCounts } from '../audit/run';
import type { RowProblem } from '../audit/types';
import type { PieceAudited, RowFound } from './piece';

export class AuditTotals {
  readonly counts: AuditCounts = newCounts();
  rowsWithProblems = 0;
  /** The first row of each case: the one thing that grows with the file, and only where it is asked for. */
  private readonly firstRow = new Map<string, number>();

  /** `caseColumn`: as it is written again. `columnProblems`: of the columns, told once and not for each row. */
  constructor(
    private readonly width: number,
    private readonly caseColumn: string,
    columnProblems: readonly RowProblem[],
  ) {
    for (const { problem, column } of columnProblems) this.count(problem, column, 1);
  }

  /** The next piece; what was found in it with rows counted in the file, from 1, and why nothing after it can be read. */
  add(piece: PieceAudited): { readonly problems: readonly RowFound[]; readonly refused: string | null } {
    const { counts } = this;
    const before = counts.rows;
    const own = piece.counts;
    counts.rows += own.rows;
    counts.clean += own.clean;
    counts.filled += own.filled;
    counts.recoded += own.recoded;
    for (const [column, kinds] of own.byColumn)
      for (const [problem, times] of kinds) this.count(problem, column, times);
    for (const [id, rows] of own.byEnding) counts.byEnding.set(id, (counts.byEnding.get(id) ?? 0) + rows);
    const found = piece.problems.map((each) => ({ ...each, row: each.row + before }));
    const withOthers = new Set(found.map(({ row }) => row));
    this.rowsWithProblems += withOthers.size;
    const twice = piece.cases.flatMap((value, n) => this.sameCase(value, before + n + 1));
    for (const { row } of twice) {
      this.count('duplicate-case', this.caseColumn, 1);
      if (withOthers.has(row)) continue;
      counts.clean -= 1;
      this.rowsWithProblems += 1;
    }
    const { ragged } = piece;
    return {
      // Of one row, what is twice comes last.
      problems: twice.length === 0 ? found : [...found, ...twice].sort((a, b) => a.row - b.row),
      refused: ragged === null ? null : raggedProblem(ragged.row + before, ragged.cells, this.width),
    };
  }

  private sameCase(value: string, row: number): RowFound[] {
    if (value === '') return [];
    const first = this.firstRow.get(value);
    if (first !== undefined)
      return [{ row, problem: 'duplicate-case', column: this.caseColumn, value, instead: String(first) }];
    this.firstRow.set(value, row);
    return [];
  }

  private count(problem: ProblemKind, column: string, times: number): void {
    const { counts } = this;
    counts.problems += times;
    counts.byProblem.set(problem, (counts.byProblem.get(problem) ?? 0) + times);
    const kinds = counts.byColumn.get(column) ?? new Map<ProblemKind, number>();
    kinds.set(problem, (kinds.get(problem) ?? 0) + times);
    counts.byColumn.set(column, kinds);
  }
}
