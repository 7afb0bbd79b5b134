/** What two people wrote in one place, as each of them is told of it. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { listKey, partKey, STUDY_PART } from '../document/addresses';
import type { Clash } from '../editing/apply-operations';
import type { Operation } from '../editing/operations';
import { clashView } from './clashes';

const document = questionnaire([section('a', [ask('one'), ask('two')]), section('b', [ask('three')])]);
const one = partKey('item', 'one');
const set = (part: Operation['part'], field: string, after: unknown): Operation =>
  ({ do: 'set', part, field, after }) as Operation;

/** “where: mine / theirs”. */
function told(operation: Operation, theirs: unknown = undefined, gone = false): string {
  const { where, mine, theirs: other } = clashView(document, { operation, theirs, gone } as Clash);
  return `${where}: ${mine} / ${other}`;
}

it('a property is told by its word, with what each has there', () => {
  for (const [operation, theirs, words] of [
    [set(one, 'text', 'Mine?'), 'Theirs?', 'one: words: Mine? / Theirs?'],
    [set(one, 'askIf', undefined), 'two = 1', 'one: asked if: nothing / two = 1'],
    [set(one, 'required', true), undefined, 'one: required: yes / nothing'],
    [set(one, 'answer.max', 9), 7, 'one: max: 9 / 7'],
    [set(one, 'name', 'uno'), 'eins', 'one: name: uno / eins'],
    [set(partKey('option', '2', 'one'), 'code', 7), 8, 'Answer 2 of one: code: 7 / 8'],
    [set(partKey('row', 'r1', 'g'), 'label', 'Heat'), 'Light', 'Row r1 of g: label: Heat / Light'],
    [set(STUDY_PART, 'title', 'Mine'), 'Theirs', 'Title: Mine / Theirs'],
    [
      set(one, 'skips', [{ if: 'one = 2', to: { section: 'b' } }, { to: { ending: 'out' } }]),
      [],
      'one: skips: one = 2 → B b; always → Screened out / nothing',
    ],
    [
      set(partKey('section', 'a'), 'onward', { item: 'three' }),
      { section: 'b' },
      'Section a: where its end leads: → three / → B b',
    ],
    [
      set(one, 'checks', [{ if: 'one = 2', kind: 'hard', message: 'No.' }]),
      undefined,
      'one: checks: if one = 2, kind hard, message No. / nothing',
    ],
  ] as const)
    assert.equal(told(operation, theirs), words);
  assert.equal(told(set(one, 'text', 'Mine?'), undefined, true), 'one: words: Mine? / it was deleted');
});

it('a part that was added, deleted or moved is told as that', () => {
  const to = { list: listKey('items', 'a'), after: null };
  const add: Operation = { do: 'add', part: one, to, value: {} };
  assert.equal(told(add), 'one: added / added as well, but not the same');
  assert.equal(told(add, undefined, true), 'one: added / what it was added to was deleted');
  const remove: Operation = { do: 'remove', part: partKey('section', 'b'), value: {} };
  assert.equal(told(remove, { title: 'Rooms' }), 'Section b: deleted / changed: “Rooms”');
  assert.equal(told({ ...remove, part: one }, { text: 'One?' }), 'one: deleted / changed: “One?”');
  const move: Operation = { do: 'move', part: one, from: { ...to, before: null }, to };
  assert.equal(told(move), 'one: moved / moved to another place');
  assert.equal(told(move, undefined, true), 'one: moved / it was deleted');
  assert.match(told({ ...remove, part: partKey('break', '1', 'a') }, {}), /^A page break: deleted/);
});
