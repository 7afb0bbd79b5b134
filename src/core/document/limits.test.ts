/** A questionnaire beyond what can be worked out is refused where it comes in, by place and in words. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { parseCondition, parseExpression } from '../condition/parse';
import { planOf } from '../routing/planner';
import * as limits from './limits';
import { problemText, readDocument } from './read';

const many = <Value>(count: number, make: (n: number) => Value) =>
  Array.from({ length: count }, (_, n) => make(n));
const items = (count: number, prefix = 'q') =>
  many(count, (n) => ({ kind: 'statement' as const, name: `${prefix}${n}`, text: '' }));

function problemOf(document: unknown): string {
  const read = readDocument(document);
  if (read.ok) return '';
  const [problem] = read.problems;
  return problem === undefined ? 'refused without a word' : problemText(problem);
}

const usual = questionnaire([section('a', [ask('one')])]);
const withItem = (item: object) => ({ ...usual, sections: [{ ...section('a', []), items: [item] }] });

describe('a questionnaire', () => {
  it('as large as can be is read, and one larger is told by place what is too much', () => {
    const sections = (count: number) => ({ ...usual, sections: many(count, (n) => section(`s${n}`, [])) });
    assert.equal(problemOf(sections(limits.MOST_SECTIONS)), '');
    assert.match(problemOf(sections(limits.MOST_SECTIONS + 1)), /^sections: at most 1,000 sections/);

    const halves = (count: number) => ({
      ...usual,
      sections: [
        { ...section('a', []), items: items(count / 2, 'a') },
        { ...section('b', []), items: items(count / 2, 'b') },
      ],
    });
    assert.equal(problemOf(halves(limits.MOST_ITEMS)), '');
    assert.match(problemOf(halves(limits.MOST_ITEMS + 2)), /^sections: the questionnaire has 5,002 items/);

    const picked = (count: number) =>
      ask('one', { type: 'single', options: many(count, (n) => ({ code: n + 1, label: '' })) });
    assert.equal(problemOf(withItem(picked(limits.MOST_OPTIONS))), '');
    assert.match(
      problemOf(withItem(picked(limits.MOST_OPTIONS + 1))),
      /^sections\[0\].items\[0\].answer.options: at most 2,000/,
    );
  });

  it('repeats no more than can be worked out, in all sections together', () => {
    const repeated = (max: number, count: number) => ({
      ...usual,
      sections: [{ ...section('a', []), items: items(count), repeat: { times: 'n', max } }],
    });
    assert.equal(problemOf(repeated(limits.MOST_PASSES, 40)), '');
    assert.match(
      problemOf(repeated(limits.MOST_PASSES + 1, 1)),
      /repeat.max: a section repeats at most 500 times/,
    );
    assert.match(
      problemOf(repeated(limits.MOST_PASSES, 41)),
      /^sections: the repeated sections come to 20,500 items/,
    );
  });

  it('has numbers that can be told apart', () => {
    const number = (max: number) => withItem(ask('one', { type: 'number', min: 0, max }));
    assert.equal(problemOf(number(limits.LARGEST_NUMBER)), '');
    assert.match(problemOf(number(1e308)), /answer.max: numbers go from -1,000,000,000,000 to/);
  });
});

describe('a condition', () => {
  it('longer or deeper than can be followed is refused with the place, and none overflows', () => {
    for (const long of [
      'a = 1 or '.repeat(3_000) + 'a = 1',
      `${'not '.repeat(3_000)}a = 1`,
      `${'('.repeat(3_000)}a = 1`,
    ]) {
      const parsed = parseCondition(long);
      assert.ok(!parsed.ok);
      assert.match(parsed.problem.message, /longer than 4000 words|nested too deeply/);
    }
    assert.ok(parseExpression(`1${' + 1'.repeat(1_900)}`).ok);
    assert.ok(!parseExpression(`1${' + 1'.repeat(5_000)}`).ok);
  });

  it('on derived values that each stand on the one before ends where there is no telling any more', () => {
    const doubling = (levels: number) =>
      planOf({
        ...usual,
        derived: many(levels, (n) => ({
          name: `d${n}`,
          label: '',
          value: n === 0 ? 'one + one' : `d${n - 1} + d${n - 1}`,
        })),
      }).problems.filter(({ message }) => message.includes('stands on too many others'));
    assert.deepEqual(doubling(11), []);
    const [first] = doubling(300);
    assert.deepEqual(first?.at, { derived: 'd12' });
  });
});
