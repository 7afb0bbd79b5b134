/** Small changes of structure: codes that are free, kinds that titles tell, names that nothing else has. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, say, section } from '../../../tests/support/questionnaire';
import { applyChange } from './change';
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
