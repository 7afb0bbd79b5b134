/**
 * The rows of a file audited one by one: as they are written again, and what is counted on the way. Keeps counts only, so
 * that its size does not grow with the file.
 */
import { columnsOf, type Column } from '../coding/columns';
import type { Plan } from '../routing/plan';
import { Auditor } from './auditor';
import { columnProblems, matchColumns, type Matching, type SaidMatches } from './matching';
import type { ProblemKind } from './problems';
import type { AuditOptions, RowJudgement, RowProblem } from './types';

export interface AuditCounts {
  rows: number;
  /** Rows without a problem. */
  clean: number;
  /** Cells filled in, and cells whose label was written as its code. */
  filled: number;
  recoded: number;
  problems: number;
  readonly byProblem: Map<ProblemKind, number>;
  /** By column, then by kind. */
  readonly byColumn: Map<string, Map<ProblemKind, number>>;
  /** Rows by the id of their ending; those that came to none under `''`. */
  readonly byEnding: Map<string, number>;
}

export function newCounts(): AuditCounts {
  return {
    rows: 0,
    clean: 0,
    filled: 0,
    recoded: 0,
    problems: 0,
    byProblem: new Map(),
    byColumn: new Map(),
    byEnding: new Map(),
  };
}

export interface RowAudited extends RowJudgement {
  /** From 1. */
  readonly row: number;
  /** The row as it is written again, under `outHeader`. */
  readonly cells: readonly (string | number)[];
}

/** One cell written otherwise than it was. */
export interface CellChange {
  readonly column: string;
  readonly from: string;
  readonly to: string | number;
  readonly why: 'filled' | 'recoded';
}

export class AuditRun {
  readonly columns: readonly Column[];
  readonly matching: Matching;
  /** Problems of the columns, told once and not for each row. */
  readonly columnProblems: readonly RowProblem[];
  /** The file's columns in their order, under the codebook's names, then those it lacks. */
  readonly outHeader: readonly string[];
  /** Of the rows since counting was started, without what is told of columns. */
  counts: AuditCounts = newCounts();
  private readonly auditor: Auditor;
  private readonly ordered: string[];
  /** Index in the file of the column with case numbers; -1 where none is said. */
  private readonly caseAt: number;
  /** By column of the codebook: its place in what is written. */
  readonly outPlaces: readonly number[];

  /** The header must be one that `headerProblem` finds nothing wrong with. `caseColumn`: the one with case numbers. */
  constructor(
    private readonly plan: Plan,
    header: readonly string[],
    options: AuditOptions = {},
    said: SaidMatches = {},
    caseColumn: string | null = null,
  ) {
    this.caseAt = caseColumn === null ? -1 : header.findIndex((name) => name.trim() === caseColumn.trim());
    this.columns = columnsOf(plan);
    // The column of case numbers is none of the codebook's, and is not to be told as unknown.
    const carried = caseColumn === null ? {} : { [caseColumn.trim()]: null };
    const own = this.columns.some(({ name }) => name === caseColumn?.trim());
    this.matching = matchColumns(plan.document, this.columns, header, own ? said : { ...carried, ...said });
    const { places } = this.matching;
    this.ordered = places.map(() => '');
    this.columnProblems = columnProblems(this.columns, this.matching);
    this.auditor = new Auditor(
      plan,
      options,
      places.map((at) => at !== -1),
    );
    const lacking = this.columns.flatMap((_, index) => (places[index] === -1 ? [index] : []));
    this.outHeader = [
      ...this.matching.header.map(({ name, column }) =>
        column === null ? name : (this.columns[column]?.name ?? name),
      ),
      ...lacking.map((index) => this.columns[index]?.name ?? ''),
    ];
    this.outPlaces = places.map((at, index) => (at === -1 ? header.length + lacking.indexOf(index) : at));
  }

  /** Counts again from nothing; what was counted before stays with whoever has it. */
  startCounting(): void {
    this.counts = newCounts();
  }

  /** The column with case numbers, as it is written again; empty where none is said to hold them. */
  get caseColumn(): string {
    return this.outHeader[this.caseAt] ?? '';
  }

  caseOf(cells: readonly string[]): string {
    return cells[this.caseAt]?.trim() ?? '';
  }

  /** `cells` parallel to the header; missing ones at the end are blank. */
  row(cells: readonly string[]): RowAudited {
    const { counts } = this;
    const judgement = this.auditor.judge(this.inOrder(cells));
    counts.rows += 1;
    if (judgement.problems.length === 0) counts.clean += 1;
    for (const { problem, column } of judgement.problems) this.count(problem, column);
    counts.filled += judgement.filled.length;
    counts.recoded += judgement.recoded.length;
    const { came } = judgement;
    const id = came.to === 'ending' ? (this.plan.endings[came.ending]?.ending.id ?? '') : '';
    counts.byEnding.set(id, (counts.byEnding.get(id) ?? 0) + 1);
    const out = this.underOutHeader(cells);
    for (const { column, value } of judgement.filled) out[this.outPlaces[column] ?? -1] = value;
    for (const { column, value } of judgement.recoded) out[this.outPlaces[column] ?? -1] = value;
    const { problems, filled, recoded } = judgement;
    return { problems, filled, recoded, came, row: counts.rows, cells: out };
  }

  changesOf(judgement: RowJudgement, cells: readonly string[]): CellChange[] {
    const change = (why: CellChange['why']) => (written: { column: number; value: string | number }) => ({
      column: this.columns[written.column]?.name ?? '',
      from: cells[this.matching.places[written.column] ?? -1] ?? '',
      to: written.value,
      why,
    });
    return [...judgement.filled.map(change('filled')), ...judgement.recoded.map(change('recoded'))];
  }

  /** The respondent of a row, to be walked. */
  walkedOf(cells: readonly string[]): ReturnType<Auditor['walkedOf']> {
    return this.auditor.walkedOf(this.inOrder(cells));
  }

  /** As long as what is written; cells too many are empty. */
  private underOutHeader(cells: readonly string[]): (string | number)[] {
    const { length } = this.outHeader;
    const out: (string | number)[] = cells.slice(0, length);
    while (out.length < length) out.push('');
    return out;
  }

  /** By column of the codebook; the same list every time. */
  private inOrder(cells: readonly string[]): readonly string[] {
    const { ordered, matching } = this;
    const { places } = matching;
    for (let index = 0; index < places.length; index += 1)
      ordered[index] = cells[places[index] as number] ?? '';
    return ordered;
  }

  private count(problem: ProblemKind, column: string): void {
    const { counts } = this;
    counts.problems += 1;
    counts.byProblem.set(problem, (counts.byProblem.get(problem) ?? 0) + 1);
    const kinds = counts.byColumn.get(column) ?? new Map<ProblemKind, number>();
    kinds.set(problem, (kinds.get(problem) ?? 0) + 1);
    counts.byColumn.set(column, kinds);
  }
}
