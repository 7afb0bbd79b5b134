/** Where comments go when what they stand on is called otherwise. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { address } from '../document/addresses';
import type { Item } from '../document/types';
import { renamedPlaces, selectionOf } from './places';

const study = (items: readonly Item[], id = 'a') =>
  questionnaire([section(id, items), section('b', [say('bye')])]);
const OLD = study([ask('one'), ask('two'), say('three')]);
const [one, two, three] = ['one', 'two', 'three'].map((name) => address('item', name));

it('go with a name, where something new stands just there', () => {
  const renamed = study([ask('one'), ask('second'), say('three')]);
  const skip = address('skip', 'two', 1);
  const all = [one, two, three, skip].map((key) => key ?? assert.fail());
  assert.deepEqual(renamedPlaces(OLD, renamed, all), [
    { from: two, to: address('item', 'second') },
    { from: skip, to: address('skip', 'second', 1) },
  ]);
  assert.deepEqual(
    renamedPlaces(OLD, study([ask('one'), ask('two'), say('three')], 'z'), [
      address('section', 'a'),
      address('section', 'b'),
    ]),
    [{ from: address('section', 'a'), to: address('section', 'z') }],
  );
});

it('stay where what they stand on is gone, has moved, or has changed places with another', () => {
  const gone = study([ask('one'), say('three')]);
  assert.deepEqual(renamedPlaces(OLD, gone, [two ?? assert.fail()]), []);
  const swapped = study([ask('two'), ask('one'), say('three')]);
  assert.deepEqual(renamedPlaces(OLD, swapped, [one ?? assert.fail(), two ?? assert.fail()]), []);
  // Nothing was ever there.
  assert.deepEqual(renamedPlaces(OLD, OLD, [address('item', 'nine')]), []);
});

it('select the item of a skip, and else themselves', () => {
  assert.equal(selectionOf(address('skip', 'two', 1)), two);
  assert.equal(selectionOf(address('section', 'a')), 'section:a');
});
