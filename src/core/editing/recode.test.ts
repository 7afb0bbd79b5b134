/** New codes carried through conditions, and refused where codes are taken as numbers. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { analyse } from '../analysis';
import { optionsOf } from '../document/shape';
import type { Question, Questionnaire } from '../document/types';
import { applyChange } from './change';
import { orderOptions, renumbering, withCommonList, withListOf } from './lists';
import { recode, recodeProblem } from './recode';

const answers = (...codes: number[]): Question['answer'] => ({
  type: 'single',
  options: codes.map((code) => ({ code, label: `Answer ${code}` })),
});

function study(more: Partial<Question> = {}): Questionnaire {
  return questionnaire([
    section('a', [
      ask('q', answers(10, 20, 30), {
        required: true,
        agrees: [10],
        assume: { shares: { 10: 0.5, 20: 0.3, 30: 0.2 } },
        skips: [{ if: 'q in (10,  30)', to: { item: 'last' } }],
      }),
      ask('p', 2, { askIf: 'not (Q = 30) and q <> 10', ...more }),
      ask('last', 2),
    ]),
  ]);
}
const place = { section: 0, item: 0 };

describe('changing codes', () => {
  it('carries through conditions in the author’s own spacing, consent and shares', () => {
    const document = study();
    const question = document.sections[0]?.items[0] as Question;
    const recoding = renumbering(question);
    assert.equal(recodeProblem(document, place, recoding), null);
    const { document: next } = applyChange(document, recode(document, place, recoding));
    const [first, second] = next.sections[0]?.items as Question[];
    assert.deepEqual(first?.answer, {
      ...answers(1, 2, 3),
      options:
        question.answer.type === 'single'
          ? question.answer.options.map((option, n) => ({ ...option, code: n + 1 }))
          : [],
    });
    assert.equal(first?.skips?.[0]?.if, 'q in (1,  3)');
    assert.equal(second?.askIf, 'not (Q = 3) and q <> 1');
    assert.deepEqual([first?.agrees, first?.assume?.shares], [[1], { 1: 0.5, 2: 0.3, 3: 0.2 }]);
    assert.equal(analyse(planFor(next)).routes, analyse(planFor(document)).routes);
  });

  it('is refused where codes are compared by size, taken as a range, or given twice', () => {
    for (const askIf of ['q > 10', 'q in (10..20)', 'q + 1 = 11'])
      assert.match(recodeProblem(study({ askIf }), place, new Map([[10, 1]])) ?? '', /taken as numbers/);
    assert.match(recodeProblem(study(), place, new Map([[10, 20]])) ?? '', /Two answers/);
  });
});

describe('whole lists', () => {
  it('are put in place of the ordinary answers', () => {
    const document = study();
    const { document: next } = applyChange(document, withCommonList(place, 'agreement'));
    const first = next.sections[0]?.items[0] as Question;
    assert.deepEqual(
      first.answer.type === 'single' && first.answer.options.map(({ code }) => code),
      [1, 2, 3, 4, 5],
    );
    const same = applyChange(next, withListOf({ section: 0, item: 1 }, first)).document;
    const second = same.sections[0]?.items[1] as Question;
    assert.deepEqual(second.answer, first.answer);
  });

  it('are turned round without a change to anybody’s route', () => {
    const document = study();
    const { document: next } = applyChange(document, orderOptions(place, 'reversed'));
    assert.deepEqual(
      optionsOf((next.sections[0]?.items[0] as Question).answer).map(({ code }) => code),
      [30, 20, 10],
    );
    assert.deepEqual(analyse(planFor(next)).items, analyse(planFor(document)).items);
  });
});
