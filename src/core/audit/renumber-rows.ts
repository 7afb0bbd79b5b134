/** Coded rows under the names and codes of an edited questionnaire. */
import { columnsOf, type Column } from '../coding/columns';
import type { Renumbering } from '../coding/renumbered';
import { missingCode } from '../coding/row';
import { MISSING_REASONS } from '../document/types';
import type { Plan } from '../routing/plan';
import { readerOf, type CellReading } from './readings';

export interface RowRenumbering {
  /** New names of columns, by old ones; those that are gone stay as they are. */
  readonly names: ReadonlyMap<string, string>;
  /** A cell of a column, by its old name, as it is written now. */
  cell(column: string, text: string): string;
}

/** Null where every cell stays as it is. */
export function renumberRows(
  before: Plan,
  after: Plan,
  renumbering: Renumbering | null,
): RowRenumbering | null {
  const now = new Map(columnsOf(after).map((column) => [identityOf(column, null), column]));
  const names = new Map<string, string>();
  const cells = new Map<string, (text: string) => string>();
  for (const column of columnsOf(before)) {
    const same = now.get(identityOf(column, renumbering));
    if (same === undefined) continue;
    if (same.name !== column.name) names.set(column.name, same.name);
    const codes = 'source' in column ? renumbering?.codes.get(column.source.variable) : undefined;
    const read = readerOf(before, column);
    const rewrite = (text: string) => rewritten(after, same, codes, read(text), text);
    if (codes !== undefined || differsInMissing(before, after, column, same)) cells.set(column.name, rewrite);
  }
  if (names.size === 0 && cells.size === 0) return null;
  return { names, cell: (column, text) => cells.get(column)?.(text) ?? text };
}

/** The same for a column before and after: its variable, pass, kind and option, as they are called now. */
function identityOf(column: Column, renumbering: Renumbering | null): string {
  if (column.kind === 'ending' || column.kind === 'derived') return `${column.kind} ${column.name}`;
  const { variable } = column.source;
  const pass = column.source.of === 'item' ? column.source.pass : null;
  const byOption = column.kind === 'pick' || column.kind === 'specify';
  const code = byOption ? (renumbering?.codes.get(variable)?.get(column.code) ?? column.code) : column.code;
  return `${column.kind} ${renumbering?.names.get(variable) ?? variable} ${pass ?? ''} ${code}`;
}

function rewritten(
  after: Plan,
  column: Column,
  codes: ReadonlyMap<number, number> | undefined,
  reading: CellReading,
  text: string,
): string {
  if (reading.kind === 'reason') return String(codeIn(after, column, reading.reason) ?? text);
  if (reading.kind !== 'value' || typeof reading.value !== 'number' || codes === undefined) return text;
  // Picks hold 0 and 1; only a don't-know's code is one of the question's own there.
  if ('source' in column && column.kind === 'pick' && (reading.value === 0 || reading.value === 1))
    return text;
  return String(codes.get(reading.value) ?? text);
}

function differsInMissing(before: Plan, after: Plan, a: Column, b: Column): boolean {
  return before.document.missing.some(({ reason }) => codeIn(before, a, reason) !== codeIn(after, b, reason));
}

/** Null where the plan knows no such reason. */
function codeIn({ document }: Plan, column: Column, reason: string): number | null {
  const question = 'source' in column && column.source.of === 'item' ? column.source.question : null;
  const planned = document.missing.find((entry) => entry.reason === reason)?.code ?? null;
  const known = MISSING_REASONS.find((each) => each === reason);
  if (known !== undefined) return missingCode(document, question, known);
  return question?.missingCodes?.[reason] ?? planned;
}
