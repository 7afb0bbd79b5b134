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

  it('takes a point and digits behind it where some allowed number goes on so', () => {
    const number = fieldOf({ type: 'number', min: 1.5, max: 2.5, decimals: 1 });
    const taken = [
      '1',
      '1.',
      '1.4',
      '1.5',
      '1.9',
      '2.',
      '2.5',
      '2.6',
      '3',
      '3.',
      '0.',
      '.',
      '2.50',
      '-1.',
      '02.5',
    ].filter((text) => typingOf(number, text) !== 'refused');
    assert.deepEqual(taken, ['1', '1.', '1.5', '1.9', '2.', '2.5', '02.5']);
    const below = fieldOf({ type: 'number', min: -2.5, max: 0.5, decimals: 2 });
    const minus = ['-', '-2', '-2.', '-2.5', '-2.51', '-3', '0.5', '0.51', '.5', '-0.', '-0.25'].filter(
      (text) => typingOf(below, text) !== 'refused',
    );
    assert.deepEqual(minus, ['-', '-2', '-2.', '-2.5', '0.5', '.5', '-0.', '-0.25']);
  });

  it('refuses a digit just where no allowed number continues with it', () => {
    const limits = fc.record({
      a: fc.integer({ min: -60, max: 400 }),
      b: fc.integer({ min: -60, max: 400 }),
      decimals: fc.integer({ min: 0, max: 2 }),
    });
    fc.assert(
      fc.property(limits, fc.stringMatching(/^-?[0-9]{1,3}(\.[0-9]{0,2})?$/), ({ a, b, decimals }, typed) => {
        const scale = 10 ** decimals;
        // Limits between whole numbers as well.
        const [least, most] = [Math.min(a, b), Math.max(a, b)];
        const all = Array.from({ length: most - least + 1 }, (_, n) =>
          ((least + n) / scale).toFixed(decimals),
        );
        // Noughts in front are part of no number; whoever types one may go on to any of this sign.
        const plain = typed.replace(/^(-?)0+(?=[0-9])/, '$1');
        const allowed = all.some((each) =>
          /^-?0$/.test(plain) ? each.startsWith('-') === plain.startsWith('-') : each.startsWith(plain),
        );
        const field = fieldOf({
          ...{ type: 'number', min: least / scale, max: most / scale },
          ...(decimals > 0 ? { decimals } : {}),
        });
        const found = typingOf(field, typed) !== 'refused';
        assert.equal(found, allowed, `${typed} within ${least / scale} to ${most / scale}`);
      }),
      { numRuns: 1500 },
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

  it('reads each kind of answer, and says what it takes where it cannot', () => {
    const option = (code: number) => ({ code, label: `Answer ${code}` });
    const specials = [dontKnow];
    const cases: readonly (readonly [Answer, Readonly<Record<string, unknown>>])[] = [
      [
        { type: 'single', options: [option(1), option(2)] },
        { '1': 1, ' 2 ': 2, '': null, '3': false, x: false },
      ],
      [
        { type: 'multiple', options: [option(1), option(2), option(12)] },
        { '1 2': [1, 2], '12': [12], '2,1': [2, 1], '': null, '3': false },
      ],
      [
        { type: 'rank', options: [option(1), option(2), option(3)] },
        { '3 1 2': [3, 1, 2], '': null, '7': false },
      ],
      [
        { type: 'scale', min: 0, max: 1, step: 0.25, specials },
        { '0.25': 0.25, '0,75': 0.75, '998': 998, '0.3': false, '2': false },
      ],
      [
        { type: 'number', min: -5, max: 5, decimals: 1, specials },
        { '-4,5': -4.5, '05': 5, '998': 998, '6': false, '1.25': false, '-': false },
      ],
      [
        { type: 'date', min: '2024-01-01' },
        { '2024-02-29': '2024-02-29', '1.3.2024': '2024-03-01', '31.2.2024': false, '2023-12-31': false },
      ],
      [{ type: 'time' }, { '14:05': '14:05', '24:00': false, '7': false }],
      [
        { type: 'datetime' },
        { '2024-03-01 14:05': '2024-03-01T14:05', '1.3.2024 14:05': '2024-03-01T14:05', '14:05': false },
      ],
      [
        { type: 'text', maxLength: 4 },
        { Peat: 'Peat', Steam: false, '': null },
      ],
    ];
    for (const [answer, typed] of cases)
      for (const [text, value] of Object.entries(typed)) {
        const read = readTyped(fieldOf(answer), text);
        const about = `${answer.type} “${text}”: ${JSON.stringify(read)}`;
        if (value === false) assert.ok(!read.ok && read.problem !== '', about);
        else assert.deepEqual(read, { ok: true, value }, about);
      }
  });

  it('lets marks of a scale be typed in any spelling of their digits, and nothing else', () => {
    const scale = fieldOf({ type: 'scale', min: 0, max: 10, step: 2.5 });
    assert.deepEqual(
      ['0', '2', '2.', '2.5', '5', '7.5', '1', '10', '100', '3'].map((text) => typingOf(scale, text)),
      [
        'complete',
        'open',
        'open',
        'complete',
        'complete',
        'complete',
        'open',
        'complete',
        'refused',
        'refused',
      ],
    );
    const below = fieldOf({ type: 'scale', min: -2, max: 2 });
    assert.deepEqual(
      ['-', '-1', '-3', '2', '3'].map((text) => typingOf(below, text)),
      ['open', 'complete', 'refused', 'complete', 'refused'],
    );
  });

  it('says beside a field what it takes', () => {
    const options = codes(1, 2, 3);
    for (const [answer, words] of [
      [{ type: 'number', min: 0, max: 9, unit: 'kWh' }, '0 to 9 kWh'],
      [{ type: 'scale', min: 1, max: 5 }, '1 to 5'],
      [{ type: 'multiple', options }, 'all that apply'],
      [{ type: 'multiple', options, minPicks: 1, maxPicks: 2 }, 'at least 1, at most 2'],
      [{ type: 'multiple', options, maxPicks: 2 }, 'at most 2'],
      [{ type: 'rank', options }, 'in order of rank'],
      [{ type: 'rank', options, top: 2 }, 'the first 2 in order of rank'],
      [
        { type: 'date', min: '2024-01-01', max: '2024-12-31' },
        'day.month.year, from 2024-01-01, to 2024-12-31',
      ],
      [{ type: 'datetime', max: '2024-12-31T12:00' }, 'day.month.year hour:minute, to 2024-12-31 12:00'],
      [{ type: 'time' }, 'hour:minute'],
      [{ type: 'text', maxLength: 40 }, 'at most 40 characters'],
      [{ type: 'text' }, ''],
      [{ type: 'single', options }, ''],
    ] as const)
      assert.equal(limitWords(fieldOf(answer)), words);
    const [free] = keyFields(planFor(questionnaire([section('a', [ask('q', 2)])])));
    assert.equal(free && limitWords(free), 'may be blank');
  });

  it('knows the number on the next form', () => {
    assert.equal(nextCaseId('T-009', new Set(['T-010'])), 'T-011');
    assert.equal(nextCaseId('99', new Set()), '100');
    assert.equal(nextCaseId('0099', new Set(['0100', '0101'])), '0102');
    assert.equal(nextCaseId('12-7b', new Set()), null);
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

it('a number that can be nought at most, or at least, takes a nought', () => {
  const typing = (min: number, max: number, texts: readonly string[]) =>
    texts.map((text) => typingOf(fieldOf({ type: 'number', min, max }), text));
  assert.deepEqual(typing(-5, 0, ['0', '-', '-5', '-6', '1']), [
    'open',
    'open',
    'open',
    'refused',
    'refused',
  ]);
  assert.deepEqual(typing(0, 5, ['0', '-', '5']), ['open', 'refused', 'open']);
  assert.deepEqual(typing(-5, -2, ['0', '-2', '-1']), ['refused', 'open', 'refused']);
});
