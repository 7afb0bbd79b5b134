/** What crosses between the main thread and the data worker. */
import type { FileColumn, SaidMatches } from '../../core/audit/matching';
import type { ProblemKind } from '../../core/audit/problems';
import type { AuditOptions } from '../../core/audit/types';
import type { Walked } from '../../core/document/walked';
import type { Encoding } from '../../core/exchange/csv';
import type { Cross } from '../../core/tables/cross';
import type { Frequency } from '../../core/tables/frequency';
import type { AuditFile, AuditOutcome, FoundProblem, OpenedFile } from './audit-task';

/** Which rows are tabulated. */
export type RowSource =
  /** Respondents made up by the assumed answers. */
  | { readonly of: 'made-up'; readonly count: number; readonly seed: number }
  /** The file audited last. */
  | { readonly of: 'audited' }
  /** Rows that were handed over under a name. */
  | { readonly of: 'rows'; readonly key: string };

export type DataReply<Answer> =
  | { readonly ok: true; readonly answer: Answer }
  | {
      readonly ok: false;
      readonly problem: string;
      readonly span?: { readonly from: number; readonly to: number };
    };

export interface Counted<Table> {
  readonly table: Table;
  /** Rows in the source, and those that the filter leaves. */
  readonly rows: number;
  readonly kept: number;
}

export interface DataApi {
  load(document: unknown): void;
  open(file: File, encoding: Encoding | null): Promise<DataReply<OpenedFile>>;
  /** All cells of a small file, to be read as something else than answers. */
  cells(file: File): Promise<DataReply<readonly (readonly string[])[]>>;
  matching(said: SaidMatches): readonly FileColumn[];
  /** `caseColumn`: the file's column with case numbers, where each is to come once. */
  audit(
    options: AuditOptions,
    said: SaidMatches,
    caseColumn: string | null,
    progress: (share: number) => void,
  ): Promise<AuditOutcome>;
  problems(
    where: { readonly problem?: ProblemKind; readonly column?: string; readonly row?: number },
    from: number,
    count: number,
  ): { readonly problems: readonly FoundProblem[]; readonly total: number };
  walked(row: number): Promise<(Walked & { readonly stoppedAt?: string }) | null>;
  file(which: AuditFile): Promise<Blob>;
  /** The coded rows of the file audited last, with their header, to be kept. */
  coded(): { readonly header: readonly string[]; readonly rows: readonly (readonly (string | number)[])[] };
  /** Rows to be tabulated, under a header with the codebook's names. */
  hand(key: string, header: readonly string[], rows: readonly (readonly (string | number)[])[]): void;
  frequency(source: RowSource, variable: string, filter: string): DataReply<Counted<Frequency>>;
  cross(source: RowSource, row: string, column: string, filter: string): DataReply<Counted<Cross>>;
  /** Rows as a workbook, the first one as its head. */
  sheet(name: string, rows: readonly (readonly (string | number)[])[]): Promise<Blob>;
}
