/** Aiming single answers: codes with one target share a skip, everything else is left alone. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Question, Target } from '../document/types';
import { applyChange } from './change';
import { aimAnswers, aimRange, codesOfSkip } from './skips';

const OUT: Target = { ending: 'out' };
const B: Target = { section: 'b' };

function aimed(question: Question, ...aims: readonly (readonly [number, Target | null])[]): Question {
  let document = questionnaire([section('a', [question]), section('b', [])]);
  const current = () => document.sections[0]?.items[0] as Question;
  for (const [code, target] of aims) {
    document = applyChange(document, aimAnswers({ section: 0, item: 0 }, current(), [code], target)).document;
  }
  return current();
}

describe('aiming an answer', () => {
  it('makes a skip, shares it between codes, and moves a code to another target', () => {
    const q = ask('q', 4);
    assert.deepEqual(aimed(q, [2, OUT]).skips, [{ if: 'q = 2', to: OUT }]);
    assert.deepEqual(aimed(q, [3, OUT], [2, OUT]).skips, [{ if: 'q in (2, 3)', to: OUT }]);
    assert.deepEqual(aimed(q, [3, OUT], [2, OUT], [3, B]).skips, [
      { if: 'q = 2', to: OUT },
      { if: 'q = 3', to: B },
    ]);
  });

  it('knows the codes of a skip that reads nothing but the question, and leaves every other alone', () => {
    const q = ask('q', 4);
    for (const [text, codes] of [
      ['q = 2', [2]],
      ['Q in (1, 2)', [1, 2]],
      ['q <> 2', null],
      ['q > 2', null],
      ['other = 2', null],
      ['q = other', null],
      ['q in (1..2)', null],
      ['q not in (1, 2)', null],
      ['q = 1 or q = 2', null],
    ] as const)
      assert.deepEqual(codesOfSkip(q, { if: text, to: OUT }), codes, text);
    const aside = aimed({ ...q, skips: [{ if: 'q > 2', to: OUT }] }, [1, OUT]);
    assert.deepEqual(
      aside.skips?.map((skip) => skip.if),
      ['q > 2', 'q = 1'],
    );
  });

  it('takes skips away until none is left', () => {
    assert.equal(aimed(ask('q', 4), [3, OUT], [3, null]).skips, undefined);
  });

  it('tests picks with has, and stays before a skip that takes everybody', () => {
    const options = [1, 2, 3].map((code) => ({ code, label: `${code}` }));
    const q = ask(
      'q',
      { type: 'multiple', options },
      { skips: [{ if: 'q has all (1, 2)', to: B }, { to: B }] },
    );
    assert.deepEqual(aimed(q, [3, OUT], [1, OUT]).skips, [
      { if: 'q has all (1, 2)', to: B },
      { if: 'q has any (1, 3)', to: OUT },
      { to: B },
    ]);
  });
});

describe('a skip from a range', () => {
  const age = ask('age', { type: 'number', min: 0, max: 120 }, { skips: [{ to: B }] });
  const made = (from: string, to: string) => {
    const document = questionnaire([section('a', [age]), section('b', [])]);
    const change = aimRange({ section: 0, item: 0 }, age, [from, to], OUT);
    return change && (applyChange(document, change).document.sections[0]?.items[0] as Question).skips;
  };

  it('is written with the ends it has, before a skip that takes everybody', () => {
    assert.deepEqual(made('0', '15'), [{ if: 'age in (0..15)', to: OUT }, { to: B }]);
    assert.equal(made('65', '')?.[0]?.if, 'age >= 65');
    assert.equal(made('', '17')?.[0]?.if, 'age <= 17');
    assert.equal(made('40', '40')?.[0]?.if, 'age = 40');
  });

  it('is refused where its ends are no answers', () => {
    assert.equal(made('young', '15'), null);
    assert.equal(made('1 or age > 3', ''), null);
    assert.equal(made('', ''), null);
  });
});
