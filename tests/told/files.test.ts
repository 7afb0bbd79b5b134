/**
 * Every file of the package but pictures and PDF, by a checksum of what is in it: nothing that leaves the house changes unnoticed.
 * Where a difference is meant, look at the files before and after (`bin/jolly-fork convert`), and write it down with
 * `KEEP_TOLD=1 npm run unit -- told`.
 */
import assert from 'node:assert/strict';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { after, it } from 'node:test';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { unzipSync } from 'fflate';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { planOf } from '../../src/core/routing/planner';
import { madeUpRows } from '../../src/core/release/data/rows';
import { FORMATS } from '../../src/core/release/formats';
import { HANDED_OVER, kindsOf } from '../../src/core/release/formats/known';
import { packageFiles, type Packed } from '../../src/core/release/package';
import { FEATURED } from '../agree/featured';

const FILE = path.join('tests', 'told', 'files.txt');
/** Packed by programs whose bytes hang on the machine. */
const ELSEWHERE = /\.(pdf|png)$/;

/** Enough for every kind of cell. */
const ROWS = 60;

const PACKED = (Object.keys(HANDED_OVER) as (keyof typeof HANDED_OVER)[])
  // With the program of a respondent's page in it.
  .filter((name) => name !== 'instrument')
  .map((name): Packed => {
    const [folder, forWhom] = HANDED_OVER[name];
    const kinds = kindsOf(name).filter((kind) => !ELSEWHERE.test(kind));
    return { name, folder, forWhom, format: { ...FORMATS[name], kinds } };
  });

/** Of a zip what its parts hold: how they are packed says nothing. */
function contentOf(name: string, bytes: Uint8Array): Uint8Array {
  if (!/\.(zip|docx|xlsx)$/.test(name)) return bytes;
  const parts = Object.entries(unzipSync(bytes)).filter(([part]) => !ELSEWHERE.test(part));
  const sums = parts.map(([part, of]) => `${part} ${bytesToHex(sha256(contentOf(part, of)))}`);
  return utf8ToBytes(sums.join('\n'));
}

const diary = readDocument(JSON.parse(readFileSync('demo/winter-diary.fork.json', 'utf8')));
assert.ok(diary.ok);
const QUESTIONNAIRES: readonly (readonly [name: string, document: Questionnaire])[] = [
  ['winter-diary', diary.document],
  // The second and third tell the same as the first.
  ...(FEATURED as readonly Questionnaire[])
    .map((document, n) => [`featured-${n + 1}`, document] as const)
    .filter((_, n) => n !== 1 && n !== 2),
];

const before = existsSync(FILE) ? readFileSync(FILE, 'utf8').trimEnd().split('\n') : [];
const now: string[] = [];

for (const [name, document] of QUESTIONNAIRES)
  it(`the files of ${name} are as before`, async () => {
    const data = madeUpRows(planOf(document), ROWS, 1);
    const files = await packageFiles({ document, data }, PACKED);
    // It lists the sums of the packed bytes of all others.
    const others = files.filter(({ name: of }) => of !== 'manifest.json');
    const found = others.map(({ name: of, text }) => {
      const bytes = typeof text === 'string' ? utf8ToBytes(text) : text;
      return `${name}/${of} ${bytesToHex(sha256(contentOf(of, bytes))).slice(0, 16)}`;
    });
    now.push(...found);
    if (process.env.KEEP_TOLD === '1') return;
    assert.deepEqual(
      found,
      before.filter((line) => line.startsWith(`${name}/`)),
    );
  });

after(() => {
  if (process.env.KEEP_TOLD === '1') writeFileSync(FILE, `${now.join('\n')}\n`);
});
