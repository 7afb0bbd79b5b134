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

it('a file just as large as is read is read, and one byte more is refused', async () => {
  const sized = (name: string, bytes: BlobPart[], size: number) =>
    Object.defineProperty(file(name, bytes), 'size', { value: size });
  assert.equal(await problemOf(sized('rows.csv', ['a,b\n1,2\n'], 300_000_000)), '');
  assert.match(await problemOf(sized('rows.csv', ['a,b\n1,2\n'], 300_000_001)), /holds 300 MB/);
  const zip = new Uint8Array([0x50, 0x4b, 3, 4, 0]);
  assert.match(await problemOf(sized('b.xlsx', [zip], 40_000_000)), /cannot be read as a workbook/);
  assert.match(
    await problemOf(sized('b.xlsx', [zip], 40_000_001)),
    /Workbooks of up to 40 MB are read here: save it as CSV/,
  );
});

it('tells how much of it was read, to its end', async () => {
  for (const of of [
    file('t.csv', ['a,b\n1,2\n', '3,4\n']),
    await workbookOf([['a'], ...Array.from({ length: 4500 }, (_, n) => [n])]),
  ]) {
    const opening = await openFile(of, null);
    assert.ok(opening.ok);
    const shares: number[] = [];
    let rows = 0;
    for await (const { share, piece } of opening.source.pieces()) {
      shares.push(share);
      rows += typeof piece === 'string' ? 0 : piece.length;
    }
    assert.ok(shares.every((share, n) => share > 0 && share <= 1 && share >= (shares[n - 1] ?? 0)));
    assert.equal(shares.at(-1), 1);
    if (of.name === 'b.xlsx') assert.deepEqual([rows, shares.length, shares[0]], [4501, 3, 2000 / 4501]);
  }
});

it('takes a text for UTF-8 only where all of it is', async () => {
  // The first part fits both; the last line tells.
  const long = new TextEncoder().encode('a\n'.repeat(40_000));
  const encodings = [];
  for (const end of [
    [0xc3, 0xa9, 0x0a],
    [0xe9, 0x0a],
    [0x62, 0x0a, 0xc3],
  ]) {
    const opening = await openFile(file('t.csv', [long, new Uint8Array(end)]), null);
    encodings.push(opening.ok && opening.source.encoding);
  }
  assert.deepEqual(encodings, ['utf-8', 'windows-1252', 'windows-1252']);
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
  const sizes = [900, 1001, 999_999, 1e6, 2_500_000, 9_999_999, 1e7, 25_000_000, 1e9, 2_000_000_000];
  assert.deepEqual(sizes.map(sizeWords), [
    ...['1 kB', '2 kB', '1000 kB', '1.0 MB', '2.5 MB', '10.0 MB', '10 MB', '25 MB', '1.0 GB', '2.0 GB'],
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
