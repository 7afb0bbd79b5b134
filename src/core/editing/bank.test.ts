/** The bank: what is kept is checked, goes in under free names, and is found where it is used. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyChange } from './change';
import { insertFromBank, insertProblem, readContent, usesOf, type BankContent } from './bank';

const document = questionnaire([
  section('home', [ask('heat', 3), ask('why', 2, { askIf: 'heat = 1', text: 'Why {heat}?' })]),
]);

function read(kind: BankContent['kind'], value: unknown): BankContent {
  const found = readContent(kind, JSON.parse(JSON.stringify(value)));
  assert.ok(found.ok, JSON.stringify(found));
  return found.content;
}

describe('the bank', () => {
  it('refuses what could not stand in a questionnaire, with the reason', () => {
    const found = readContent('question', { ...ask('heat', 3), colour: 'red' });
    assert.match(found.ok ? '' : found.problem, /colour/);
    assert.equal(readContent('answers', [{ code: 'x', label: 'X' }]).ok, false);
  });

  it('puts a section in with free names that refer to each other', () => {
    const content = read('section', document.sections[0]);
    const { document: next } = applyChange(
      document,
      insertFromBank(document, { section: 0, item: null }, content),
    );
    assert.deepEqual(
      next.sections[1]?.items.map((item) => item.kind === 'question' && [item.name, item.askIf, item.text]),
      [
        ['heat_2', undefined, 'heat?'],
        ['why_2', 'heat_2 = 1', 'Why {heat_2}?'],
      ],
    );
    assert.deepEqual(planFor(next).problems, []);
    assert.deepEqual(usesOf(next, content), ['home']);
  });

  it('keeps the name where it is free, and goes behind what is selected', () => {
    const content = read('question', ask('new_one', 2));
    const { document: next } = applyChange(
      document,
      insertFromBank(document, { section: 0, item: 0 }, content),
    );
    assert.equal(
      next.sections[0]?.items[1]?.kind === 'question' && next.sections[0].items[1].name,
      'new_one',
    );
    assert.deepEqual(usesOf(next, content), ['new_one']);
  });

  it('puts answers into a question that has a list, and says so where none is selected', () => {
    const content = read('answers', [
      { code: 1, label: 'Now' },
      { code: 2, label: 'Later' },
    ]);
    assert.match(insertProblem(document, { section: 0, item: null }, content) ?? '', /Select a question/);
    assert.equal(insertProblem(document, { section: 0, item: 0 }, content), null);
    const { document: next } = applyChange(
      document,
      insertFromBank(document, { section: 0, item: 0 }, content),
    );
    assert.deepEqual(usesOf(next, content), ['heat']);
  });
});
