/** Shares among made-up respondents: as near the exact ones as is said, for items, passes, sections, endings and lengths. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { simulated } from './simulated';

const plan = planFor(
  questionnaire(
    [
      section('a', [
        ask('stays', 2, {
          required: true,
          seconds: 30,
          assume: { shares: { 1: 0.25 } },
          skips: [{ if: 'stays = 1', to: { ending: 'out' } }],
        }),
        ask('times', { type: 'number', min: 0, max: 2 }, { required: true, seconds: 10 }),
      ]),
      section('b', [ask('of', 2, { required: true, seconds: 20 })], { repeat: { times: 'times', max: 2 } }),
    ],
    {
      endings: [
        { id: 'out', kind: 'screened_out', messages: [] },
        { id: 'done', kind: 'complete', messages: [] },
      ],
    },
  ),
);

/** Half of those who meet 10 seconds go on, everybody else. */
const stay = (seconds: number) => (seconds === 10 ? 0.5 : 1);

it('tells shares with an error that they keep, of those who are still there', () => {
  const groups = [
    { item: 'stays', pass: null },
    { item: 'times', pass: null },
    { item: 'of', pass: null },
    { item: 'of', pass: 2 },
    { section: 'b' },
    { ending: 'out' },
    { ending: 'done' },
  ];
  // Three quarters stay; two thirds of them have one pass or more, a third have two; half break off after `times`.
  const exact = [1, 0.75, 0.25, 0.125, 0.25, 0.25, 0.375];
  const { shares, lengths } = simulated(plan, groups, new Set(['done']), stay);
  shares.forEach(({ share, error }, n) => {
    const expected = exact[n] ?? NaN;
    assert.ok(Math.abs(share - expected) <= 2 * error + 1e-12, `${JSON.stringify(groups[n])} ${share}`);
  });
  assert.equal(shares[0]?.error, 0);
  // A share of a quarter that everybody has whole or not: the error of a simple sample of 20,000.
  assert.ok(Math.abs((shares[5]?.error ?? 0) - 1.96 * Math.sqrt((0.25 * 0.75) / 20_000)) < 1e-4);
  const total = lengths.reduce((sum, { share }) => sum + share, 0);
  assert.ok(Math.abs(total - (shares[6]?.share ?? 0)) < 1e-9);
  assert.deepEqual([...new Set(lengths.map(({ seconds }) => seconds))], [40, 60, 80]);
  assert.deepEqual(
    lengths.map(({ seconds }) => seconds),
    lengths.map(({ seconds }) => seconds).toSorted((x, y) => x - y),
  );
});

it('says nothing of whom it has not met', () => {
  assert.deepEqual(simulated(plan, [{ item: 'nobody', pass: null }], new Set(), stay), {
    shares: [{ share: 0, error: 0 }],
    lengths: [],
  });
});
