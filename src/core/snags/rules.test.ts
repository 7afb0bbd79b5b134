/** That no rule is written down and forgotten: each is broken by a test of its own. */
import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { it } from 'node:test';
import { fileURLToPath } from 'node:url';
import { PROBLEM_KINDS } from '../audit/problems';
import { KEPT_RULES, ROUTED_RULES, WRITTEN_RULES } from './types';

/** The tests of a folder of the core, in one text. */
const testsIn = (folder: string) => {
  const home = fileURLToPath(new URL(`../${folder}`, import.meta.url));
  return readdirSync(home)
    .filter((file) => file.endsWith('.test.ts'))
    .map((file) => readFileSync(path.join(home, file), 'utf8'))
    .join('\n');
};
const untested = (words: readonly string[], tests: string) =>
  words.filter((word) => !new RegExp(`['"\`]${word}\\b`).test(tests));

it('every rule of the checks is broken in a test', () => {
  assert.deepEqual(untested([...WRITTEN_RULES, ...ROUTED_RULES, ...KEPT_RULES], testsIn('snags')), []);
});

it('every problem of collected rows is met in a test', () => {
  assert.deepEqual(untested(PROBLEM_KINDS, `${testsIn('audit')}\n${testsIn('collected')}`), []);
});
