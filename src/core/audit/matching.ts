/** The columns of a collected file matched to those of the codebook: by name, by label, or as somebody said. */
import type { Column } from '../coding/columns';
import { hasRows } from '../document/answer-types';
import { optionsOf } from '../document/shape';
import type { Question, Questionnaire } from '../document/types';
import type { RowProblem } from './types';

export type MatchedBy = 'name' | 'label' | 'hand';

export interface FileColumn {
  /** As the file has it. */
  readonly name: string;
  /** Index among the columns of the codebook; null where it is none of them. */
  readonly column: number | null;
  readonly by: MatchedBy | null;
}

export interface Matching {
  readonly header: readonly FileColumn[];
  /** Parallel to the columns of the codebook: index in the file, or -1. */
  readonly places: readonly number[];
}

/** What somebody said: names in the file, with the name of the codebook's column, or null for none of them. */
export type SaidMatches = Readonly<Record<string, string | null>>;

/** Why a header cannot be used, as a sentence; null where it can. */
export function headerProblem(header: readonly string[]): string | null {
  const unnamed = header.findIndex((name) => name.trim() === '');
  if (unnamed >= 0) return `Column ${unnamed + 1} has no name: give every column a name in the first row.`;
  const known = new Map<string, number>();
  for (const [index, name] of header.entries()) {
    const before = known.get(name.trim());
    if (before !== undefined)
      return `Columns ${before + 1} and ${index + 1} are both called “${name.trim()}”: give each its own name.`;
    known.set(name.trim(), index);
  }
  return null;
}

/** The column that looks like the one with case numbers; null where none does. */
export function likelyCaseColumn(header: readonly string[]): string | null {
  const like =
    /^(?:(?:case|respondent|resp|interview|form|person|household)[ _-]?(?:id|no|nr|number)?|id|caseid|serial)$/i;
  return header.find((name) => like.test(name.trim()))?.trim() ?? null;
}

/** Why a row does not fit under its header, as a sentence; null where it does. Cells too many may be empty. */
export function raggedProblem(row: number, cells: readonly string[], width: number): string | null {
  if (cells.length === width) return null;
  if (cells.length > width && cells.slice(width).every((cell) => cell === '')) return null;
  return `Row ${row} has ${cells.length} cells, and the first row ${width}: is there a delimiter or a quote too many?`;
}

/** No column of the codebook is taken twice. `said` wins over names, names over labels. */
export function matchColumns(
  document: Questionnaire,
  columns: readonly Column[],
  header: readonly string[],
  said: SaidMatches = {},
): Matching {
  const names = new Map(columns.map(({ name }, index) => [name, index]));
  const small = new Map(columns.map(({ name }, index) => [name.toLowerCase(), index]));
  const labels = labelsOf(document, columns);
  const places = columns.map(() => -1);
  const found: (FileColumn | null)[] = header.map(() => null);
  const take = (by: MatchedBy, columnOf: (name: string) => number | undefined) =>
    header.forEach((written, at) => {
      if (found[at] != null) return;
      const name = written.trim();
      const column = columnOf(name);
      if (column === undefined || (column >= 0 && places[column] !== -1)) return;
      found[at] = { name: written, column: column < 0 ? null : column, by };
      if (column >= 0) places[column] = at;
    });
  // What somebody said comes before what is called alike, and exact names before others.
  take('hand', (name) => {
    if (!Object.hasOwn(said, name)) return undefined;
    const to = said[name];
    return to == null ? -1 : names.get(to);
  });
  take('name', (name) => names.get(name));
  take('name', (name) => small.get(name.toLowerCase()));
  take('label', (name) => labels.get(plain(name)));
  return {
    header: header.map((name, at) => found[at] ?? { name, column: null, by: null }),
    places,
  };
}

/**
 * Columns that the file lacks or has too many. A derived variable that is not there is worked out; a column that
 * somebody said is none of the codebook's is meant to be there.
 */
export function columnProblems(columns: readonly Column[], { header, places }: Matching): RowProblem[] {
  return [
    ...header.flatMap(({ name, column, by }): RowProblem[] =>
      column === null && by === null ? [{ problem: 'unknown-column', column: name, value: '' }] : [],
    ),
    ...columns.flatMap((column, index): RowProblem[] =>
      places[index] === -1 && column.kind !== 'derived'
        ? [{ problem: 'missing-column', column: column.name, value: '' }]
        : [],
    ),
  ];
}

/** Labels that one column alone has. */
function labelsOf(document: Questionnaire, columns: readonly Column[]): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  columns.forEach((column, index) => {
    for (const label of namesInWords(document, column)) {
      const key = plain(label);
      if (key !== '') found.set(key, found.has(key) ? -2 : index);
    }
  });
  for (const [label, index] of found) if (index === -2) found.delete(label);
  return found;
}

function namesInWords(document: Questionnaire, column: Column): string[] {
  if (column.kind === 'ending') return [];
  if (column.kind === 'derived') return [document.derived?.[column.index]?.label ?? ''];
  const { source } = column;
  const own = source.of === 'given' ? [source.given.label] : wordsOf(source.question, source.row);
  if (column.kind === 'value') return own;
  if (column.kind !== 'pick') return [];
  const option = optionsOf(source.answer).find(({ code }) => code === column.code)?.label ?? '';
  return own.map((label) => `${label}: ${option}`);
}

function wordsOf({ label, text, answer }: Question, row: number | null): string[] {
  const own = label === undefined ? [text] : [label, text];
  const of = row !== null && hasRows(answer) ? answer.rows[row]?.label : undefined;
  return of === undefined ? own : [of, ...own.map((words) => `${words}: ${of}`)];
}

function plain(text: string): string {
  return text.trim().replace(/\s+/g, ' ').toLowerCase();
}
