/** What the list of studies shows of a questionnaire, from its text alone. */
import assert from 'node:assert/strict';
import { it } from 'node:test';
import { ask, questionnaire, section } from '../../tests/support/questionnaire';
import { writeDocument } from '../core/document/read';
import { examine } from './examine';

it('counts what there is, and the errors and warnings of it', () => {
  const skips = [{ if: 'one = 2', to: { ending: 'out' } }];
  const document = questionnaire([
    section('a', [
      ask('one', 2, { required: true, skips }),
      { kind: 'page_break' },
      ask('two', 2, { required: true }),
    ]),
  ]);
  const found = examine(writeDocument(document));
  assert.ok(found.is === 'questionnaire');
  const { sections, items, skips: many, routes, exact, snags } = found;
  assert.deepEqual([sections, items, many, routes, exact, snags], [1, 2, 1, '2', true, []]);
  const wrong = examine(writeDocument(questionnaire([section('a', [ask('one', 2, { askIf: 'gone = 1' })])])));
  assert.ok(wrong.is === 'questionnaire' && wrong.snags.length > 0);
});

it('says what is wrong with a text that is none', () => {
  for (const [text, problem] of [
    ['{"cut', /not JSON|JSON/],
    ['{}', /format/],
    ['', /./],
  ] as const) {
    const found = examine(text);
    assert.ok(found.is === 'unreadable');
    assert.match(found.problem, problem);
    assert.notEqual(found.problem, 'It is empty.');
  }
});
