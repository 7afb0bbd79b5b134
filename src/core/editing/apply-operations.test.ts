/** Operations applied where nothing else of the editor is loaded, as the server does. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { applyOperations } from './apply-operations';

it('applies an operation, and leaves out one that does not fit, by itself', () => {
  const document = questionnaire([section('a', [ask('one')])]);
  const set = (before: string) =>
    ({ do: 'set', part: 'item:one', field: 'text', before, after: 'Two?' }) as const;
  const applied = applyOperations(document, [set('one?')]);
  assert.deepEqual(applied.clashes, []);
  const [item] = applied.document.sections[0]?.items ?? [];
  assert.equal(item?.kind === 'question' && item.text, 'Two?');
  const [clash] = applyOperations(document, [set('something else')]).clashes;
  assert.equal(clash?.theirs, 'one?');
});
