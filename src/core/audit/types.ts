/** What an audit says of collected rows. */

import type { ProblemKind } from './problems';

/** Something about one cell that the routing or the codebook does not allow; the cell is left as it was. */
export interface RowProblem {
  readonly problem: ProblemKind;
  /** As the column is called in the codebook. */
  readonly column: string;
  /** What the cell holds, as it was read. */
  readonly value: string;
  /** What it should say, or what it is the same as: the id of the ending that the answers lead to, or a row. */
  readonly instead?: string;
}

/** How the file writes what the codebook writes otherwise. All false: such cells are listed as missing answers. */
export interface AuditOptions {
  /** A question that may be left blank and is blank gets the code for no answer. */
  readonly codeBlanks?: boolean;
  /** A blank among the picks of an answered question means not picked. */
  readonly blankPicks?: boolean;
}

export interface CellWritten {
  /** Index among the columns of the codebook. */
  readonly column: number;
  readonly value: number | string;
}

/** How far a respondent came. */
export type Came =
  | { readonly to: 'ending'; readonly ending: number }
  /** `name` or `name#pass` of the last item presented. */
  | { readonly to: 'stop'; readonly at: string };

export interface RowJudgement {
  readonly problems: readonly RowProblem[];
  /** Blanks that follow from the routing, with what is written there. */
  readonly filled: readonly CellWritten[];
  /** Labels written as codes. */
  readonly recoded: readonly CellWritten[];
  readonly came: Came;
}
