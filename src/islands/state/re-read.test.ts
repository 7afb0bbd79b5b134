/** Choices about single lines of a list stay with their lines while the list is edited. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { byLine, withReading } from './re-read';

const list = 'Home\n1. Do you rent?\nYes\n2. Is it dry?\nYes';

it('keeps a reading with its own line, also among lines of the same words', () => {
  const read = withReading(list, new Map(), 5, 'note');
  assert.deepEqual([...byLine(list, read)], [[5, 'note']]);
  assert.deepEqual([...byLine(`Consent\n${list}`, read)], [[6, 'note']]);
  assert.deepEqual([...byLine(list.replace('dry', 'damp'), read)], [[5, 'note']]);
  assert.deepEqual([...byLine('1. Do you rent?\nYes', read)], []);
});

it('lets a line be read as it looks again', () => {
  const read = withReading(list, new Map(), 1, 'note');
  assert.equal(byLine(list, withReading(list, read, 1, null)).size, 0);
  // There is no line before the first, nor after the last.
  assert.deepEqual(
    [0, 6].map((line) => withReading(list, read, line, 'note').size),
    [1, 1],
  );
});
