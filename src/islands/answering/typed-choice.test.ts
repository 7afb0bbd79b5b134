/** Keys typed one after the other, as somebody types the number of an answer. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { typedChoice } from './typed-choice';

/** The choices made along the way. */
function type(text: string, keys: readonly (string | null)[]): (string | null)[] {
  let typed = '';
  return [...text].map((key) => {
    const next = typedChoice(typed, key, keys);
    typed = next?.typed ?? '';
    return next === null || next.chosen === null ? null : (keys[next.chosen] ?? null);
  });
}

describe('a typed choice', () => {
  const scale = Array.from({ length: 11 }, (_, n) => String(n));
  it('is the number of the mark, not its place; ten and more by two digits', () => {
    assert.deepEqual(type('7', scale), ['7']);
    assert.deepEqual(type('0', scale), ['0']);
    assert.deepEqual(type('10', scale), ['1', '10']);
    assert.deepEqual(type('73', scale), ['7', '3']);
  });

  it('can be below nought, or between whole numbers', () => {
    assert.deepEqual(type('-3', ['-3', '-2', '0', '2', '3']), [null, '-3']);
    assert.deepEqual(type('2.5', ['2', '2.5', '3']), ['2', null, '2.5']);
  });

  it('is nothing where no choice begins so', () => {
    assert.deepEqual(type('8', ['1', '2', null]), [null]);
    assert.deepEqual(type('98', ['1', '2', '98']), [null, '98']);
  });
});
