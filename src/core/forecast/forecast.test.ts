/** A forecast worked out by hand beside the one that is told: shares, breaking off, minutes, quotas, and what answers do. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../document/types';
import { Forecaster } from './forecast';
import { groupKey, groupsOf } from './groups';
import { assumedAtQuestions, assumedOf } from './sets';

const must = { required: true } as const;
const PLAN = planFor(
  questionnaire(
    [
      section('a', [
        ask('owns', 2, { ...must, seconds: 60, assume: { shares: { 1: 0.25, 2: 0.75 } } }),
        ask('pump', 2, { ...must, seconds: 120, askIf: 'owns = 1', assume: { shares: { 1: 0.4, 2: 0.6 } } }),
      ]),
      section('b', [
        ask('age', 2, {
          ...must,
          seconds: 60,
          skips: [{ if: 'age = 2', to: { ending: 'out' } }],
          assume: { shares: { 1: 0.5, 2: 0.5 } },
        }),
        ask('last', 2, { ...must, seconds: 180 }),
      ]),
    ],
    {
      quotas: [
        { id: 'owners', label: 'Owners', if: 'owns = 1', target: 100, at: 'owns', to: { ending: 'out' } },
      ],
    },
  ),
);
/** The same without its quota, which takes people out once it is full. */
const OPEN = planFor({ ...PLAN.document, quotas: [] } as Questionnaire);
const close = (found: number | null | undefined, expected: number, about = '') =>
  assert.ok(Math.abs((found ?? NaN) - expected) < 1e-9, `${about} ${found} for ${expected}`);

describe('a forecast', () => {
  const forecaster = new Forecaster(OPEN);

  it('has the shares that are assumed, and how many that is', () => {
    const { exact, limits, items, endings, sections } = forecaster.forecast({ starts: 1000, breakOff: 0 });
    assert.deepEqual([exact, limits], [true, []]);
    const told = Object.fromEntries(
      [...items, ...endings, ...sections].map((of) => [groupKey(of.group), of]),
    );
    for (const [key, share] of [
      ['owns', 1],
      ['pump', 0.25],
      ['age', 1],
      ['last', 0.5],
      ['> done', 0.5],
      ['> out', 0.5],
      ['= b', 1],
    ] as const)
      close(told[key]?.share, share, key);
  });

  it('loses in each minute those who break off', () => {
    const { items, endings } = forecaster.forecast({ starts: 1000, breakOff: 0.1 });
    const share = (key: string) => [...items, ...endings].find((of) => groupKey(of.group) === key)?.share;
    // A minute for owns; two more for a quarter of them; a minute for age; three for the last.
    const after = 0.9 * (0.25 * 0.9 ** 2 + 0.75);
    close(share('pump'), 0.25 * 0.9, 'pump');
    close(share('age'), after, 'age');
    close(share('last'), after * 0.9 * 0.5, 'last');
    close(share('> done'), after * 0.9 * 0.5 * 0.9 ** 3, 'done');
  });

  it('takes the minutes of those who finish, by ending and by section', () => {
    const { minutes, longest } = forecaster.forecast({ starts: 1000, breakOff: 0 });
    close(minutes?.mean, 5 + 0.25 * 2, 'mean');
    close(minutes?.longest, 7, 'longest');
    assert.deepEqual(longest, { items: ['owns', 'pump', 'age', 'last'], ending: 'done' });
    const byEnding = forecaster.minutesByEnding({ starts: 1000, breakOff: 0 });
    assert.deepEqual(
      byEnding.map(({ id }) => id),
      ['done', 'out'],
    );
    close(byEnding[1]?.minutes?.mean, 2 + 0.25 * 2, 'screened out');
    close(byEnding[1]?.share, 0.5, 'share');
    const bySection = forecaster.minutesBySection();
    close(bySection[0]?.minutes?.mean, 1 + 0.25 * 2, 'a');
    close(bySection[1]?.minutes?.mean, 4, 'b');
    // Who break off on the way take none of it.
    close(
      forecaster.minutesByEnding({ starts: 1000, breakOff: 0.5 })[1]?.share,
      0.5 * (0.25 * 0.5 ** 4 + 0.75 * 0.5 ** 2),
      'stay',
    );
  });

  it('tells what one more point of an answer gives, and what would double a base', () => {
    const effects = forecaster.effects({ group: { item: 'last', pass: null } });
    assert.deepEqual(effects?.map(({ name, answer }) => [name, answer]).slice(0, 2), [
      ['age', { code: 1 }],
      ['age', { code: 2 }],
    ]);
    close(effects?.[0]?.perPoint, 0.01, 'age 1');
    close(effects[1]?.perPoint, -0.01, 'age 2');
    const minutes = forecaster.effects('minutes');
    const owning = minutes?.find(
      ({ name, answer }) =>
        name === 'owns' && typeof answer === 'object' && 'code' in answer && answer.code === 1,
    );
    close(owning?.perPoint, 0.02, 'two minutes of a hundredth');
    const [doubling] = forecaster.doublings({ item: 'last', pass: null }) ?? [];
    assert.equal(doubling?.name, 'age');
    assert.equal(forecaster.effects({ group: { item: 'gone', pass: null } }), null);
    assert.equal(forecaster.doublings({ ending: 'gone' }), null);
  });

  it('tells what a point gives by what is assumed otherwise, and by its own again the same', () => {
    const halves = { shares: { 1: 0.5, 2: 0.5 } };
    const plan = planFor(
      questionnaire([
        section('a', [
          ask('p', 2, { ...must, assume: { shares: { 1: 0.25, 2: 0.75 } } }),
          ask('q', 2, { ...must, assume: halves }),
          ask('both', 2, { ...must, seconds: 60, askIf: 'p = 1 and q = 1' }),
        ]),
      ]),
    );
    const about = new Forecaster(plan);
    const gives = (of: Parameters<typeof about.effects>[0], by?: Parameters<typeof about.effects>[1]) =>
      about.effects(of, by)?.find(({ name }) => name === 'q')?.perPoint;
    const both = { group: { item: 'both', pass: null } };
    const other: Parameters<typeof about.effects>[1] = new Map([['p', { shares: { 1: 0.8, 2: 0.2 } }]]);
    close(gives(both), 0.0025);
    close(gives(both, other), 0.008);
    close(gives('minutes', other), 0.008);
    close(gives(both), 0.0025);
    close(gives('minutes'), 0.0025);
  });

  it('has by other assumptions other shares, and by its own again the same', () => {
    const shares = (assumptions?: ReadonlyMap<string, { shares: Record<string, number> }>) =>
      forecaster
        .forecast({ starts: 1, breakOff: 0, ...(assumptions ? { assumptions } : {}) })
        .items.map(({ share }) => share);
    const other = new Map([['owns', { shares: { 1: 1, 2: 0 } }]]);
    assert.deepEqual(shares(other), [1, 1, 1, 0.5]);
    assert.deepEqual(shares(), [1, 0.25, 1, 0.5]);
  });

  it('tells how many have to start for what is wanted', () => {
    const group = { item: 'pump', pass: null };
    const { goals } = forecaster.forecast({
      starts: 10,
      breakOff: 0,
      goals: [
        { group, n: 50 },
        { group: { item: 'gone', pass: null }, n: 5 },
      ],
    });
    const [pump, gone] = goals.map(({ starts }) => starts);
    assert.ok((pump?.[50] ?? 0) >= 196 && (pump?.[50] ?? 0) <= 204, JSON.stringify(pump));
    assert.ok((pump?.[90] ?? 0) > (pump?.[50] ?? 0) && (pump?.[95] ?? 0) > (pump?.[90] ?? 0));
    assert.deepEqual(
      Object.values(gone ?? {}).every((starts) => starts === null || starts === Infinity),
      true,
    );
  });
});

