/** Workbooks that would fill the memory are told before they are opened. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { strToU8, zipSync } from 'fflate';
import { workbookProblem } from './workbook-size';

const LIMITS = { unpacked: 5_000_000, texts: 1_000 };

async function problemOf(files: Record<string, Uint8Array>, piece = 10_000): Promise<string | null> {
  const bytes = zipSync(files, { level: 9 });
  async function* pieces() {
    for (let at = 0; at < bytes.length; at += piece)
      yield await Promise.resolve(bytes.subarray(at, at + piece));
  }
  return workbookProblem(pieces(), LIMITS);
}

const texts = (many: number) => strToU8(`<sst>${'<si><t>a</t></si>'.repeat(many)}</sst>`);

it('a workbook within the limits is opened, and one that unpacks to more is not', async () => {
  assert.equal(await problemOf({ 'xl/worksheets/sheet1.xml': new Uint8Array(4_900_000) }), null);
  assert.match(
    (await problemOf({ 'xl/worksheets/sheet1.xml': new Uint8Array(60_000_000) })) ?? '',
    /more than 5 MB/,
  );
  const halves = { 'xl/a.xml': new Uint8Array(3_000_000), 'xl/b.xml': new Uint8Array(3_000_000) };
  assert.match((await problemOf(halves)) ?? '', /more than 5 MB/);
});

it('texts are counted wherever a piece ends', async () => {
  for (const piece of [1, 7, 10_000]) {
    assert.equal(await problemOf({ 'xl/sharedStrings.xml': texts(1_000) }, piece), null);
    assert.match((await problemOf({ 'xl/sharedStrings.xml': texts(1_001) }, piece)) ?? '', /different texts/);
  }
});

it('what is no workbook is left to the reader of workbooks', async () => {
  async function* words() {
    yield await Promise.resolve(strToU8('PK\u0003\u0004 and then something else altogether'));
  }
  assert.equal(await workbookProblem(words()), null);
});

it('a workbook that lacks its end was cut off', async () => {
  const bytes = zipSync({ 'xl/a.xml': strToU8('<a/>'.repeat(100)), 'xl/b.xml': strToU8('<b/>') });
  for (const length of [bytes.length, bytes.length - 23, 60]) {
    async function* cut() {
      yield await Promise.resolve(bytes.subarray(0, length / 2));
      yield await Promise.resolve(bytes.subarray(length / 2, length));
    }
    const problem = await workbookProblem(cut());
    if (length === bytes.length) assert.equal(problem, null);
    else assert.match(problem ?? '', /cut off/, `${length}`);
  }
});
