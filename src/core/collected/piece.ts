/**
 * A piece of a collected file, audited by itself: the file's pieces can be audited at the same time, each by one that has
 * the questionnaire and the header, and are put together in order by `totals.ts`.
 */
import { raggedProblem, type SaidMatches } from '../audit/matching';
import { AuditRun, type AuditCounts } from '../audit/run';
import type { AuditOptions, RowProblem } from '../audit/types';
import type { Questionnaire } from '../document/types';
import { rowsInPiece, type RowsPiece } from '../exchange/csv';
import { csvBytes, type CsvFormat } from '../exchange/csv-bytes';
import type { Plan } from '../routing/plan';
import { CellTable, type CellColumn } from '../tables/cell-columns';

/** How a file is audited, all of its pieces alike. */
export interface AuditSetting {
  readonly header: readonly string[];
  readonly options: AuditOptions;
  readonly said: SaidMatches;
  /** The file's column with case numbers, where each is to come once. */
  readonly caseColumn: string | null;
  readonly format: CsvFormat;
  /** How lines end in pieces that are text. */
  readonly newline: string | undefined;
  /** Rows with problems are kept, as they were read. */
  readonly keepsRows: boolean;
  /** The coded rows are kept column by column, to be tabulated. */
  readonly tabulates: boolean;
}

export interface RowFound extends RowProblem {
  /** From 1 in the piece, or in the file; 0 for what concerns a column as a whole. */
  readonly row: number;
}

export interface PieceAudited {
  /** The rows as they are written again: as CSV, or cell by cell where they came so. */
  readonly written: Uint8Array | readonly (readonly (string | number)[])[];
  readonly counts: AuditCounts;
  /** With rows counted in the piece. */
  readonly problems: readonly RowFound[];
  /** By row, trimmed; empty where no column is said to hold them. */
  readonly cases: readonly string[];
  readonly kept: readonly { readonly row: number; readonly cells: readonly string[] }[];
  /** The coded rows, in the order of the codebook; null where they are not tabulated. */
  readonly columns: readonly CellColumn[] | null;
  /** A row that does not fit under its header ends the piece. */
  readonly ragged: { readonly row: number; readonly cells: readonly string[] } | null;
}

/** Audits piece after piece, here or on another thread. */
export interface PieceAuditor {
  audit(piece: RowsPiece): Promise<PieceAudited>;
  end(): void;
}

/** What another thread is told first. */
export interface PieceApi {
  open(document: Questionnaire, setting: AuditSetting): void;
  audit(piece: RowsPiece): PieceAudited;
}

export class PieceAudit {
  readonly run: AuditRun;

  constructor(
    plan: Plan,
    private readonly setting: AuditSetting,
  ) {
    const { header, options, said, caseColumn } = setting;
    this.run = new AuditRun(plan, header, options, said, caseColumn);
  }

  /** `as`: rows that go into something else than a CSV file are left cell by cell. */
  audit(piece: RowsPiece, as: 'csv' | 'cells' = 'csv'): PieceAudited {
    const { run, setting } = this;
    const { format, newline, header, keepsRows, tabulates, caseColumn } = setting;
    const written: (readonly (string | number)[])[] = [];
    const problems: RowFound[] = [];
    const cases: string[] = [];
    const kept: PieceAudited['kept'][number][] = [];
    const coded = tabulates ? new CellTable(run.columns.length) : null;
    let ragged: PieceAudited['ragged'] = null;
    run.startCounting();
    for (const cells of rowsInPiece(piece, format, newline)) {
      const row = run.counts.rows + 1;
      if (raggedProblem(row, cells, header.length) !== null) {
        ragged = { row, cells };
        break;
      }
      const audited = run.row(cells);
      written.push(audited.cells);
      coded?.add(audited.cells, run.outPlaces);
      if (caseColumn !== null) cases.push(run.caseOf(cells));
      if (audited.problems.length === 0) continue;
      for (const problem of audited.problems) problems.push({ row, ...problem });
      if (keepsRows) kept.push({ row, cells });
    }
    return {
      written: as === 'csv' ? csvBytes(written, format) : written,
      counts: run.counts,
      problems,
      cases,
      kept,
      columns: coded?.columns() ?? null,
      ragged,
    };
  }
}

/** On this thread. */
export function auditorHere(plan: Plan, setting: AuditSetting, as: 'csv' | 'cells' = 'csv'): PieceAuditor {
  const audit = new PieceAudit(plan, setting);
  return { audit: (piece) => Promise.resolve(audit.audit(piece, as)), end: () => undefined };
}
