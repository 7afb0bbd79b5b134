/** Where a step of the history is to be seen, forwards and back. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyAll, applyChange, isStructural, type Change } from './change';
import { removeOption, writeOption } from './options';
import { addSection, editEnding, moveItem, removeItem, removeSection, setTitle } from './structure';
import { placeTouched } from './touched';

const document = questionnaire([
  section('a', [ask('q1'), ask('q2'), ask('q3')]),
  section('b', [ask('q4'), ask('q5')]),
]);

/** Where a change is seen, and where taking it back is. */
function seen(change: Change) {
  const { document: after, step } = applyChange(document, change);
  const back = applyAll(after, step.backward);
  return [placeTouched(after, step.forward), placeTouched(back, step.backward)];
}

it('is the item, section or ending that changed; what was deleted is seen once it is back', () => {
  assert.deepEqual(seen(writeOption({ section: 1, item: 1 }, 0, 'x')), [{ item: 'q5' }, { item: 'q5' }]);
  assert.deepEqual(seen(removeItem(document, { section: 0, item: 1 })), [{ item: 'q3' }, { item: 'q2' }]);
  assert.deepEqual(seen(removeItem(document, { section: 1, item: 1 })), [{ item: 'q4' }, { item: 'q5' }]);
  assert.deepEqual(seen(removeSection(document, 1)), [{ section: 'a' }, { section: 'b' }]);
  assert.deepEqual(seen(addSection(document, 2, 'New'))[0], { section: 'new' });
  const moved = moveItem(document, { section: 0, item: 0 }, { section: 1, item: 0 });
  assert.deepEqual(seen(moved), [{ item: 'q2' }, { item: 'q1' }]);
  const out = editEnding(1, 'kind', 'Change', (draft) => void (draft.kind = 'declined'));
  assert.deepEqual(seen(out), [{ ending: 'out' }, { ending: 'out' }]);
  assert.deepEqual(seen(setTitle('Other')), [null, null]);
});

it('tells what adds or takes away entries from what is written in one of them', () => {
  const at = { section: 0, item: 0 };
  assert.equal(isStructural(applyChange(document, removeOption(at, 0)).step), true);
  assert.equal(isStructural(applyChange(document, writeOption(at, 0, 'x')).step), false);
});
