/** Where a skip may lead: everything that lies further on and can be entered, once, the likely first. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { possibleTargets } from './targets';

const DOCUMENT = questionnaire(
  [
    section('a', [ask('one'), { kind: 'page_break' }, ask('two'), ask('three'), ask('four')]),
    section('kin', [ask('name'), ask('age'), ask('job')], { title: 'Kin', repeat: { times: 'one', max: 2 } }),
    section('mixed', [ask('five'), ask('six')], { shuffle: true }),
    section('some', [ask('seven'), ask('eight')], { draw: 1 }),
    section('end', [ask('nine'), { kind: 'page_break' }, ask('ten')], { kind: 'closing' }),
  ],
  {
    endings: [
      { id: 'done', kind: 'complete', messages: [] },
      { id: 'out', kind: 'screened_out', messages: [] },
    ],
  },
);
const from = (at: number, item: number | null) =>
  possibleTargets(DOCUMENT, at, item).map(({ target, words, ending }) =>
    [Object.entries(target).join(), words, ending ?? ''].filter((each) => each !== '').join(' '),
  );

it('begins with the item after the next, the next section and early endings', () => {
  assert.deepEqual(from(0, 0), [
    'item,three three?',
    'section,kin topic',
    'ending,out screened_out',
    'ending,done complete',
    'item,four four?',
    'section,mixed topic',
    'section,some topic',
    'section,end closing',
    'item,ten ten?',
  ]);
});

it('is the next pass first in a section that repeats, but not from its end', () => {
  assert.deepEqual(from(1, 0).slice(0, 3), [
    'nextPass,true of this section',
    'item,job job?',
    'section,mixed topic',
  ]);
  assert.deepEqual(from(1, null).slice(0, 2), ['section,mixed topic', 'ending,out screened_out']);
});

it('is an ending alone where nothing lies further on', () => {
  assert.deepEqual(from(4, 2), ['ending,out screened_out', 'ending,done complete']);
  assert.deepEqual(from(9, 0), from(4, 2));
});
