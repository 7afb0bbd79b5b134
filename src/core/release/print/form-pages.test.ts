/** The form to be filled in by hand: marks to tick, lines to write on, and scales that fit on a page. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, planFor, questionnaire, say, section } from '../../../../tests/support/questionnaire';
import type { Answer, Question } from '../../document/types';
import { formPages } from './form-pages';
import type { Block, Runs } from './pages';

const words = (runs: Runs) => runs.map(({ text }) => text).join('');
const option = (code: number, rest: object = {}) => ({ code, label: `Answer ${code}`, ...rest });
const NONE = option(98, { label: 'No idea', missing: 'dont_know' });

/** Tables as rows of cells, other blocks as their words; what stands before the first section and after the last left out. */
function printed(
  question: Partial<Question> & { answer: Answer },
  rest: Parameters<typeof section>[2] = {},
): unknown[] {
  const plan = planFor(
    questionnaire([
      section('a', [ask('n', { type: 'number', min: 0, max: 2 })]),
      section('b', [ask('q', question.answer, question)], rest),
    ]),
  );
  const { blocks } = formPages(plan, {}, 'Draft');
  const at = blocks.findIndex((block) => block.is === 'text' && words(block.runs).includes('q?'));
  const end = blocks.findIndex((block) => block.is === 'heading' && words(block.runs) === 'Ends');
  return blocks.slice(at + 1, end).map(told);
}
const told = (block: Block): unknown =>
  block.is === 'table'
    ? block.rows.map((row) => row.map(words))
    : block.is === 'picture'
      ? block.src
      : words(block.runs);

it('has a circle where one answer is ticked, a box where several are, and a line for words of their own', () => {
  const options = [option(1), option(2, { specify: true })];
  assert.deepEqual(printed({ answer: { type: 'single', options } })[0], [
    ['○', 'Answer 1', ''],
    ['○', `Answer 2  please write ${'_'.repeat(24)}`, ''],
  ]);
  const many = printed({ answer: { type: 'multiple', options: options.slice(0, 1) } });
  assert.ok(JSON.stringify(many).includes('[  ]'));
});

it('has the points of a scale beside each other, eleven to a row, with the words of its ends and its middle', () => {
  const ends = { lowLabel: 'Bad', midLabel: 'So so', highLabel: 'Good' };
  const [first, second, third] = printed({
    answer: { type: 'scale', min: 0, max: 24, ...ends },
  }) as string[][][];
  assert.deepEqual([first?.[0]?.length, second?.[0]?.length, third?.[0]?.length], [11, 11, 3]);
  const points = [first, second, third].flatMap((table) => table?.[0] ?? []);
  assert.deepEqual(
    points,
    Array.from({ length: 25 }, (_, n) => `○ ${n}`),
  );
  const labels = [first, second, third].flatMap((table) => table?.[1] ?? []);
  assert.deepEqual(
    labels.map((label, n) => (label === '' ? '' : `${n} ${label}`)).filter((label) => label !== ''),
    ['0 Bad', '12 So so', '24 Good'],
  );
  assert.equal((printed({ answer: { type: 'scale', min: 1, max: 11 } })[0] as string[][])[0]?.length, 11);
});

it('has a box for each sign of a number or a date, with its unit, and beside it why there is none', () => {
  const [field, limits, boxes] = printed({
    answer: { type: 'number', min: 0, max: 99, unit: 'kWh', specials: [NONE] as never },
  });
  assert.match(String(field), /^_ _ kWh$/);
  assert.match(String(limits), /0.*99/);
  assert.deepEqual((boxes as string[][])[0]?.slice(0, 2), ['○', 'No idea']);
  assert.match(String(printed({ answer: { type: 'date' } })[0]), /^_ _ .*[.:-]/);
});

it('has a line for what is written, and for each place of a ranking', () => {
  const line = '_'.repeat(56);
  assert.deepEqual(printed({ answer: { type: 'text' } }), [line]);
  const ranked = printed({ answer: { type: 'rank', options: [option(1), option(2)] } });
  assert.deepEqual(ranked.slice(1, 3), [`1.  ${line}`, `2.  ${line}`]);
  assert.ok(printed({ answer: { type: 'text', lines: 'many' } }).length > 1);
});

it('has a row for each row of a grid, with a mark under each answer', () => {
  const rows = ['heat', 'cost'].map((name) => ({ name, label: `Row ${name}` }));
  const options = [option(1), option(2)];
  assert.deepEqual(printed({ answer: { type: 'grid', rows, options } })[0], [
    ['Row heat', '○', '○'],
    ['Row cost', '○', '○'],
  ]);
  const many = printed({ answer: { type: 'grid', rows, options, pick: 'many' } }).find(
    Array.isArray,
  ) as string[][];
  assert.deepEqual(many[0], ['Row heat', '[  ]', '[  ]']);
});

it('has the passes of a repeated section beside each other', () => {
  const repeat = { repeat: { times: 'n', max: 2 } };
  const [boxes] = printed({ answer: { type: 'single', options: [option(1)] } }, repeat) as string[][][];
  assert.deepEqual(boxes, [['', 'Answer 1', '○', '○', '']]);
  const lines = printed({ answer: { type: 'text' } }, repeat).map(String);
  assert.equal(lines.length, 2);
  assert.ok(
    lines.every((line, n) => line.startsWith('Pass ') || line.includes(`${n + 1}`)),
    lines.join('\n'),
  );
  const fields = printed({ answer: { type: 'number', min: 0, max: 9 } }, repeat).map(String);
  assert.equal(fields.filter((field) => field.endsWith('_ ')).length, 2, fields.join('\n'));
});

it('has its name, the ends, and who it is for', () => {
  const plan = planFor(questionnaire([section('a', [say('hello')])]));
  const { title, what, version, blocks } = formPages(plan, {}, 'Version 2');
  assert.deepEqual([title, what, version], ['Test', 'form', 'Version 2']);
  const lines = blocks.map(told).map(String);
  assert.ok(
    lines.some((line) => line.includes('Thank you.')) && lines.some((line) => line.includes('Goodbye.')),
  );
});
