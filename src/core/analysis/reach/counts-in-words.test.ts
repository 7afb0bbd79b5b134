import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { holds } from '../../condition/evaluate';
import { parseCondition } from '../../condition/parse';
import { countsInWords, type Numbers } from './counts-in-words';

/** Whether a condition on the picks of `m` holds for so many of them; none is no value. */
function saysOf(text: string, count: number): boolean {
  const parsed = parseCondition(text);
  assert.ok(parsed.ok, text);
  const value = count === 0 ? null : Array.from({ length: count }, (_, n) => n + 1);
  const reading = { presented: true, value, missing: false };
  return holds(parsed.tree, { read: () => reading, pass: null, each: null, passesOver: () => [] });
}

describe('numbers of picks in words', () => {
  it('hold for just those that are meant', () => {
    const numbers = fc.array(fc.constantFrom(true, false, null), { minLength: 2, maxLength: 9 });
    fc.assert(
      fc.property(numbers, (meant: Numbers) => {
        fc.pre(meant.includes(true) && meant.includes(false));
        const text = countsInWords('m', meant);
        for (const [count, is] of meant.entries())
          if (is !== null) assert.equal(saysOf(text, count), is, `${text} of ${count}`);
      }),
    );
  });

  it('are the shortest there are', () => {
    const [yes, no, any] = [true, false, null];
    const said = (...meant: Numbers) => countsInWords('m', meant);
    assert.equal(said(no, no, yes, yes, yes), 'count(m) >= 2');
    assert.equal(said(no, yes, yes, no, no), 'count(m) <= 2');
    assert.equal(said(yes, yes, yes, no, no), 'not count(m) >= 3');
    assert.equal(said(no, no, yes, yes, yes, no), 'count(m) >= 2 and count(m) <= 4');
    assert.equal(said(no, no, yes, yes, any), 'count(m) >= 2');
    assert.equal(said(yes, no, no, yes, no), 'not count(m) <> 3');
    assert.equal(said(no, yes, yes, no, yes), 'count(m) <> 3');
    assert.equal(said(no, yes, no, yes, no, yes), 'count(m) = 1 or count(m) = 3 or count(m) = 5');
  });
});
