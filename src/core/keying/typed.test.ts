/** What is typed into a field of a paper form, key by key. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import type { Answer } from '../document/types';
import { keyFields, type KeyField } from './fields';
import { Keying } from './sheet';
import { limitWords, nextCaseId, readTyped, typingOf } from './typed';

function fieldOf(answer: Answer): KeyField {
  return keyFields(
    planFor(questionnaire([section('a', [ask('q', answer, { required: true })])])),
  )[0] as KeyField;
}

const codes = (...list: number[]) => list.map((code) => ({ code, label: `Answer ${code}` }));
const dontKnow = { code: 998, label: 'Do not know', missing: 'dont_know' as const };

describe('typing into a form', () => {
  it('goes on by itself at a code, never at a number', () => {
    const single = fieldOf({ type: 'single', options: codes(1, 2, 12) });
    assert.deepEqual(
      ['1', '2', '12', '3', '13'].map((text) => typingOf(single, text)),
      ['open', 'complete', 'complete', 'refused', 'refused'],
    );
    const number = fieldOf({ type: 'number', min: 0, max: 300, specials: [dontKnow] });
    assert.deepEqual(
      ['4', '45', '300', '301', '31', '998', '97', '-', '4.'].map((text) => typingOf(number, text)),
      ['open', 'open', 'open', 'refused', 'open', 'open', 'open', 'refused', 'refused'],
    );
  });

  it('refuses a digit just where no allowed number continues with it', () => {
    const limits = fc.record({
      a: fc.integer({ min: -60, max: 400 }),
      b: fc.integer({ min: -60, max: 400 }),
      decimals: fc.integer({ min: 0, max: 1 }),
    });
    fc.assert(
      fc.property(limits, fc.stringMatching(/^-?[0-9]{0,3}(\.[0-9]?)?$/), ({ a, b, decimals }, typed) => {
        const [min, max] = [Math.min(a, b), Math.max(a, b)];
        const scale = 10 ** decimals;
        const all = Array.from({ length: (max - min) * scale + 1 }, (_, n) => (min * scale + n) / scale);
        const written = all.flatMap((value) => [String(value), value.toFixed(decimals)]);
        // Noughts in front are part of no number; a number and its opposite sign are told by the sign.
        const plain = typed.replace(/^(-?)0+(?=[0-9])/, '$1');
        const allowed =
          plain === '' || plain === '-0' || plain === '0' || written.some((each) => each.startsWith(plain));
        const field = fieldOf({ type: 'number', min, max, ...(decimals > 0 ? { decimals } : {}) });
        if (!allowed) return;
        if (plain === '-0' || plain === '0' || plain === '') return;
        assert.notEqual(typingOf(field, typed), 'refused', `${typed} within ${min} to ${max}`);
      }),
      { numRuns: 400 },
    );
    const field = fieldOf({ type: 'number', min: 18, max: 99 });
    for (const typed of ['0', '1', '9', '17', '18', '99'].filter(
      (text) => typingOf(field, text) !== 'refused',
    ))
      assert.ok(['0', '1', '9', '18', '99'].includes(typed), typed);
  });

  it('reads what was typed as one value, whatever the next key is', () => {
    const number = fieldOf({ type: 'number', min: 0, max: 300 });
    assert.deepEqual(readTyped(number, '45'), { ok: true, value: 45 });
    assert.equal(limitWords(number), '0 to 300');
  });

  it('knows the number on the next form', () => {
    assert.equal(nextCaseId('T-009', new Set(['T-010'])), 'T-011');
    assert.equal(nextCaseId('99', new Set()), '100');
    assert.equal(nextCaseId('Fenn', new Set()), null);
  });
});

describe('a form', () => {
  it('is to be settled where a required question was left blank', () => {
    const keying = new Keying(
      planFor(questionnaire([section('a', [ask('q', 2, { required: true }), ask('r')])])),
    );
    const answers = { q: null, r: null };
    assert.deepEqual(
      keying.blanks(answers, keying.sheet(answers)).map(({ key }) => key),
      ['q'],
    );
    assert.deepEqual(keying.blanks({ q: 1, r: null }, keying.sheet({ q: 1, r: null })), []);
  });
});
