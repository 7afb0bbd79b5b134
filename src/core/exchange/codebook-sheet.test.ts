/** A codebook that went out and comes back, changed or not; missing-code conventions; rows that follow. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import heating from '../../../demo/tern-valley-home-heating.fork.json';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { Auditor } from '../audit/auditor';
import { renumberRows } from '../audit/renumber-rows';
import { renumberAnswers, renumberingBetween } from '../coding/renumbered';
import type { Questionnaire } from '../document/types';
import { applyChange } from '../editing/change';
import { CONVENTIONS, followConvention } from '../editing/missing-codes';
import { madeUpRespondents } from '../simulate/respondents';
import { codeCollides } from '../snags/code-collides';
import { codebookSheet, readCodebookSheet } from './codebook-sheet';

const study = planFor(heating as unknown as Questionnaire).document;
const tenure = questionnaire([
  section('a', [
    ask('tenure', 2, { label: 'Tenure' }),
    ask('rent', { type: 'number', min: 0, max: 99 }, { askIf: 'tenure = 2' }),
  ]),
]);

describe('a codebook sheet', () => {
  it('that comes back as it went out changes nothing', () => {
    assert.deepEqual(readCodebookSheet(study, codebookSheet(study)), {
      changes: [],
      problems: [],
      change: null,
    });
  });
  it('changes labels, measures, words, codes and missing codes, and carries codes through conditions', () => {
    const sheet = [
      ['variable', 'label', 'measure', 'codes', 'missing', 'mine'],
      ['TENURE', 'How it is held', 'nominal', '1 = Owner | 20 = Answer 2', '', 'x'],
      ['rent', '', '', '', 'no_answer = -9', ''],
      ['landlord', 'Nobody', '', '', '', ''],
    ];
    const read = readCodebookSheet(tenure, sheet);
    assert.deepEqual(
      read.changes.map(({ variable, what, to }) => [variable, what, to]),
      [
        ['tenure', 'label', 'How it is held'],
        ['tenure', 'measure', 'nominal'],
        ['tenure', 'answer', 'Owner'],
        ['tenure', 'code', '20'],
        ['rent', 'missing code', 'no_answer = -9'],
      ],
    );
    assert.deepEqual(read.problems, [{ row: 4, message: 'There is no question “landlord”.' }]);
    assert.ok(read.change !== null);
    const { document } = applyChange(tenure, read.change);
    const [first, second] = document.sections[0]?.items ?? [];
    assert.ok(first?.kind === 'question' && second?.kind === 'question' && first.answer.type === 'single');
    assert.deepEqual(
      first.answer.options.map(({ code, label }) => [code, label]),
      [
        [1, 'Owner'],
        [20, 'Answer 2'],
      ],
    );
    assert.equal(second.askIf, 'tenure = 20');
    assert.deepEqual(second.missingCodes, { no_answer: -9 });
  });
});

describe('missing-code conventions', () => {
  it('leave no code that could be an answer, and rows that are already there follow', () => {
    const before = planFor(study);
    const rows = [...madeUpRespondents(before, 40, 2)].map((person) => person.row().map(String));
    for (const convention of CONVENTIONS) {
      const after = planFor(applyChange(study, followConvention(study, convention)).document);
      assert.deepEqual(codeCollides(after), [], convention);
      const renumbered = renumberRows(before, after, null);
      const auditor = new Auditor(after);
      const names = auditor.columns.map(({ name }) => name);
      for (const row of rows) {
        const now = row.map((text, n) => renumbered?.cell(names[n] ?? '', text) ?? text);
        assert.deepEqual(auditor.judge(now).problems, [], convention);
      }
    }
  });
  it('widen high codes by what a variable can hold', () => {
    const { document } = applyChange(tenure, followConvention(tenure, 'high'));
    assert.deepEqual(
      document.missing.map(({ code }) => code),
      [96, 97, 98, 99],
    );
    const [first, second] = document.sections[0]?.items ?? [];
    assert.ok(first?.kind === 'question' && second?.kind === 'question');
    assert.deepEqual(first.missingCodes, { not_applicable: 6, not_drawn: 7, no_answer: 8, not_reached: 9 });
    assert.deepEqual(second.missingCodes, {
      not_applicable: 996,
      not_drawn: 997,
      no_answer: 998,
      not_reached: 999,
    });
  });
});

it('answers that are stored follow a new name and new codes', () => {
  const after = {
    ...tenure,
    sections: [
      section('a', [
        ask(
          'held',
          {
            type: 'single',
            options: [
              { code: 10, label: 'Answer 1' },
              { code: 20, label: 'Answer 2' },
            ],
          },
          { text: 'tenure?' },
        ),
        ask('rent', { type: 'number', min: 0, max: 99 }, { askIf: 'held = 20' }),
      ]),
    ],
  };
  const renumbering = renumberingBetween(tenure, after);
  assert.ok(renumbering !== null);
  assert.deepEqual(renumberAnswers(renumbering, { tenure: 2, rent: 2 }), { held: 20, rent: 2 });
  assert.equal(renumberingBetween(tenure, tenure), null);
  const rows = renumberRows(planFor(tenure), planFor(after), renumbering);
  assert.equal(rows?.names.get('tenure'), 'held');
  assert.equal(rows?.cell('tenure', '1'), '10');
  assert.equal(rows?.cell('tenure', '-3'), '-3');
});
