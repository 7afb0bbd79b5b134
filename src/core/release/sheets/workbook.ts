/** Tables as a workbook (XLSX): a head that stays in sight, widths that fit, and nothing in it that hangs on the clock. */
import { isDefused } from '../../exchange/csv';
import { settled } from '../../exchange/zipped';

export interface Sheet {
  readonly name: string;
  readonly head: readonly string[];
  /** Of each column, in signs. */
  readonly widths: readonly number[];
  readonly rows: readonly (readonly (string | number)[])[];
}

/** Cells of a workbook hold at most so many signs. */
const MOST_SIGNS = 32_767;
/** It is packed when it is settled. */
const UNPACKED = { zip: { compression: 'STORE' } } as const;
const WHEN = new Date(Date.UTC(1980, 0, 1));

/** `about`: what stands in the header of every printed page. */
export async function workbook(title: string, about: string, sheets: readonly Sheet[]): Promise<Uint8Array> {
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  book.creator = 'Jolly Fork';
  book.lastModifiedBy = 'Jolly Fork';
  book.title = `${title}, ${about}`;
  book.created = WHEN;
  book.modified = WHEN;
  for (const { name, head, widths, rows } of sheets) {
    const sheet = book.addWorksheet(name, {
      views: [{ state: 'frozen', ySplit: 1 }],
      pageSetup: { orientation: 'landscape', fitToPage: true, fitToHeight: 0, fitToWidth: 1 },
      headerFooter: { oddHeader: `&R${headerText(`${title} · ${about}`)}`, oddFooter: '&R&P of &N' },
    });
    sheet.columns = head.map((words, n) => ({
      header: words,
      width: widths[n] ?? 12,
      style: { alignment: { vertical: 'top', wrapText: true } },
    }));
    sheet.getRow(1).font = { bold: true };
    for (const row of rows) sheet.addRow(row.map(cellOf));
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1, column: head.length } };
  }
  return settled(new Uint8Array(await book.xlsx.writeBuffer(UNPACKED)));
}

/** Texts stay texts: a workbook runs no cell that is stored as one, and a program that turns it into CSV finds the mark. */
function cellOf(cell: string | number): string | number {
  if (typeof cell === 'number') return cell;
  return (isDefused(cell) ? `'${cell}` : cell).slice(0, MOST_SIGNS);
}

/** In a header `&` begins an order, and more than 255 signs in all do not open. */
function headerText(text: string): string {
  return text.replaceAll('&', '&&').slice(0, 200);
}
