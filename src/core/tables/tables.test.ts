/** Tables against numbers worked out by hand, and against the respondents they are made from. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import heating from '../../../demo/tern-valley-home-heating.fork.json';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Questionnaire } from '../document/types';
import type { Plan } from '../routing/plan';
import { madeUpRespondents } from '../simulate/respondents';
import { crossOf } from './cross';
import { Dataset } from './dataset';
import { filterRows } from './filter';
import { frequencyOf } from './frequency';
import { tableVariables } from './variables';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const small = planFor(
  questionnaire([
    section('a', [
      ask('tenure', {
        type: 'single',
        options: [option(1), option(2), option(98, { missing: 'dont_know' })],
      }),
      ask('rent', { type: 'number', min: 0, max: 100 }, { askIf: 'tenure = 2' }),
      ask('fuels', { type: 'multiple', options: [option(1), option(2), option(3)] }),
    ]),
  ]),
);
// Columns: tenure, rent, fuels_1, fuels_2, fuels_3, ending.
const ROWS = [
  [1, -1, 1, 0, 0, 'done'],
  [1, -1, 1, 1, 0, 'done'],
  [2, 10, 0, 1, 0, 'done'],
  [2, 30, -3, -3, -3, 'done'],
  [2, -3, 1, 1, 1, 'done'],
  [98, -1, 0, 0, 1, 'done'],
  [-3, -1, 1, 0, 0, 'done'],
  [2, 50, -4, -4, -4, -4],
];
const DATA = Dataset.ofRows(small, ROWS);
const EVERY = ROWS.map((_, n) => n);
const variable = (plan: Plan, id: string) => {
  const found = tableVariables(plan).find((each) => each.id === id);
  assert.ok(found !== undefined, id);
  return found;
};
const table = (id: string, rows = EVERY) => frequencyOf(small.document, DATA, variable(small, id), rows);
function rowsWhere(plan: Plan, data: Dataset, text: string): readonly number[] {
  const left = filterRows(plan, data, text);
  assert.ok(left.ok, text);
  return [...left.rows];
}
const lines = (of: ReturnType<typeof table>) =>
  [...of.rows, ...of.missing].map(({ code, label, count, ofAll, ofAsked, ofAnswered, cumulative }) => [
    code || label,
    count,
    ...[ofAll, ofAsked, ofAnswered, cumulative].map((share) =>
      share === null ? null : Math.round(share * 10) / 10,
    ),
  ]);

describe('frequencies', () => {
  it('are on all, on those asked and on those who answered, with reasons apart', () => {
    const tenure = table('tenure');
    assert.deepEqual([tenure.all, tenure.asked, tenure.answered], [8, 8, 6]);
    assert.deepEqual(lines(tenure), [
      ['1', 2, 25, 25, 33.3, 33.3],
      ['2', 4, 50, 50, 66.7, 100],
      ['98', 1, 12.5, 12.5, null, null],
      ['-3', 1, 12.5, 12.5, null, null],
    ]);
    const rent = table('rent');
    assert.deepEqual([rent.all, rent.asked, rent.answered], [8, 4, 3]);
    assert.deepEqual(lines(rent), [
      ['10', 1, 12.5, 25, 33.3, 33.3],
      ['30', 1, 12.5, 25, 33.3, 66.7],
      ['50', 1, 12.5, 25, 33.3, 100],
      ['-1', 4, 50, null, null, null],
      ['-3', 1, 12.5, 25, null, null],
    ]);
    assert.deepEqual(rent.summary, { mean: 30, median: 30, deviation: 20, least: 10, most: 50 });
  });
  it('of several picks are percent of cases', () => {
    const fuels = table('fuels');
    assert.equal(fuels.several, true);
    assert.deepEqual([fuels.all, fuels.asked, fuels.answered], [8, 7, 6]);
    assert.deepEqual(lines(fuels), [
      ['1', 4, 50, 57.1, 66.7, null],
      ['2', 3, 37.5, 42.9, 50, null],
      ['3', 2, 25, 28.6, 33.3, null],
      ['-3', 1, 12.5, 14.3, null, null],
      ['-4', 1, 12.5, null, null, null],
    ]);
  });
  it('can be of the rows for which a condition holds', () => {
    assert.deepEqual(rowsWhere(small, DATA, 'tenure = 2 and (rent > 20 or rent unanswered)'), [3, 4, 7]);
    assert.deepEqual(rowsWhere(small, DATA, 'fuels has all (1, 2)'), [1, 4]);
    assert.deepEqual(filterRows(small, DATA, 'rent asked').ok, true);
    assert.equal(filterRows(small, DATA, 'rnt > 1').ok, false);
    assert.equal(filterRows(small, DATA, 'rent >').ok, false);
  });
});

it('a cross-table is of those who answered both, and says who is left out', () => {
  const cross = crossOf(DATA, variable(small, 'tenure'), variable(small, 'fuels'), EVERY);
  assert.deepEqual(cross, {
    rows: ['Answer 1', 'Answer 2'],
    columns: ['Answer 1', 'Answer 2', 'Answer 3'],
    counts: [
      [2, 1, 0],
      [1, 2, 1],
    ],
    rowCases: [2, 2],
    columnCases: [3, 3, 1],
    cases: 4,
    without: { row: 2, column: 2 },
  });
});

it('a median of an even count lies half-way, and a single value has no spread', () => {
  const summary = (rows: number[]) => table('rent', rows).summary;
  assert.deepEqual(summary([2, 3]), { mean: 20, median: 20, deviation: Math.sqrt(200), least: 10, most: 30 });
  assert.deepEqual(summary([7]), { mean: 50, median: 50, deviation: null, least: 50, most: 50 });
  assert.equal(summary([0, 1]), null);
});

it('texts are listed by how often they were written, what is beyond the first twenty together', () => {
  const plan = planFor(questionnaire([section('a', [ask('why', { type: 'text' })])]));
  const of = (texts: readonly string[]) => {
    const data = Dataset.ofRows(
      plan,
      texts.map((text) => [text, 'done']),
    );
    const found = frequencyOf(plan.document, data, variable(plan, 'why'), [...texts.keys()]);
    return found.rows.map(({ label, count }) => `${label} ${count}`);
  };
  const many = Array.from({ length: 20 }, (_, n) => `t${String(n).padStart(2, '0')}`);
  assert.deepEqual(of(['b', 'a', 'a']), ['a 2', 'b 1']);
  assert.equal(of(many).length, 20);
  assert.deepEqual(of([...many, 'z', 'zz', 't05']).slice(0, 1), ['t05 2']);
  assert.equal(of([...many, 'z', 'zz', 't05']).at(-1), '2 other texts 2');
});

it('each variable is listed once, under what it is called and where it stands', () => {
  const rows = [
    { name: 'g_heat', label: 'Heating' },
    { name: 'g_light', label: 'Light' },
  ];
  const options = [option(1), option(2, { specify: true })];
  const wide = planFor(
    questionnaire(
      [
        section('a', [
          ask('many', { type: 'number', min: 0, max: 2 }),
          ask('g', { type: 'grid', rows, options: [option(1), option(2)] }, { label: 'Of each' }),
          ask('top', { type: 'rank', options: [option(1), option(2), option(3)], top: 2 }),
          ask('some', { type: 'multiple', options }),
        ]),
        section('b', [ask('room'), ask('cold')], { repeat: { times: 'many', max: 2 } }),
      ],
      { given: [{ name: 'arm', label: 'Arm', answer: { type: 'single', options } }] },
    ),
  );
  assert.deepEqual(
    tableVariables(wide).map(({ id, label, group, kind }) => [id, label, group, kind].join(' | ')),
    [
      'arm | Arm | Given | codes',
      'many | many? | A a | numbers',
      'g_heat | Of each: Heating | A a | codes',
      'g_light | Of each: Light | A a | codes',
      'top_rank1 | top?, place 1 | A a | codes',
      'top_rank2 | top?, place 2 | A a | codes',
      'some | some? | A a | picks',
      'room_all | room?, all passes | B b | codes',
      'room_1 | room?, pass 1 | B b | codes',
      'room_2 | room?, pass 2 | B b | codes',
      'cold_all | cold?, all passes | B b | codes',
      'cold_1 | cold?, pass 1 | B b | codes',
      'cold_2 | cold?, pass 2 | B b | codes',
      'ending | Ending | Ending | codes',
    ],
  );
});

it('rows can be kept by a grid that was asked at all, and by what was counted over passes', () => {
  const rows = [
    { name: 'g_heat', label: 'Heating' },
    { name: 'g_light', label: 'Light' },
  ];
  const plan = planFor(
    questionnaire([
      section('a', [
        ask('own', 2),
        ask('g', { type: 'grid', rows, options: [option(1), option(2)] }, { askIf: 'own = 1' }),
        ask('many', { type: 'number', min: 0, max: 2 }),
      ]),
      section('b', [ask('warm', 2)], { repeat: { times: 'many', max: 2 } }),
    ]),
  );
  // Columns: own, g_heat, g_light, many, warm_1, warm_2, ending.
  const data = Dataset.ofRows(plan, [
    [1, 1, 2, 2, 1, 1, 'done'],
    [1, -3, -3, 1, 1, -1, 'done'],
    [2, -1, -1, 0, -1, -1, 'done'],
    [1, -3, 2, 2, 2, 1, 'done'],
  ]);
  const kept = (text: string) => rowsWhere(plan, data, text);
  assert.deepEqual(kept('g asked'), [0, 1, 3]);
  assert.deepEqual(kept('g answered'), [0, 3]);
  assert.deepEqual(kept('g_light = 2'), [0, 3]);
});

it('a filter over passes reads whatever says which passes there were, and which option each is of', () => {
  const plan = planFor(
    questionnaire([
      section('a', [ask('fuels', { type: 'multiple', options: [option(1), option(2), option(3)] })]),
      section('b', [ask('warm', 2), ask('new', 2)], { repeat: { each: 'fuels', max: 2 } }),
    ]),
  );
  // Columns: fuels_1 to fuels_3, warm_1, warm_2, new_1, new_2, ending.
  const data = Dataset.ofRows(plan, [
    [1, 1, 0, 1, -1, 1, 2, 'done'],
    [1, 1, 0, 1, -1, 1, -1, 'done'],
    [0, 1, 1, 1, 2, 1, 2, 'done'],
    [0, 1, 0, 1, -1, 1, -1, 'done'],
  ]);
  assert.deepEqual(rowsWhere(plan, data, 'count(warm not asked) = 1'), [0]);
  assert.deepEqual(rowsWhere(plan, data, 'count(warm = 1 and each = 2) = 1'), [2, 3]);
});

describe('answers given in every pass of a repeated section', () => {
  const repeated = planFor(
    questionnaire([
      section('a', [ask('size', { type: 'number', min: 1, max: 2 })]),
      section('b', [ask('warm', 2), ask('degrees', { type: 'number', min: 10, max: 30 })], {
        repeat: { times: 'size', max: 2 },
      }),
    ]),
  );
  // Columns: size, warm_1, warm_2, degrees_1, degrees_2, ending.
  const data = Dataset.ofRows(repeated, [
    [2, 1, 2, 20, 15, 'done'],
    [1, 1, -1, 22, -1, 'done'],
    [2, -3, 1, 18, 20, 'done'],
  ]);
  const of = (name: string) => variable(repeated, `${name}_all`);
  it('are counted as passes, of which those not run were not asked', () => {
    const { all, asked, answered, rows } = frequencyOf(repeated.document, data, of('warm'), [0, 1, 2]);
    assert.deepEqual([all, asked, answered, ...rows.map(({ count }) => count)], [6, 5, 4, 3, 1]);
  });
  it('stand against each other pass by pass, never against an answer given once', () => {
    const cross = crossOf(data, of('warm'), of('degrees'), [0, 1, 2]);
    assert.deepEqual(
      [cross?.rows, cross?.columns],
      [
        ['Answer 1', 'Answer 2'],
        ['15', '20', '22'],
      ],
    );
    assert.deepEqual(cross?.counts, [
      [0, 2, 1],
      [1, 0, 0],
    ]);
    assert.deepEqual(cross?.without, { row: 2, column: 0 });
    assert.equal(crossOf(data, of('warm'), variable(repeated, 'size'), [0, 1, 2]), null);
  });
});

describe('tables of made-up respondents of the heating study', () => {
  const plan = planFor(heating as unknown as Questionnaire);
  const people = [...madeUpRespondents(plan, 300, 1)];
  const data = Dataset.ofRows(
    plan,
    people.map((person) => [...person.row()]),
  );
  const every = people.map((_, n) => n);
  it('have the bases and counts of the respondents, and percentages that add up', () => {
    for (const each of tableVariables(plan)) {
      const of = frequencyOf(plan.document, data, each, every);
      const counted = [...of.rows, ...of.missing];
      const sum = (key: 'ofAll' | 'ofAsked', rows = counted) =>
        Math.round(1e9 * rows.reduce((total, row) => total + (row[key] ?? 0), 0)) / 1e9;
      if (!of.several) {
        assert.equal(
          counted.reduce((total, { count }) => total + count, 0),
          of.all,
          each.id,
        );
        assert.equal(sum('ofAll'), 100, each.id);
        if (of.asked > 0) assert.equal(sum('ofAsked'), 100, each.id);
      }
      const name = each.id.replace(/_rank\d+$/, '');
      const home = plan.sections.find(({ items }) => items.some(({ item }) => item.name === each.item));
      const item = home?.items.find((at) => at.item.name === each.item)?.item;
      if (home?.repeat !== null || item?.kind !== 'question' || item.answer.type === 'grid') continue;
      const presented = people.filter((person) => person.presented.includes(name)).length;
      assert.equal(of.asked, presented, each.id);
      for (const { code, count } of of.rows) {
        if (code === '' || /_rank/.test(each.id)) continue;
        const own = people.filter(({ answers, presented: met }) => {
          const value = answers[name];
          return (
            met.includes(name) &&
            (Array.isArray(value) ? value.includes(Number(code)) : String(value) === code)
          );
        });
        assert.equal(count, own.length, `${each.id} ${code}`);
      }
    }
  });
});
