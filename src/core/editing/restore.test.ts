/** An earlier version is the draft again, all of it, and can be taken back. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyAll, applyChange } from './change';
import { restoreVersion } from './restore';

it('takes a version over whole, what it has not included, in one step that can be taken back', () => {
  const version = questionnaire([section('a', [ask('fuel')])], { derived: [] });
  const draft = questionnaire([section('a', [ask('fuel'), ask('cars')]), section('b', [])], {
    title: 'Later',
    settings: { numbers: 'none' },
  });
  const { document, step } = applyChange(draft, restoreVersion(1, version));
  assert.deepEqual(document, version);
  assert.deepEqual(applyAll(document, step.backward), draft);
  // Of the same nothing is changed.
  assert.deepEqual(applyChange(version, restoreVersion(1, structuredClone(version))).step.forward, []);
});
