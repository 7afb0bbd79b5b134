/**
 * Rows as a Parquet file. Cells hold the codes that the CSV has, those for no answer among them, so that both give the
 * same counts; what they mean stands in the file's own metadata, as JSON.
 */
import type { ColumnSource } from 'hyparquet-writer';
import type { AboutData } from './csvw';
import type { DataField } from './fields';
import type { DataRows } from './rows';

/** Under which the meaning of columns and codes is kept in the file. */
export const PARQUET_KEY = 'jolly-fork';

export async function parquetFile(
  fields: readonly DataField[],
  { rows, about: whose }: DataRows,
  about: AboutData,
): Promise<Uint8Array> {
  const { parquetWriteBuffer } = await import('hyparquet-writer');
  const meaning = {
    ...about,
    rows: whose,
    variables: fields.map(({ name, label, question, measure, values, missing }) => ({
      name,
      label,
      question,
      measure,
      values,
      missing,
    })),
  };
  const buffer = parquetWriteBuffer({
    columnData: fields.map((field, at) => columnOf(field, rows, at)),
    kvMetadata: [{ key: PARQUET_KEY, value: JSON.stringify(meaning) }],
    createdBy: 'Jolly Fork',
  });
  return new Uint8Array(buffer);
}

function columnOf({ name, holds }: DataField, rows: DataRows['rows'], at: number): ColumnSource {
  const cells = rows.map((row) => row[at] ?? '');
  switch (holds) {
    case 'whole':
      return { name, type: 'INT64', data: cells.map((cell) => (cell === '' ? null : BigInt(cell))) };
    case 'number':
      return { name, type: 'DOUBLE', data: cells.map((cell) => (cell === '' ? null : Number(cell))) };
    // Days and times share their column with codes for no answer, which are none.
    case 'date':
    case 'time':
    case 'datetime':
    case 'text':
      return { name, type: 'STRING', data: cells.map((cell) => (cell === '' ? null : String(cell))) };
    default:
      return holds satisfies never;
  }
}
