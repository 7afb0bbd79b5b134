/** What is told of each column of the data: what it holds, its limits, its codes, and why there may be no answer. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../../tests/support/questionnaire';
import type { Answer } from '../../document/types';
import { dataFields, isCoded } from './fields';

const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const options = [option(1), option(2), option(98, { missing: 'dont_know' })];
const fields = (answers: Readonly<Record<string, Answer>>, rest: Parameters<typeof questionnaire>[1] = {}) =>
  dataFields(
    planFor(
      questionnaire(
        [
          section(
            'a',
            Object.entries(answers).map(([name, answer]) => ask(name, answer)),
          ),
        ],
        rest,
      ),
    ),
  );

it('holds what its answer holds, within its limits', () => {
  const told = fields(
    {
      one: { type: 'single', options: [...options.slice(0, 2), option(3, { specify: true })] },
      many: { type: 'multiple', options: options.slice(0, 2) },
      rooms: { type: 'number', min: 1, max: 9 },
      money: { type: 'number', min: 0, max: 9.5, decimals: 2 },
      full: { type: 'number', min: 0, max: 9, decimals: 0 },
      scale: { type: 'scale', min: 0, max: 10 },
      halves: { type: 'scale', min: 0, max: 10, step: 0.5 },
      steps: { type: 'scale', min: 0.5, max: 4.5, step: 1 },
      born: { type: 'date', min: '1950-01-01' },
      words: { type: 'text' },
      order: { type: 'rank', options: options.slice(0, 2) },
    },
    {
      derived: [
        { name: 'sum', label: 'Sum', value: 'rooms + 1' },
        {
          name: 'kind',
          label: 'Kind',
          cases: [{ if: 'rooms = 1', code: 1, label: 'One' }],
          else: { code: 2, label: 'More' },
        },
      ],
    },
  ).map(({ name, holds, least, most }) => `${name} ${holds} ${least} ${most}`);
  assert.deepEqual(told, [
    'one whole null null',
    'one_3_text text null null',
    'many_1 whole null null',
    'many_2 whole null null',
    'rooms whole 1 9',
    'money number 0 9.5',
    'full whole 0 9',
    'scale whole 0 10',
    'halves number 0 10',
    'steps number 0.5 4.5',
    'born date 1950-01-01 null',
    'words text null null',
    'order_rank1 whole null null',
    'order_rank2 whole null null',
    'sum number null null',
    'kind whole null null',
    'ending text null null',
  ]);
});

it('has reasons that are chosen before those of the plan, and none of the plan that is an answer here', () => {
  const [own] = fields({ own: { type: 'single', options: [...options, option(-3)] } });
  assert.deepEqual(own?.values, [
    { code: 1, label: 'Answer 1' },
    { code: 2, label: 'Answer 2' },
    { code: -3, label: 'Answer -3' },
  ]);
  assert.deepEqual(
    own.missing.map(({ code, reason }) => `${code} ${reason}`),
    ['98 option', '-1 not_applicable', '-2 not_drawn', '-4 not_reached'],
  );
});

it('is a list of codes where its answers are known from the start', () => {
  const coded = fields({
    own: { type: 'single', options },
    rooms: { type: 'number', min: 0, max: 9 },
    words: { type: 'text' },
  });
  assert.deepEqual(coded.map(isCoded), [true, false, false, true]);
});
