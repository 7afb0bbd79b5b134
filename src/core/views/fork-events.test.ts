/** Every outcome of a fork in words that name the place and the side taken. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { ForkEvent } from '../analysis';
import { forkEventWords } from './fork-events';

const plan = planFor(
  questionnaire(
    [
      section('a', [ask('one', 2, { skips: [{ if: 'one = 2', to: { ending: 'out' } }] })], { title: 'Home' }),
      section('b', [ask('two', 2)], {
        title: 'Rooms',
        onward: [{ if: 'one = 1', to: { ending: 'done' } }],
      }),
    ],
    {
      quotas: [
        { id: 'q', label: 'Owners', if: 'one = 1', target: 5, at: 'one', to: { ending: 'out' } },
        { id: 'r', label: 'Tenants', if: 'one = 2', target: 5, at: 'one', to: { ending: 'out' } },
      ],
    },
  ),
);

it('tells every kind of outcome by its place and side', () => {
  const cases: readonly (readonly [ForkEvent, string])[] = [
    [{ kind: 'presented', item: 'one' }, 'one asked'],
    [{ kind: 'ask-if', of: { item: 'two' }, holds: true }, 'two: the ask-if holds'],
    [
      { kind: 'ask-if', of: { item: 'two', part: 'option 1' }, holds: false },
      'two (option 1): the ask-if does not hold',
    ],
    [{ kind: 'ask-if', of: { section: 'b' }, holds: false }, 'B Rooms: the ask-if does not hold'],
    [{ kind: 'skip', item: 'one', index: 0 }, 'one: the skip to Screened out'],
    [{ kind: 'skip', item: 'one', index: -1 }, 'one: no skip'],
    [{ kind: 'quota', item: 'one', index: -1 }, 'one: no quota full'],
    [{ kind: 'quota', item: 'one', index: 1 }, 'one: the quota “Tenants” full'],
    [{ kind: 'onward', section: 'b', index: 0 }, 'B Rooms: onward to Complete'],
    [{ kind: 'onward', section: 'b', index: -1 }, 'B Rooms: on to what follows'],
    [{ kind: 'pass', section: 'b', pass: 0 }, 'B Rooms: no pass'],
    [{ kind: 'pass', section: 'b', pass: 1 }, 'B Rooms: 1 pass'],
    [{ kind: 'pass', section: 'b', pass: 3 }, 'B Rooms: 3 passes'],
    [{ kind: 'ending', ending: 'out' }, 'ends at Screened out'],
    [{ kind: 'message', ending: 'done', index: 1 }, 'Complete: message 2'],
  ];
  assert.deepEqual(
    cases.map(([event]) => forkEventWords(plan, event)),
    cases.map(([, words]) => words),
  );
});
