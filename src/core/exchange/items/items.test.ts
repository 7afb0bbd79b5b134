/** Item lists: what stands in one cell, written and read as people write it; and what a row lacks made up and told. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, say } from '../../../../tests/support/questionnaire';
import type { Option, Questionnaire } from '../../document/types';
import { headOf, ITEM_COLUMN_NAMES, matchColumns } from './columns';
import {
  optionsRead,
  optionsWritten,
  partsIn,
  rowsRead,
  rowsWritten,
  skipsRead,
  skipsWritten,
} from './lists';
import { readItems } from './read-items';

describe('a list in one cell', () => {
  it('is parted at bars and lines, at semicolons where there are neither, and keeps bars of the author', () => {
    for (const [cell, parts] of [
      ['a | b|c', ['a', 'b', 'c']],
      ['a\nb; c', ['a', 'b; c']],
      ['a; b;;c ', ['a', 'b', 'c']],
      ['a \\| b | c\\\\', ['a | b', 'c\\']],
      ['a\\b', ['a\\b']],
      [' | ', []],
    ] as const)
      assert.deepEqual(partsIn(cell), parts, cell);
  });

  it('gives back the answers that were written, with all that is said of them', () => {
    const options: Option[] = [
      { code: 1, label: 'Yes' },
      { code: -2, label: 'No | never \\', exclusive: true },
      { code: 3, label: 'Other', specify: true, askIf: 'a = 1 and b has any (1, 2)' },
      { code: 98, label: "Don't know", missing: 'dont_know', exclusive: true },
      { code: 5, label: 'Some [of them]' },
      { code: 6, label: 'Only if', askIf: 'c = 1' },
    ];
    assert.equal(
      optionsWritten(options.slice(2, 4)),
      "3 = Other [specify, if a = 1 and b has any (1, 2)] | 98 = Don't know [dont_know, exclusive]",
    );
    assert.deepEqual(optionsRead(optionsWritten(options)), { options, doubts: [] });
  });

  it('takes codes as people set them off, and numbers anew where some lack one', () => {
    for (const cell of [
      '1 = Yes | 2 = No',
      '1: Yes\n2: No',
      '1) Yes; 2) No',
      '1. Yes | 2. No',
      '1 - Yes | 2 – No',
    ])
      assert.deepEqual(
        optionsRead(cell).options,
        [
          { code: 1, label: 'Yes' },
          { code: 2, label: 'No' },
        ],
        cell,
      );
    assert.deepEqual(optionsRead('1 = Other [specify, ]').options, [
      { code: 1, label: 'Other', specify: true },
    ]);
    assert.deepEqual(optionsRead('1 = Other [specify, please]').options, [
      { code: 1, label: 'Other [specify, please]' },
    ]);
    assert.deepEqual(optionsRead('Yes | No'), {
      options: [
        { code: 1, label: 'Yes' },
        { code: 2, label: 'No' },
      ],
      doubts: [],
    });
    assert.deepEqual(optionsRead('5 = Yes | No'), {
      options: [
        { code: 1, label: '5 = Yes' },
        { code: 2, label: 'No' },
      ],
      doubts: ['some answers have a code and some have none: all are numbered anew'],
    });
  });

  it('gives back rows with their names and conditions; one without a name gets one', () => {
    const rows = [
      { name: 'heat', label: 'Heat = warmth | light' },
      { name: 'cost', label: 'Cost', askIf: 'pays = 1' },
    ];
    const fresh = (words: string) => words.toLowerCase().replaceAll(' ', '_');
    assert.equal(rowsWritten(rows), 'heat = Heat = warmth \\| light | cost = Cost [if pays = 1]');
    assert.deepEqual(
      rowsRead(rowsWritten(rows), (words) => words),
      rows,
    );
    assert.deepEqual(rowsRead('The price [if a = 1] | 2nd = x', fresh), [
      { name: 'the_price_[if_a_=_1]', label: 'The price', askIf: 'a = 1' },
      { name: '2nd_=_x', label: '2nd = x' },
    ]);
  });

  it('gives back skips, wherever they lead, and what is none as it stands', () => {
    const skips = [
      { if: 'a = 1 | 2', to: { item: 'q7' } },
      { to: { section: 'home' } },
      { if: 'b = 2', to: { ending: 'out' } },
      { to: { nextPass: true as const } },
    ];
    assert.equal(
      skipsWritten(skips),
      'if a = 1 \\| 2 -> item q7 | -> section home | if b = 2 -> ending out | -> next pass',
    );
    assert.deepEqual(skipsRead(skipsWritten(skips)), { skips, rest: [] });
    assert.deepEqual(skipsRead('go to q7 | → item q8 | -> q9'), {
      skips: [{ to: { item: 'q8' } }],
      rest: ['go to q7', '-> q9'],
    });
  });
});

describe('the columns of an item list', () => {
  it('are known by their own heads and by what people call them, each meaning once', () => {
    assert.deepEqual(matchColumns(ITEM_COLUMN_NAMES.map(headOf)), ITEM_COLUMN_NAMES);
    assert.deepEqual(matchColumns([' Question  Text', 'wording', 'Go to', 'Colour']), [
      'text',
      null,
      'skips',
      null,
    ]);
  });

  it('are what somebody says, whatever they are called', () => {
    assert.deepEqual(matchColumns(['Frage', 'text', 'name'], { Frage: 'text', name: null }), [
      'text',
      null,
      null,
    ]);
  });
});

const HEAD = [
  'section',
  'name',
  'type',
  'text',
  'options',
  'rows',
  'least',
  'most',
  'required',
  'measure',
  'skips',
];
function read(...rows: Record<string, string>[]) {
  const found = readItems([HEAD, ...rows.map((row) => HEAD.map((head) => row[head] ?? ''))], 'List');
  assert.ok(found.ok, JSON.stringify(found));
  return found;
}
const items = ({ document }: { document: Questionnaire }) => document.sections.flatMap((each) => each.items);

describe('a row of an item list', () => {
  it('is an item of the section it names, of the one before where it names none', () => {
    const found = read(
      { section: 'Screening', name: 'a', type: 'statement', text: 'a' },
      { name: 'b', type: 'text', text: 'b?' },
      { type: 'page_break' },
      {},
      { section: 'Home', name: 'c', type: 'text', text: 'c?', required: 'Yes' },
      { section: 'Screening', name: 'd', type: 'text', text: 'd?', required: 'n', measure: 'ordinal' },
    );
    assert.deepEqual(
      found.document.sections.map(({ id, title, kind, items: own }) => [id, title, kind, own.length]),
      [
        ['Screening', 'Screening', 'screening', 3],
        ['Home', 'Home', 'topic', 1],
        ['screening_2', 'Screening', 'screening', 1],
      ],
    );
    assert.deepEqual(items(found), [
      say('a'),
      ask('b', { type: 'text' }),
      { kind: 'page_break' },
      ask('c', { type: 'text' }, { required: true }),
      ask('d', { type: 'text' }, { required: false, measure: 'ordinal' }),
    ]);
    assert.deepEqual(found.doubts, []);
  });

  it('is asked by its type, by what people call that, and else by what it has', () => {
    const rows: Record<string, string>[] = [
      { type: 'Scale', least: '1', most: '5' },
      { options: '1 = Yes', rows: 'r = Row' },
      { options: '1 = Yes' },
      { least: '2,5', most: '4' },
      { least: '2' },
      { type: 'date', least: '2026-01-01' },
      { type: 'time', most: '12:00' },
    ];
    const types = rows.map((row) =>
      items(read({ name: 'q', text: 'q?', ...row })).map((item) => item.kind === 'question' && item.answer),
    );
    assert.deepEqual(types.flat(), [
      { type: 'scale', min: 1, max: 5 },
      { type: 'grid', rows: [{ name: 'r', label: 'Row' }], options: [{ code: 1, label: 'Yes' }] },
      { type: 'single', options: [{ code: 1, label: 'Yes' }] },
      { type: 'number', min: 2.5, max: 4 },
      { type: 'text' },
      { type: 'date', min: '2026-01-01' },
      { type: 'time', max: '12:00' },
    ]);
  });

  it('keeps why there is no answer beside a number or a date', () => {
    const [item] = items(
      read({
        name: 'q',
        text: 'q?',
        type: 'number',
        least: '0',
        most: '9',
        options: '98 = No idea [dont_know]',
      }),
    );
    assert.deepEqual(item?.kind === 'question' && item.answer, {
      type: 'number',
      ...{ min: 0, max: 9 },
      specials: [{ code: 98, label: 'No idea', missing: 'dont_know' }],
    });
  });

  it('says by its line what it lacks and what was not understood', () => {
    const found = read(
      { name: 'a', type: 'single', text: 'a?' },
      { name: 'a', type: 'grid', text: 'a?', options: '1 = x' },
      { name: 'c', type: 'wheel', text: 'c?', required: 'maybe', measure: 'big', skips: 'go to a' },
      { name: 'd', type: 'scale', text: 'd?', least: 'low' },
      { name: 'e', type: 'text', text: 'e?', skips: '-> ending later' },
    );
    assert.deepEqual(
      found.doubts.map(({ line, what }) => `${line} ${what}`),
      [
        '2 there are no answers to choose from: one empty answer was made',
        '3 “a” is no name that can stand here, or stands here twice: it is called a_2',
        '3 there are no rows: one empty row was made',
        '4 “go to a” is no skip: write it as “if CONDITION -> item NAME”',
        '4 “big” is no level of measurement',
        '4 “maybe” says neither yes nor no',
        '4 “wheel” is no type of answer: it was taken for text',
        '5 “low” is no number: 0 was taken',
        '5 there is no limit: 10 was taken',
      ],
    );
    assert.deepEqual(
      found.document.endings.filter(({ id }) => id === 'later').map(({ kind }) => kind),
      ['complete'],
    );
  });

  it('is refused with words where there is no column of questions, or no question', () => {
    const problem = (cells: string[][]) => {
      const found = readItems(cells, 'List');
      return found.ok ? '' : found.problems.join();
    };
    assert.match(
      problem([
        ['colour', 'size'],
        ['red', '2'],
      ]),
      /No column holds the questions.*begins with colour, size\./,
    );
    assert.match(problem([]), /begins with nothing/);
    assert.equal(problem([['text'], [' ']]), 'There is no question in it.');
    assert.match(
      problem([['text'], ...Array.from({ length: 20_001 }, () => ['q'])]),
      /more than 20,000 rows/,
    );
    const named = readItems(
      [
        ['name', 'Note to self', ''],
        ["'=a", 'x', 'y'],
      ],
      'List',
    );
    assert.deepEqual(named.ok && named.doubts.map(({ what }) => what), [
      'the column “Note to self” was not taken over',
      'no column holds the words of the questions: they are left empty',
      '“=a” is no name that can stand here, or stands here twice: it is called a',
    ]);
  });
});
