/** The variables of a data set as a start: what each becomes, what stands for no answer, and what is told of the rest. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import type { Questionnaire } from '../../document/types';
import { fromVariables, type DataVariable, type VariablesRead } from './from-variables';
import { readCsvw } from './read-csvw';
import { readDataPackage } from './read-data-package';

const variable = (name: string, rest: Partial<DataVariable> = {}): DataVariable => ({
  ...{ name, label: '', question: '', holds: 'text', measure: '', values: [], missing: [] },
  ...{ least: null, most: null },
  ...rest,
});

function sound(read: VariablesRead) {
  assert.ok(read.ok, JSON.stringify(read));
  return read;
}
const itemsOf = ({ document }: { document: Questionnaire }) =>
  document.sections.flatMap(({ items }) => items);
const answersOf = (read: VariablesRead) =>
  itemsOf(sound(read)).map((item) => item.kind === 'question' && item.answer);
const doubtsOf = (read: VariablesRead) => sound(read).doubts.map(({ line, what }) => `${line} ${what}`);

describe('a variable', () => {
  it('is a question of the words there are, under a name that can stand', () => {
    const read = fromVariables('Data', 'cy', [
      variable('age', { label: 'Age', question: 'How old are you?', measure: 'ratio' }),
      variable('AGE', { label: 'Age again', measure: 'continuous' }),
      variable('2nd'),
    ]);
    assert.equal(sound(read).document.language, 'cy');
    assert.deepEqual(
      itemsOf(sound(read)).map(
        (item) => item.kind === 'question' && [item.name, item.text, item.label, item.measure],
      ),
      [
        ['age', 'How old are you?', 'Age', 'ratio'],
        ['age_2', 'Age again', undefined, undefined],
        ['nd', '2nd', undefined, undefined],
      ],
    );
    assert.deepEqual(
      doubtsOf(read).map((doubt) => doubt.replace(/: .*: /, ': … ')),
      ['2 AGE: … it is called age_2', '3 2nd: … it is called nd'],
    );
  });

  it('is answered by what it holds', () => {
    const read = fromVariables('Data', null, [
      variable('a', { holds: 'whole', least: '-3', most: '7' }),
      variable('b', { holds: 'number', least: '0.5', most: '9' }),
      variable('c', { holds: 'whole', least: '1' }),
      variable('d', { holds: 'date', least: '2026-01-01' }),
      variable('e', { holds: 'time', most: '12:00' }),
      variable('f', { holds: 'text', least: '3' }),
      variable('g', {
        values: [
          { code: '2', label: 'Two' },
          { code: '-4', label: '' },
        ],
      }),
      variable('h', {
        values: [
          { code: 'a', label: 'A' },
          { code: 'b', label: '' },
        ],
      }),
    ]);
    assert.deepEqual(answersOf(read), [
      { type: 'number', min: -3, max: 7 },
      { type: 'number', min: 0.5, max: 9, decimals: 2 },
      { type: 'number', min: 0, max: 1_000_000 },
      { type: 'date', min: '2026-01-01' },
      { type: 'time', max: '12:00' },
      { type: 'text' },
      {
        type: 'single',
        options: [
          { code: 2, label: 'Two' },
          { code: -4, label: '-4' },
        ],
      },
      {
        type: 'single',
        options: [
          { code: 1, label: 'A' },
          { code: 2, label: 'b' },
        ],
      },
    ]);
    assert.deepEqual(doubtsOf(read), [
      '3 c: it has no limits: 0 to 1,000,000 were taken',
      '8 h: its values are no whole numbers: they are numbered from 1',
    ]);
  });

  it('has the codes of the plan where nearly all have them, and others beside its own', () => {
    const common = [
      { code: '-1', label: 'Asked, left blank' },
      { code: '-2', label: 'Refused' },
      { code: '-3', label: 'Lost' },
      { code: 'NA', label: 'None' },
    ];
    const whole = { holds: 'whole', least: '0', most: '9' } as const;
    const read = fromVariables('Data', null, [
      variable('a', { ...whole, missing: common }),
      variable('b', { ...whole, missing: [...common, { code: '77', label: 'Too many' }] }),
      variable('c', { ...whole, missing: [{ code: '-2', label: 'Something else' }] }),
      variable('d', {
        values: [{ code: '1', label: 'Yes' }],
        missing: [
          { code: '1', label: 'Yes' },
          { code: '8', label: 'Lost' },
        ],
      }),
    ]);
    assert.deepEqual(
      sound(read).document.missing.map(({ reason, code, label }) => `${code} ${reason} ${label}`),
      [
        '-5 not_applicable Not applicable (skipped by route)',
        '-6 not_drawn Not drawn for this respondent',
        '-1 no_answer Asked, left blank',
        '-4 not_reached Stopped before this question',
        // Nobody else calls it so: a reason of their own.
        '-2 refused Refused',
        '-3 lost Lost',
      ],
    );
    const special = (code: number, label: string) => ({ code, label, missing: 'not_available' });
    assert.deepEqual(answersOf(read), [
      { type: 'number', min: 0, max: 9 },
      { type: 'number', min: 0, max: 9, specials: [special(77, 'Too many')] },
      { type: 'number', min: 0, max: 9, specials: [special(-2, 'Something else')] },
      { type: 'single', options: [{ code: 1, label: 'Yes' }, special(8, 'Lost')] },
    ]);
    // What one variable has alone is no plan.
    const alone = fromVariables('Data', null, [variable('a', { ...whole, missing: common.slice(1, 2) })]);
    assert.deepEqual(answersOf(alone), [
      { type: 'number', min: 0, max: 9, specials: [special(-2, 'Refused')] },
    ]);
  });

  it('is refused with words where there is none, and where there are too many', () => {
    assert.deepEqual(fromVariables('Data', null, []), {
      ok: false,
      problems: ['There is no variable in it.'],
    });
    const many = Array.from({ length: 20_001 }, (_, n) => variable(`v${n}`));
    assert.deepEqual(fromVariables('Data', null, many), {
      ok: false,
      problems: ['It has more than 20,000 variables: divide it.'],
    });
  });
});

describe('the schema of a Data Package', () => {
  const fields = [
    {
      name: 'age',
      title: 'Age',
      description: 'How old?',
      type: 'integer',
      constraints: { minimum: 18, maximum: '99' },
    },
    {
      name: 'rent',
      type: 'string',
      categories: [{ value: 1, label: 'Yes' }, { value: 2 }],
      categoriesOrdered: true,
    },
    { name: 'year', type: 'year', constraints: { minimum: 2000, maximum: 2026 }, missingValues: [] },
    { name: 'kind', constraints: { enum: ['1', '2'] } },
    { name: 'odd', type: 'geopoint' },
  ];

  it('gives its variables, with the labels of versions 1 and 2', () => {
    const schema = { fields, missingValues: [{ value: '-9', label: 'No idea' }, '-8'] };
    const read = readDataPackage(
      { title: 'Wave 1', languages: ['de'], resources: [{ name: 'x' }, { schema }] },
      'File',
    );
    const { document } = sound(read);
    assert.deepEqual([document.title, document.language], ['Wave 1', 'de']);
    assert.deepEqual(answersOf(read), [
      { type: 'number', min: 18, max: 99 },
      {
        type: 'single',
        options: [
          { code: 1, label: 'Yes' },
          { code: 2, label: '2' },
        ],
      },
      { type: 'number', min: 2000, max: 2026 },
      {
        type: 'single',
        options: [
          { code: 1, label: '1' },
          { code: 2, label: '2' },
        ],
      },
      { type: 'text' },
    ]);
    assert.equal((itemsOf(sound(read))[1] as { measure?: string }).measure, 'ordinal');
    assert.deepEqual(doubtsOf(read), []);
  });

  it('is read by itself too; of several tables the first is taken, and the others are told', () => {
    assert.equal(sound(readDataPackage({ fields }, 'File')).document.title, 'File');
    const three = { resources: Array.from({ length: 3 }, () => ({ schema: { fields } })) };
    assert.deepEqual(doubtsOf(readDataPackage(three, 'File')), ['6 2 more tables were not taken over']);
    for (const other of [null, [], { resources: [] }, { fields: [{ title: 'x' }] }])
      assert.match(JSON.stringify(readDataPackage(other, 'File')), /No table in it says what its fields are/);
  });
});

describe('CSVW metadata', () => {
  const columns = [
    { name: 'age', titles: ['Age', 'Alter'], datatype: { base: 'integer', minimum: 18, maxInclusive: 99 } },
    { titles: 'rent', 'dc:description': { en: 'Do you rent?' }, null: ['', '-9'] },
    { name: 'day', titles: 'day', 'rdfs:label': 'The day', datatype: 'date' },
    { datatype: 'double', null: '-8' },
    { name: 'row', virtual: true },
  ];
  const codes = [
    ['rent', '1', 'Yes', ''],
    ['rent', '-9', 'No idea', 'dont_know'],
    ['age', '18', 'Eighteen', 'refused'],
  ] as const;

  it('gives the columns of its first table, with a table of codes their labels', () => {
    const table = { url: 'data.csv', tableSchema: { columns } };
    const context = ['http://www.w3.org/ns/csvw', { '@language': 'cy' }];
    const read = readCsvw(
      { '@context': context, 'dc:title': 'Wave 1', tables: [table, { ...table, url: 'codes.csv' }] },
      'File',
      codes,
    );
    const { document } = sound(read);
    assert.deepEqual([document.title, document.language], ['Wave 1', 'cy']);
    assert.deepEqual(
      itemsOf(sound(read)).map((item) => item.kind === 'question' && [item.name, item.text, item.label]),
      [
        ['age', 'Age', undefined],
        ['rent', 'Do you rent?', undefined],
        ['day', 'The day', undefined],
        ['column_4', 'column_4', undefined],
      ],
    );
    assert.deepEqual(answersOf(read), [
      { type: 'number', min: 18, max: 99 },
      {
        type: 'single',
        options: [
          { code: 1, label: 'Yes' },
          { code: -9, label: 'No idea', missing: 'not_available' },
        ],
      },
      { type: 'date' },
      {
        type: 'number',
        min: 0,
        max: 1_000_000,
        decimals: 2,
        specials: [{ code: -8, label: '', missing: 'not_available' }],
      },
    ]);
    // Our own table of codes was read; another one was not.
    assert.deepEqual(doubtsOf(read), ['4 column_4: it has no limits: 0 to 1,000,000 were taken']);
    const two = { tables: [table, table] };
    assert.ok(doubtsOf(readCsvw(two, 'File')).includes('5 1 more table was not taken over'));
    const alone = readCsvw(table, 'File');
    assert.deepEqual([sound(alone).document.title, sound(alone).document.language], ['File', 'en']);
  });

  it('is refused with words where no table says what its columns are', () => {
    for (const other of [null, 'x', { tables: [] }, { tableSchema: {} }])
      assert.match(JSON.stringify(readCsvw(other, 'File')), /It says of no table what its columns are/);
  });
});
