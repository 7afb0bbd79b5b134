/** One collected file under audit: its header, its run, what was found, and the files that come of it. */
import { headerProblem, matchColumns, type FileColumn, type SaidMatches } from '../../core/audit/matching';
import type { ProblemKind } from '../../core/audit/problems';
import { AuditRun, type AuditCounts, type CellChange } from '../../core/audit/run';
import type { AuditOptions } from '../../core/audit/types';
import { columnsOf } from '../../core/coding/columns';
import { auditedInOrder } from '../../core/collected/in-order';
import { auditorHere, type AuditSetting, type PieceAuditor, type RowFound } from '../../core/collected/piece';
import { AuditTotals } from '../../core/collected/totals';
import type { Walked } from '../../core/document/walked';
import { csvLines, CsvRows } from '../../core/exchange/csv';
import { takeHeader } from '../../core/exchange/pieces';
import { spreadsheetValue } from '../../core/exchange/spreadsheet';
import type { Plan } from '../../core/routing/plan';
import { CellTable, type CellColumn } from '../../core/tables/cell-columns';
import { problemWords } from '../../core/wording/audit';
import { rowsOf, type RowSource } from './read-file';

/** Rows with problems that are kept whole, to be walked at once; and problems that are listed. */
const MOST_ROWS_KEPT = 20_000;
const MOST_LISTED = 200_000;
/** Rows of a coded file that can be tabulated here. */
const MOST_TABULATED = 1_000_000;
const SAMPLES = 3;

/** With its row in the file, from 1; 0 for what concerns a column as a whole. */
export type FoundProblem = RowFound;

/** Opens auditors for the pieces of a file of some bytes. */
export type OpenAuditors = (plan: Plan, setting: AuditSetting, size: number) => PieceAuditor[];

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
  /** From the first on, as many as can be tabulated here. */
  readonly tabulated: number;
}

export type AuditOutcome =
  { readonly ok: true; readonly summary: AuditSummary } | { readonly ok: false; readonly problem: string };

export type AuditFile = 'coded-csv' | 'coded-xlsx' | 'problems' | 'changes';

export class AuditTask {
  private run: AuditRun | null = null;
  private problems: FoundProblem[] = [];
  private kept = new Map<number, readonly string[]>();
  private coded: Blob[] = [];
  private table: CellTable | null = null;

  private constructor(
    private readonly source: RowSource,
    readonly opened: OpenedFile,
  ) {}

  /** Reads the first rows; a problem where they cannot be used. */
  static async open(source: RowSource): Promise<AuditTask | string> {
    const first: string[][] = [];
    for await (const rows of rowsOf(source)) {
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
    open: OpenAuditors = (of, setting) => [auditorHere(of, setting)],
  ): Promise<AuditOutcome> {
    const { format, size } = this.source;
    const taken = await takeHeader(this.source.pieces(), format);
    if (taken === null) return { ok: false, problem: 'There is no row in this file any more.' };
    const { header, newline, rest } = taken;
    const setting = { header, options, said, caseColumn, format, newline, keepsRows: true, tabulates: true };
    const run = new AuditRun(plan, header, options, said, caseColumn);
    const totals = new AuditTotals(header.length, run.caseColumn, run.columnProblems);
    this.run = run;
    this.problems = run.columnProblems.map((problem) => ({ row: 0, ...problem }));
    this.kept = new Map();
    this.coded = [new Blob([csvLines([run.outHeader], format)])];
    this.table = new CellTable(run.columns.length);
    const auditors = open(plan, setting, size);
    try {
      for await (const { from, audited } of auditedInOrder(rest, auditors)) {
        const before = totals.counts.rows;
        const { problems, refused } = totals.add(audited);
        if (refused !== null) return { ok: false, problem: `${refused} Nothing was changed.` };
        this.coded.push(new Blob([audited.written as Uint8Array<ArrayBuffer>]));
        if (before < MOST_TABULATED) this.table.append(audited.columns ?? []);
        for (const { row, cells } of audited.kept)
          if (this.kept.size < MOST_ROWS_KEPT) this.kept.set(before + row, cells);
        // One by one: a bunch of a workbook's rows may have more of them than a call takes arguments.
        for (const problem of problems.slice(0, MOST_LISTED - this.problems.length))
          this.problems.push(problem);
        progress(from.share);
      }
    } finally {
      for (const auditor of auditors) auditor.end();
    }
    return { ok: true, summary: this.summaryOf(totals) };
  }

  /** The coded rows in the order of the codebook, as far as they can be tabulated; null where none were audited. */
  tabulated(): readonly CellColumn[] | null {
    return this.table === null || this.table.count === 0 ? null : this.table.columns();
  }

  private summaryOf({
    counts,
    rowsWithProblems,
  }: {
    counts: AuditCounts;
    rowsWithProblems: number;
  }): AuditSummary {
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
      tabulated: this.table?.count ?? 0,
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
    for await (const rows of rowsOf(this.source)) {
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
        return this.changes();
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

  /** Every cell written otherwise than it was: far more than the rows themselves, so that it is made where it is asked for. */
  private async changes(): Promise<Blob> {
    const pieces = [new Blob([csvLines([['row', 'column', 'from', 'to', 'why']])])];
    const { run } = this;
    let row = -1;
    for await (const rows of rowsOf(this.source)) {
      const changed: (string | number)[][] = [];
      for (const cells of rows) {
        row += 1;
        // The first row of all is the header.
        if (row === 0 || run === null) continue;
        for (const change of run.changesOf(run.row(cells), cells))
          changed.push([row, change.column, change.from, change.to, WHY_WORDS[change.why]]);
      }
      if (changed.length > 0) pieces.push(new Blob([csvLines(changed)]));
    }
    return new Blob(pieces, { type: 'text/csv' });
  }

  private async workbook(): Promise<Blob> {
    const { default: ExcelJS } = await import('exceljs');
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
