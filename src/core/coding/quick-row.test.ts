/** The row of many respondents is the row of the walk that keeps a record, for every kind of column there is. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Answer, Option } from '../document/types';
import { madeUpRespondents } from '../simulate/respondents';
import { walk } from '../routing/walk';
import { columnsOf } from './columns';
import { codedRow } from './row';

const options: readonly Option[] = [
  { code: 1, label: 'Gas' },
  { code: 2, label: 'Oil' },
  { code: 3, label: 'Other', specify: true },
  { code: 98, label: 'Don’t know', missing: 'dont_know' },
];
const plain = options.slice(0, 2);
const answers: Readonly<Record<string, Answer>> = {
  one: { type: 'single', options },
  many: { type: 'multiple', options },
  order: { type: 'rank', options: plain, top: 2 },
  people: { type: 'number', min: 0, max: 3, specials: options.slice(3) },
  words: { type: 'text' },
  day: { type: 'date', min: '2026-01-01', max: '2026-01-31' },
  rows: {
    type: 'grid',
    options: plain,
    rows: [
      { name: 'first', label: 'First' },
      { name: 'second', label: 'Second', askIf: 'one = 1' },
    ],
  },
  picks: { type: 'grid', options: plain, pick: 'many', rows: [{ name: 'third', label: 'Third' }] },
};
// Each answer is given by somebody, a blank as well.
const shares = { 1: 0.3, 2: 0.3, 3: 0.2, 98: 0.2 };
const assume = { many: { shares, blank: 0.1 }, one: { shares, blank: 0.1 } };
const asked = Object.entries(answers).map(([name, answer]) =>
  ask(name, answer, name in assume ? { assume: assume[name as keyof typeof assume] } : {}),
);
const plan = planFor(
  questionnaire(
    [
      section('a', asked),
      section('b', [ask('d1'), ask('d2', 2), ask('d3')], { draw: 1 }),
      section('c', [ask('again', answers.many ?? 2, { comment: 'Anything to add?' })], {
        repeat: { times: 'people', max: 3 },
      }),
    ],
    {
      given: [
        { name: 'region', label: 'Region', answer: { type: 'single', options: plain } },
        { name: 'known', label: 'Known', answer: { type: 'multiple', options: plain } },
      ],
      derived: [{ name: 'sum', label: 'Sum', value: 'people + region' }],
    },
  ),
);

it('a made-up respondent has the same row, worked out quickly and with reasons', () => {
  const columns = columnsOf(plan);
  const met = columns.map(() => new Set<number | string>());
  for (const person of madeUpRespondents(plan, 400, 11)) {
    const { answers: own, given, draws } = person;
    const result = walk(plan, { answers: own, given, draws });
    assert.ok(result.ok);
    const quick = person.row();
    quick.forEach((cell, n) => met[n]?.add(cell));
    assert.deepEqual(
      Object.fromEntries(columns.map(({ name }, n) => [name, quick[n]])),
      codedRow(plan, result.walk, own),
    );
  }
  // What never varies would prove nothing: free words are always the same, and all come to one ending.
  const words = /^(words|again_._comment|ending)$/;
  assert.deepEqual(
    columns.flatMap(({ name }, n) => ((met[n]?.size ?? 0) < 2 && !words.test(name) ? [name] : [])),
    [],
  );
});
