/** What is no table of rows is refused by its first bytes or its size, before anything is read. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { openFile, sizeWords, rowsOf } from './read-file';

const file = (name: string, bytes: BlobPart[]) => new File(bytes, name);

async function problemOf(of: File): Promise<string> {
  const opening = await openFile(of, null);
  return opening.ok ? '' : opening.problem;
}

it('a file of 2 GB is refused with the command that takes it', async () => {
  const large = Object.defineProperty(file('large.csv', ['a,b\n']), 'size', { value: 2_000_000_000 });
  assert.match(
    await problemOf(large),
    /holds 2\.0 GB.*npx jolly-fork audit study\.fork\.json --data large\.csv/,
  );
});

it('an empty file, a picture and a broken workbook are refused by name', async () => {
  assert.match(await problemOf(file('none.csv', [])), /“none.csv” is empty/);
  assert.match(await problemOf(file('p.csv', [new Uint8Array([0x89, 0x50, 0x4e, 0x47])])), /a PNG picture/);
  assert.match(
    await problemOf(file('b.xlsx', [new Uint8Array([0x50, 0x4b, 3, 4, 0])])),
    /cannot be read as a workbook/,
  );
});

async function workbookOf(rows: readonly (readonly unknown[])[], name = 'Rows'): Promise<File> {
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet(name);
  for (const row of rows) sheet.addRow([...row]);
  return file('b.xlsx', [await book.xlsx.writeBuffer()]);
}

it('a workbook gives the rows of its first sheet, as wide as its first row', async () => {
  const opening = await openFile(await workbookOf([['a', 'b', 'c'], [1, 'x'], [], [null, null, 3]]), null);
  assert.ok(opening.ok);
  assert.equal(opening.source.readAs, 'workbook, its first sheet “Rows”');
  const rows: string[][] = [];
  for await (const bunch of rowsOf(opening.source)) rows.push(...bunch);
  assert.deepEqual(rows, [
    ['a', 'b', 'c'],
    ['1', 'x', ''],
    ['', '', '3'],
  ]);
  assert.match(await problemOf(await workbookOf([])), /The first sheet of “b.xlsx” is empty/);
});

it('says how it reads a text: what stands between cells, and in which encoding', async () => {
  for (const [text, words] of [
    ['a\tb\n1\t2\n', 'CSV with tabs between cells, UTF-8'],
    ['a;b\n1;2\n', 'CSV with “;” between cells, UTF-8'],
    ['a,b\n1,2\n', 'CSV with “,” between cells, UTF-8'],
  ] as const) {
    const opening = await openFile(file('t.csv', [text]), null);
    assert.equal(opening.ok && opening.source.readAs, words);
  }
});

it('sizes are told in the unit that one would use', () => {
  assert.deepEqual([900, 1001, 2_500_000, 25_000_000, 2_000_000_000].map(sizeWords), [
    '1 kB',
    '2 kB',
    '2.5 MB',
    '25 MB',
    '2.0 GB',
  ]);
});

it('text in Windows-1252 is read as such, and another encoding can be chosen', async () => {
  const western = file('w.csv', [new Uint8Array([0x61, 0x0a, 0xe9, 0x0a])]);
  const read = async (encoding: 'utf-8' | null) => {
    const opening = await openFile(western, encoding);
    assert.ok(opening.ok);
    const rows: string[][] = [];
    for await (const bunch of rowsOf(opening.source)) rows.push(...bunch);
    return { encoding: opening.source.encoding, rows };
  };
  assert.deepEqual(await read(null), { encoding: 'windows-1252', rows: [['a'], ['é']] });
  assert.deepEqual(await read('utf-8'), { encoding: 'utf-8', rows: [['a'], ['\uFFFD']] });
});
