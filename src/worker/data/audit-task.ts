/** One collected file under audit: its header, its run, what was found, and the files that come of it. */
import {
  headerProblem,
  matchColumns,
  raggedProblem,
  type FileColumn,
  type SaidMatches,
} from '../../core/audit/matching';
import type { ProblemKind } from '../../core/audit/problems';
import { AuditRun, type CellChange } from '../../core/audit/run';
import type { AuditOptions, RowProblem } from '../../core/audit/types';
import { columnsOf } from '../../core/coding/columns';
import type { Walked } from '../../core/document/walked';
import { csvLines } from '../../core/exchange/csv';
import { spreadsheetValue } from '../../core/exchange/spreadsheet';
import type { Plan } from '../../core/routing/plan';
import { problemWords } from '../../core/wording/audit';
import type { RowSource } from './read-file';

/** Rows with problems that are kept whole, to be walked at once; and problems that are listed. */
const MOST_ROWS_KEPT = 20_000;
const MOST_LISTED = 200_000;
/** Rows of a coded file that can be tabulated here. */
const MOST_TABULATED = 100_000;
const SAMPLES = 3;

export interface FoundProblem extends RowProblem {
  /** From 1; 0 for what concerns a column as a whole. */
  readonly row: number;
}

export interface OpenedFile {
  readonly readAs: string;
  readonly encoding: string | null;
  readonly header: readonly string[];
  /** The first few cells of each column. */
  readonly samples: readonly (readonly string[])[];
}

export interface AuditSummary {
  readonly rows: number;
  readonly clean: number;
  readonly filled: number;
  readonly recoded: number;
  readonly problems: number;
  /** Problems beyond these are counted, not listed. */
  readonly listed: number;
  readonly byProblem: readonly (readonly [ProblemKind, number])[];
  readonly byColumn: readonly {
    readonly column: string;
    readonly kinds: readonly (readonly [ProblemKind, number])[];
    readonly total: number;
  }[];
  /** Ending ids with rows; the empty id for those who stopped part-way. */
  readonly byEnding: readonly (readonly [string, number])[];
  readonly rowsWithProblems: number;
}

export type AuditOutcome =
  { readonly ok: true; readonly summary: AuditSummary } | { readonly ok: false; readonly problem: string };

export type AuditFile = 'coded-csv' | 'coded-xlsx' | 'problems' | 'changes';

export class AuditTask {
  private run: AuditRun | null = null;
  private problems: FoundProblem[] = [];
  private kept = new Map<number, readonly string[]>();
  private coded: Blob[] = [];
  private changes: Blob[] = [];
  /** The coded rows in the order of the codebook, as far as they can be tabulated. */
  tabulated: (string | number)[][] = [];

  private constructor(
    private readonly source: RowSource,
    readonly opened: OpenedFile,
  ) {}

  /** Reads the first rows; a problem where they cannot be used. */
  static async open(source: RowSource): Promise<AuditTask | string> {
    const first: string[][] = [];
    for await (const { rows } of source.rows()) {
      first.push(...rows.slice(0, SAMPLES + 1 - first.length));
      if (first.length > SAMPLES) break;
    }
    const [header, ...others] = first;
    if (header === undefined)
      return 'There is no row in this file: the first row holds the names of columns.';
    const problem = headerProblem(header);
    if (problem !== null) return problem;
    if (others.length === 0)
      return 'There is a first row with names of columns, and no row of answers below it.';
    return new AuditTask(source, {
      readAs: source.readAs,
      encoding: source.encoding,
      header,
      samples: header.map((_, at) => others.map((row) => row[at] ?? '')),
    });
  }

  matching(plan: Plan, said: SaidMatches): readonly FileColumn[] {
    return matchColumns(plan.document, columnsOf(plan), this.opened.header, said).header;
  }

