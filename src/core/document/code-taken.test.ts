/** Codes that mean an answer already, for every type of answer: those cannot stand for a missing one. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import type { Answer } from './types';
import { codeTaken, holdsIn, isInLimits } from './code-taken';

const options = [
  { code: 3, label: 'Gas' },
  { code: 8, label: "Don't know", missing: 'dont_know' as const },
];
const specials = [{ code: 998, label: 'Refused', missing: 'refused' as const }];
const rows = [{ name: 'r', label: 'R' }];

/** Of some codes those that are taken, with what for. */
function taken(answer: Answer, codes: readonly number[]): string[] {
  return codes.flatMap((code) => {
    const what = codeTaken(answer, code);
    return what === null ? [] : [`${code} ${what}`];
  });
}

it('of one answer every code; of several picks what their columns hold, and the missing ones', () => {
  const codes = [-1, 0, 1, 3, 8];
  const [gas, unknown] = ['3 the answer “Gas”', "8 the answer “Don't know”"];
  const picks = ['0 what its columns hold for no pick', '1 what its columns hold for a pick'];
  assert.deepEqual(taken({ type: 'single', options }, codes), [gas, unknown]);
  assert.deepEqual(taken({ type: 'rank', options }, codes), [gas, unknown]);
  assert.deepEqual(taken({ type: 'multiple', options }, codes), [...picks, unknown]);
  assert.deepEqual(taken({ type: 'grid', rows, options }, codes), [gas, unknown]);
  assert.deepEqual(taken({ type: 'grid', rows, options, pick: 'many' }, codes), [...picks, unknown]);
  assert.deepEqual(taken({ type: 'text' }, codes), []);
});

it('of a number its special answers and whatever lies within its limits, on a step', () => {
  assert.deepEqual(taken({ type: 'number', min: 0, max: 10, specials }, [-1, 0, 10, 11, 998]), [
    '0 a possible answer, within 0 to 10',
    '10 a possible answer, within 0 to 10',
    '998 the answer “Refused”',
  ]);
  assert.deepEqual(taken({ type: 'date', specials }, [3, 998]), ['998 the answer “Refused”']);
  const steps = { type: 'scale' as const, min: 1, max: 10, step: 3 };
  assert.deepEqual(
    [0, 1, 2, 4, 7, 10, 13].filter((code) => isInLimits(steps, code)),
    [1, 4, 7, 10],
  );
  assert.ok(holdsIn(0.3, 0.1) && !holdsIn(0.35, 0.1));
});
