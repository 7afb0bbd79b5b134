/** What somebody made of each item that was presented to them. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../tests/support/questionnaire';
import type { Answers } from '../document/types';
import { caseBegun } from '../responding/kept-case';
import { turnedCase } from '../responding/turn';
import { summaryOf } from './summary';

const options = [
  { code: 1, label: 'Yes' },
  { code: 8, label: 'No idea', missing: 'dont_know' as const },
  { code: 9, label: 'Refused', missing: 'refused' as const },
  { code: 7, label: 'Lost', missing: 'not_available' as const },
];
const rows = (...names: string[]) => names.map((name) => ({ name, label: name }));
const plan = planFor(
  questionnaire([
    section('a', [
      say('hello'),
      ask('n', { type: 'number', min: 0, max: 3 }),
      ask('own', { type: 'single', options }),
      ask('picks', { type: 'multiple', options }),
      ask('grid', { type: 'grid', rows: rows('g1', 'g2', 'g3'), options }),
      ask('short', { type: 'grid', rows: rows('s1', 's2'), options }),
    ]),
    section('kin', [ask('age', { type: 'single', options })], { repeat: { times: 'n', max: 3 } }),
    section('end', [ask('last')]),
  ]),
);
const ALL: Answers = { n: 2, own: 1, picks: [1], g1: 1, g2: 1, g3: 1, s1: 1, s2: 1, 'age#1': 1, 'age#2': 1 };

function summary(answers: Answers, at = 3) {
  const begun = caseBegun(plan, { key: crypto.randomUUID(), id: '1', seed: 1, given: {} }, 5);
  const kept = { ...turnedCase(begun), answers: { ...ALL, ...answers } as never, at, held: [] };
  return summaryOf(plan, { id: 'x', number: 1, person: null, device: 'wide', changedAt: 6, kept });
}
const as = (name: string, answers: Answers) => summary(answers).items.find((item) => item.name === name)?.as;

it('is answered, left blank, or given a reason; not knowing before refusing', () => {
  assert.deepEqual(
    summary({}).items.map(({ name, as: how }) => `${name} ${how}`),
    [
      'hello shown',
      'n answered',
      'own answered',
      'picks answered',
      'grid answered',
      'short answered',
      'age answered',
      'last left',
    ],
  );
  for (const [name, answers, how] of [
    ['own', { own: 8 }, 'dont_know'],
    ['own', { own: 9 }, 'refused'],
    ['own', { own: 7 }, 'answered'],
    ['own', { own: null }, 'blank'],
    ['picks', { picks: [8] }, 'dont_know'],
    ['grid', { g2: 9 }, 'refused'],
    ['grid', { g1: 9, g3: 8 }, 'dont_know'],
    ['grid', { g1: 9, g3: null }, 'blank'],
    ['age', { 'age#2': 9 }, 'refused'],
    ['age', { 'age#1': 9, 'age#2': 8 }, 'dont_know'],
    ['age', { 'age#1': null, 'age#2': 8 }, 'blank'],
  ] as const)
    assert.equal(as(name, answers), how, `${name} ${JSON.stringify(answers)}`);
});

it('tells grids of three rows or more that were answered whole, and the straight ones', () => {
  const grids = (answers: Answers, at?: number) => {
    const { grids: whole, straight } = summary(answers, at);
    return [whole.join(), straight.join()];
  };
  assert.deepEqual(grids({}), ['grid', 'grid']);
  assert.deepEqual(grids({ g2: 9 }), ['grid', '']);
  assert.deepEqual(grids({ g2: null }), ['', '']);
  // On the page in hand nothing is over yet.
  assert.deepEqual(grids({}, 0), ['', '']);
});

it('tells where somebody is, and how far they have come', () => {
  const { pages, inHand, furthest, startedAt, closedAt, ending, expected } = summary({}, 0);
  assert.deepEqual([startedAt, closedAt, ending, pages.length, furthest], [5, null, null, 1, 0]);
  assert.equal(pages[0], inHand);
  assert.ok(expected > 0);
  assert.equal(summary({}).furthest, 2);
});
