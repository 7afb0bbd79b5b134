/** What interviews cost of everybody's time. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { costs } from './costs';
import type { Expected } from './forecast';

const plan = planFor(
  questionnaire([
    section('a', [ask('short', 2, { seconds: 10 }), ask('long', 2, { seconds: 90 })], { title: 'First' }),
    section('kin', [ask('job', 2, { seconds: 36 })], { repeat: { times: 'short', max: 3 } }),
  ]),
);
const item = (name: string, share: number, pass: number | null = null) =>
  ({ group: { item: name, pass }, share }) as unknown as Expected;

it('is how often an item is presented, in every pass, times its seconds; the dearest first', () => {
  const expected = [
    item('short', 1),
    item('long', 0.5),
    item('job', 0.9, 1),
    item('job', 0.6, 2),
    // Who is asked at all counts for nothing where the passes are told.
    item('job', 0.9),
    { group: { section: 'kin' }, share: 1 } as unknown as Expected,
  ];
  assert.deepEqual(costs(plan, expected, 1000), {
    items: [
      { name: 'job', seconds: 36, hours: 15 },
      { name: 'long', seconds: 90, hours: 12.5 },
      { name: 'short', seconds: 10, hours: 10_000 / 3600 },
    ],
    sections: [
      { id: 'a', title: 'First', hours: 12.5 + 10_000 / 3600 },
      { id: 'kin', title: 'kin', hours: 15 },
    ],
    hours: 15 + 12.5 + 10_000 / 3600,
  });
  assert.equal(costs(plan, [], 1000).hours, 0);
});
