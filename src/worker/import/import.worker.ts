/** A file that was chosen, read off the main thread: a codebook of an archive takes seconds. */
import { expose } from 'comlink';
import * as v from 'valibot';
import { cellsOf } from '../../core/exchange/sheet-cells';
import { docxLines } from '../../core/exchange/docx-lines';
import { ITEM_COLUMN_NAMES, type ItemColumn } from '../../core/exchange/items/columns';
import { readItems } from '../../core/exchange/items/read-items';
import type { ReadStudy } from '../../core/release/format-types';
import { isRead, KNOWN } from '../../core/release/formats/known';
import { READERS } from '../../core/release/formats/readers';
import { listLines } from '../../core/release/formats/of-variables';
import { titleFrom } from '../../core/release/formats/lost';
import { recognised } from '../../core/release/formats/recognise';
import type { ImportApi, ReadFile } from './types';

const Said = v.record(v.string(), v.nullable(v.picklist(ITEM_COLUMN_NAMES)));

/** The largest that is looked at at all, in bytes. */
const MOST_BYTES = 100_000_000;

const api: ImportApi = {
  async read(file, said) {
    const { name, size } = v.parse(v.instance(File), file);
    if (size > MOST_BYTES) return refusal([`It is larger than ${MOST_BYTES / 1e6} MB.`]);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const format = recognised(name, bytes);
    if (format === 'work') return { as: 'work' };
    if (format === 'docx') {
      const text = await docxLines(bytes);
      return text.ok ? { as: 'list', source: text.text } : refusal([text.problem]);
    }
    if (format === 'list') {
      const lines = listLines(bytes);
      return lines.ok ? { as: 'list', source: lines.text } : refusal([lines.problem]);
    }
    if (format === 'items') return items(bytes, name, v.parse(Said, said));
    const { words } = KNOWN[format];
    if (!isRead(format)) return refusal([`${words} is written here, and not read.`]);
    const result: ReadStudy = await READERS[format](bytes, name);
    return result.ok
      ? {
          as: 'questionnaire',
          words,
          document: result.content.document,
          doubts: result.doubts ?? [],
          columns: null,
        }
      : refusal(result.problems);
  },
};

function refusal(problems: readonly string[]): ReadFile {
  return { as: 'nothing', problems };
}

/** A table, with what each of its columns was taken for. */
async function items(
  bytes: Uint8Array,
  name: string,
  said: Readonly<Record<string, ItemColumn | null>>,
): Promise<ReadFile> {
  const cells = await cellsOf(bytes);
  if (!cells.ok) return refusal([cells.problem]);
  const [header = []] = cells.cells;
  const read = readItems(cells.cells, titleFrom(name), said);
  const columns = header.map((head, n) => ({
    head,
    sample: cells.cells[1]?.[n] ?? '',
    taken: read.ok ? (read.columns[n] ?? null) : null,
  }));
  return read.ok
    ? {
        as: 'questionnaire',
        words: KNOWN.items.words,
        document: read.document,
        doubts: read.doubts,
        columns,
      }
    : { as: 'unmatched', problems: read.problems, columns };
}

expose(api);
