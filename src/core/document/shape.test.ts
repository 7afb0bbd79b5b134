/** What makes a document one that cannot be used, a case for each rule that no single property shows. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { isDateValue } from './dates';
import { pathText, readDocument } from './read';
import type { Answer, Questionnaire, Section } from './types';

const options = [1, 2, 3].map((code) => ({ code, label: `Answer ${code}` }));
const one = (answer: Answer, rest: Partial<Section> = {}) =>
  questionnaire([section('a', [ask('one', answer), ask('two')], rest)]);
const problems = (document: unknown) => {
  const read = readDocument(document);
  return read.ok ? [] : read.problems.map(({ path, message }) => `${pathText(path)}: ${message}`);
};
const plain = one({ type: 'single', options });
const withMissing = (change: (missing: Questionnaire['missing']) => unknown) => ({
  ...plain,
  missing: change(plain.missing),
});

describe('a document', () => {
  const ANSWER = 'sections[0].items[0].answer';
  const cases: readonly (readonly [string, unknown, string | null])[] = [
    ['as it should be', plain, null],
    [
      'limits the wrong way round',
      one({ type: 'number', min: 5, max: 4 }),
      `${ANSWER}.min: 5 is above "max", 4`,
    ],
    ['limits that are one value', one({ type: 'number', min: 4, max: 4 }), null],
    [
      'a scale the wrong way round',
      one({ type: 'scale', min: 7, max: 1 }),
      `${ANSWER}.min: 7 is above "max", 1`,
    ],
    [
      'more picks at least than at most',
      one({ type: 'multiple', options, minPicks: 3, maxPicks: 2 }),
      `${ANSWER}.minPicks: 3 is above "maxPicks", 2`,
    ],
    ['as many picks at least as at most', one({ type: 'multiple', options, minPicks: 2, maxPicks: 2 }), null],
    [
      'a text longer at least than at most',
      one({ type: 'text', minLength: 9, maxLength: 8 }),
      `${ANSWER}.minLength: 9 is above "maxLength", 8`,
    ],
    [
      'more places than options',
      one({ type: 'rank', options, top: 4 }),
      `${ANSWER}.top: ranks 4 of 3 options: rank at most 3`,
    ],
    ['as many places as options', one({ type: 'rank', options, top: 3 }), null],
    [
      'a date that is none',
      one({ type: 'date', min: '2026-02-29' }),
      `${ANSWER}.min: "2026-02-29" is not a date as ISO 8601 writes it`,
    ],
    [
      'dates the wrong way round',
      one({ type: 'date', min: '2026-02-02', max: '2026-02-01' }),
      `${ANSWER}.min: 2026-02-02 is above "max", 2026-02-01`,
    ],
    [
      'a draw of more than there are',
      one({ type: 'single', options }, { draw: 3 }),
      'sections[0].draw: draws 3 of 2 questions: draw at most 2',
    ],
    ['a draw of all there are', one({ type: 'single', options }, { draw: 2 }), null],
    [
      'a condition where questions are drawn',
      questionnaire([section('a', [ask('one', 2, { askIf: 'one = 1' }), ask('two')], { draw: 1 })]),
      'sections[0].items[0].askIf: "one" stands in a section that draws: it can carry no "askIf"',
    ],
    [
      'a skip where questions are shuffled',
      questionnaire([
        section('a', [ask('one', 2, { skips: [{ to: { item: 'two' } }] }), ask('two')], { shuffle: true }),
      ]),
      'sections[0].items[0].skips: "one" stands in a section that is shuffled: it can carry no "skips"',
    ],
    [
      'a reason without a code',
      withMissing((missing) => missing.slice(1)),
      'missing: the reason "not_applicable" has no code: add it to the plan',
    ],
    [
      'two reasons with one code',
      withMissing(([first, ...rest]) => [
        first,
        ...rest.map((entry, n) => (n === 0 ? { ...entry, code: -1 } : entry)),
      ]),
      'missing[1].code: the code -1 stands for two reasons: give each its own',
    ],
    [
      'a reason twice',
      withMissing((missing) => [...missing, { reason: 'no_answer', code: -50, label: 'Again' }]),
      'missing[4].reason: the reason "no_answer" stands twice',
    ],
    [
      'nobody who completes it',
      { ...plain, endings: plain.endings.filter(({ kind }) => kind !== 'complete') },
      'endings: at least one ending must be of kind "complete"',
    ],
  ];
  for (const [what, document, said] of cases)
    it(`with ${what} is ${said === null ? 'read' : 'refused, with the place'}`, () => {
      assert.deepEqual(problems(document), said === null ? [] : [said]);
    });
});

describe('a date', () => {
  it('is one up to the last day of its month, leap years minded', () => {
    for (const year of [1900, 2000, 2023, 2024])
      for (let month = 1; month <= 12; month += 1) {
        // The calendar of the machine knows how long months are.
        const last = new Date(Date.UTC(year, month, 0)).getUTCDate();
        const day = (of: number) =>
          `${year}-${String(month).padStart(2, '0')}-${String(of).padStart(2, '0')}`;
        const found = [0, 1, last, last + 1].map((of) => isDateValue('date', day(of)));
        assert.deepEqual(found, [false, true, true, false], day(last));
      }
    assert.ok(!isDateValue('date', '2024-00-10') && !isDateValue('date', '2024-13-10'));
  });

  it('stands before a time of day, with a T between them and nothing behind', () => {
    const cases = { '2024-02-29T23:59': true, '2024-02-30T00:00': false, '2024-02-29T24:00': false };
    for (const [text, is] of Object.entries(cases)) assert.equal(isDateValue('datetime', text), is, text);
    assert.ok(!isDateValue('datetime', '2024-02-29') && !isDateValue('datetime', '2024-02-29T10:00T10:00'));
  });
});