it('a quota takes in so many, and turns the rest away', () => {
  const forecaster = new Forecaster(PLAN);
  const [owners] = forecaster.quotas({ starts: 1000, breakOff: 0 }, { item: 'last', pass: null });
  assert.equal(owners?.id, 'owners');
  assert.ok(Number(owners?.after) > 0);
  // It counts complete interviews, an eighth of all: it is full after 800, and an eighth of the others is lost.
  assert.ok(Math.abs((owners?.groupLost ?? 0) - 25) < 1, String(owners?.groupLost));
  assert.equal(forecaster.quotas({ starts: 1000, breakOff: 0 }, null)[0]?.groupLost, null);
  assert.deepEqual(new Forecaster(OPEN).quotas({ starts: 1000, breakOff: 0 }, null), []);
});

it('groups are told apart by their keys, items of repeated sections pass by pass', () => {
  const plan = planFor(
    questionnaire([
      section('a', [ask('n', { type: 'number', min: 0, max: 2 })]),
      section('kin', [ask('job')], { repeat: { times: 'n', max: 2 } }),
    ]),
  );
  assert.deepEqual(groupsOf(plan).map(groupKey), [
    'n',
    'job',
    'job#1',
    'job#2',
    '= a',
    '= kin',
    '> done',
    '> out',
  ]);
});

it('what is assumed of a question stands where no set says otherwise; a given value is never blank', () => {
  const single = ask('x', 2).answer;
  const document = questionnaire(
    [section('a', [ask('owns', 2, { assume: { shares: { 1: 0.3 } } }), ask('free')])],
    {
      given: [
        { name: 'area', label: 'Area', answer: single, assume: { shares: { 1: 0.1 } } },
        { name: 'arm', label: 'Arm', answer: single, random: true },
        { name: 'plain', label: 'Plain', answer: single },
      ],
      settings: {
        forecast: { sets: [{ name: 'low', assume: [{ of: 'owns', shares: { 1: 0.2 } }] }] },
      } as never,
    },
  );
  const all = assumedAtQuestions(document);
  assert.deepEqual(
    [...all].map(([name, { required, assume }]) => [name, required, assume]),
    [
      ['area', true, { shares: { 1: 0.1 } }],
      ['plain', true, undefined],
      ['owns', false, { shares: { 1: 0.3 } }],
      ['free', false, undefined],
    ],
  );
  assert.deepEqual(
    [assumedOf(document, null, 'owns'), assumedOf(document, null, 'free'), assumedOf(document, null, 'area')],
    [{ shares: { 1: 0.3 } }, undefined, { shares: { 1: 0.1 } }],
  );
});
