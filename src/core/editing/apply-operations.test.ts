/** Operations applied where nothing else of the editor is loaded, as the server does. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import * as v from 'valibot';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { listKey, partKey, type PartKey } from '../document/addresses';
import type { Questionnaire } from '../document/types';
import { applyOperations, OperationSchema } from './apply-operations';
import { operationsBetween } from './operations';

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

it('takes for renamed what says the same in its own list, and for another what is elsewhere or of another kind', () => {
  const breaks = { kind: 'page_break' } as const;
  const steps = (before: Questionnaire, after: Questionnaire) =>
    operationsBetween(before, after).map((done) => `${done.do} ${done.part}`);
  const [heat, warm] = [ask('heat', 3, { text: 'How?' }), ask('warm', 3, { text: 'How?' })];
  const one = questionnaire([section('a', [heat, ask('x')]), section('b', [ask('y')])]);
  assert.deepEqual(steps(one, questionnaire([section('a', [warm, ask('x')]), section('b', [ask('y')])])), [
    'set item:heat',
  ]);
  assert.deepEqual(steps(one, questionnaire([section('a', [ask('x')]), section('b', [ask('y'), warm])])), [
    'remove item:heat',
    'add item:warm',
  ]);
  const other = ask('cost', 2, { text: 'How much?' });
  assert.deepEqual(steps(one, questionnaire([section('a', [other, ask('x')]), section('b', [ask('y')])])), [
    'remove item:heat',
    'add item:cost',
  ]);
  const parted = (at: number) =>
    questionnaire([section('a', [ask('x'), ask('y'), ask('z')].toSpliced(at, 0, breaks as never))]);
  assert.deepEqual(steps(parted(1), parted(2)), ['remove break:items:a/x', 'add break:items:a/y']);
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

describe('an operation on what others have changed meanwhile', () => {
  const document = questionnaire([section('a', [ask('one'), ask('two'), ask('three')]), section('b', [])]);
  const item = (name: string) => partKey('item', name);
  const items = (of: string) => listKey('items', of);
  const order = ({ sections }: Questionnaire) =>
    sections.map((each) => each.items.map((of) => ('name' in of ? of.name : '')).join(' ')).join(' | ');
  /** Moves `two`, between one and three when it was made, to the end of section b. */
  const move = {
    do: 'move',
    part: item('two'),
    from: { list: items('a'), after: item('one'), before: item('three') },
    to: { list: items('b'), after: null },
  } as const;
  const remove = (name: string, value: unknown) => ({ do: 'remove', part: item(name), value }) as const;

  it('moves what still stands beside one of its neighbours, and clashes over what others have moved', () => {
    assert.equal(order(applyOperations(document, [move]).document), 'one three | two');
    const [one, two, three] = document.sections[0]?.items ?? [];
    // One neighbour has gone: the other tells that it stayed.
    for (const gone of ['one', 'three']) {
      const { document: without } = applyOperations(document, [remove(gone, gone === 'one' ? one : three)]);
      const { document: next, clashes } = applyOperations(without, [move]);
      assert.deepEqual(clashes, [], gone);
      assert.match(order(next), /\| two$/);
    }
    const elsewhere = questionnaire([section('a', [ask('two'), ask('one'), ask('three')]), section('b', [])]);
    const { document: same, clashes } = applyOperations(elsewhere, [move]);
    assert.equal(order(same), 'two one three | ');
    assert.deepEqual(
      clashes.map(({ gone, theirs }) => [gone, theirs]),
      [[false, two]],
    );
    // Where somebody has chosen it all the same, it is done; and done already, it is no clash.
    assert.equal(order(applyOperations(elsewhere, [move], new Set([move])).document), 'one three | two');
    const done = questionnaire([section('a', [ask('one'), ask('three')]), section('b', [ask('two')])]);
    assert.deepEqual(applyOperations(done, [move]).clashes, []);
    const away = questionnaire([section('a', [ask('one'), ask('three')]), section('b', [])]);
    assert.deepEqual(
      applyOperations(away, [move]).clashes.map(({ gone }) => gone),
      [true],
    );
  });

  it('takes away what is still what it was, as a whole and whatever it holds', () => {
    const options = [1, 2].map((code) => ({ code, label: `Answer ${code}` }));
    const before = questionnaire([section('a', [ask('q', { type: 'single', options }), ask('r')])]);
    const q = before.sections[0]?.items[0];
    const more = (label: string) =>
      ({
        do: 'add',
        part: partKey('option', '3', 'q'),
        to: { list: listKey('options', 'q'), after: partKey('option', '2', 'q') },
        value: { code: 3, label },
      }) as const;
    assert.equal(order(applyOperations(before, [remove('q', q)]).document), 'r');
    // An answer that was added in the same go belongs to it.
    const grown = applyOperations(before, [more('Answer 3')]);
    assert.deepEqual(
      applyOperations(before, [more('Answer 3'), remove('q', grown.document.sections[0]?.items[0])]).clashes,
      [],
    );
    const { document: kept, clashes } = applyOperations(grown.document, [remove('q', q)]);
    assert.equal(order(kept), 'q r');
    assert.equal(clashes.length, 1);
    // Gone already is no clash.
    const gone = questionnaire([section('a', [ask('r')])]);
    assert.deepEqual(applyOperations(gone, [remove('q', q)]).clashes, []);
  });
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
