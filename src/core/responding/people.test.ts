/** People of a CSV file: who they are, what is known of them, and what stands wrong on which line. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, planFor, questionnaire, section } from '../../../tests/support/questionnaire';
import { canBegin, neededBefore, readPeople } from './people';

const options = [1, 2].map((code) => ({ code, label: `Option ${code}` }));
const plan = planFor(
  questionnaire([section('a', [ask('one', 2)])], {
    given: [
      { name: 'region', label: 'Region', answer: { type: 'single', options } },
      { name: 'owned', label: 'Owned', answer: { type: 'multiple', options } },
      { name: 'arm', label: 'Arm', random: true, answer: { type: 'single', options } },
    ],
  }),
);
const read = (text: string) => readPeople(plan, text);

describe('people of a file', () => {
  it('have a name and what is known of them, whatever order and sign parts the columns', () => {
    assert.deepEqual(read('\uFEFFid;Owned;note;region\r\nA. Fenn;1 2;x;2\r\n"B; Moss";2;;1\r\n'), {
      ok: true,
      people: [
        { name: 'A. Fenn', given: { region: 2, owned: [1, 2] } },
        { name: 'B; Moss', given: { owned: [2], region: 1 } },
      ],
      unused: ['note'],
    });
    assert.deepEqual(neededBefore(plan), ['region', 'owned']);
    assert.equal(canBegin(plan, { region: 2, owned: [1] }), true);
    assert.equal(canBegin(plan, { region: 3, owned: [1] }), false);
    assert.equal(canBegin(plan, { region: 2 }), false);
  });

  it('are all refused where one cannot be read, each fault with its line', () => {
    const problemsOf = (text: string) => {
      const result = read(text);
      return result.ok ? [] : result.problems;
    };
    assert.deepEqual(problemsOf('id,region\n'), [
      'Line 1: there is no column “owned” (Owned).',
      'There is no line under the heading: each is a person.',
    ]);
    const found = problemsOf('id,region,owned\nA,1,1\nA,3,2\n,1,\n');
    assert.equal(found.length, 4);
    assert.match(found[0] ?? '', /^Line 3: “A” stands on line 2 already/);
    assert.match(found[1] ?? '', /^Line 3, region: /);
    assert.match(found[2] ?? '', /^Line 4: the first column says who it is, and is empty/);
    assert.match(found[3] ?? '', /^Line 4, owned: a value is needed/);
    const many = problemsOf(
      `id,region,owned\n${Array.from({ length: 12 }, (_, n) => `P${n},7,1`).join('\n')}`,
    );
    assert.deepEqual([many.length, many.at(-1)], [9, 'And 4 more.']);
  });
});
