/** Collected rows as a sample: what was asked of whom, with what is left out told. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../../tests/support/questionnaire';
import { columnsOf } from '../../coding/columns';
import { planOf } from '../../routing/planner';
import { madeUpRespondents } from '../../simulate/respondents';
import { sampleOfRows } from './from-rows';
import type { SeenSample } from './sample';

const PLAN = planFor(
  questionnaire([
    section('a', [
      ask('owns', 2, { required: true }),
      ask('heats', 3, {
        assume: { shares: { 1: 0.2 }, where: [{ if: 'owns = 1', shares: { 1: 0.9 } }] },
      }),
      ask('times', { type: 'number', min: 1, max: 2 }, { askIf: 'heats = 1', required: true }),
    ]),
    section('b', [ask('each_time', 2)], { askIf: 'heats = 1', repeat: { times: 'times', max: 2 } }),
  ]),
);
const HEADER = columnsOf(PLAN).map(({ name }) => name);

function sample(header: readonly string[], rows: readonly (readonly (string | number)[])[]): SeenSample {
  const found = sampleOfRows(PLAN, header, rows);
  assert.ok(typeof found !== 'string', String(found));
  return found;
}

describe('collected rows', () => {
  it('say of whom which shares were seen, and how many were asked in which pass', () => {
    const { shares, bases, people, leftOut } = sample(
      ['owns', 'heats', 'times', 'each_time_1', 'each_time_2'],
      [
        [1, 1, 1, 2, ''],
        [1, 1, 2, 1, 1],
        [1, 2, '', '', ''],
        [2, 3, '', '', ''],
        // No answer was asked for here.
        [2, 3, 1, 1, ''],
      ],
    );
    assert.deepEqual([people, leftOut], [4, 1]);
    const { base, assume } = shares.get('heats') ?? {};
    assert.equal(base, 4);
    assert.deepEqual(assume, {
      shares: { 1: 0, 2: 0, 3: 1 },
      where: [{ if: 'owns = 1', shares: { 1: 2 / 3, 2: 1 / 3, 3: 0 } }],
    });
    assert.deepEqual(
      ['owns', 'times', 'each_time', 'each_time#1', 'each_time#2', '= b', '> done'].map((key) =>
        bases.get(key),
      ),
      [4, 2, 2, 2, 1, 2, 4],
    );
  });

  it('say what was known of people beforehand, but nothing of what chance allots', () => {
    const two = [1, 2].map((code) => ({ code, label: `${code}` }));
    const plan = planFor(
      questionnaire([section('a', [ask('owns', 2, { required: true })])], {
        given: [
          { name: 'region', label: 'Region', answer: { type: 'single', options: two } },
          { name: 'arm', label: 'Arm', answer: { type: 'single', options: two }, random: true },
        ],
      }),
    );
    const found = sampleOfRows(
      plan,
      ['region', 'arm', 'owns'],
      [
        [1, 1, 1],
        [1, 2, 2],
        [2, 1, 1],
        [1, 1, 1],
      ],
    );
    assert.ok(typeof found !== 'string');
    assert.deepEqual([...found.shares.keys()], ['region', 'owns']);
    assert.deepEqual(found.shares.get('region'), { base: 4, assume: { shares: { 1: 0.75, 2: 0.25 } } });
  });

  it('of made-up respondents give back what was assumed, each of whom it was assumed', () => {
    const people = [...madeUpRespondents(PLAN, 4000, 3)];
    const { shares, leftOut } = sample(
      HEADER,
      people.map((person) => person.row()),
    );
    assert.equal(leftOut, 0);
    const { assume } = shares.get('heats') ?? {};
    const near = (found: number | undefined, expected: number) =>
      assert.ok(Math.abs((found ?? 0) - expected) < 0.03, `${found}, expected ${expected}`);
    near(assume?.shares?.[1], 0.2);
    near(assume?.where?.[0]?.shares?.[1], 0.9);
  });

  it('of those who stopped count what they were presented, and no blank where they stopped', () => {
    const column = (name: string) => HEADER.indexOf(name);
    const stopped = planOf(PLAN.document);
    const row = HEADER.map(() => '-4' as string | number);
    row[column('owns')] = 1;
    const found = sampleOfRows(stopped, HEADER, [row]);
    assert.ok(typeof found !== 'string');
    assert.deepEqual([found.people, found.leftOut], [1, 0]);
    assert.equal(found.bases.get('> done'), undefined);
    assert.equal(found.shares.get('heats'), undefined);
  });

  it('without a column of the codebook are refused with what to do', () => {
    const refused = sampleOfRows(PLAN, ['x', 'y'], [[1, 2]]);
    assert.match(String(refused), /No column of these rows is one of the codebook/);
  });
});
