/** What travels is checked at the other side as well: a part of a questionnaire as one, with what is wrong with it. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import * as v from 'valibot';
import { ask } from '../../tests/support/questionnaire';
import { keptName } from './answer';
import { BankEntrySchema, BankEntryToAdd } from './bank';
import { GivenToTake, OtherStudiesSchema } from './other-studies';
import { WholeVersionSchema } from './versions';

const entry = (content: unknown) => ({ id: 1, title: 'Kept', at: 5, content, uses: [] });
const options = [{ code: 1, label: 'Yes' }];

describe('an entry of the bank', () => {
  const good: readonly unknown[] = [
    { kind: 'question', question: ask('one') },
    { kind: 'answers', options },
    { kind: 'section', section: { id: 'a', title: 'A', kind: 'topic', items: [ask('one')] } },
  ];
  for (const content of good)
    it(`comes through as it was: ${Object.keys(content as object).join(' and ')}`, () => {
      const read = v.safeParse(BankEntrySchema, entry(content));
      assert.ok(read.success);
      assert.deepEqual(read.output.content, content);
    });

  it('is refused where its part is none of its kind, and says what is wrong', () => {
    const bad: readonly unknown[] = [
      { kind: 'question', question: { ...ask('one'), answer: { type: 'number', min: 'x', max: 2 } } },
      { kind: 'question', question: options },
      { kind: 'answers', options: [{ code: 'x', label: 'Yes' }] },
      { kind: 'section', section: ask('one') },
      { kind: 'picture', picture: '' },
    ];
    for (const content of bad) {
      const read = v.safeParse(BankEntrySchema, entry(content));
      assert.ok(!read.success, JSON.stringify(content));
      assert.notEqual(read.issues[0].message, '');
    }
  });

  it('is added under a title, without the room around it', () => {
    const add = (title: string) => v.safeParse(BankEntryToAdd, { kind: 'answers', title, content: options });
    const read = add('  Yes and no ');
    assert.equal(read.success && read.output.title, 'Yes and no');
    assert.ok(!add('   ').success && !add('x'.repeat(201)).success && add('x'.repeat(200)).success);
  });
});

describe('another study', () => {
  it('says what it takes, each value by its name', () => {
    const study = (given: readonly unknown[]) => [{ id: 'b', title: 'Follow-up', given }];
    const given = { name: 'region', label: 'Region', answer: { type: 'single', options } };
    assert.deepEqual(v.parse(OtherStudiesSchema, study([given])), study([given]));
    for (const wrong of [null, 'region', {}, 3])
      assert.ok(!v.safeParse(OtherStudiesSchema, study([wrong])).success, JSON.stringify(wrong));
    assert.ok(!v.safeParse(GivenToTake, { study: 'b', given, more: 1 }).success);
  });
});

describe('a version that travels whole', () => {
  const whole = (document: unknown) =>
    v.safeParse(WholeVersionSchema, {
      ...{ number: 1, frozen: false, checksum: 'a', revision: 1, note: '', author: 'Ines', at: 5 },
      ...{ gate: null, reason: null, document },
    }).success;

  it('has a questionnaire in it, and nothing else in its place', () => {
    assert.deepEqual([{ sections: [] }, null, undefined, 'sections', {}, 5].map(whole), [
      ...[true, false, false, false, false, false],
    ]);
  });
});

it('a browser keeps what it has of a link under a name of its own, and of each person as well', () => {
  const names = [keptName('a', null), keptName('a', 'b'), keptName('b', null), keptName('a', 'c')];
  assert.deepEqual(names, [
    'jolly-fork answer a',
    'jolly-fork answer a b',
    'jolly-fork answer b',
    'jolly-fork answer a c',
  ]);
});
