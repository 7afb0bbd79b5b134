/** What is no table of rows is refused by its first bytes or its size, before anything is read. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { openFile } from './read-file';

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

it('text in Windows-1252 is read as such, and another encoding can be chosen', async () => {
  const western = file('w.csv', [new Uint8Array([0x61, 0x0a, 0xe9, 0x0a])]);
  const read = async (encoding: 'utf-8' | null) => {
    const opening = await openFile(western, encoding);
    assert.ok(opening.ok);
    const rows: string[][] = [];
    for await (const bunch of opening.source.rows()) rows.push(...bunch.rows);
    return { encoding: opening.source.encoding, rows };
  };
  assert.deepEqual(await read(null), { encoding: 'windows-1252', rows: [['a'], ['é']] });
  assert.deepEqual(await read('utf-8'), { encoding: 'utf-8', rows: [['a'], ['\uFFFD']] });
});
