/** A table taken elsewhere: as CSV, as a workbook, or copied to be pasted as a table. */
import { useState } from 'react';
import { escaped } from '../../../core/exchange/markup';
import { csvLines } from '../../../core/exchange/csv';
import type { SheetCells } from '../../../core/views/table-sheets';
import { useStudy } from '../../state/store';
import { saveBlob } from '../../ui/save-blob';
import { useData } from '../../state/data';
import classes from './tables.module.css';
import { why } from '../../ui/why';

interface Props {
  readonly name: string;
  readonly sheet: () => SheetCells;
}

export function TableFiles({ name, sheet }: Props) {
  const { client } = useData();
  const document = useStudy((state) => state.document);
  const [told, setTold] = useState('');
  const workbook = async () => {
    try {
      const worker = await client.about(document);
      saveBlob(await worker.sheet(name, sheet()), `${name}.xlsx`);
    } catch (error) {
      setTold(`This file could not be made: ${why(error)}`);
    }
  };
  const copy = async () => {
    const cells = sheet();
    const plain = cells.map((row) => row.join('\t')).join('\n');
    try {
      await navigator.clipboard.write([
        new ClipboardItem({
          'text/plain': new Blob([plain], { type: 'text/plain' }),
          'text/html': new Blob([htmlOf(cells)], { type: 'text/html' }),
        }),
      ]);
      setTold('Copied: paste it into a document or a sheet.');
    } catch {
      setTold('The browser does not allow copying here: take the CSV instead.');
    }
  };
  return (
    <div className={classes.files}>
      <button
        type="button"
        onClick={() => saveBlob(new Blob([csvLines(sheet())], { type: 'text/csv' }), `${name}.csv`)}
      >
        CSV
      </button>
      <button type="button" onClick={() => void workbook()}>
        XLSX
      </button>
      <button type="button" onClick={() => void copy()}>
        Copy
      </button>
      <small role="status">{told}</small>
    </div>
  );
}

/** As documents and sheets take it: a table with a heading cell for each row. */
function htmlOf(cells: SheetCells): string {
  const rows = cells.map(
    (row) => `<tr>${row.map((cell) => `<td>${escaped(String(cell))}</td>`).join('')}</tr>`,
  );
  return `<table>${rows.join('')}</table>`;
}
