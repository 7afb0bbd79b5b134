/** The human check has one answer, for every seed. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { humanCheckOf } from './human-check';

it('every task names three different numbers, and only the one asked for solves it', () => {
  const tasks = new Set<string>();
  // Below 0 are the seeds of responses that were begun long ago.
  for (let seed = -1000; seed < 1000; seed += 1) {
    const { task, solves } = humanCheckOf(seed);
    tasks.add(task);
    const named = task.slice(task.indexOf(':') + 2, -1).split(', ');
    assert.equal(new Set(named).size, 3, task);
    assert.equal(named.filter((word) => solves(` ${word.toUpperCase()} `)).length, 1, task);
    const digits = Array.from({ length: 12 }, (_, n) => String(n)).filter(solves);
    assert.equal(digits.length, 1, task);
    assert.equal(solves(''), false);
  }
  // Of 11 numbers, five steps to the next, four from there, smallest and largest.
  assert.equal(tasks.size, 11 * 5 * 4 * 2);
});
