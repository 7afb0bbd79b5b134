/**
 * What is told of the demo and of questionnaires with every property, beside what was told before. Where a difference is
 * meant, read it, and write it down with `KEEP_TOLD=1 npm run unit -- told`.
 */
import assert from 'node:assert/strict';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { it } from 'node:test';
import { readDocument } from '../../src/core/document/read';
import type { Questionnaire } from '../../src/core/document/types';
import { FEATURED } from '../agree/featured';
import { told } from './told';

const demo = (name: string): Questionnaire => {
  const read = readDocument(JSON.parse(readFileSync(`demo/${name}.fork.json`, 'utf8')));
  assert.ok(read.ok);
  return read.document;
};
const QUESTIONNAIRES: readonly (readonly [name: string, document: Questionnaire])[] = [
  ...['tern-valley-home-heating', 'winter-diary', 'street-lighting-doorstep'].map(
    (name) => [name, demo(name)] as const,
  ),
  // The second and third tell the same as the first: they look different.
  ...[...FEATURED.slice(0, 1), ...FEATURED.slice(3)].map(
    (document, n) => [`featured-${n + 1}`, document] as const,
  ),
];

for (const [name, document] of QUESTIONNAIRES)
  it(`${name} is told as before`, () => {
    const file = path.join('tests', 'told', `${name}.txt`);
    const now = told(document);
    if (process.env.KEEP_TOLD === '1') writeFileSync(file, now);
    const before = existsSync(file) ? readFileSync(file, 'utf8') : '';
    const [was, is] = [before.split('\n'), now.split('\n')];
    const at = is.findIndex((line, n) => line !== was[n]);
    if (at < 0 && was.length === is.length) return;
    const from = Math.max(0, at - 2);
    assert.deepEqual(
      is.slice(from, at + 6),
      was.slice(from, at + 6),
      `${file} differs from line ${at + 1} on`,
    );
    assert.equal(is.length, was.length, `${file} ends earlier or later than before`);
  });
