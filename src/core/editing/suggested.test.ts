/** Answers and rows that are suggestions: written over as a whole, and only while nobody has written their own. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { optionsOf } from '../document/shape';
import type { Question, Questionnaire } from '../document/types';
import { applyChange, type Change } from './change';
import { pasteRows, writeRow } from './grid-rows';
import { editOption, onEnter, pasteOptions, usualCode, writeOption } from './options';
import { addItem, answerOfType, newQuestion } from './structure';

const place = { section: 0, item: 1 };
const made = (document: Questionnaire, ...changes: readonly Change[]) =>
  changes.reduce((now, change) => applyChange(now, change).document, document);

function begun(dontKnow = false, type: 'single' | 'multiple' | 'grid' = 'single'): Questionnaire {
  const empty = questionnaire([section('a', [ask('q')])], { settings: { defaults: { dontKnow } } });
  const question = newQuestion(empty);
  const answer = answerOfType(type, question.answer, question.name, new Set(['q']));
  return made(empty, addItem(place, type === 'single' ? question : { ...question, answer }));
}

function answersIn(document: Questionnaire): string[] {
  const { answer } = document.sections[0]?.items[1] as Question;
  return optionsOf(answer).map(({ code, label }) => `${code} ${label}`);
}

function rowsIn(document: Questionnaire): string[] {
  const { answer } = document.sections[0]?.items[1] as Question;
  return answer.type === 'grid' ? answer.rows.map(({ name, label }) => `${name} ${label}`) : [];
}

describe('the answers a new question begins with', () => {
  it('go as a whole when the first is written, letter by letter, and codes begin at 1', () => {
    const written = made(begun(), writeOption(place, 0, 'D'), writeOption(place, 0, 'Daily'));
    assert.deepEqual(answersIn(written), ['1 Daily']);
    assert.deepEqual(answersIn(made(begun(true), writeOption(place, 0, 'D'))), ['1 D', "98 Don't know"]);
    assert.deepEqual(answersIn(made(begun(false, 'multiple'), writeOption(place, 0, 'D'))), ['1 D']);
  });

  it('go as a whole when a list is pasted', () => {
    const pasted = made(
      begun(true),
      pasteOptions(place, 0, [{ label: 'Daily' }, { label: 'Never', code: 9 }]),
    );
    assert.deepEqual(answersIn(pasted), ['1 Daily', '9 Never', "98 Don't know"]);
  });

  it('are taken over by adding to them, and are no suggestion any more then', () => {
    assert.deepEqual(answersIn(made(begun(), writeOption(place, 0, 'Yes, often'))), ['1 Yes, often', '2 No']);
    const second = made(begun(), writeOption(place, 1, 'Never'));
    assert.deepEqual(answersIn(made(second, writeOption(place, 0, 'D'))), ['1 D', '2 Never']);
    const other = editOption(place, 1, 'specify', 'Change', (option) => void (option.specify = true));
    assert.deepEqual(answersIn(made(begun(), other, writeOption(place, 0, 'D'))), ['1 D', '2 No']);
  });

  it('stay where anybody has written answers of their own', () => {
    const own = questionnaire([section('a', [ask('p'), ask('q')])]);
    assert.deepEqual(answersIn(made(own, writeOption(place, 0, 'D'))), ['1 D', '2 Answer 2']);
    assert.deepEqual(answersIn(made(own, pasteOptions(place, 0, [{ label: 'B' }, { label: 'C' }]))), [
      '1 Answer 1',
      '3 B',
      '4 C',
      '2 Answer 2',
    ]);
  });
});

describe('the rows a new grid begins with', () => {
  it('go as a whole when the first is written or a list is pasted', () => {
    const grid = begun(false, 'grid');
    assert.deepEqual(rowsIn(made(grid, writeRow(place, 0, 'Warm'))), ['q1_1 Warm']);
    assert.deepEqual(rowsIn(made(grid, pasteRows(grid, place, 0, ['Warm', 'Dry', 'Quiet']))), [
      'q1_1 Warm',
      'q1_2 Dry',
      'q1_3 Quiet',
    ]);
  });
});

describe('Enter in a list', () => {
  const list = (...labels: readonly string[]) =>
    labels.map((label) => (label === 'DK' ? { label, missing: 'dont_know' } : { label }));

  it('goes on to the next, adds behind the last, and ends on an empty last one', () => {
    assert.deepEqual(onEnter(list('a', 'b'), 0), { does: 'go', at: 1 });
    assert.deepEqual(onEnter(list('a', ''), 0), { does: 'go', at: 1 });
    assert.deepEqual(onEnter(list('a', 'b'), 1), { does: 'add', at: 2 });
    assert.deepEqual(onEnter(list('a', ''), 1), { does: 'end' });
    assert.deepEqual(onEnter(list(''), 0), { does: 'add', at: 1 });
  });

  it('adds before what stands at the foot for missing answers', () => {
    assert.deepEqual(onEnter(list('a', 'DK'), 0), { does: 'add', at: 1 });
    assert.deepEqual(onEnter(list('a', '', 'DK'), 1), { does: 'end' });
    assert.deepEqual(onEnter(list('a', 'DK'), 1), { does: 'add', at: 2 });
  });
});

describe('an answer that counts as missing', () => {
  it('is offered its usual code, or the next such, until it has one', () => {
    const dontKnow = { code: 3, label: 'Not sure', missing: 'dont_know' } as const;
    const yes = { code: 1, label: 'Yes' };
    assert.equal(usualCode([yes, dontKnow], dontKnow), 98);
    assert.equal(usualCode([{ code: 98, label: 'Other' }, dontKnow], dontKnow), 998);
    assert.equal(usualCode([yes], { code: 4, label: 'None here', missing: 'not_available' }), 97);
    assert.equal(usualCode([yes], { ...dontKnow, code: 98 }), null);
    assert.equal(usualCode([yes], yes), null);
  });
});
