/** Rows of the sheet keep their identity where an item is only called otherwise. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { address, type Address } from '../document/addresses';
import { neighbour, RowIndex, rowsOf, steadyRows, type SteadyRows } from './sheet-rows';

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

it('a field and an anchor are found in the row that has them', () => {
  const document = {
    ...questionnaire([
      section('a', [ask('one'), { kind: 'page_break' }, ask('two')]),
      section('b', [ask('three')]),
    ]),
    derived: [{ name: 'sum', label: 'Sum', value: '1' }],
  };
  const rows = rowsOf(document, new Set(['b']));
  const index = new RowIndex(rows, document);
  const at = (anchor: Address) => rows[index.ofAnchor(anchor) ?? -1]?.key;
  for (const [anchor, key] of [
    [address('section', 'a'), 'heading 0'],
    [address('item', 'one'), 'item one'],
    [address('break', 0, 1), 'break 0'],
    [address('item', 'two'), 'item two'],
    [address('onward', 'a'), 'end 0'],
    [address('section', 'b'), 'heading 1'],
    // Folded away.
    [address('item', 'three'), undefined],
    [address('onward', 'b'), undefined],
    [address('given', 'arm'), 'before'],
    [address('quota', 'full'), 'before'],
    [address('derived', 'sum'), 'foot'],
    [address('ending', 'done'), 'foot'],
  ] as const)
    assert.equal(at(anchor), key, anchor);
  const along = (key: Address, by: 1 | -1) => neighbour(document, new Set(['b']), key, by);
  assert.equal(along(address('item', 'one'), 1), address('break', 0, 1));
  assert.equal(along(address('item', 'two'), -1), address('break', 0, 1));
  assert.equal(along(address('item', 'two'), 1), address('section', 'b'));
  assert.equal(along(address('section', 'b'), 1), address('ending', 'done'));
  assert.equal(along(address('section', 'a'), -1), undefined);
});

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
