/** Files that come in: each known by what is in it, taken over as far as it is understood, and the rest told. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Document, Packer, Paragraph, Table, TableCell, TableRow } from 'docx';
import { zipSync } from 'fflate';
import type { Question, Questionnaire } from '../../document/types';
import { docxLines } from '../../exchange/docx-lines';
import type { WorkbookLimits } from '../../exchange/workbook-size';
import { readItems } from '../../exchange/items/read-items';
import { readCsvw } from '../../exchange/variables/read-csvw';
import { NO_WORK } from '../../exchange/work-file';
import { zipped } from '../../exchange/zipped';
import { planOf } from '../../routing/planner';
import { dataFields } from '../data/fields';
import { madeUpRows } from '../data/rows';
import type { FileFormat, ReadStudy, Written } from '../format-types';
import { FORMATS } from './index';
import { kindsOf, type FormatName } from './known';
import { recognised } from './recognise';
import { demo as demoStudy } from '../../../../tests/support/demo';

const demo = demoStudy();
const plan = planOf(demo);
const bytesOf = (text: string) => new TextEncoder().encode(text);
const questionsOf = ({ sections }: Questionnaire) =>
  sections.flatMap(({ items }) => items).filter((item): item is Question => item.kind === 'question');

it('is known by what is in it, whatever it is called', async () => {
  const content = { document: demo, work: NO_WORK, data: madeUpRows(plan, 5, 1) };
  for (const [name, format] of Object.entries(FORMATS) as [FormatName, FileFormat][]) {
    if (format.read === null || format.write === null) continue;
    for (const kind of kindsOf(name)) {
      // A CSV is nothing but text: its name alone says what it is.
      if (kind.endsWith('csv')) continue;
      const written: Written = await format.write(content, kind);
      const bytes: Uint8Array =
        typeof written === 'string'
          ? bytesOf(written)
          : written instanceof Uint8Array
            ? written
            : zipped(written);
      assert.equal(recognised('file', bytes), name);
    }
  }
  assert.equal(recognised('questions.csv', bytesOf('name,text\nq1,Why?')), 'items');
  assert.equal(recognised('questions.txt', bytesOf('1. Why?')), 'list');
  assert.equal(recognised('odd.json', bytesOf('{"half":')), 'document');
});

describe('the variables of a data set', () => {
  for (const name of ['csvw', 'data-package'] as const)
    it(`come back as questions with their codes, limits and words: ${name}`, async () => {
      const written = await FORMATS[name].write({
        document: demo,
        work: NO_WORK,
        data: madeUpRows(plan, 5, 1),
      });
      const back: ReadStudy = FORMATS[name].read(zipped(written as never), 'data.zip');
      assert.ok(back.ok);
      const { document } = back.content;
      assert.equal(document.title, demo.title);
      assert.deepEqual(
        document.missing.map(({ reason, code }) => [reason, code]),
        demo.missing.map(({ reason, code }) => [reason, code]),
      );
      const questions = questionsOf(document);
      dataFields(plan).forEach((field, n) => {
        const question = questions[n] as Question;
        // The language has that word.
        assert.equal(question.name, field.name === 'ending' ? 'ending_q' : field.name);
        assert.equal(question.text, field.question || field.label || field.name);
        const { answer } = question;
        if (field.least !== null && field.values.length === 0 && field.holds !== 'text')
          assert.deepEqual(
            ['min' in answer && answer.min, 'max' in answer && answer.max],
            [field.least, field.most],
          );
        if (answer.type !== 'single') return;
        const chosen = field.missing.filter(({ reason }) => reason === 'option');
        assert.deepEqual(
          answer.options.map(({ label }) => label),
          [...field.values, ...chosen].map(({ label }) => label),
          field.name,
        );
      });
    });

  it('of other programs: older versions, and values that are no numbers', () => {
    const back: ReadStudy = FORMATS['data-package'].read(
      bytesOf(
        JSON.stringify({
          resources: [
            {
              schema: {
                missingValues: ['', 'NA'],
                fields: [
                  { name: 'size', type: 'integer', constraints: { minimum: 1, maximum: 9 } },
                  { name: 'colour of it', type: 'string', constraints: { enum: ['red', 'green'] } },
                  { name: 'when', type: 'date' },
                  { name: 'weight', type: 'number' },
                ],
              },
            },
          ],
        }),
      ),
      'apples.json',
    );
    assert.ok(back.ok);
    assert.deepEqual(
      questionsOf(back.content.document).map(({ name, answer }) => [name, answer]),
      [
        ['size', { type: 'number', min: 1, max: 9 }],
        [
          'colour_of_it',
          {
            type: 'single',
            options: [
              { code: 1, label: 'red' },
              { code: 2, label: 'green' },
            ],
          },
        ],
        ['when', { type: 'date' }],
        ['weight', { type: 'number', min: 0, max: 1_000_000, decimals: 2 }],
      ],
    );
    assert.deepEqual(
      (back.doubts ?? []).map(({ line }) => line),
      [2, 2, 4],
    );
  });
});

describe('CSVW metadata', () => {
  const column = { name: 'size', titles: 'size', 'dc:title': 'How large?', datatype: 'integer' };
  const table = (url: string, columns: readonly object[] = [column]) => ({ url, tableSchema: { columns } });
  const codes = [['size', '1', 'Small', '']] as const;

  it('has one table taken over, and tells of others but our own of codes', () => {
    const told = (tables: readonly object[], known: Parameters<typeof readCsvw>[2] = []) => {
      const read = readCsvw({ tables }, 'Sizes', known);
      assert.ok(read.ok);
      return read.doubts.map(({ what }) => what).filter((what) => /table/.test(what));
    };
    assert.deepEqual(told([table('data.csv')]), []);
    assert.deepEqual(told([table('data.csv'), table('codes.csv')], codes), []);
    assert.deepEqual(told([table('data.csv'), table('codes.csv')]), ['1 more table was not taken over']);
    assert.deepEqual(told([table('data.csv'), table('more.csv'), table('codes.csv')], codes), [
      '1 more table was not taken over',
    ]);
  });

  it('has the words of a variable where it has any besides its name', () => {
    const asked = (of: object) => {
      const read = readCsvw(table('data.csv', [{ ...column, ...of }]), 'Sizes');
      assert.ok(read.ok);
      const [question] = questionsOf(read.document);
      return [question?.text, question?.label];
    };
    assert.deepEqual(asked({}), ['How large?', undefined]);
    assert.deepEqual(asked({ 'dc:title': undefined }), ['size', undefined]);
    assert.deepEqual(asked({ 'dc:title': undefined, titles: 'Size of it' }), ['Size of it', undefined]);
    assert.deepEqual(asked({ 'rdfs:label': 'Size', 'dc:description': 'How large is it?' }), [
      'How large is it?',
      'Size',
    ]);
  });
});

describe('a list of items', () => {
  it('goes on in a section while its id, or without one its title, is the same', () => {
    const rows = (head: readonly string[], ...list: readonly (readonly string[])[]) => {
      const read = readItems([head, ...list], 'List');
      assert.ok(read.ok);
      return read.document.sections.map(
        ({ title, items }) => `${title}: ${items.map((item) => 'name' in item && item.name).join(' ')}`,
      );
    };
    assert.deepEqual(
      rows(
        ['section', 'name', 'text'],
        ['Home', 'a', 'A?'],
        ['', 'b', 'B?'],
        ['Home', 'c', 'C?'],
        ['Work', 'd', 'D?'],
        ['Home', 'e', 'E?'],
      ),
      ['Home: a b c', 'Work: d', 'Home: e'],
    );
    assert.deepEqual(
      rows(
        ['section_id', 'section', 'name', 'text'],
        ['one', 'Home', 'a', 'A?'],
        ['one', 'Otherwise', 'b', 'B?'],
        ['two', 'Home', 'c', 'C?'],
      ),
      ['Home: a b', 'Home: c'],
    );
  });

  const cells = [
    ['Frage', 'var', 'answers', 'filter', 'owner'],
    ['Do you rent?', 'rent', '1 = Yes | 2 = No | 9 = Not sure [dont_know]', '', 'AF'],
    ['Which of these?', 'rent', 'A loft; A cellar', 'rent = 1', ''],
    ['Why?', '', '', '', ''],
  ];

  it('wants to know which column holds the questions, takes what it is told, and tells the rest', () => {
    const refused = readItems(cells, 'List');
    assert.ok(!refused.ok);
    assert.match(refused.problems[0] ?? '', /No column holds the questions.*Frage, var/);
    const taken = readItems(cells, 'List', { Frage: 'text', var: 'name' });
    assert.ok(taken.ok);
    assert.deepEqual(taken.columns, ['text', 'name', 'options', 'askIf', null]);
    assert.deepEqual(
      questionsOf(taken.document).map(({ name, text, askIf, answer }) => [name, text, askIf, answer]),
      [
        [
          'rent',
          'Do you rent?',
          undefined,
          {
            type: 'single',
            options: [
              { code: 1, label: 'Yes' },
              { code: 2, label: 'No' },
              { code: 9, label: 'Not sure', missing: 'dont_know' },
            ],
          },
        ],
        [
          'rent_2',
          'Which of these?',
          'rent = 1',
          {
            type: 'single',
            options: [
              { code: 1, label: 'A loft' },
              { code: 2, label: 'A cellar' },
            ],
          },
        ],
        ['why', 'Why?', undefined, { type: 'text' }],
      ],
    );
    assert.deepEqual(
      taken.doubts.map(({ line, what }) => [line, what.slice(0, 22)]),
      [
        [1, 'the column “owner” was'],
        [3, '“rent” is no name that'],
      ],
    );
  });
});

describe('a document of a word processor', () => {
  const tableOf = (...rows: readonly (readonly string[])[]) =>
    new Table({
      rows: rows.map(
        (cells) =>
          new TableRow({
            children: cells.map((cell) => new TableCell({ children: [new Paragraph(cell)] })),
          }),
      ),
    });

  it('becomes the lines that people would paste, tables and bullets among them', async () => {
    const made = new Document({
      sections: [
        {
          children: [
            new Paragraph({ text: 'Your home', heading: 'Heading1' }),
            new Paragraph('1. Do you rent your home?'),
            new Paragraph({ text: 'Yes (skip to 3)', bullet: { level: 0 } }),
            new Paragraph({ text: 'No', bullet: { level: 0 } }),
            new Paragraph('2. Who is your landlord?'),
            tableOf(['1', 'A company', ''], ['A person', '2', 'go to 3']),
            new Paragraph('3. How many rooms are there?'),
            tableOf(['1', 'Few'], ['Many', 'Very many']),
            tableOf(['1', 'Few', 'a', 'b']),
            tableOf(['1', '2', 'Few']),
          ],
        },
      ],
    });
    const bytes = new Uint8Array(await Packer.toArrayBuffer(made));
    const lines = await docxLines(bytes);
    assert.ok(lines.ok);
    assert.match(lines.text, /# Your home\n1\. Do you rent your home\?\n- Yes \(skip to 3\)\n- No\n2\. Who/);
    assert.match(lines.text, /landlord\?\n- 1 A company\n- 2 A person \(go to 3\)\n\n/);
    // Rows that are no answers each with its one code stay tables.
    for (const table of ['1\tFew\nMany\tVery many', '1\tFew\ta\tb', '1\t2\tFew'])
      assert.ok(lines.text.includes(`\n${table}\n`), table);
    const study = await FORMATS.docx.read(bytes, 'home.docx');
    assert.ok(study.ok);
    const [rent, landlord, rooms] = questionsOf(study.content.document);
    assert.deepEqual(rent?.skips, [{ if: `${rent?.name} = 1`, to: { item: rooms?.name } }]);
    assert.equal(landlord?.text, 'Who is your landlord?');
  });

  it('is refused where it is none, or unpacks to more than any is', async () => {
    const refused = async (bytes: Uint8Array, limits?: WorkbookLimits) => {
      const result = await docxLines(bytes, limits);
      assert.ok(!result.ok);
      return result.problem;
    };
    assert.match(await refused(bytesOf('plain')), /no DOCX file/);
    assert.match(
      await refused(zipSync({ 'word/document.xml': bytesOf('<w') })),
      /cannot be read as a document/,
    );
    const large = zipSync({ 'word/document.xml': new Uint8Array(3_000_000) });
    assert.match(await refused(large, { unpacked: 2_000_000, texts: 10 }), /comes to more than 2 MB\.$/);
  });
});
