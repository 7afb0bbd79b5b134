/** A word that is typed is found as a word; a letter typed again goes on to the next that begins with it. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { byLetters } from './by-letters';

const LIST = ['single', 'multiple', 'scale', 'number', 'text', 'date', 'time', 'datetime', 'grid', 'rank'];

function typed(word: string, from = 0): string | undefined {
  let [at, before] = [from, ''];
  for (const letter of word) {
    const next = byLetters(LIST, at, before, letter);
    at = next?.at ?? at;
    before += letter;
  }
  return LIST[at];
}

it('finds what is typed, by its word or its letter', () => {
  for (const name of LIST)
    for (const from of LIST.keys()) assert.equal(typed(name, from), name, `${name} from ${from}`);
  assert.deepEqual(
    ['n', 's', 'ss', 'd', 'dd', 'tt', 'numbers'].map((word) => typed(word)),
    ['number', 'scale', 'single', 'date', 'datetime', 'time', 'number'],
  );
  // From the last that begins with it, a letter goes on to the first.
  assert.equal(typed('t', LIST.indexOf('time')), 'text');
  assert.equal(typed('s', LIST.indexOf('scale')), 'single');
  assert.deepEqual(byLetters(LIST, 3, '', 'z'), null);
});

it('takes a whole word before one that begins with it, the first of a list as well', () => {
  const list = ['no', 'north', 'south', 'nor'];
  const at = (before: string, letter: string, from: number) => byLetters(list, from, before, letter)?.at;
  assert.equal(at('n', 'o', 1), 0);
  assert.equal(at('no', 'r', 1), 3);
  // Where no entry is the word, the one that is there already stays.
  assert.equal(byLetters(['nor', 'north'], 1, 'n', 'o')?.at, 1);
  // A single letter that is an entry goes on like any other letter.
  assert.equal(byLetters(['n', 'no'], 0, '', 'n')?.at, 1);
});
