/** The forecast as tables: what stands in which cell, by a study of which every share is known. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../../tests/support/questionnaire';
import type { Settings } from '../../document/types';
import { forecastCsv, forecastedFor, forecastSheets } from './forecast-tables';

/** A quarter are screened out; half of the rest have a pass, in which everybody is asked. */
const planWith = (forecast: Settings['forecast']) =>
  planFor(
    questionnaire(
      [
        section('a', [
          ask('stays', 2, {
            required: true,
            seconds: 60,
            assume: { shares: { 1: 0.25 }, source: 'a survey', where: [] },
            skips: [{ if: 'stays = 1', to: { ending: 'out' } }],
          }),
          ask('times', { type: 'number', min: 0, max: 1 }, { required: true, seconds: 30 }),
        ]),
        section('b', [ask('of', 2, { required: true, seconds: 30 })], { repeat: { times: 'times', max: 1 } }),
      ],
      {
        settings: { forecast },
        endings: [
          { id: 'out', kind: 'screened_out', messages: [] },
          { id: 'done', kind: 'complete', messages: [] },
        ],
      },
    ),
  );

const sheetsOf = (forecast: Settings['forecast']) => {
  const plan = planWith(forecast);
  const sheets = forecastSheets(plan, forecastedFor(plan));
  return {
    names: sheets.map(({ name }) => name),
    rows: (name: string) => sheets.find((sheet) => sheet.name === name)?.rows ?? [],
    head: (name: string) => sheets.find((sheet) => sheet.name === name)?.head ?? [],
  };
};

describe('the sheets of a forecast', () => {
  it('have bases, endings, minutes and what they are assumed from', () => {
    const { names, rows } = sheetsOf({ starts: 1000, least: 400 });
    assert.deepEqual(names, ['Bases', 'Endings', 'Minutes', 'Assumed', 'Made for']);
    const columns = (name: string, of: readonly number[]) => rows(name).map((row) => of.map((n) => row[n]));
    // Title, item, pass, share, expected, too few.
    assert.deepEqual(columns('Bases', [0, 1, 2, 3, 4, 7]), [
      ['a', 'stays', '', 1, 1000, ''],
      ['a', 'times', '', 0.75, 750, ''],
      ['b', 'of', '', 0.375, 375, 'yes'],
      ['b', 'of', 1, 0.375, 375, 'yes'],
    ]);
    assert.deepEqual(columns('Endings', [0, 1, 2, 3]), [
      ['out', 'screened_out', 0.25, 250],
      ['done', 'complete', 0.75, 750],
    ]);
    for (const row of [...rows('Bases'), ...rows('Endings')]) {
      const [low = NaN, high = NaN] = row.slice(-2 - (row.length === 9 ? 2 : 0)).map(Number);
      const expected = Number(row[row.length === 9 ? 4 : 3]);
      assert.ok(
        low <= expected && expected <= high && (expected === 1000 || low < high),
        JSON.stringify(row),
      );
    }
    assert.deepEqual(rows('Minutes'), [
      ['mean', 1.75],
      ['1 in 10 at most', 1.5],
      ['half at most', 1.5],
      ['9 in 10 at most', 2],
      ['longest', 2],
    ]);
    const stays = rows('Assumed').filter(([name]) => name === 'stays');
    assert.deepEqual(
      stays.map(([, decides, where, , share, source]) => [decides, where, share, source]),
      [
        [2, '', 0.25, 'a survey'],
        [2, '', 0.75, 'a survey'],
      ],
    );
    assert.match(String(rows('Assumed').find(([name]) => name === 'times')?.[5]), /looked at by nobody/);
    assert.deepEqual(
      rows('Made for').map((row) => row[1]),
      [1000, 400, 0, '', 1, 'yes'],
    );
  });

  it('have every set of assumptions beside the questions’ own', () => {
    const assume = [{ of: 'stays', shares: { 1: 0.5 } }];
    const { names, rows, head } = sheetsOf({ starts: 100, sets: [{ name: 'low', assume }] });
    assert.ok(names.includes('Sets') && !names.includes('Sample'));
    assert.deepEqual(head('Sets').slice(0, 4), ['item or ending', 'pass', 'expected', 'low']);
    const byName = new Map(rows('Sets').map((row) => [`${row[0]} ${row[1]}`, row]));
    assert.deepEqual(byName.get('out ')?.slice(2, 4), [25, 50]);
    assert.deepEqual(byName.get('done ')?.slice(2, 4), [75, 50]);
    assert.deepEqual(byName.get('of 1')?.slice(2, 4), [37.5, 25]);
    const [low = NaN, high = NaN] = (byName.get('out ') ?? []).slice(4).map(Number);
    assert.ok(low < 25 && high > 50);
  });

  it('have how many must start for the bases that are wanted, and what they cost', () => {
    const wanted = [
      { of: 'of', pass: 1, n: 100 },
      { of: 'times', n: 100 },
      { of: 'gone', n: 5 },
    ];
    const prices = { start: 1, complete: 10, currency: 'EUR' };
    const { rows, head } = sheetsOf({ starts: 1000, wanted, prices });
    const [first = [], second = [], all = [], costs = []] = rows('Sample');
    assert.equal(rows('Sample').length, 4);
    assert.deepEqual(
      [first.slice(0, 3), second.slice(0, 3)],
      [
        ['of', 1, 100],
        ['times', '', 100],
      ],
    );
    assert.equal(head('Sample').length, first.length);
    // Half a chance is about as many as make the base on average; more certain is more people.
    assert.ok(Math.abs(Number(first[3]) - 100 / 0.375) < 5 && Math.abs(Number(second[3]) - 100 / 0.75) < 3);
    for (const row of [first, second, all])
      assert.ok(Number(row[3]) <= Number(row[4]) && Number(row[4]) <= Number(row[5]), JSON.stringify(row));
    assert.ok(Number(all[3]) >= Number(first[3]));
    assert.deepEqual(costs, ['costs of 1000 who start', '', 1000 + 7500, 'EUR', '', '']);
    assert.equal(sheetsOf({ starts: 1000, prices: { complete: 10 } }).rows('Sample').length, 1);
    assert.equal(sheetsOf({ starts: 1000, wanted: wanted.slice(0, 1) }).rows('Sample').length, 1);
  });
});

it('the table for programs has every figure in full, and endings that add up to everybody', () => {
  const plan = planWith({ starts: 3 });
  const [head, ...rows] = forecastCsv(plan)
    .trimEnd()
    .split(/\r?\n/)
    .map((line) => line.split(','));
  assert.deepEqual(head, ['of', 'name', 'pass', 'share', 'expected', 'low', 'high']);
  assert.deepEqual(
    rows.map((row) => row.slice(0, 5)),
    [
      ['item', 'stays', '', '1', '3'],
      ['item', 'times', '', '0.75', '2.25'],
      ['item', 'of', '', '0.375', '1.125'],
      ['item', 'of', '1', '0.375', '1.125'],
      ['ending', 'out', '', '0.25', '0.75'],
      ['ending', 'done', '', '0.75', '2.25'],
    ],
  );
});
