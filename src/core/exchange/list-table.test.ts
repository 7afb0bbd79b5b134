/** A list of questions pasted from a sheet: what each column is taken for, by its heading and what stands in it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { tableLines } from './list-table';

const table = (...rows: readonly (readonly string[])[]) => rows.map((cells) => cells.join('\t')).join('\n');
const raw = (source: string) => tableLines(source)?.map((line) => line.raw);

describe('a list as a table', () => {
  it('becomes a heading for each section, a question, what is asked before it, its answers and its skips', () => {
    const source = table(
      ['Section', 'No', 'Question', 'Type', 'Answers', 'Ask if', 'Skip'],
      [
        'Garden',
        'Q1.',
        'Do you have one?',
        'single',
        'Yes; No',
        'everyone',
        'if 2 go to Q9 | Skip to the end',
      ],
      ['Garden', '2)', 'How large is it?', 'number (m²)', '', 'If Q1 = 1', ''],
      ['House', '', 'Who lives here?', '', 'Adults, children', 'All', ''],
    );
    assert.deepEqual(raw(source), [
      '',
      '# Garden',
      '',
      'Q1. Do you have one? (single)',
      '- Yes',
      '- No',
      'if 2 go to Q9',
      'go to the end',
      '',
      '(ask if Q1 = 1)',
      'Q2. How large is it? (number m²)',
      '',
      '# House',
      '',
      'Q3. Who lives here?',
      '- Adults',
      '- children',
    ]);
  });

  it('has its answers in one cell, by signs between them or, without any, by commas and strokes', () => {
    const answers = (cell: string) =>
      raw(table(['Question', 'Answers'], ['Which?', cell]))?.filter((line) => line.startsWith('- '));
    assert.deepEqual(answers('1 Tea, black; 2 Coffee / milk'), ['- 1 Tea, black', '- 2 Coffee / milk']);
    assert.deepEqual(answers('Tea | Coffee'), ['- Tea', '- Coffee']);
    assert.deepEqual(answers('Yes/No'), ['- Yes', '- No']);
    assert.deepEqual(answers('1,000, 2,000'), ['- 1,000', '- 2,000']);
    assert.deepEqual(answers(''), []);
  });

  it('may go on with answers in rows of their own', () => {
    const source = table(['Question', 'Options'], ['Which?', 'Tea'], ['', 'Coffee'], ['', 'Neither']);
    assert.deepEqual(raw(source), ['', 'Q1. Which?', '- Tea', '- Coffee', '- Neither']);
  });

  it('tells numbers headed “Question no” from words headed “Question”, by the spaces in them', () => {
    assert.deepEqual(raw(table(['Q', 'Text'], ['7', 'How old are you?'])), ['', 'Q7. How old are you?']);
    assert.deepEqual(raw(table(['Item', 'Codes'], ['How old are you?', ''])), ['', 'Q1. How old are you?']);
    assert.deepEqual(raw(table(['Question', 'Codes'], ['Age?', ''])), ['', 'Q1. Age?']);
    assert.equal(raw(table(['Item', 'Codes'], ['7', '1, 2'], ['8a', ''])), undefined);
    assert.equal(raw(table(['Id', 'Codes'], ['age', '1, 2'])), undefined);
  });

  it('keeps the numbers of the rows as they were pasted, with empty rows before the headings', () => {
    const source = `\r\n\r\nQuestion\tAnswers\r\nFirst?\tYes\r\n\t\r\nSecond?\tNo\r\n`;
    const lines = tableLines(source)?.filter((line) => line.raw !== '');
    assert.deepEqual(
      lines?.map((line) => [line.line, line.raw]),
      [
        [4, 'Q1. First?'],
        [4, '- Yes'],
        [6, 'Q2. Second?'],
        [6, '- No'],
      ],
    );
  });

  it('is none without two columns, or without one of words', () => {
    assert.equal(tableLines('Question\nHow old are you?'), null);
    assert.equal(tableLines(table(['Answers', 'Skip'], ['Yes', 'Q2'])), null);
    assert.equal(tableLines(''), null);
  });
});