  async audit(
    plan: Plan,
    options: AuditOptions,
    said: SaidMatches,
    caseColumn: string | null,
    progress: (share: number) => void,
  ): Promise<AuditOutcome> {
    const { header } = this.opened;
    const run = new AuditRun(plan, header, options, said, caseColumn);
    this.run = run;
    this.problems = run.columnProblems.map((problem) => ({ row: 0, ...problem }));
    this.kept = new Map();
    this.coded = [new Blob([csvLines([run.outHeader], this.source.format)])];
    this.changes = [new Blob([csvLines([['row', 'column', 'from', 'to', 'why']])])];
    this.tabulated = [];
    const places = run.columns.map(({ name }) => run.outHeader.indexOf(name));
    let first = true;
    let withProblems = 0;
    for await (const { rows, share } of this.source.rows()) {
      const written: (readonly (string | number)[])[] = [];
      const changed: (string | number)[][] = [];
      for (const cells of rows) {
        if (first) {
          first = false;
          continue;
        }
        const ragged = raggedProblem(run.counts.rows + 1, cells, header.length);
        if (ragged !== null) return { ok: false, problem: `${ragged} Nothing was changed.` };
        const audited = run.row(cells);
        written.push(audited.cells);
        if (run.counts.rows <= MOST_TABULATED)
          this.tabulated.push(places.map((at) => audited.cells[at] ?? ''));
        for (const change of run.changesOf(audited, cells))
          changed.push([audited.row, change.column, change.from, change.to, WHY_WORDS[change.why]]);
        if (audited.problems.length === 0) continue;
        withProblems += 1;
        if (this.kept.size < MOST_ROWS_KEPT) this.kept.set(audited.row, cells);
        for (const problem of audited.problems)
          if (this.problems.length < MOST_LISTED) this.problems.push({ row: audited.row, ...problem });
      }
      if (written.length > 0) this.coded.push(new Blob([csvLines(written, this.source.format)]));
      if (changed.length > 0) this.changes.push(new Blob([csvLines(changed)]));
      progress(share);
    }
    return { ok: true, summary: this.summaryOf(run, withProblems) };
  }

  private summaryOf({ counts }: AuditRun, rowsWithProblems: number): AuditSummary {
    const sorted = <Key>(of: ReadonlyMap<Key, number>) => [...of].sort((a, b) => b[1] - a[1]);
    return {
      rows: counts.rows,
      clean: counts.clean,
      filled: counts.filled,
      recoded: counts.recoded,
      problems: counts.problems,
      listed: this.problems.length,
      byProblem: sorted(counts.byProblem),
      byColumn: [...counts.byColumn]
        .map(([column, kinds]) => ({
          column,
          kinds: sorted(kinds),
          total: [...kinds.values()].reduce((sum, count) => sum + count, 0),
        }))
        .sort((a, b) => b.total - a.total),
      byEnding: sorted(counts.byEnding),
      rowsWithProblems,
    };
  }

  /** Problems of a kind, a column or a row, from the first; all of them where nothing is said. */
  listed(
    {
      problem,
      column,
      row,
    }: { problem?: ProblemKind | undefined; column?: string | undefined; row?: number | undefined },
    from: number,
    count: number,
  ): { readonly problems: readonly FoundProblem[]; readonly total: number } {
    const found = this.problems.filter(
      (each) =>
        (problem === undefined || each.problem === problem) &&
        (column === undefined || each.column === column) &&
        (row === undefined || each.row === row),
    );
    return { problems: found.slice(from, from + count), total: found.length };
  }

  /** Who a row is; null where there is no such row. One without a problem is read from the file again. */
  async walked(row: number): Promise<(Walked & { readonly stoppedAt?: string }) | null> {
    if (this.run === null) return null;
    const cells = this.kept.get(row) ?? (await this.read(row));
    return cells === undefined ? null : this.run.walkedOf(cells);
  }

  private async read(row: number): Promise<readonly string[] | undefined> {
    let before = 0;
    for await (const { rows } of this.source.rows()) {
      // The first row of all is the header.
      if (row < before + rows.length) return rows[row - before];
      before += rows.length;
    }
    return undefined;
  }

  async file(which: AuditFile): Promise<Blob> {
    switch (which) {
      case 'coded-csv':
        return new Blob(this.coded, { type: 'text/csv' });
      case 'changes':
        return new Blob(this.changes, { type: 'text/csv' });
      case 'problems': {
        const rows = this.problems.map(({ row, column, problem, value, instead }) => [
          row === 0 ? '' : row,
          column,
          problem,
          value,
          instead ?? '',
          problemWords(problem),
        ]);
        return new Blob([csvLines([['row', 'column', 'problem', 'value', 'instead', 'meaning'], ...rows])], {
          type: 'text/csv',
        });
      }
      case 'coded-xlsx':
        return this.workbook();
      default:
        return which satisfies never;
    }
  }

  private async workbook(): Promise<Blob> {
    const { default: ExcelJS } = await import('exceljs');
    const { CsvRows } = await import('../../core/exchange/csv');
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet('Coded', { views: [{ state: 'frozen', ySplit: 1 }] });
    const rows = new CsvRows(this.source.format);
    // The apostrophe that keeps a spreadsheet from running a cell is not needed where cells have types.
    const plain = (cell: string) => spreadsheetValue(/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);
    for (const row of rows.push(await new Blob(this.coded).text(), true)) sheet.addRow(row.map(plain));
    const bytes = await book.xlsx.writeBuffer();
    return new Blob([bytes], { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' });
  }
}

const WHY_WORDS: Readonly<Record<CellChange['why'], string>> = {
  filled: 'follows from the routing',
  recoded: 'label written as its code',
};
