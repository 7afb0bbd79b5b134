/** Operations applied where nothing else of the editor is loaded, as the server does. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import * as v from 'valibot';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { listKey, partKey, type PartKey } from '../document/addresses';
import { applyOperations, OperationSchema } from './apply-operations';

it('applies an operation, and leaves out one that does not fit, by itself', () => {
  const document = questionnaire([section('a', [ask('one')])]);
  const set = (before: string) =>
    ({ do: 'set', part: partKey('item', 'one'), field: 'text', before, after: 'Two?' }) as const;
  const applied = applyOperations(document, [set('one?')]);
  assert.deepEqual(applied.clashes, []);
  const [item] = applied.document.sections[0]?.items ?? [];
  assert.equal(item?.kind === 'question' && item.text, 'Two?');
  const [clash] = applyOperations(document, [set('something else')]).clashes;
  assert.equal(clash?.theirs, 'one?');
});

it('takes no operation that names a property which no questionnaire has', () => {
  const set = (field: string) => v.is(OperationSchema, { do: 'set', part: 'study', field, after: {} });
  for (const field of ['title', 'askIf', 'answer.min', 'settings.theme', 'settings.maxMinutes'])
    assert.ok(set(field), field);
  for (const field of [
    'constructor',
    'constructor.x',
    '__proto__.x',
    'toString',
    'answer.min.x',
    'settings.constructor',
    '',
  ])
    assert.ok(!set(field), field);
});

it('puts many parts where they belong, whatever is taken away and written in between', () => {
  const document = questionnaire([section('a', [ask('one'), ask('two'), ask('three')])]);
  const add = (name: string, after: PartKey | null) =>
    ({
      do: 'add',
      part: partKey('item', name),
      to: { list: listKey('items', 'a'), after },
      value: { kind: 'statement', name, text: '' },
    }) as const;
  const { document: next, clashes } = applyOperations(document, [
    add('front', null),
    add('middle', partKey('item', 'one')),
    { do: 'remove', part: partKey('item', 'two'), value: document.sections[0]?.items[1] },
    { do: 'set', part: partKey('item', 'middle'), field: 'text', before: '', after: 'Hello' },
    {
      do: 'move',
      part: partKey('item', 'three'),
      from: { list: listKey('items', 'a'), after: partKey('item', 'two'), before: null },
      to: { list: listKey('items', 'a'), after: null },
    },
  ]);
  assert.deepEqual(clashes, []);
  const items = next.sections[0]?.items.map((item) => ('text' in item ? [item.name, item.text] : []));
  assert.deepEqual(items, [
    ['three', 'three?'],
    ['front', ''],
    ['one', 'one?'],
    ['middle', 'Hello'],
  ]);
});
