/** Rows of the sheet keep their identity where an item is only called otherwise. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { rowsOf, steadyRows, type SteadyRows } from './sheet-rows';

const named = (...names: string[]) =>
  rowsOf(
    questionnaire([
      section(
        'a',
        names.map((name) => ask(name)),
      ),
    ]),
    new Set(),
  );
const items = ({ rows }: SteadyRows) => rows.filter(({ kind }) => kind === 'item').map(({ key }) => key);
const start: SteadyRows = { rows: named('one', 'two', 'three'), kept: new Map() };

describe('the rows of the sheet', () => {
  it('are the same value while nothing changes', () => {
    assert.equal(steadyRows(start, named('one', 'two', 'three')), start);
  });

  it('go on by the first name of an item, also when it is renamed again or others come before it', () => {
    const once = steadyRows(start, named('one', 'other', 'three'));
    assert.deepEqual(items(once), items(start));
    const twice = steadyRows(once, named('one', 'third', 'three'));
    assert.deepEqual(items(twice), items(start));
    const more = steadyRows(twice, named('new', 'one', 'third', 'three'));
    assert.deepEqual(items(more), ['item new', ...items(start)]);
    assert.equal(new Set(items(more)).size, 4);
  });

  it('do not share a key with an item that takes the old name, nor keep one where items changed places', () => {
    const once = steadyRows(start, named('one', 'other', 'three'));
    const taken = steadyRows(once, named('one', 'other', 'two'));
    assert.equal(new Set(items(taken)).size, 3);
    assert.deepEqual(items(steadyRows(start, named('two', 'one', 'three'))), [
      'item two',
      'item one',
      'item three',
    ]);
  });
});
