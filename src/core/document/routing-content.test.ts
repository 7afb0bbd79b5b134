/** What is left out of the routing content changes no route; what steers is in it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { randomDocument } from '../../../tests/agree/documents';
import { FEATURED } from '../../../tests/agree/featured';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import { routingContent } from './routing-content';
import type { Question, Questionnaire } from './types';

/** Every word that respondents read written anew, pipes left out. */
function reworded(document: Questionnaire): Questionnaire {
  const words = new Set(['title', 'label', 'text', 'note', 'intro', 'message', 'unit', 'placeholder']);
  const anew = JSON.stringify(document, (key, value: unknown) =>
    words.has(key) && typeof value === 'string' ? `${value.replaceAll(/[{}]/g, '')} anew` : value,
  );
  return JSON.parse(anew) as Questionnaire;
}

describe('the routing content', () => {
  it('is the same after a change of words, and so is every route and who is asked', () => {
    const documents = [...FEATURED, ...Array.from({ length: 40 }, (_, n) => randomDocument(300 + n))];
    for (const document of documents) {
      const other = reworded(document);
      assert.equal(routingContent(other), routingContent(document));
      const [before, after] = [document, other].map((of) => analyse(planFor(of)));
      assert.deepEqual(
        [after?.routes, [...(after?.asked ?? [])]],
        [before?.routes, [...(before?.asked ?? [])]],
      );
    }
  });

  it('changes with everything that steers', () => {
    const base = (rest: Partial<Question> = {}, of: Partial<Questionnaire> = {}) =>
      routingContent(questionnaire([section('a', [ask('q', 2, rest), ask('r')])], of));
    const options = [
      { code: 1, label: 'A' },
      { code: 2, label: 'B', missing: 'refused' as const },
    ];
    const others = [
      base({ required: true }),
      base({ askIf: 'never' }),
      base({ answer: { type: 'single', options } }),
      base({ skips: [{ to: { ending: 'out' } }] }),
      base({ checks: [{ if: 'q = 1', kind: 'hard', message: 'No.' }] }),
      base({}, { derived: [{ name: 'd', label: 'D', value: 'q + 1' }] }),
      base({}, { quotas: [{ id: 'x', label: 'X', if: 'q = 1', target: 1, at: 'q', to: { ending: 'out' } }] }),
    ];
    assert.equal(new Set([base(), ...others]).size, others.length + 1);
  });
});
