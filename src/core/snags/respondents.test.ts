/** Test respondents, walked again after edits: told what is different for them, and nothing of what is not. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyChange } from '../editing/change';
import { renameVariable } from '../editing/rename';
import type { Question, Questionnaire } from '../document/types';
import { keptOf, respondentSnags, walkAgain, type TestRespondent } from './respondents';

const document = questionnaire([
  section('a', [
    ask('rents', 2, { required: true, skips: [{ if: 'rents = 2', to: { item: 'warm' } }] }),
    ask('landlord'),
    ask('warm'),
  ]),
]);
const kept = keptOf(planFor(document), { answers: { rents: 1, landlord: 2, warm: 1 } });
assert.ok(kept);
const ada: TestRespondent = { name: 'Ada', ...kept };
const told = (after: Questionnaire) => {
  const again = walkAgain(planFor(after), ada);
  return again.ok ? again.changes : again.problem;
};
const edited = (name: string, change: Partial<Question>): Questionnaire => ({
  ...document,
  sections: document.sections.map((each) => ({
    ...each,
    items: each.items.map((item) =>
      'name' in item && item.name === name ? ({ ...item, ...change } as Question) : item,
    ),
  })),
});

describe('a test respondent', () => {
  it('is kept with an ending, and nobody is who comes to none', () => {
    const plan = planFor(document);
    assert.equal(keptOf(plan, { answers: { rents: 1, landlord: 2, warm: 1 } })?.ending, 'done');
    // Who has answered part of it, and whose answers nobody can give.
    for (const answers of [{ rents: 1 }, {}, { rents: 7 }])
      assert.equal(keptOf(plan, { answers, stoppedAt: 'landlord' } as Parameters<typeof keptOf>[1]), null);
    assert.equal(keptOf(plan, { answers: { rents: 7 } }), null);
  });

  it('raises nothing as long as nothing is different', () => {
    assert.deepEqual(told(document), []);
    assert.deepEqual(respondentSnags(planFor(document), [ada]), []);
    assert.deepEqual(told(applyChange(document, renameVariable('landlord', 'owner')).document), []);
  });

  it('raises a snag when the route is another', () => {
    const after = edited('landlord', { askIf: 'rents = 2' });
    assert.deepEqual(told(after), ['landlord is not asked any more', 'landlord is coded -1, not 2']);
    const [snag] = respondentSnags(planFor(after), [ada]);
    assert.equal(snag?.rule, 'respondent-changed');
    assert.match(snag?.message ?? '', /“Ada” something is different: landlord is not asked any more/);
    assert.deepEqual(snag?.witness?.items, ['rents', 'warm']);
  });

  it('raises one when only the coded row is, and when an answer is not allowed any more', () => {
    const missing = document.missing.map((entry) => ({ ...entry, code: entry.code - 90 }));
    const owner = keptOf(planFor(document), { answers: { rents: 2, warm: 1 } });
    assert.ok(owner);
    const again = walkAgain(planFor({ ...document, missing }), { name: 'Bo', ...owner });
    assert.deepEqual(again.ok && again.changes, ['landlord is coded -91, not -1']);
    const stuck = told(edited('rents', { answer: { type: 'single', options: [{ code: 2, label: 'No' }] } }));
    assert.match(String(stuck), /stops at rents|rents/);
  });
});
