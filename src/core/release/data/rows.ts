/** Rows of data that go into files: made up, or of a file that was audited, each cell as the codebook writes it. */
import { readerOf } from '../../audit/readings';
import { columnsOf } from '../../coding/columns';
import { CsvRows, sniffFormat } from '../../exchange/csv';
import type { Plan } from '../../routing/plan';
import { madeUpRespondents } from '../../simulate/respondents';

export interface DataRows {
  /** Whose they are: “1,000 made-up respondents (seed 1)”. */
  readonly about: string;
  /** In the order of `columnsOf`; empty text where a cell is blank. */
  readonly rows: readonly (readonly (string | number)[])[];
}

/** Which rows a file is asked for with. */
export type RowsGiven =
  | { readonly of: 'made-up'; readonly count: number; readonly seed: number }
  | {
      readonly of: 'rows';
      readonly about: string;
      readonly header: readonly string[];
      readonly rows: readonly (readonly (string | number)[])[];
    };

export type RowsRead =
  | { readonly ok: true; readonly data: DataRows }
  /** Sentences, at most `MOST_TOLD` and one that says how many more there are. */
  | { readonly ok: false; readonly problems: readonly string[] };

const MOST_TOLD = 20;
/** Rows that are written at most. */
export const MOST_ROWS = 1_000_000;

export function madeUpRows(plan: Plan, count: number, seed: number): DataRows {
  return {
    about: `${count.toLocaleString('en')} made-up respondents (seed ${seed}), not collected`,
    rows: [...madeUpRespondents(plan, count, seed)].map((person) => person.row()),
  };
}

export function rowsGiven(plan: Plan, given: RowsGiven): RowsRead {
  return given.of === 'made-up'
    ? { ok: true, data: madeUpRows(plan, given.count, given.seed) }
    : rowsUnder(plan, given.about, given.header, given.rows);
}

/** Cells under a header, which has every column of the questionnaire and no other, in any order. */
export function rowsUnder(
  plan: Plan,
  about: string,
  header: readonly string[],
  cells: readonly (readonly (string | number)[])[],
): RowsRead {
  const columns = columnsOf(plan);
  const at = new Map(header.map((name, n) => [name.trim(), n]));
  const known = new Set(columns.map(({ name }) => name));
  const lacking = columns.filter(({ name }) => !at.has(name)).map(({ name }) => name);
  const more = header.filter((name) => !known.has(name.trim()));
  if (lacking.length > 0 || more.length > 0)
    return {
      ok: false,
      problems: [
        ...(lacking.length > 0 ? [`It has no column ${listed(lacking)}.`] : []),
        ...(more.length > 0 ? [`The questionnaire has no column ${listed(more)}.`] : []),
        'Audit the file first: the audit brings columns and codes into the order of the codebook.',
      ],
    };
  if (cells.length > MOST_ROWS)
    return { ok: false, problems: [`It has more than ${MOST_ROWS.toLocaleString('en')} rows: divide it.`] };
  const readers = columns.map((column) => readerOf(plan, column));
  const places = columns.map(({ name }) => at.get(name) ?? -1);
  const wrong: string[] = [];
  let count = 0;
  const rows = cells.map((row, n) =>
    places.map((place, c) => {
      const cell = row[place] ?? '';
      const reading = readers[c]?.(String(cell)) ?? { kind: 'blank' };
      if (reading.kind === 'value') return reading.value;
      if (reading.kind === 'blank') return '';
      if (reading.kind === 'reason') return Number(cell);
      count += 1;
      if (wrong.length < MOST_TOLD) wrong.push(`Row ${n + 2}: “${cell}” is no value of ${columns[c]?.name}.`);
      return '';
    }),
  );
  if (count === 0) return { ok: true, data: { about, rows } };
  const rest =
    count > wrong.length ? [`${(count - wrong.length).toLocaleString('en')} more cells are like that.`] : [];
  return { ok: false, problems: [...wrong, ...rest, 'Audit the file first, and give the rows it keeps.'] };
}

/** A CSV file in UTF-8 with a header. */
export function rowsOfCsv(plan: Plan, name: string, text: string): RowsRead {
  const reader = new CsvRows(sniffFormat(text.slice(0, 100_000)));
  const [header = [], ...cells] = reader.push(text.replace(/^\uFEFF/, ''), true);
  return rowsUnder(plan, name, header, cells);
}

function listed(names: readonly string[]): string {
  const shown = names.slice(0, 6).join(', ');
  return names.length > 6 ? `${shown} and ${names.length - 6} more` : shown;
}
