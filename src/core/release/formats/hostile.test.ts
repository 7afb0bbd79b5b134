/** Files that are broken, huge or meant to harm: every reader says no in a sentence, and none of them throws. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { zipSync } from 'fflate';
import { FEATURED } from '../../../../tests/agree/featured';
import type { Questionnaire } from '../../document/types';
import { NO_WORK } from '../../exchange/work-file';
import { zipped } from '../../exchange/zipped';
import { planOf } from '../../routing/planner';
import { madeUpRows } from '../data/rows';
import type { FileFormat, Written } from '../format-types';
import { FORMATS } from './index';
import type { FormatName } from './known';
import { recognised } from './recognise';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const READ = (Object.entries(FORMATS) as [FormatName, FileFormat][]).flatMap(([name, { read }]) =>
  read === null ? [] : [{ name, read }],
);
const many = (unit: string, bytes: number) => bytesOf(unit.repeat(Math.ceil(bytes / unit.length)));

const HOSTILE: Readonly<Record<string, Uint8Array>> = {
  nothing: new Uint8Array(),
  'a picture': new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, ...Array<number>(64).fill(7)]),
  'entities that grow': bytesOf(
    '<!DOCTYPE l [<!ENTITY a "ha"><!ENTITY b "&a;&a;">]><codeBook>&b;</codeBook>',
  ),
  'an entity of the machine': bytesOf('<!DOCTYPE l [<!ENTITY a SYSTEM "file:///etc/hostname">]><a>&a;</a>'),
  'elements without end': bytesOf('<DDIInstance xmlns="ddi:instance:3_3">'.repeat(400)),
  'lists without end': bytesOf(`{"format":${'['.repeat(20_000)}`),
  'a prototype': bytesOf('{"format":"jolly-fork/questionnaire","__proto__":{"version":1}}'),
  'a zip that climbs out of its folder': zipSync({ '../../datapackage.json': bytesOf('{"resources":[]}') }),
  'a zip of nothing but zeros': zipSync({ 'word/document.xml': new Uint8Array(2_000_000) }),
  'half a zip': zipSync({ 'csv-metadata.json': bytesOf('{}') }).subarray(0, 40),
  'too many lines': many('1. Why?\n', 200_000),
  'too much text': many('words and words and words\n', 21_000_000),
  'too many variables': bytesOf(`<codeBook>${'<var ID="v"/>'.repeat(20_001)}</codeBook>`),
  'one line in the wrong encoding': new Uint8Array([0xff, 0xfe, 0x00, 0xd8, 0x00]),
};

describe('a file meant to harm', () => {
  for (const [what, bytes] of Object.entries(HOSTILE))
    it(`is refused by every reader: ${what}`, async () => {
      for (const { name, read } of READ) {
        const result = await read(bytes, 'file');
        // A list takes any few words for a question; nothing of the file is run or followed.
        if (result.ok) assert.ok(name === 'list' && bytes.length < 100_000, name);
        else assert.match(result.problems[0] ?? '', /\S+ \S+/, name);
        assert.ok(typeof recognised('file', bytes) === 'string');
      }
    });
});

it('cut off anywhere, or with a byte changed, a file of ours is refused or read, and never more than that', async () => {
  const [document] = FEATURED as readonly Questionnaire[];
  assert.ok(document !== undefined);
  const content = { document, work: NO_WORK, data: madeUpRows(planOf(document), 3, 1) };
  let refused = 0;
  for (const [name, { write, read, endings }] of Object.entries(FORMATS) as [FormatName, FileFormat][]) {
    if (write === null || read === null) continue;
    const written: Written = await write(content, endings[0]);
    const whole: Uint8Array =
      typeof written === 'string'
        ? bytesOf(written)
        : written instanceof Uint8Array
          ? written
          : zipped(written);
    for (let n = 1; n <= 8; n += 1) {
      const at = Math.floor((whole.length * n) / 9);
      for (const bytes of [whole.slice(0, at), whole.with(at, (whole[at] ?? 0) ^ 0x2a)]) {
        const result = await read(bytes, 'file');
        if (result.ok) continue;
        refused += 1;
        assert.ok(result.problems.length > 0, name);
      }
    }
  }
  assert.ok(refused > 40, `${refused} refused`);
});
