/** What an edit means for answers that are there: which variables and codes are the same under another name. */
import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { ask, questionnaire, section } from '../../../tests/support/questionnaire';
import { renumberAnswers, renumberingBetween } from './renumbered';

const options = [1, 2].map((code) => ({ code, label: `Answer ${code}` }));
/** A grid of rows written `name label`. */
const grid = (...rows: readonly string[]) =>
  questionnaire([
    section('a', [
      ask('g', {
        type: 'grid',
        options,
        rows: rows.map((row) => {
          const [name = '', label = ''] = row.split(' ');
          return { name, label };
        }),
      }),
    ]),
  ]);
const list = (...codes: readonly (readonly [code: number, label: string])[]) =>
  questionnaire([
    section('a', [ask('q', { type: 'single', options: codes.map(([code, label]) => ({ code, label })) })]),
  ]);

describe('the rows of a grid', () => {
  const names = (before: readonly string[], after: readonly string[]) =>
    Object.fromEntries(renumberingBetween(grid(...before), grid(...after))?.names ?? []);

  it('stay what they are called where others come, go or change places', () => {
    const two = ['heat Heating', 'light Light'];
    assert.deepEqual(names(two, ['cook Cooking', ...two]), {});
    assert.deepEqual(names(two, [...two].reverse()), {});
    assert.deepEqual(names(two, two.slice(1)), {});
    assert.deepEqual(names(two, ['heat Warmth', 'light Lamps']), {});
  });

  it('are known by their words, or by their place, under another name', () => {
    const two = ['heat Heating', 'light Light'];
    assert.deepEqual(names(two, ['warm Heating', 'light Light']), { heat: 'warm' });
    assert.deepEqual(names(two, ['light Light', 'warm Heating']), { heat: 'warm' });
    assert.deepEqual(names(two, ['warm Warmth', 'light Light']), { heat: 'warm' });
    assert.deepEqual(names(two, ['warm Heating', 'lamps Light']), { heat: 'warm', light: 'lamps' });
    // One that went and another that came are two rows.
    assert.deepEqual(names(two, ['light Light', 'cook Cooking', 'wash Washing']), {});
    assert.deepEqual(names(two, ['light Light', 'cook Cooking']), {});
  });
});

it('codes go by the words they stand for, and answers with them', () => {
  const before = list([1, 'Own'], [2, 'Rent'], [3, 'Free']);
  const after = list([1, 'Own'], [7, 'Rent'], [2, 'Free']);
  const found = renumberingBetween(before, after);
  assert.ok(found !== null);
  assert.deepEqual(renumberAnswers(found, { q: 2 }), { q: 7 });
  assert.deepEqual(renumberAnswers(found, { q: 3 }), { q: 2 });
  assert.deepEqual(renumberAnswers(found, { q: 1, other: 2 }), { q: 1, other: 2 });
  assert.equal(renumberingBetween(before, before), null);
});

it('codes of words that stand there twice go by their place, as long as there are as many', () => {
  const before = list([1, 'Yes'], [2, 'Other'], [3, 'Other']);
  const codes = (...after: readonly (readonly [number, string])[]) => {
    const found = renumberingBetween(before, list(...after));
    return [1, 2, 3].map((q) => (found === null ? q : renumberAnswers(found, { q }).q));
  };
  assert.deepEqual(codes([1, 'Yes'], [8, 'Other'], [9, 'Other']), [1, 8, 9]);
  assert.deepEqual(codes([7, 'Yes'], [8, 'Other']), [7, 2, 3]);
  // Other words at a place are another answer.
  assert.deepEqual(codes([1, 'Yes'], [8, 'Else'], [9, 'Other']), [1, 2, 9]);
});

it('remarks and texts to specify go along with their question, by its new name and code', () => {
  const named = (name: string, ...codes: number[]) =>
    questionnaire([
      section('a', [
        ask(
          name,
          {
            type: 'single',
            options: codes.map((code, n) => ({ code, label: `Answer ${n}`, specify: true })),
          },
          { text: 'Which is it?', comment: 'Remark' },
        ),
      ]),
    ]);
  const found = renumberingBetween(named('q', 1, 2), named('p', 1, 7));
  assert.ok(found !== null);
  assert.deepEqual(
    renumberAnswers(found, { q: 2, q_2_text: 'x', q_comment: 'y', 'q_1_text#2': 'z', other_comment: 'w' }),
    { p: 7, p_7_text: 'x', p_comment: 'y', 'p_1_text#2': 'z', other_comment: 'w' },
  );
});
