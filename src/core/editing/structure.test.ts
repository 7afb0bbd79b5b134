/** Small changes of structure: codes that are free, kinds that titles tell, names that nothing else has. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { applyChange } from './change';
import { mergeProblem, mergeSections, splitProblem, splitSection } from './restructure';
import {
  addEnding,
  addSection,
  guessKind,
  moveItem,
  newQuestion,
  nextCode,
  removeEnding,
  takenNames,
} from './structure';

it('the next code is above the ordinary ones, and none that a missing answer has', () => {
  const missing = 'dont_know' as const;
  for (const [options, next] of [
    [[], 1],
    [[{ code: 1 }, { code: 4 }], 5],
    [[{ code: 1 }, { code: 98, missing }], 2],
    [[{ code: 1 }, { code: 2, missing }, { code: 3, exclusive: true }], 4],
    [[{ code: -2 }], 1],
  ] as const)
    assert.equal(nextCode(options), next, JSON.stringify(options));
});

it('a new question has a name that nothing else has, columns and rows included', () => {
  const rows = [{ name: 'q3', label: 'A row' }];
  const options = [{ code: 1, label: 'Yes' }];
  const document = questionnaire([
    section('a', [ask('q1'), ask('g', { type: 'grid', rows, options }), say('Q2')]),
  ]);
  const taken = takenNames(document);
  for (const name of ['q1', 'q2', 'q3', 'g']) assert.ok(taken.has(name), name);
  assert.ok(!taken.has(newQuestion(document).name.toLowerCase()));
});

it('a section is of the kind that its title tells', () => {
  for (const [title, kind] of [
    ['Consent', 'consent'],
    ['Screening questions', 'screening'],
    ['About you', 'background'],
    ['Closing', 'closing'],
    ['Heating', 'topic'],
  ] as const)
    assert.equal(guessKind(title), kind, title);
});

it('items move within a section and between two, others keeping their order', () => {
  const document = questionnaire([
    section('a', [ask('one'), ask('two'), ask('three')]),
    section('b', [ask('four')]),
  ]);
  const moved = (from: [number, number], to: [number, number]) => {
    const change = moveItem(document, { section: from[0], item: from[1] }, { section: to[0], item: to[1] });
    return applyChange(document, change)
      .document.sections.map(({ items }) => items.map((item) => ('name' in item ? item.name : '')).join(' '))
      .join(' | ');
  };
  assert.equal(moved([0, 0], [0, 2]), 'two three one | four');
  assert.equal(moved([0, 2], [0, 0]), 'three one two | four');
  assert.equal(moved([0, 1], [1, 1]), 'one three | four two');
  assert.equal(moved([1, 0], [0, 1]), 'one four two three | ');
});

it('endings come and go, and sections get ids of their own', () => {
  const document = questionnaire([section('a', [])]);
  const more = applyChange(document, addEnding(document, 'quota_full')).document;
  assert.deepEqual(
    more.endings.map(({ kind }) => kind),
    ['complete', 'screened_out', 'quota_full'],
  );
  assert.equal(new Set(more.endings.map(({ id }) => id)).size, 3);
  assert.deepEqual(
    applyChange(more, removeEnding(more, 1)).document.endings.map(({ kind }) => kind),
    ['complete', 'quota_full'],
  );
  const twice = ['A', 'A'].reduce(
    (now, title) => applyChange(now, addSection(now, 1, title)).document,
    document,
  );
  assert.equal(new Set(twice.sections.map(({ id }) => id)).size, 3);
});

const names = (items: readonly { readonly kind: string; readonly name?: string }[]) =>
  items.map(({ kind, name }) => name ?? kind).join(' ');

it('a section is split into two asked of the same people, the second going on where the one did', () => {
  const document = questionnaire([
    section('a', [ask('one'), { kind: 'page_break' }, ask('two'), ask('three')], {
      ...{ title: 'Heat', kind: 'background', askIf: 'g = 1' },
      onward: [{ if: 'one = 1', to: { ending: 'out' } }],
    }),
    section('b', [ask('four')]),
  ]);
  const split = splitSection(document, { section: 0, item: 1 });
  const [first, second, third] = applyChange(document, split).document.sections;
  assert.deepEqual(
    [first?.id, first?.askIf, first?.onward, names(first?.items ?? [])],
    ['a', 'g = 1', undefined, 'one'],
  );
  assert.deepEqual(
    [second?.id, second?.title, second?.kind, second?.askIf, names(second?.items ?? [])],
    [split.id, 'Heat (continued)', 'background', 'g = 1', 'two three'],
  );
  assert.deepEqual([second?.onward, third?.id], [document.sections[0]?.onward, 'b']);
  for (const [item, why] of [
    [0, /nothing before this item/],
    [4, /nothing before this item/],
  ] as const)
    assert.match(splitProblem(document, { section: 0, item }) ?? '', why);
  assert.equal(splitProblem(document, { section: 0, item: 3 }), null);
});

it('a section that is more than its items is neither split nor merged', () => {
  for (const [rest, why] of [
    [{ repeat: { times: 'n', max: 2 } }, /“a” is repeated/],
    [{ draw: 1 }, /“a” draws its questions/],
    [{ shuffle: true }, /“a” is shown in random order/],
    [{ timeLimit: 20 }, /“a” has a time limit/],
  ] as const) {
    const document = questionnaire([
      section('a', [ask('one'), ask('two')], rest),
      section('b', [ask('three')]),
      section('c', [ask('four')], { onward: { ending: 'out' } }),
    ]);
    assert.match(splitProblem(document, { section: 0, item: 1 }) ?? '', why);
    assert.match(mergeProblem(document, 0) ?? '', why);
    assert.equal(mergeProblem(document, 1), null);
    assert.match(mergeProblem(document, 2) ?? '', /no section to merge it with/);
  }
});

it('two sections are merged: who was asked each is asked it still, and what led to the second leads to its first item', () => {
  const before = [
    ask('zero', 2, { skips: [{ if: 'zero = 1', to: { section: 'b' } }] }),
    ask('last', 2, { askIf: 'zero = 2' }),
  ];
  const merged = (second: Parameters<typeof section>[2], first: Parameters<typeof section>[2] = {}) => {
    const document = questionnaire([
      section('a', before, first),
      section('b', [ask('one', 2, { askIf: 'zero = 2' }), { kind: 'page_break' }, ask('two')], second),
    ]);
    return applyChange(document, mergeSections(document, 0)).document.sections;
  };
  const [alike, ...others] = merged({
    intro: 'Now heating.',
    onward: [{ if: 'one = 1', to: { ending: 'out' } }],
  });
  assert.equal(others.length, 0);
  assert.equal(names(alike?.items ?? []), 'zero last page_break b_intro one page_break two');
  assert.deepEqual(alike?.onward, [{ if: 'one = 1', to: { ending: 'out' } }]);
  const skips = (of: typeof alike) =>
    of?.items.flatMap((item) => (item.kind === 'question' ? (item.skips ?? []) : []));
  assert.deepEqual(skips(alike), [{ if: 'zero = 1', to: { item: 'b_intro' } }]);
  const [other] = merged(
    {
      askIf: 'zero = 2',
      intro: 'Now heating.',
      onward: [{ if: 'one = 1', to: { ending: 'out' } }, { to: { ending: 'done' } }],
    },
    { askIf: 'g = 1' },
  );
  assert.equal(other?.askIf, undefined);
  assert.deepEqual(
    other?.items.flatMap((item) => (item.kind === 'page_break' ? [] : [[item.name, item.askIf]])),
    [
      ['zero', 'g = 1'],
      ['last', 'g = 1 and zero = 2'],
      ['b_intro', 'zero = 2'],
      ['one', 'zero = 2'],
      ['two', 'zero = 2'],
    ],
  );
  assert.deepEqual(other.onward, [
    { to: { ending: 'out' }, if: 'zero = 2 and one = 1' },
    { to: { ending: 'done' }, if: 'zero = 2' },
  ]);
});
